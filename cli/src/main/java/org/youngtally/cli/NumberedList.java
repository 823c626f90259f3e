package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFileAttributeView;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Table;

/** A list that others edit and that is kept numbered: its rows are known by a key. */
final class NumberedList {
    private final Service service;
    private final Output output;
    private final Path file;
    private final String name;
    private final String path;
    /** What was said before is not said again at every save. */
    private final Set<String> said = new HashSet<>();

    NumberedList(
            Service service,
            Output output,
            Path file,
            String kind,
            String unit,
            String keyColumn,
            String column,
            String list) {
        this.service = service;
        this.output = output;
        this.file = file;
        this.name = file.getFileName().toString();
        this.path = "/kinds/" + Service.escape(kind) + "/lists?"
                + new Query(name)
                        .with("list", list)
                        .with("unit", unit)
                        .with("keyColumn", keyColumn)
                        .with("column", column);
    }

    Path file() {
        return file;
    }

    /**
     * The list with the numbers of its new rows.
     *
     * @param bytes as it was read
     */
    byte[] numbered(byte[] bytes) throws IOException {
        JsonObject answer = service.upload(path, bytes).body().getAsJsonObject();
        Map<Integer, String> texts = new HashMap<>();
        for (JsonElement each : answer.getAsJsonArray("numbered")) {
            JsonObject row = each.getAsJsonObject();
            texts.put((int) Json.number(row, "line"), Json.text(row, "identifier", ""));
            output.line(row(row) + ": " + Json.text(row, "identifier", "")
                    + (row.get("known").getAsBoolean() ? ", as before" : ""));
        }
        for (JsonElement each : answer.getAsJsonArray("faults")) {
            JsonObject row = each.getAsJsonObject();
            once(row(row) + ": not numbered. " + Json.text(row, "problem", "").replaceFirst("[.]?$", "."));
        }
        for (JsonElement each : answer.getAsJsonArray("conflicts")) conflict(each.getAsJsonObject());
        for (JsonElement each : answer.getAsJsonArray("gone")) {
            JsonObject row = each.getAsJsonObject();
            once(name + ": the row " + Json.text(row, "key", "") + " is gone. Its number "
                    + Json.text(row, "identifier", "") + " stays its own.");
        }
        if (texts.isEmpty()) return bytes;
        try {
            Table table = Table.read(Table.Format.of(name), bytes);
            return table.filled(table.columns().indexOf(Json.text(answer, "column", "")), texts);
        } catch (UnreadableDocument e) {
            throw new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ".", e);
        }
    }

    private void conflict(JsonObject row) {
        String identifier = Json.text(row, "identifier", "");
        String other = Json.text(row, "otherKey", "");
        String own = Json.text(row, "own", "");
        once(row(row) + ": has the number " + identifier
                + (other.isEmpty() ? "" : ", which belongs to the row " + other)
                + (own.isEmpty() ? ". Remove it to get a number." : ". Its own number is " + own + "."));
    }

    private String row(JsonObject row) {
        String key = Json.text(row, "key", "");
        return name + ", line " + Json.number(row, "line") + (key.isEmpty() ? "" : " (" + key + ")");
    }

    private void once(String text) {
        if (said.add(text)) output.note(text);
    }

    /** What a file looks like: when it was saved, in milliseconds, and how large it is, in bytes. */
    record Stamp(long saved, long size) {
        private static Stamp of(Path file) throws IOException {
            BasicFileAttributes attributes = Files.readAttributes(file, BasicFileAttributes.class);
            return new Stamp(attributes.lastModifiedTime().toMillis(), attributes.size());
        }
    }

    Stamp stamp() throws IOException {
        return Stamp.of(file);
    }

    /**
     * Numbers the new rows in the list itself.
     *
     * @return what the file looks like once all its rows are numbered; absent where the list was changed meanwhile,
     *     whose change is not written over
     */
    Optional<Stamp> renew() throws IOException {
        Path real = file.toRealPath();
        Stamp read = Stamp.of(real);
        byte[] before = Files.readAllBytes(real);
        byte[] after = numbered(before);
        if (Arrays.equals(before, after)) return Optional.of(read);
        Path fresh = Files.createTempFile(real.getParent(), "." + name + "-", ".new");
        try {
            Files.write(fresh, after, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.DSYNC);
            PosixFileAttributeView rights = Files.getFileAttributeView(real, PosixFileAttributeView.class);
            if (rights != null)
                Files.setPosixFilePermissions(fresh, rights.readAttributes().permissions());
            Stamp written = Stamp.of(fresh);
            if (!Arrays.equals(before, Files.readAllBytes(real))) return Optional.empty();
            Files.move(fresh, real, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return Optional.of(written);
        } finally {
            Files.deleteIfExists(fresh);
        }
    }
}
