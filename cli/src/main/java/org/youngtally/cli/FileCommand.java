package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
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
                "Number a file on this machine: allocate its number, write it into the file where its format allows it (SVG, PDF, CSV), and rename the file to its number. All or nothing.",
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
            names = "--column",
            paramLabel = "NAME",
            description = "For a CSV file: the column of the number (default: the name of the field that receives it).")
    private String column;

    @Override
    public Integer call() throws IOException {
        byte[] bytes = NewFiles.read(file);
        String ending = ending();
        try {
            prove(bytes, ending);
        } catch (UnreadableDocument e) {
            throw new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ". Nothing was allocated.", e);
        }
        var body = new JsonObject();
        body.addProperty("kind", kind);
        given.write(body);
        if (!body.has("unit")) body.addProperty("unit", onlyUnit());
        if (typed != null) body.addProperty("typed", typed);
        Service.Answer answer = service.take("/records", body, UUID.randomUUID().toString());
        JsonObject kept = answer.body().getAsJsonObject();
        JsonObject record = kept.getAsJsonObject("record");
        Path target = file.resolveSibling(KeptRecord.fileName(Json.text(record, "identifier", ""), "", ending));
        try {
            move(bytes, ending, record, target);
        } catch (IOException | UnreadableDocument | RuntimeException e) {
            throw new IOException(e.getMessage() + " " + undone(kept, record), e);
        }
        if (output.asJson(answer)) return Main.DONE;
        output.line(target.toString());
        String place = mark(ending, record)
                .map(FileMark::place)
                .map(there -> "; the number was written to " + there)
                .orElse("; in this format only the file name has the number");
        output.note(Json.text(record, "identifier", "") + " is record " + Json.number(record, "record")
                + (kept.get("known").getAsBoolean() ? ", which already existed" : "") + place + ".");
        return Main.DONE;
    }

    private String ending() {
        String name = file.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return dot < 1 ? "" : name.substring(dot + 1);
    }

    private Optional<FileMark> mark(String ending, JsonObject record) {
        return FileMark.of(ending, column != null ? column : Json.text(record, "into", "number"));
    }

    /** That the file can bear a number, before one is taken. */
    private void prove(byte[] bytes, String ending) throws UnreadableDocument {
        Optional<FileMark> mark = mark(ending, new JsonObject());
        if (mark.isEmpty()) return;
        Optional<String> borne = mark.get().borne(bytes);
        if (borne.isPresent() && typed == null)
            throw new UnreadableDocument(
                    "The file already has the number ‘" + borne.get() + "’", "a file without a number");
        mark.get().marked(bytes, "X");
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

    private void move(byte[] bytes, String ending, JsonObject record, Path target)
            throws IOException, UnreadableDocument {
        Optional<FileMark> mark = mark(ending, record);
        byte[] marked = mark.isEmpty() ? bytes : mark.get().marked(bytes, Json.text(record, "identifier", ""));
        NewFiles.write(target, marked);
        try {
            Files.delete(file);
        } catch (IOException e) {
            Files.delete(target);
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
