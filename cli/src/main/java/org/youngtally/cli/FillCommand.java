package org.youngtally.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "fill",
        description =
                "Fill the blank numbers of a table, from the top to the bottom: all of them or none. The table itself is left as it is; the filled one is written beside it.",
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
            description =
                    "The table, .csv or .xlsx; its first row names the columns, by the names or titles of the kind's fields.")
    private Path table;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            required = true,
            description = "The kind of record that each row is.")
    private String kind;

    @Option(names = "--unit", paramLabel = "CODE", required = true, description = "The unit that the rows are of.")
    private String unit;

    @Option(
            names = "--column",
            paramLabel = "NAME",
            description = "The column of the numbers (default: the one named as the field that they go into).")
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
                    "Where the filled table is written (default: beside it, with -numbered in its name). Never over another file.")
    private Path to;

    @Option(
            names = "--key",
            paramLabel = "TOKEN",
            description =
                    "A token for this request: repeated with it, the same table gets the same numbers (default: a new one).")
    private String key = UUID.randomUUID().toString();

    @Override
    public Integer call() throws IOException {
        byte[] bytes = NewFiles.read(table);
        Path target = to != null ? to : beside();
        // What would stand in the way is better known before numbers are taken.
        if (Files.exists(target))
            throw new IOException(
                    "There is a file " + target + " already; name another with --output. Nothing was taken.");
        String path = "/kinds/" + Service.escape(kind) + "/tables?unit=" + Service.escape(unit) + "&name="
                + Service.escape(table.getFileName().toString())
                + (column == null ? "" : "&column=" + Service.escape(column))
                + (date == null ? "" : "&date=" + Service.escape(date));
        Service.Sent sent;
        try (var bar = ProgressBar.of(
                service, "/tables/" + Service.escape(key), spec.commandLine().getErr())) {
            sent = service.send(path, bytes, key);
        }
        try {
            NewFiles.write(target, sent.bytes());
        } catch (IOException e) {
            throw new IOException(
                    e.getMessage() + " The numbers are taken; the same table with --key " + key
                            + " and another --output gets them again.",
                    e);
        }
        output.line(target.toString());
        output.note(sent.headers().getOrDefault("Filled", "0") + " filled, "
                + sent.headers().getOrDefault("Kept", "0") + " had a number already"
                + (!sent.headers().containsKey("Entry")
                        ? ""
                        : !sent.headers().containsKey("Last-Entry")
                                ? "; entry " + sent.headers().get("Entry")
                                : "; entries " + sent.headers().get("Entry") + " to "
                                        + sent.headers().get("Last-Entry"))
                + ".");
        return Main.DONE;
    }

    private Path beside() {
        String name = table.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return table.resolveSibling(
                dot < 0 ? name + "-numbered" : name.substring(0, dot) + "-numbered" + name.substring(dot));
    }
}
