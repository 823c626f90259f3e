package org.youngtally.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.youngtally.core.guess.Guess;
import org.youngtally.core.guess.Proposal;
import org.youngtally.core.inspection.ColumnChoice;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.TableFile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "table",
        description =
                "Tables with numbers from before: what is in them, which definition explains them, and how they are repaired.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            TableCommand.Inspect.class,
            TableCommand.GuessDefinition.class,
            PlanCommand.class,
            CarryOutCommand.class,
            PlansCommand.class,
            AbandonCommand.class
        })
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

    @Command(
            name = "guess",
            description =
                    "Guess a definition from the numbers of a table and the columns next to them, on this machine, without the service. The answer is a definition file: check it, edit it, apply it.",
            mixinStandardHelpOptions = true)
    static final class GuessDefinition implements Callable<Integer> {
        private static final String KEY = "[a-z][a-z0-9-]{0,39}";

        @Spec
        private CommandSpec spec;

        @Parameters(
                paramLabel = "FILE",
                description = "The table: .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson. The first 10,000 rows are read.")
        private Path file;

        @Option(names = "--column", paramLabel = "NAME", required = true, description = "The column of the numbers.")
        private String column;

        @Option(
                names = "--key",
                paramLabel = "KEY",
                description = "The key of the series in the definition (default: the name of the column).")
        private String key;

        @Option(
                names = "--output",
                paramLabel = "FILE",
                description =
                        "The file for the definition (default: standard output). Existing files are never overwritten.")
        private Path to;

        @Option(
                names = "--encoding",
                paramLabel = "NAME",
                description =
                        "The encoding of a text file: utf-8, utf-16, utf-16le, utf-16be, windows-1252 or iso-8859-1 (default: found out).")
        private String encoding;

        @Override
        public Integer call() throws IOException {
            String named = key();
            NewFiles.size(file);
            List<Proposal> proposals;
            String title;
            try {
                TableFile table = TableFile.open(file, file.getFileName().toString(), Optional.ofNullable(encoding));
                int at = column(table);
                title = table.columns().get(at);
                proposals = Guess.of(table.columns(), at, rows(table), LocalDate.now());
            } catch (UnreadableDocument e) {
                throw new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ".", e);
            }
            if (proposals.isEmpty())
                throw new IOException("No definition explains half of the numbers in ‘" + column
                        + "’. See what is there with: youngtally table inspect " + file);
            String text = new GuessedFile(named, title).of(proposals);
            if (to == null) spec.commandLine().getOut().print(text);
            else NewFiles.write(to, text.getBytes(StandardCharsets.UTF_8));
            spec.commandLine().getOut().flush();
            return Main.DONE;
        }

        private int column(TableFile table) throws UnreadableDocument {
            List<String> names = table.columns();
            for (int i = 0; i < names.size(); i++) if (names.get(i).equalsIgnoreCase(column.strip())) return i;
            throw new UnreadableDocument(
                    "Column ‘" + column + "’ not found",
                    "one of " + names.stream().filter(name -> !name.isEmpty()).collect(Collectors.joining(", ")));
        }

        private static List<Guess.Row> rows(TableFile table) throws IOException, UnreadableDocument {
            var rows = new ArrayList<Guess.Row>();
            table.read((line, cells) -> {
                rows.add(new Guess.Row(line, List.copyOf(cells)));
                return rows.size() < ColumnChoice.SAMPLE;
            });
            return rows;
        }

        private String key() {
            String named = key != null
                    ? key
                    : column.toLowerCase(Locale.ROOT)
                            .replaceAll("[^a-z0-9]+", "-")
                            .replaceAll("^[^a-z]+|-+$", "");
            if (key != null && !key.matches(KEY))
                throw new ParameterException(
                        spec.commandLine(),
                        "--key: ‘" + key
                                + "’ is not a key. Use up to 40 small letters, digits and hyphens, a letter first.");
            return named.matches(KEY) ? named : "guessed";
        }
    }
}
