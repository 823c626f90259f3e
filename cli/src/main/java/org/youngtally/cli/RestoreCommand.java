package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
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
        name = "restore",
        description = {
            "Settle a ledger that may not be the newest. Restoring a backup is ‘restore BACKUP --data FOLDER’, on the service's machine."
        },
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {RestoreCommand.Show.class, RestoreCommand.State.class, RestoreCommand.Resume.class})
final class RestoreCommand {
    @Command(
            name = "show",
            description = "Show why no numbers are allocated, and what is to be stated of each series.",
            mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/rollback");
            if (output.asJson(answer)) return Main.DONE;
            JsonObject rollback = answer.body().getAsJsonObject();
            if (!rollback.get("possible").getAsBoolean()) {
                output.note("The ledger is the newest, as far as is known.");
                return Main.DONE;
            }
            output.line("It is not known whether this ledger is the newest: " + Json.text(rollback, "why", "") + ".");
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : rollback.getAsJsonArray("series")) rows(each.getAsJsonObject(), rows);
            output.table(List.of("SERIES", "STATED", "LANE", "LAST KNOWN", ">LEFT"), rows);
            return Main.DONE;
        }

        private static void rows(JsonObject series, List<List<String>> rows) {
            String stated = series.get("stated").getAsBoolean() ? "yes" : "no";
            JsonArray lanes = series.getAsJsonArray("lanes");
            if (lanes.isEmpty()) rows.add(List.of(Json.text(series, "series", ""), stated, "—", "—", "—"));
            for (JsonElement each : lanes) {
                JsonObject lane = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(series, "series", ""),
                        stated,
                        Json.text(lane, "lane", "").isEmpty()
                                ? "range " + Json.text(lane, "range", "")
                                : Json.text(lane, "lane", ""),
                        Json.text(lane, "last", "—"),
                        Output.grouped(Json.number(lane, "left"))));
            }
        }
    }

    @Command(
            name = "state",
            description = {
                "State the highest numbers of a series that are known outside.",
                "What lies between those of the ledger and these is in doubt: it is never issued again."
            },
            mixinStandardHelpOptions = true)
    static final class State implements Callable<Integer> {
        private static final int MOST_SHOWN = 20;

        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Spec
        private CommandSpec spec;

        @Parameters(paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(
                names = "--highest",
                paramLabel = "IDENTIFIER",
                description = "The highest number of a lane; the option is repeated for each lane.")
        private List<String> highest = List.of();

        @Option(
                names = "--table",
                paramLabel = "FILE",
                description = "A table of numbers in use: .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson.")
        private Path table;

        @Option(names = "--column", paramLabel = "NAME", description = "The column of the table with the numbers.")
        private String column;

        @Option(
                names = "--others-unchanged",
                description = "Nothing was issued in the lanes of which no number is named.")
        private boolean othersUnchanged;

        @Option(names = "--reason", paramLabel = "TEXT", description = "Where it is known from.", required = true)
        private String reason;

        @Option(names = "--dry-run", description = "Show what would be in doubt, and change nothing.")
        private boolean dryRun;

        @Option(
                names = "--key",
                paramLabel = "TOKEN",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key;

        @Override
        public Integer call() throws IOException {
            if (highest.isEmpty() && table == null && !othersUnchanged)
                throw new ParameterException(
                        spec.commandLine(),
                        "Name the highest number of each lane with --highest, a table with --table and --column, or --others-unchanged if nothing was issued.");
            if ((table == null) != (column == null))
                throw new ParameterException(spec.commandLine(), "--table and --column go together.");
            var body = new JsonObject();
            body.addProperty("series", series);
            var numbers = new JsonArray();
            for (String each : highest) numbers.add(each);
            if (table != null) for (String each : inTable()) numbers.add(each);
            body.add("highest", numbers);
            body.addProperty("othersUnchanged", othersUnchanged);
            body.addProperty("reason", reason);
            body.addProperty("dryRun", dryRun);
            Service.Answer answer = service.take(
                    "/rollback/statements",
                    body,
                    key == null ? UUID.randomUUID().toString() : key);
            if (!output.asJson(answer)) print(answer.body().getAsJsonObject());
            return Main.DONE;
        }

        private Set<String> inTable() throws IOException {
            NewFiles.size(table);
            try {
                TableFile file = TableFile.open(table, table.getFileName().toString(), Optional.empty());
                int at = file.columns().stream()
                        .map(String::toLowerCase)
                        .toList()
                        .indexOf(column.strip().toLowerCase());
                if (at < 0)
                    throw new UnreadableDocument(
                            "Column ‘" + column + "’ not found",
                            "one of "
                                    + file.columns().stream()
                                            .filter(name -> !name.isEmpty())
                                            .collect(Collectors.joining(", ")));
                var found = new LinkedHashSet<String>();
                file.read((line, cells) -> {
                    if (at < cells.size() && !cells.get(at).isBlank())
                        found.add(cells.get(at).strip());
                    return true;
                });
                return found;
            } catch (UnreadableDocument e) {
                throw new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ".", e);
            }
        }

        private void print(JsonObject statement) {
            long quantity = Json.number(statement, "quantity");
            boolean tried = !statement.has("seq") || statement.get("seq").isJsonNull();
            output.line(Output.counted(quantity, "number") + " of " + series
                    + (tried ? " would be in doubt" : quantity == 1 ? " is in doubt" : " are in doubt")
                    + (tried ? "" : ", entry " + Json.number(statement, "seq")));
            int shown = 0;
            for (JsonElement each : statement.getAsJsonArray("doubts")) {
                if (shown++ == MOST_SHOWN) {
                    output.line("  …");
                    break;
                }
                JsonObject run = each.getAsJsonObject();
                String first = Json.text(run, "first", "");
                String last = Json.text(run, "last", "");
                output.line("  " + first + (first.equals(last) ? "" : " … " + last));
            }
            if (!tried && statement.get("repeated").getAsBoolean()) output.note("The same request did this before.");
        }
    }

    @Command(
            name = "resume",
            description = "Allocate numbers again, once something is stated of every series.",
            mixinStandardHelpOptions = true)
    static final class Resume implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--reason", paramLabel = "TEXT", description = "The reason.", required = true)
        private String reason;

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("reason", reason);
            Service.Answer answer = service.take(
                    "/rollback/resumptions", body, UUID.randomUUID().toString());
            if (!output.asJson(answer))
                output.line("Numbers are allocated again, entry "
                        + Json.number(answer.body().getAsJsonObject(), "seq"));
            return Main.DONE;
        }
    }
}
