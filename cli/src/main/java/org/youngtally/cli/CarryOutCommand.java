package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "carry-out",
        description =
                "Carry out a plan for a table: its numbers are recorded, the missing ones allocated, and the repaired table is written next to it. Repeat it after an interruption; it goes on where it was.",
        mixinStandardHelpOptions = true)
final class CarryOutCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "PLAN", description = "The plan, as ‘table plan’ wrote it.")
    private Path plan;

    @Option(
            names = "--file",
            paramLabel = "FILE",
            description = "The table (default: the file that the plan names, next to the plan).")
    private Path file;

    @Option(
            names = "--old-column",
            paramLabel = "NAME",
            description = "Add a column of this name with the old text of every row that changes (default: none).")
    private String oldColumn;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Why, kept in the ledger; required to close gaps.")
    private String reason;

    @Option(
            names = "--output",
            paramLabel = "FILE",
            description =
                    "The file for the repaired table (default: next to the table, with -repaired in its name). Existing files are never overwritten.")
    private Path to;

    @Override
    public Integer call() throws IOException {
        JsonObject head = PlanHead.read(plan, change -> false);
        Path table = file != null ? file : plan.resolveSibling(Json.text(head, "file", ""));
        if (!PlanHead.digest(table).equals(Json.text(head, "file-digest", "")))
            throw new IOException("The table " + table
                    + " changed since the plan was made. Plan again with: youngtally table plan " + table
                    + " --series " + Json.text(head, "series", ""));
        Path target = to != null ? to : NewFiles.beside(table, "-repaired", null);
        // What would be in the way is better known before numbers are allocated.
        if (Files.exists(target))
            throw new IOException(
                    "File " + target + " already exists. Name another with --output. Nothing was allocated.");
        Map<String, String> headers = service.exchange(
                "/series/" + Service.escape(Json.text(head, "series", "")) + "/table-repairs?" + query(head),
                table,
                target);
        output.line(target.toString());
        output.note("Plan of entry " + headers.getOrDefault("Plan", "?") + " carried out: "
                + Output.grouped(Json.number(head, "pre-existing")) + " recorded, "
                + Output.grouped(Json.number(head, "allocate") + Json.number(head, "renumber")) + " allocated, "
                + Output.grouped(Json.number(head, "correct")) + " corrected, "
                + Output.grouped(Json.number(head, "leave")) + " left alone.");
        return Main.DONE;
    }

    private Query query(JsonObject head) throws IOException {
        var query = new Query(Json.text(head, "file", ""))
                .with("column", Json.text(head, "column", null))
                .with("encoding", Json.text(head, "encoding", null))
                .with("dateColumn", Json.text(head, "date-column", null))
                .with("gaps", Json.text(head, "gaps", null))
                .with("duplicates", Json.text(head, "duplicates", null))
                .with("date", Json.text(head, "date", null))
                .with("plan", PlanHead.digest(plan))
                .with("standing", Json.text(head, "standing", null))
                .with("oldColumn", oldColumn)
                .with("reason", reason);
        if (head.has("field-columns"))
            head.getAsJsonObject("field-columns")
                    .entrySet()
                    .forEach(field -> query.with(
                            "field", field.getKey() + "=" + field.getValue().getAsString()));
        if (head.has("chosen"))
            for (JsonElement line : head.getAsJsonArray("chosen")) query.with("chosen", line.getAsString());
        return query;
    }
}
