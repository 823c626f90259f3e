package org.youngtally.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "plan",
        description =
                "Plan the repair of a table: right numbers are kept and recorded as pre-existing, blank rows and duplicates get numbers, misspelled numbers are corrected where no doubt is left, the rest is left alone. Nothing is changed; the plan is written to a file.",
        mixinStandardHelpOptions = true)
final class PlanCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(
            paramLabel = "FILE",
            description =
                    "The table: .csv, .tsv or .txt up to 1 GB, .xlsx up to 50 MB, .jsonl or .ndjson. Its first row has the names of the columns.")
    private Path file;

    @Option(names = "--series", paramLabel = "SERIES", required = true, description = "The series of the numbers.")
    private String series;

    @Option(
            names = "--column",
            paramLabel = "NAME",
            description = "The column of the numbers (default: the likeliest one).")
    private String column;

    @Option(
            names = "--gaps",
            paramLabel = "WORD",
            description =
                    "keep: gaps are allocated from now on, the lowest first. close: they become void, and numbering continues behind the highest number (default: ${DEFAULT-VALUE}).")
    private String gaps = "keep";

    @Option(
            names = "--duplicates",
            paramLabel = "WORD",
            description =
                    "The row that keeps a number that several rows have: first, or oldest by --date-column (default: ${DEFAULT-VALUE}).")
    private String duplicates = "first";

    @Option(
            names = "--choose",
            paramLabel = "LINE",
            description = "The line of a row that keeps its number, whatever --duplicates says; repeatable.")
    private List<Long> chosen = List.of();

    @Option(
            names = "--date-column",
            paramLabel = "NAME",
            description = "The column of the rows' dates, as 2026-03-02 (default: none).")
    private String dateColumn;

    @Option(
            names = "--field",
            paramLabel = "FIELD=NAME",
            description =
                    "The column of a field of the series; repeatable (default: the column with the field's name).")
    private List<String> fields = List.of();

    @Option(
            names = "--date",
            paramLabel = "DATE",
            description = "The business date of rows without a date (default: today).")
    private String date;

    @Option(
            names = "--encoding",
            paramLabel = "NAME",
            description =
                    "The encoding of a text file: utf-8, utf-16, utf-16le, utf-16be, windows-1252 or iso-8859-1 (default: found out).")
    private String encoding;

    @Option(
            names = "--output",
            paramLabel = "PLAN",
            description =
                    "The file for the plan (default: next to the table, with -plan.json behind its name). Existing files are never overwritten.")
    private Path to;

    @Option(names = "--all", description = "List every row that is changed, not only the first 40.")
    private boolean all;

    @Override
    public Integer call() throws IOException {
        Path target = to != null ? to : NewFiles.beside(file, "-plan", ".json");
        if (Files.exists(target))
            throw new IOException("File " + target + " already exists. Name another with --output.");
        var query = new Query(file.getFileName().toString())
                .with("column", column)
                .with("encoding", encoding)
                .with("dateColumn", dateColumn)
                .with("gaps", gaps)
                .with("duplicates", duplicates)
                .with("date", date);
        fields.forEach(field -> query.with("field", field));
        chosen.forEach(line -> query.with("chosen", String.valueOf(line)));
        service.exchange("/series/" + Service.escape(series) + "/table-plans?" + query, file, target);
        new PlanText(output, all ? Integer.MAX_VALUE : PlanText.FIRST).print(target);
        output.note("Plan: " + target + ". Carry it out with: youngtally table carry-out " + target);
        return Main.DONE;
    }
}
