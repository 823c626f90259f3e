package org.youngtally.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "table",
        description = "Tables with numbers from before: what is in them.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {TableCommand.Inspect.class})
final class TableCommand {

    @Command(
            name = "inspect",
            description =
                    "Inspect the numbers of a table: blanks, duplicates, gaps, the lowest and highest by value, and texts that are no numbers. Nothing is changed.",
            mixinStandardHelpOptions = true)
    static final class Inspect implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(
                paramLabel = "FILE",
                description =
                        "The table: .csv, .tsv or .txt up to 1 GB, .xlsx up to 50 MB, .jsonl or .ndjson. Its first row has the names of the columns.")
        private Path file;

        @Option(
                names = "--series",
                paramLabel = "SERIES",
                description = "The series whose numbers are in the table (default: none, the shape of the texts).")
        private String series;

        @Option(
                names = "--kind",
                paramLabel = "KIND",
                description = "Instead of a series, a kind of record: all series that its routes name.")
        private String kind;

        @Option(
                names = "--column",
                paramLabel = "NAME",
                description = "The column of the numbers; up to 5 of them (default: the likeliest one).")
        private List<String> columns = List.of();

        @Option(
                names = "--encoding",
                paramLabel = "NAME",
                description =
                        "The encoding of a text file: utf-8, utf-16, utf-16le, utf-16be, windows-1252 or iso-8859-1 (default: found out).")
        private String encoding;

        @Option(names = "--all", description = "List every fault, duplicate and gap of the answer, not only the first.")
        private boolean all;

        @Override
        public Integer call() throws IOException {
            var path = new StringBuilder("/table-inspections?name="
                    + Service.escape(file.getFileName().toString()));
            if (series != null) path.append("&series=").append(Service.escape(series));
            if (kind != null) path.append("&kind=").append(Service.escape(kind));
            for (String column : columns) path.append("&column=").append(Service.escape(column));
            if (encoding != null) path.append("&encoding=").append(Service.escape(encoding));
            Service.Answer answer = service.upload(path.toString(), file);
            if (!output.asJson(answer))
                new InspectionText(output, all).print(answer.body().getAsJsonObject());
            return Main.DONE;
        }
    }
}
