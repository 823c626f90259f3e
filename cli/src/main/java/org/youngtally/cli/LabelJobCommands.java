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
import java.util.stream.Collectors;
import org.youngtally.cli.LabelPrinterCommands.Destination;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Jobs of labels: printed, looked at, and what becomes of each label. */
final class LabelJobCommands {
    private LabelJobCommands() {}

    /** The key of a request, made where none is given. */
    static final class Key {
        @Option(
                names = "--key",
                paramLabel = "TOKEN",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key;

        String value() {
            if (key == null) key = UUID.randomUUID().toString();
            return key;
        }
    }

    /** Hands out what waits of a job, into a file that does not exist yet. */
    private static void send(Service service, Output output, long job, Path to, String key) throws IOException {
        try {
            service.download("/label-jobs/" + job + "/outputs", new JsonObject(), to, key);
        } catch (NewFiles.NotWritten e) {
            throw new IOException(
                    e.getMessage() + " The labels are sent already: youngtally label send " + job
                            + " --output FILE --key " + key + " hands out the same ones again.",
                    e);
        }
        output.note("written to " + to);
    }

    /** @return whether it is a printer */
    private static boolean needOne(Destination printer, Path to, CommandSpec spec) {
        if (printer.isNamed() && to != null)
            throw new ParameterException(
                    spec.commandLine(), "--printer and --output are named, and one is wanted. Leave one out.");
        return printer.isNamed();
    }

    private static void needNew(Path to, CommandSpec spec) {
        if (to != null && Files.exists(to))
            throw new ParameterException(spec.commandLine(), "--output: ‘" + to + "’ exists. Name a new file.");
    }

    @Command(
            name = "print",
            description =
                    "Print labels: allocates their numbers and keeps the job. With --printer they are printed, with --output written to a file; with neither they wait for youngtally label send.",
            mixinStandardHelpOptions = true)
    static final class Print implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Given given;

        @Mixin
        private LabelOptions labels;

        @Mixin
        private Key key;

        @Parameters(paramLabel = "LAYOUT", description = "The layout. List all with: youngtally label layouts")
        private String layout;

        @Option(names = "--output", paramLabel = "FILE", description = "Write them to this new .pdf file.")
        private Path to;

        @Mixin
        private Destination printer;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            needOne(printer, to, spec);
            needNew(to, spec);
            var body = new JsonObject();
            body.addProperty("layout", layout);
            given.write(body);
            labels.write(body, service);
            printer.write(body);
            Service.Answer answer = service.take("/label-jobs", body, key.value());
            long job = Json.number(answer.body().getAsJsonObject().getAsJsonObject("summary"), "job");
            if (printer.isNamed()) return printer.follow(service, output, job);
            if (to != null) {
                send(service, output, job, to, key.value() + "-output");
                answer = service.get("/label-jobs/" + job);
            }
            if (!output.asJson(answer)) Show.print(output, answer.body().getAsJsonObject());
            return Main.DONE;
        }
    }

    @Command(name = "list", description = "List jobs of labels, the newest first.", mixinStandardHelpOptions = true)
    static final class Listing implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only those of this series.")
        private String series;

        @Option(
                names = "--limit",
                paramLabel = "N",
                description = "How many, up to 200 (default: ${DEFAULT-VALUE}).",
                defaultValue = "20")
        private int limit;

        @Override
        public Integer call() {
            Service.Answer answer = service.get(
                    "/label-jobs?most=" + limit + (series == null ? "" : "&series=" + Service.escape(series)));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject job = each.getAsJsonObject();
                rows.add(List.of(
                        String.valueOf(Json.number(job, "job")),
                        Json.text(job, "at", "").substring(0, 16).replace('T', ' '),
                        Json.text(job, "by", ""),
                        Json.text(job, "layout", ""),
                        Json.text(job, "first", "") + " – " + Json.text(job, "last", ""),
                        Show.states(job)));
            }
            output.table(List.of("job", "at (UTC)", "by", "layout", "identifiers", "labels"), rows);
            return Main.DONE;
        }
    }

    @Command(
            name = "show",
            description = "Show a job of labels: which labels are in which state, and what was done with them.",
            mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "JOB", description = "The entry that began it.")
        private long job;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/label-jobs/" + job);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject view = answer.body().getAsJsonObject();
            print(output, view);
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : Json.list(view, "changes")) {
                JsonObject change = each.getAsJsonObject();
                rows.add(List.of(
                        String.valueOf(Json.number(change, "seq")),
                        Json.text(change, "at", "").substring(0, 16).replace('T', ' '),
                        Json.text(change, "by", ""),
                        range(change),
                        Json.text(change, "state", ""),
                        Json.text(change, "note", "")));
            }
            if (rows.isEmpty()) return Main.DONE;
            output.line("");
            output.table(List.of("entry", "at (UTC)", "by", "places", "became", "note"), rows);
            return Main.DONE;
        }

        static void print(Output output, JsonObject view) {
            JsonObject job = view.getAsJsonObject("summary");
            output.line("label job " + Json.number(job, "job") + ": " + Json.text(job, "layout", "") + ", "
                    + Output.counted(Json.number(job, "labels"), "label")
                    + (Json.number(job, "copies") == 1 ? "" : " in " + Json.number(job, "copies") + " copies each")
                    + ", " + Json.text(job, "first", "") + " to " + Json.text(job, "last", ""));
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : Json.list(view, "stretches")) {
                JsonObject stretch = each.getAsJsonObject();
                String first = Json.text(stretch, "first", "");
                String last = Json.text(stretch, "last", "");
                rows.add(List.of(
                        range(stretch),
                        Json.text(stretch, "state", "")
                                + (stretch.get("reprint").getAsBoolean() ? " (reprint)" : ""),
                        first.equals(last) ? first : first + " – " + last));
            }
            output.table(List.of("places", "state", "identifiers"), rows);
            if (view.get("more").getAsBoolean()) output.line("…");
        }

        private static String range(JsonObject of) {
            long from = Json.number(of, "from");
            long to = Json.number(of, "to");
            return from == to ? String.valueOf(from) : from + "-" + to;
        }

        static String states(JsonObject job) {
            return job.getAsJsonObject("states").entrySet().stream()
                    .map(state -> Output.grouped(state.getValue().getAsLong()) + " " + state.getKey())
                    .collect(Collectors.joining(", "));
        }
    }

    @Command(
            name = "send",
            description =
                    "Print the labels of a job that wait, or write them to a file, up to 20,000 at a time. They count as sent from then on, and are sent only once.",
            mixinStandardHelpOptions = true)
    static final class Send implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Key key;

        @Parameters(paramLabel = "JOB", description = "The entry that began it.")
        private long job;

        @Option(names = "--output", paramLabel = "FILE", description = "Write them to this new .pdf file.")
        private Path to;

        @Mixin
        private Destination printer;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            if (needOne(printer, to, spec)) {
                var body = new JsonObject();
                printer.write(body);
                service.post("/label-jobs/" + job + "/printing", body);
                return printer.follow(service, output, job);
            }
            if (to == null)
                throw new ParameterException(
                        spec.commandLine(), "Nowhere to send them. Add --printer ADDRESS or --output FILE.");
            needNew(to, spec);
            send(service, output, job, to, key.value());
            return Main.DONE;
        }
    }

    /** Which labels of a job, and why. */
    static final class Choice {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Key key;

        @Parameters(paramLabel = "JOB", description = "The entry that began it.")
        private long job;

        @Option(
                names = "--places",
                paramLabel = "PLACES",
                split = ",",
                description = "The labels at these places of the job, such as 5 or 121-140; several behind commas.")
        private List<String> places = new ArrayList<>();

        @Option(
                names = "--identifier",
                paramLabel = "IDENTIFIER",
                description = "All labels with this identifier whose state allows it. Repeatable.")
        private List<String> identifiers = new ArrayList<>();

        @Option(names = "--reason", paramLabel = "TEXT", description = "The reason.")
        private String reason;

        int change(String path, Boolean replace) {
            var body = new JsonObject();
            if (!places.isEmpty()) body.add("places", array(places));
            if (!identifiers.isEmpty()) body.add("identifiers", array(identifiers));
            if (reason != null) body.addProperty("reason", reason);
            if (replace != null) body.addProperty("replace", replace);
            Service.Answer answer = service.take("/label-jobs/" + job + "/" + path, body, key.value());
            if (!output.asJson(answer)) Show.print(output, answer.body().getAsJsonObject());
            return Main.DONE;
        }

        private static JsonArray array(List<String> texts) {
            var array = new JsonArray();
            texts.forEach(text -> array.add(text.strip()));
            return array;
        }
    }

    @Command(
            name = "confirm",
            description = "State that labels which were sent, or are unconfirmed, are printed.",
            mixinStandardHelpOptions = true)
    static final class Confirm implements Callable<Integer> {
        @Mixin
        private Choice choice;

        @Override
        public Integer call() {
            return choice.change("confirmations", null);
        }
    }

    @Command(
            name = "reprint",
            description =
                    "Print labels again with the same identifiers; what was sent or unconfirmed counts as spoiled then. Write them with youngtally label send.",
            mixinStandardHelpOptions = true)
    static final class Reprint implements Callable<Integer> {
        @Mixin
        private Choice choice;

        @Override
        public Integer call() {
            return choice.change("reprints", null);
        }
    }

    @Command(
            name = "spoil",
            description =
                    "State that labels are spoiled, with a reason. A number that no other label bears becomes void, and a label with a new one waits in its stead.",
            mixinStandardHelpOptions = true)
    static final class Spoil implements Callable<Integer> {
        @Mixin
        private Choice choice;

        @Option(names = "--no-replacement", description = "Print nothing in their stead.")
        private boolean none;

        @Override
        public Integer call() {
            return choice.change("spoilages", !none);
        }
    }

    @Command(
            name = "cancel",
            description =
                    "Cancel labels that were never sent; all of the job that wait, unless some are named. Their numbers are returned, or void where the series allows no returns.",
            mixinStandardHelpOptions = true)
    static final class Cancel implements Callable<Integer> {
        @Mixin
        private Choice choice;

        @Override
        public Integer call() {
            return choice.change("cancellations", null);
        }
    }
}
