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
                "Number a file on this machine: take its number, write it into the file where its format has a place for one (SVG, PDF, CSV), and give the file its number as its name. All of it or nothing.",
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
            description = "The number that it has already, for a series whose numbers may be typed.")
    private String typed;

    @Option(
            names = "--column",
            paramLabel = "NAME",
            description =
                    "Of a CSV: the column that holds the number (default: the name of the field that it goes into).")
    private String column;

    @Override
    public Integer call() throws IOException {
        byte[] bytes = NewFiles.read(file);
        String ending = ending();
        try {
            prove(bytes, ending);
        } catch (UnreadableDocument e) {
            throw new IOException(e.getMessage() + "; " + e.accepted() + " would do. Nothing was taken.", e);
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
                .map(there -> "; the number stands in " + there)
                .orElse("; a file of this format has no place for the number but its name");
        output.note(Json.text(record, "identifier", "") + " is record " + Json.number(record, "record")
                + (kept.get("known").getAsBoolean() ? ", which there was already" : "") + place + ".");
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
                    "The file bears the number ‘" + borne.get() + "’ already", "a file without a number");
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
                        ? "No route that you may see numbers records of the kind ‘" + kind
                                + "’; look at: youngtally routes list"
                        : "Records of the kind ‘" + kind + "’ are numbered in " + String.join(", ", units)
                                + "; say which with --unit");
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
        if (kept.get("known").getAsBoolean()) return "The record " + number + " was there before, and stays.";
        var reason = new JsonObject();
        reason.addProperty("reason", "The file " + file.getFileName() + " could not be named after it");
        try {
            service.take(
                    "/records/" + Json.number(record, "record") + "/deletions",
                    reason,
                    UUID.randomUUID().toString());
            return "All is as before; " + number + " was given back or is void, as its kind and series have it.";
        } catch (Refused | NotReachable e) {
            return "The number " + number + " could not be taken back (" + e.getMessage() + "): delete record "
                    + Json.number(record, "record") + ", or have it deleted.";
        }
    }
}
