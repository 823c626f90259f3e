package org.youngtally.cli;

import com.google.gson.Gson;
import com.google.gson.GsonBuilder;
import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.youngtally.documents.Content;

/**
 * What is needed to undo a numbering of files: their former bytes, what was in the place of each number, and the
 * numbers of a series. It is a file beside the first of them; of files that are numbered again and again it has every
 * numbering, the last one first.
 */
final class UndoRecord {
    private static final String ENDING = ".undo.json";
    private static final String ALLOCATIONS = "allocations";
    private static final Gson JSON =
            new GsonBuilder().disableHtmlEscaping().setPrettyPrinting().create();

    private final Path file;
    private final JsonObject record;

    private UndoRecord(Path file, JsonObject record) {
        this.file = file;
        this.record = record;
    }

    /**
     * A file that was written.
     *
     * @param was the file in whose place it is
     */
    private record Written(Path file, Path was, String before, String after, Optional<byte[]> former) {
        boolean isRenamed() {
            return !was.equals(file);
        }
    }

    /** Those of numberings of this file, as far as they are there. */
    private static List<Path> beside(Path written) throws IOException {
        var found = new ArrayList<Path>();
        for (int i = 1; Files.exists(name(written, i)); i++) found.add(name(written, i));
        return found;
    }

    private static Path name(Path written, int number) {
        return written.resolveSibling(written.getFileName() + (number == 1 ? "" : "-" + number) + ENDING);
    }

    /**
     * Of the numbering that left these files as they are.
     *
     * @param contents their digests
     */
    static Optional<UndoRecord> of(List<Path> files, List<String> contents) throws IOException {
        for (Path each : beside(files.getFirst())) {
            UndoRecord record = read(each);
            if (record.fits(files, contents)) return Optional.of(record);
        }
        return Optional.empty();
    }

    /**
     * A file that is numbered.
     *
     * @param source the original
     * @param before its digest
     * @param former its bytes, where the numbered file takes its place
     * @param target the numbered file
     * @param after its digest
     */
    record Numbered(Path source, String before, Optional<byte[]> former, Path target, String after) {}

    /** @param answer of the service that numbered the files */
    static UndoRecord of(List<Numbered> files, JsonObject answer) throws IOException {
        List<Path> targets = files.stream().map(Numbered::target).toList();
        List<String> before = files.stream().map(Numbered::before).toList();
        // A run that ended between its record and its files: the record has the numbers that it allocated.
        Optional<UndoRecord> interrupted =
                of(targets, files.stream().map(Numbered::after).toList()).filter(each -> each.began(before));
        if (interrupted.isPresent()) return interrupted.get();
        Optional<UndoRecord> earlier = of(files.stream().map(Numbered::source).toList(), before)
                .filter(each -> files.stream().allMatch(file -> file.former().isPresent()));
        // One of files that are otherwise now is left alone: it may still have numbers to return.
        Path file = earlier.isPresent()
                ? earlier.get().file
                : name(targets.getFirst(), beside(targets.getFirst()).size() + 1);
        var record = new JsonObject();
        record.addProperty("undo", 1);
        record.addProperty("key", UUID.randomUUID().toString());
        record.add(ALLOCATIONS, Json.list(answer, ALLOCATIONS));
        var list = new JsonArray();
        for (Numbered each : files) list.add(written(each, file));
        record.add("files", list);
        var originals = new JsonObject();
        earlier.ifPresent(each -> {
            record.add("earlier", each.record);
            each.originals().entrySet().forEach(old -> originals.add(old.getKey(), old.getValue()));
        });
        for (JsonElement each : Json.list(answer, "changes")) {
            JsonObject change = each.getAsJsonObject();
            String item = Json.text(change, "item", "");
            if (!change.has("number") || change.get("number").isJsonNull()) originals.remove(item);
            else if (!originals.has(item)) originals.addProperty(item, Json.text(change, "before", ""));
        }
        record.add("originals", originals);
        return new UndoRecord(file, record);
    }

    /** @param file that the record is to be */
    private static JsonObject written(Numbered numbered, Path file) {
        var written = new JsonObject();
        Path target = numbered.target();
        written.addProperty("name", target.getFileName().toString());
        Path folder = target.toAbsolutePath().getParent();
        if (!folder.equals(file.toAbsolutePath().getParent())) written.addProperty("folder", folder.toString());
        written.addProperty("after", numbered.after());
        numbered.former().ifPresent(bytes -> {
            written.addProperty("before", numbered.before());
            written.addProperty("former", Base64.getEncoder().encodeToString(bytes));
            if (!numbered.source().equals(target))
                written.addProperty("was", numbered.source().getFileName().toString());
        });
        return written;
    }

    static UndoRecord read(Path file) throws IOException {
        try {
            JsonObject record = JsonParser.parseString(new String(NewFiles.read(file), StandardCharsets.UTF_8))
                    .getAsJsonObject();
            if (Json.number(record, "undo") != 1 || !record.has("files"))
                throw new JsonParseException("it is something else");
            return new UndoRecord(file, record);
        } catch (JsonParseException | IllegalStateException | NumberFormatException | NullPointerException e) {
            throw new IOException(
                    "File " + file + " is no undo record. Name the file whose name ends in " + ENDING + ".", e);
        }
    }

    /** Whether these files, with these bytes, are what the last numbering left. */
    private boolean fits(List<Path> files, List<String> contents) {
        List<Written> written = written();
        if (written.size() != files.size()) return false;
        for (int i = 0; i < files.size(); i++)
            if (!written.get(i).file().getFileName().equals(files.get(i).getFileName())
                    || !written.get(i).after().equals(contents.get(i))) return false;
        return true;
    }

    /** Whether it restores these bytes; files that were written beside others are not restored. */
    private boolean began(List<String> before) {
        List<Written> written = written();
        for (int i = 0; i < written.size(); i++)
            if (written.get(i).former().isPresent() && !written.get(i).before().equals(before.get(i))) return false;
        return true;
    }

    /** What was in the place of each number, by the items. */
    JsonObject originals() {
        return record.getAsJsonObject("originals");
    }

    /** Numbers that were allocated from a series. */
    record Allocation(String series, List<String> identifiers) {}

    /** The numbers that were allocated, by the series. */
    List<Allocation> allocations() {
        var allocations = new ArrayList<Allocation>();
        // Records of an earlier release have those of one series.
        if (record.has("series")) allocations.add(allocation(record));
        for (JsonElement each : Json.list(record, ALLOCATIONS)) allocations.add(allocation(each.getAsJsonObject()));
        allocations.removeIf(each -> each.identifiers().isEmpty());
        return allocations;
    }

    private static Allocation allocation(JsonObject said) {
        return new Allocation(
                Json.text(said, "series", ""),
                Json.list(said, "identifiers").asList().stream()
                        .map(JsonElement::getAsString)
                        .toList());
    }

    /** All the numbers that were allocated. */
    List<String> identifiers() {
        return allocations().stream()
                .flatMap(each -> each.identifiers().stream())
                .toList();
    }

    /** By which the service knows a repetition of the undoing. */
    String key() {
        return Json.text(record, "key", "");
    }

    private List<Written> written() {
        var written = new ArrayList<Written>();
        for (JsonElement each : Json.list(record, "files")) {
            JsonObject one = each.getAsJsonObject();
            Path at = one.has("folder")
                    ? Path.of(Json.text(one, "folder", "")).resolve(Json.text(one, "name", ""))
                    : file.resolveSibling(Json.text(one, "name", ""));
            written.add(new Written(
                    at,
                    one.has("was") ? at.resolveSibling(Json.text(one, "was", "")) : at,
                    Json.text(one, "before", ""),
                    Json.text(one, "after", ""),
                    Optional.ofNullable(one.get("former"))
                            .map(former -> Base64.getDecoder().decode(former.getAsString()))));
        }
        return written;
    }

    Path file() {
        return file;
    }

    void save() throws IOException {
        replace(file, (JSON.toJson(record) + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** @throws IOException that names a file that is neither as it was written nor as it was before */
    void check() throws IOException {
        for (Written each : written()) {
            Optional<String> now = digest(each.file());
            boolean undone = each.former().isPresent()
                    ? digest(each.was()).equals(Optional.of(each.before())) && (!each.isRenamed() || now.isEmpty())
                    : now.isEmpty();
            if (!undone && !now.equals(Optional.of(each.after())))
                throw new IOException("File " + each.file() + " changed since it was numbered"
                        + (now.isEmpty() ? ": it is gone" : "") + ". It was not undone. Restore it from a backup.");
            if (!undone
                    && each.isRenamed()
                    && !digest(each.was())
                            .filter(there -> !there.equals(each.before()))
                            .isEmpty())
                throw new IOException("File " + each.was()
                        + " exists again, and is another one. Nothing was undone. Move it to another name.");
        }
    }

    /**
     * Restores the former bytes of each file; one that was written beside another goes.
     *
     * @return the files
     */
    List<Path> undo() throws IOException {
        var files = new ArrayList<Path>();
        for (Written each : written()) {
            if (each.former().isPresent()) replace(each.was(), each.former().get());
            if (each.former().isEmpty() || each.isRenamed()) Files.deleteIfExists(each.file());
            files.add(each.was());
        }
        if (record.has("earlier")) new UndoRecord(file, record.getAsJsonObject("earlier")).save();
        else Files.delete(file);
        return files;
    }

    private static Optional<String> digest(Path file) throws IOException {
        return Files.exists(file) ? Optional.of(digest(Content.of(file))) : Optional.empty();
    }

    /** SHA-256, in hexadecimal digits. */
    static String digest(Content content) throws IOException {
        try (InputStream in = content.open()) {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            var block = new byte[1 << 16];
            for (int count = in.read(block); count >= 0; count = in.read(block)) digest.update(block, 0, count);
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    private static void replace(Path file, byte[] bytes) throws IOException {
        NewFiles.into(NewFiles.fresh(file, out -> out.write(bytes)), file, true);
    }
}
