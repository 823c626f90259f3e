package org.youngtally.cli;

import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;

/** Tokens of earlier sign-ins, by service, in a file that its owner alone can read. */
final class SignIns {
    private SignIns() {}

    private static Path file() {
        return Surroundings.variable("XDG_CONFIG_HOME")
                .map(Path::of)
                .orElseGet(() -> Path.of(System.getProperty("user.home"), ".config"))
                .resolve("youngtally")
                .resolve("sign-ins.json");
    }

    static Optional<String> token(String service) {
        return kept(service).map(kept -> Json.text(kept, "token", ""));
    }

    /** What is kept of a sign-in: account, token and the token's number. */
    static Optional<JsonObject> kept(String service) {
        JsonObject all = all();
        return all.has(service) ? Optional.of(all.getAsJsonObject(service)) : Optional.empty();
    }

    private static JsonObject all() {
        Path file = file();
        if (!Files.exists(file)) return new JsonObject();
        try {
            return JsonParser.parseString(Files.readString(file)).getAsJsonObject();
        } catch (IOException | JsonParseException | IllegalStateException e) {
            throw new NotReachable(file + " cannot be read (" + e.getMessage() + "). Delete it and sign in again.", e);
        }
    }

    /** @param signIn what is to be kept; null for nothing */
    static void keep(String service, JsonObject signIn) {
        JsonObject all = all();
        if (signIn == null) all.remove(service);
        else all.add(service, signIn);
        Path file = file();
        try {
            Files.createDirectories(file.getParent());
            // Written beside the old one and put in its place, and for its owner alone before anything is in it.
            Path fresh = Files.createTempFile(file.getParent(), "sign-ins", ".json");
            Files.writeString(fresh, all.toString());
            Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new NotReachable(file + " cannot be written: " + e.getMessage(), e);
        }
    }
}
