package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import com.google.gson.stream.JsonReader;
import com.google.gson.stream.MalformedJsonException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.function.Predicate;

/** A plan for a table in its file, which may be large: what it says of itself, and its changes one by one. */
final class PlanHead {
    private PlanHead() {}

    /**
     * What a plan says of itself.
     *
     * @param changes gets the changes in their order, until it wants no more
     */
    static JsonObject read(Path plan, Predicate<JsonObject> changes) throws IOException {
        var head = new JsonObject();
        try (var json = new JsonReader(Files.newBufferedReader(plan))) {
            json.beginObject();
            while (json.hasNext()) {
                String name = json.nextName();
                if (!name.equals("changes")) {
                    head.add(name, JsonParser.parseReader(json));
                    continue;
                }
                json.beginArray();
                boolean wanted = true;
                while (wanted && json.hasNext())
                    wanted = changes.test(JsonParser.parseReader(json).getAsJsonObject());
                break;
            }
        } catch (NoSuchFileException e) {
            throw new IOException("File " + plan + " not found.", e);
        } catch (MalformedJsonException | JsonParseException | IllegalStateException e) {
            throw new IOException(plan + " is not a plan for a table.", e);
        }
        JsonElement version = head.get("plan");
        if (version == null || !version.isJsonPrimitive() || version.getAsInt() != 1 || !head.has("standing"))
            throw new IOException(
                    plan + " is not a plan for a table. Make one with: youngtally table plan FILE --series SERIES");
        return head;
    }

    /** SHA-256 of a file, in small hexadecimal digits. */
    static String digest(Path file) throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest)) {
                in.transferTo(OutputStream.nullOutputStream());
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        } catch (NoSuchFileException e) {
            throw new IOException("File " + file + " not found.", e);
        }
    }
}
