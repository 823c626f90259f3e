package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.mark.FileMark;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "file",
        description =
                "Number a file on this machine: allocate its number, write it into the file where its format allows it (SVG, PDF, CSV, STEP, 3MF), and rename the file to its number. All or nothing.",
        mixinStandardHelpOptions = true)
final class FileCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Mixin
    private Given given;

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "FILE", description = "The file.")
    private Path file;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            required = true,
            description = "The kind of record that the file is.")
    private String kind;

    @Option(
            names = "--typed",
            paramLabel = "IDENTIFIER",
            description = "Its existing number, for a series that allows typed numbers.")
    private String typed;

    @Option(
            names = {"--into", "--column"},
            paramLabel = "PROPERTY",
            description =
                    "Where the number goes: the column of a CSV file (default: the name of the field that receives it); id, name or description of a STEP product (default: id); partnumber, name or an entry of the metadata of a 3MF file (default: partnumber).")
    private String into;

    @Option(names = "--dry-run", description = "Only show what would be done: nothing is allocated or written.")
    private boolean dryRun;

    @Override
    public Integer call() throws IOException {
        byte[] bytes = NewFiles.read(file);
        Optional<FileMark> usual;
        Map<String, String> properties;
        try {
            usual = mark("number");
            properties = usual.isEmpty() ? Map.of() : usual.get().properties(bytes);
            prove(bytes, usual);
        } catch (UnreadableDocument e) {
            throw new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ". Nothing was allocated.", e);
        }
        JsonObject body = body(properties);
        if (dryRun) return looked(bytes, usual, body);
        Service.Answer answer = kept(body);
        JsonObject kept = answer.body().getAsJsonObject();
        JsonObject record = kept.getAsJsonObject("record");
        Path target = target(Json.text(record, "identifier", ""));
        Optional<FileMark> mark;
        try {
            mark = mark(Json.text(record, "into", "number"));
            move(bytes, mark, record, target);
        } catch (IOException | UnreadableDocument | RuntimeException e) {
            throw new IOException(e.getMessage() + " " + undone(kept, record), e);
        }
        if (output.asJson(answer)) return Main.DONE;
        output.line(target.toString());
        output.note(Json.text(record, "identifier", "") + " is record " + Json.number(record, "record")
                + (kept.get("known").getAsBoolean() ? ", which already existed" : "")
                + place(mark, bytes, "the number was written to ", name(record)) + ".");
        return Main.DONE;
    }

    /** What is asked of the service: the fields of the record that nobody said are those of the file. */
    private JsonObject body(Map<String, String> properties) {
        var body = new JsonObject();
        body.addProperty("kind", kind);
        given.write(body);
        if (!body.has("unit")) body.addProperty("unit", onlyUnit());
        if (typed != null) body.addProperty("typed", typed);
        if (properties.isEmpty()) return body;
        JsonObject fields = body.has("fields") ? body.getAsJsonObject("fields") : new JsonObject();
        JsonObject known = service.get("/kinds/" + Service.escape(kind)).body().getAsJsonObject();
        for (JsonElement each : Json.list(known, "fields")) {
            JsonObject field = each.getAsJsonObject();
            String name = Json.text(field, "name", "");
            String there = properties.getOrDefault(name, "").strip();
            if (!field.get("filled").getAsBoolean() && !there.isEmpty() && !fields.has(name))
                fields.addProperty(name, there);
        }
        if (!fields.isEmpty()) body.add("fields", fields);
        return body;
    }

    /**
     * By which the service knows the same file again, where a run ended before the file was renamed: its content may
     * come again in another file, but not at the same moment in the same place of the disk.
     */
    private String key(JsonObject body) throws IOException {
        Map<String, Object> at = Files.getFileStore(file).supportsFileAttributeView("unix")
                ? Files.readAttributes(file, "unix:ino,dev,ctime,size")
                : Files.readAttributes(file, "creationTime,lastModifiedTime,size");
        String same = file.toRealPath() + "\n" + new TreeMap<>(at) + "\n" + body;
        return UUID.nameUUIDFromBytes(same.getBytes(StandardCharsets.UTF_8)).toString();
    }

    /**
     * Keeps the record. One that was kept for this file and was deleted, since the file could not be renamed, is not
     * its record any more, and its number may be somebody else's by now.
     */
    private Service.Answer kept(JsonObject body) throws IOException {
        String key = key(body);
        for (int again = 1; ; again++) {
            Service.Answer answer = service.take("/records", body, again == 1 ? key : key + "-" + again);
            long record = Json.number(answer.body().getAsJsonObject().getAsJsonObject("record"), "record");
            if (!isDeleted(record)) return answer;
        }
    }

    private boolean isDeleted(long record) {
        try {
            return service.get("/records/" + record)
                    .body()
                    .getAsJsonObject()
                    .getAsJsonObject("record")
                    .get("deleted")
                    .getAsBoolean();
        } catch (Refused e) {
            // Who may keep records and not read them can delete none either.
            return false;
        }
    }

    private Path target(String identifier) {
        return file.resolveSibling(KeptRecord.fileName(identifier, "", ending()));
    }

    /** Shows what would be done. */
    private int looked(byte[] bytes, Optional<FileMark> mark, JsonObject body) {
        Service.Answer answer = service.post("/record-previews", body);
        if (output.asJson(answer)) return Main.DONE;
        JsonObject preview = answer.body().getAsJsonObject();
        for (JsonElement each : Json.list(preview, "remarks")) {
            JsonObject remark = each.getAsJsonObject();
            output.line(Json.text(remark, "problem", "") + " Accepted: " + Json.text(remark, "accepted", "") + ".");
        }
        boolean known = preview.has("known") && !preview.get("known").isJsonNull();
        String expected = known
                ? Json.text(preview.getAsJsonObject("known"), "identifier", "")
                : Json.text(preview, "expected", "");
        if (!expected.isEmpty()) {
            output.line(file.getFileName() + " → " + target(expected).getFileName());
            output.line((known ? "the number of the existing record: " : "number, expected: ")
                    + expected
                    + place(mark, bytes, "it would be written to ", name(body)));
        }
        output.note("Dry run: nothing was allocated or changed.");
        return Main.DONE;
    }

    private static Optional<String> name(JsonObject said) {
        JsonObject fields = said.has("fields")
                ? said.getAsJsonObject("fields")
                : Json.list(said, "units").isEmpty()
                        ? new JsonObject()
                        : Json.list(said, "units").get(0).getAsJsonObject().getAsJsonObject("fields");
        return Optional.ofNullable(Json.text(fields, "name", null));
    }

    /** Where the number goes in the file, what was there, and its name where that is another, in words. */
    private String place(Optional<FileMark> mark, byte[] bytes, String written, Optional<String> name) {
        if (mark.isEmpty()) return "; in this format only the file name has the number";
        String where = "; " + written + mark.get().place();
        if (!mark.get().isShared()) return where;
        try {
            String named = mark.get().properties(bytes).getOrDefault("name", "");
            return where
                    + mark.get()
                            .borne(bytes)
                            .map(text -> " in place of ‘" + text + "’")
                            .orElse("")
                    + name.filter(text -> !text.equals(named) && !"name".equals(into))
                            .map(text -> ", ‘" + text + "’ to its name")
                            .orElse("");
        } catch (UnreadableDocument e) {
            throw new IllegalStateException("the file was read before", e);
        }
    }

    private String ending() {
        String name = file.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return dot < 1 ? "" : name.substring(dot + 1);
    }

    private Optional<FileMark> mark(String column) throws UnreadableDocument {
        return FileMark.of(file.getFileName().toString(), Optional.ofNullable(into), column);
    }

    /** That the file can bear a number, before one is taken. */
    private void prove(byte[] bytes, Optional<FileMark> mark) throws UnreadableDocument {
        if (mark.isEmpty()) return;
        Optional<String> borne = mark.get().borne(bytes);
        if (borne.isPresent() && typed == null && (!mark.get().isShared() || isIssued(borne.get())))
            throw new UnreadableDocument(
                    "The file already has the number ‘" + borne.get() + "’", "a file without a number");
        mark.get().marked(bytes, "X", Optional.of("X"));
    }

    /** Whether a text is a number that this service issued. */
    private boolean isIssued(String text) {
        try {
            service.get("/identifiers?text=" + Service.escape(text));
            return true;
        } catch (Refused e) {
            if (e.is("unknown-identifier")) return false;
            throw e;
        }
    }

    /** The unit whose route serves all the others, where a kind has one route alone. */
    private String onlyUnit() {
        var units = new TreeSet<String>();
        for (JsonElement route : service.get("/routes").body().getAsJsonArray())
            if (Json.text(route.getAsJsonObject(), "kind", "").equals(kind))
                units.add(Json.text(route.getAsJsonObject(), "unit", ""));
        if (units.size() == 1) return units.first();
        throw new ParameterException(
                spec.commandLine(),
                units.isEmpty()
                        ? "You may see no route for records of the kind ‘" + kind
                                + "’. List routes with: youngtally routes list"
                        : "Records of the kind ‘" + kind + "’ have routes in several units: " + String.join(", ", units)
                                + ". Choose one with --unit.");
    }

    private void move(byte[] bytes, Optional<FileMark> mark, JsonObject record, Path target)
            throws IOException, UnreadableDocument {
        byte[] marked =
                mark.isEmpty() ? bytes : mark.get().marked(bytes, Json.text(record, "identifier", ""), name(record));
        // It is there already where a run ended before the original went.
        boolean there = Files.exists(target) && Arrays.equals(Files.readAllBytes(target), marked);
        if (!there) NewFiles.write(target, marked);
        try {
            Files.delete(file);
        } catch (IOException e) {
            if (!there) Files.delete(target);
            throw new IOException("The file " + file + " cannot be renamed (" + e.getMessage() + ").", e);
        }
    }

    /**
     * Takes back what was kept.
     *
     * @return what became of it, in words
     */
    private String undone(JsonObject kept, JsonObject record) {
        String number = Json.text(record, "identifier", "");
        if (kept.get("known").getAsBoolean()) return "The record " + number + " existed before, and was kept.";
        var reason = new JsonObject();
        reason.addProperty("reason", "The file " + file.getFileName() + " could not be named after it");
        try {
            service.take(
                    "/records/" + Json.number(record, "record") + "/deletions",
                    reason,
                    UUID.randomUUID().toString());
            return "Everything was undone; " + number + " was returned or voided, as its kind and series define.";
        } catch (Refused | NotReachable e) {
            return "The number " + number + " could not be returned (" + e.getMessage() + "). Delete record "
                    + Json.number(record, "record") + ", or have it deleted.";
        }
    }
}
