package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "period",
        description = "Closed periods: no number can be dated inside them.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            PeriodCommand.Close.class,
            PeriodCommand.Reopen.class,
            PeriodCommand.All.class,
            PeriodCommand.Show.class
        })
final class PeriodCommand {

    @Command(
            name = "close",
            description = "Close a period of a series or of a namespace.",
            mixinStandardHelpOptions = true)
    static final class Close implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @ArgGroup(multiplicity = "1")
        private Scope scope;

        static final class Scope {
            @Option(names = "--series", paramLabel = "SERIES", description = "The series.")
            private String series;

            @Option(names = "--namespace", paramLabel = "NAMESPACE", description = "All series of this namespace.")
            private String namespace;
        }

        @Option(
                names = "--from",
                paramLabel = "DATE",
                description = "The first date, such as 2026-01-01.",
                required = true)
        private String from;

        @Option(names = "--to", paramLabel = "DATE", description = "The last date.", required = true)
        private String to;

        @Option(names = "--note", paramLabel = "TEXT", description = "A note for the statement.")
        private String note;

        @Option(
                names = "--key",
                paramLabel = "KEY",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key;

        @Override
        public Integer call() {
            var body = new JsonObject();
            if (scope.series != null) body.addProperty("series", scope.series);
            if (scope.namespace != null) body.addProperty("namespace", scope.namespace);
            body.addProperty("from", from);
            body.addProperty("to", to);
            if (note != null) body.addProperty("note", note);
            Service.Answer answer = service.take(
                    "/closings", body, key == null ? UUID.randomUUID().toString() : key);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject closed = answer.body().getAsJsonObject();
            long gone = Json.number(closed, "quantity");
            output.line("closed from " + from + " to " + to + ", entry " + Json.number(closed, "seq"));
            output.note(
                    (gone == 0 ? "" : gone + " returned " + (gone == 1 ? "number is" : "numbers are") + " now void. ")
                            + "Show the statement with: youngtally period show " + Json.number(closed, "seq"));
            return Main.DONE;
        }
    }

    @Command(name = "reopen", description = "Reopen a closed period, with a reason.", mixinStandardHelpOptions = true)
    static final class Reopen implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "CLOSING", description = "The number of the closing entry.")
        private long closing;

        @Option(names = "--reason", paramLabel = "TEXT", description = "The reason.")
        private String reason;

        @Override
        public Integer call() {
            var body = new JsonObject();
            if (reason != null) body.addProperty("reason", reason);
            Service.Answer answer = service.take(
                    "/closings/" + closing + "/reopenings",
                    body,
                    UUID.randomUUID().toString());
            if (!output.asJson(answer))
                output.line("reopened, entry " + Json.number(answer.body().getAsJsonObject(), "seq"));
            return Main.DONE;
        }
    }

    @Command(name = "list", description = "List all closed periods, the newest first.", mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/closings");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject closing = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(closing, "closing", ""),
                        Json.text(closing, "scope", "") + " " + Json.text(closing, "key", ""),
                        Json.text(closing, "from", ""),
                        Json.text(closing, "to", ""),
                        Json.count(closing, "issued"),
                        Json.count(closing, "voids"),
                        Json.text(closing, "by", ""),
                        closing.has("reopened") ? "reopened, entry " + Json.number(closing, "reopened") : "closed"));
            }
            if (rows.isEmpty()) output.note("No periods are closed.");
            else output.table(List.of(">CLOSING", "OF", "FROM", "TO", ">ISSUED", ">VOID", "BY", ""), rows);
            return Main.DONE;
        }
    }

    @Command(name = "show", description = "Show the statement of a closed period.", mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "CLOSING", description = "The number of the closing entry.")
        private long closing;

        @Option(names = "--pdf", paramLabel = "FILE", description = "Write it as a page for signatures.")
        private Path pdf;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            if (pdf != null) {
                write(service.bytes("/closings/" + closing + "/page"));
                output.note("Written to " + pdf + ".");
                return Main.DONE;
            }
            Service.Answer answer = service.get("/closings/" + closing);
            if (!output.asJson(answer)) print(answer.body().getAsJsonObject());
            return Main.DONE;
        }

        private void write(byte[] bytes) {
            try {
                Files.write(pdf, bytes);
            } catch (IOException e) {
                throw new ParameterException(spec.commandLine(), pdf + " cannot be written: " + e.getMessage(), e);
            }
        }

        private void print(JsonObject statement) {
            output.line("the " + Json.text(statement, "scope", "") + " " + Json.text(statement, "key", "") + " from "
                    + Json.text(statement, "from", "") + " to " + Json.text(statement, "to", "") + ", closed "
                    + Moment.of(Json.text(statement, "at", "")) + " by " + Json.text(statement, "by", ""));
            if (statement.has("note")) output.line("  note  " + Json.text(statement, "note", ""));
            output.line("  head  " + Json.text(statement, "head", ""));
            JsonObject reopened = statement.getAsJsonObject("reopened");
            if (reopened != null)
                output.line("  reopened in entry " + Json.number(reopened, "seq") + ", " + Json.text(reopened, "by", "")
                        + ": " + Json.text(reopened, "reason", ""));
            output.line("");
            var lanes = new ArrayList<List<String>>();
            for (JsonElement each : statement.getAsJsonArray("lanes")) {
                JsonObject lane = each.getAsJsonObject();
                lanes.add(List.of(
                        Json.text(lane, "series", ""),
                        Json.text(lane, "lane", ""),
                        Json.text(lane, "first", "—"),
                        Json.text(lane, "last", "—"),
                        Json.count(lane, "issued"),
                        Json.count(lane, "voids")));
            }
            output.table(List.of("SERIES", "LANE", "FIRST", "LAST", ">ISSUED", ">VOID"), lanes);
            voids("void: ", statement.getAsJsonArray("voids"));
            if (Json.number(statement, "issuedSince") > 0)
                output.line("issued since the closing: " + Json.count(statement, "issuedSince") + " numbers");
            voids("void since the closing: ", statement.getAsJsonArray("voidsSince"));
        }

        private void voids(String what, JsonArray voids) {
            for (JsonElement each : voids) {
                JsonObject gone = each.getAsJsonObject();
                String first = Json.text(gone, "first", "");
                String last = Json.text(gone, "last", "");
                output.line(what + (first.equals(last) ? first : first + " … " + last) + ", "
                        + Json.text(gone, "kind", "") + " by " + Json.text(gone, "by", "") + ", entry "
                        + Json.number(gone, "seq") + (gone.has("reason") ? ": " + Json.text(gone, "reason", "") : ""));
            }
        }
    }
}
