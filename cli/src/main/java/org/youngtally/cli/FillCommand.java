package org.youngtally.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "fill",
        description =
                "Fill the blank numbers of a table from top to bottom: all of them or none. The table itself is not changed; the filled one is written next to it.",
        mixinStandardHelpOptions = true)
final class FillCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Spec
    private CommandSpec spec;

    @Parameters(
            paramLabel = "TABLE",
            arity = "1..*",
            description =
                    "The table, .csv or .xlsx; its first row has the names or titles of the kind's fields. Several with --watch.")
    private List<Path> tables;

    @Option(names = "--kind", paramLabel = "KIND", required = true, description = "The kind of record of the rows.")
    private String kind;

    @Option(names = "--unit", paramLabel = "CODE", required = true, description = "The unit of the rows.")
    private String unit;

    @Option(
            names = "--column",
            paramLabel = "NAME",
            description = "The column of the numbers (default: the one named like the field that receives them).")
    private String column;

    @Option(
            names = "--date",
            paramLabel = "DATE",
            description = "The business date (default: that of each row, or today in the unit).")
    private String date;

    @Option(
            names = "--output",
            paramLabel = "FILE",
            description =
                    "The file for the filled table (default: next to the table, with -numbered in its name). Existing files are never overwritten.")
    private Path to;

    @Option(
            names = "--key",
            paramLabel = "TOKEN",
            description =
                    "The idempotency key: a repeated request with the same key and table returns the same numbers (default: a new key).")
    private String key = UUID.randomUUID().toString();

    @Option(
            names = "--key-column",
            paramLabel = "NAME",
            description =
                    "The column by which rows are known: a row keeps its number whatever its place and its other cells. Required with --watch.")
    private String keyColumn;

    @Option(
            names = "--list",
            paramLabel = "NAME",
            description =
                    "Required with --key-column: the name of the list in the ledger. Keys are unique within it; of several tables each is NAME/FILE.")
    private String list;

    @Option(
            names = "--watch",
            description =
                    "Keep the tables numbered: whenever one is saved, number its new rows in the table itself, until stopped.")
    private boolean watch;

    @Option(names = "--dry-run", description = "Only check the table: nothing is allocated and nothing is written.")
    private boolean dryRun;

    @Override
    public Integer call() throws IOException, InterruptedException {
        if (watch || keyColumn != null) return keepNumbered();
        if (tables.size() > 1) throw new ParameterException(spec.commandLine(), "Several tables require --watch.");
        return fill(tables.getFirst());
    }

    private int keepNumbered() throws IOException, InterruptedException {
        if (keyColumn == null)
            throw new ParameterException(
                    spec.commandLine(), "--watch requires --key-column, the column by which rows are known.");
        if (dryRun || date != null)
            throw new ParameterException(
                    spec.commandLine(), "--dry-run and --date cannot be combined with --key-column.");
        if (list == null)
            throw new ParameterException(
                    spec.commandLine(),
                    "--key-column requires --list, the name of the list in the ledger: two lists must not share one.");
        if (tables.size() > 1 && !watch)
            throw new ParameterException(spec.commandLine(), "Several tables require --watch.");
        var lists = new ArrayList<NumberedList>();
        for (Path table : tables)
            lists.add(new NumberedList(
                    service,
                    output,
                    table,
                    kind,
                    unit,
                    keyColumn,
                    column,
                    tables.size() == 1 ? list : list + "/" + table.getFileName()));
        if (watch) return new ListWatch(lists, output).run();
        Path table = tables.getFirst();
        Path target = to != null ? to : NewFiles.beside(table, "-numbered", null);
        if (Files.exists(target))
            throw new IOException(
                    "File " + target + " already exists. Name another with --output. Nothing was allocated.");
        NewFiles.write(target, lists.getFirst().numbered(NewFiles.read(table)));
        output.line(target.toString());
        return Main.DONE;
    }

    private int fill(Path table) throws IOException {
        byte[] bytes = NewFiles.read(table);
        Path target = to != null ? to : NewFiles.beside(table, "-numbered", null);
        // What would be in the way is better known before numbers are taken.
        if (!dryRun && Files.exists(target))
            throw new IOException(
                    "File " + target + " already exists. Name another with --output. Nothing was allocated.");
        String path = "/kinds/" + Service.escape(kind) + "/tables?unit=" + Service.escape(unit) + "&name="
                + Service.escape(table.getFileName().toString())
                + (column == null ? "" : "&column=" + Service.escape(column))
                + (date == null ? "" : "&date=" + Service.escape(date))
                + (dryRun ? "&dryRun=true" : "");
        Service.Sent sent;
        try (var bar = ProgressBar.of(
                service,
                "/tables?key=" + Service.escape(key),
                spec.commandLine().getErr())) {
            sent = service.send(path, bytes, key);
        }
        if (dryRun) {
            output.note("Dry run: " + sent.headers().getOrDefault("Filled", "0") + " would be filled, "
                    + sent.headers().getOrDefault("Kept", "0")
                    + " already had a number. Nothing was allocated.");
            return Main.DONE;
        }
        try {
            NewFiles.write(target, sent.bytes());
        } catch (IOException e) {
            throw new IOException(
                    e.getMessage() + " The numbers are allocated. Repeat with --key " + key
                            + " and another --output to get them again.",
                    e);
        }
        output.line(target.toString());
        output.note(sent.headers().getOrDefault("Filled", "0") + " filled, "
                + sent.headers().getOrDefault("Kept", "0") + " already had a number"
                + (!sent.headers().containsKey("Entry")
                        ? ""
                        : !sent.headers().containsKey("Last-Entry")
                                ? "; entry " + sent.headers().get("Entry")
                                : "; entries " + sent.headers().get("Entry") + " to "
                                        + sent.headers().get("Last-Entry"))
                + ".");
        return Main.DONE;
    }
}
