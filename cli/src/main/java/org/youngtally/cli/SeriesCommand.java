package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "series",
        description = "Series and their state.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            SeriesCommand.All.class,
            SeriesCommand.Show.class,
            SeriesCommand.Preview.class,
            ContinueCommand.class,
            ShippingCodesCommand.class,
            ForecastCommand.class
        })
final class SeriesCommand {
    /** How many are left, where that can be told. */
    private static String left(JsonObject series) {
        return series.has("left")
                ? Output.grouped(Json.number(series, "left"))
                : Json.text(series, "order", "").equals("repeating") ? "repeats" : "—";
    }

    /** The fields that a series takes. */
    private static List<String> names(JsonObject series) {
        var names = new ArrayList<String>();
        for (JsonElement each : series.getAsJsonArray("fields"))
            names.add(Json.text(each.getAsJsonObject(), "name", ""));
        return names;
    }

    private static String warnings(JsonObject series) {
        var words = new ArrayList<String>();
        for (JsonElement each : series.getAsJsonArray("warnings")) words.add(each.getAsString());
        return words.isEmpty() ? "" : "warning: " + String.join("; ", words);
    }

    /** The state of a series or a range in words. */
    private static String state(String state) {
        return switch (state) {
            case "serving" -> "active";
            case "closed" -> "no active range";
            default -> state;
        };
    }

    private static String policy(JsonObject policy) {
        var words = new ArrayList<String>();
        words.add(
                policy.get("chronological").getAsBoolean()
                        ? "chronological; returned numbers become void"
                        : policy.get("gaps").getAsBoolean()
                                ? "gaps allowed; returned numbers become void"
                                : "gap-free; returned numbers are issued next");
        if (!policy.get("returns").getAsBoolean()) words.add("issued numbers cannot be returned");
        if (!Json.text(policy, "typed", "").equals("refused"))
            words.add("typed numbers " + Json.text(policy, "typed", ""));
        return String.join("; ", words);
    }

    private static String query(String date) {
        return date == null ? "" : "date=" + Service.escape(date);
    }

    @Command(
            name = "list",
            description = "List series with their next and newest numbers, and how many are left.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(
                names = "--date",
                paramLabel = "DATE",
                description = "The business date (default: today, in the time zone of the service).")
        private String date;

        @Parameters(
                arity = "0..1",
                paramLabel = "TEXT",
                description = "Only series with this text in key, title, namespace or pattern.")
        private String text;

        @Option(names = "--retired", description = "Include retired series.")
        private boolean retired;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/series?retired=" + retired
                    + (text == null ? "" : "&text=" + Service.escape(text))
                    + (date == null ? "" : "&" + query(date)));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
            if (rows.isEmpty() && text != null) output.note("No series match ‘" + text + "’.");
            else if (rows.isEmpty()) output.note("No series are defined. Define some with: youngtally apply FILE");
            else output.table(List.of("SERIES", "NEXT", ">LEFT", "IN RANGE", "NEWEST", "ISSUED", ""), rows);
            return Main.DONE;
        }

        private static List<String> row(JsonObject series) {
            JsonArray next = series.getAsJsonArray("next");
            String coming = !next.isEmpty()
                    ? next.get(0).getAsString()
                    : series.getAsJsonArray("fields").isEmpty() ? "—" : "by " + String.join(", ", names(series));
            JsonObject newest = series.getAsJsonObject("newest");
            String state = Json.text(series, "state", "");
            return List.of(
                    Json.text(series, "key", ""),
                    coming,
                    left(series),
                    range(series),
                    newest == null ? "—" : Json.text(newest, "identifier", ""),
                    newest == null ? "—" : Moment.of(Json.text(newest, "at", "")),
                    series.get("retired").getAsBoolean()
                            ? "retired"
                            : !state.equals("serving") ? state(state) : warnings(series));
        }

        private static String range(JsonObject series) {
            for (JsonElement each : series.getAsJsonArray("ranges"))
                if (Json.text(each.getAsJsonObject(), "state", "").equals("serving"))
                    return Json.number(each.getAsJsonObject(), "first") + "…"
                            + Json.number(each.getAsJsonObject(), "last");
            return "—";
        }
    }

    @Command(
            name = "show",
            description =
                    "Show one series: its definition, ranges and lanes (independent counters, for example one a year).",
            mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Given given;

        @Parameters(paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(
                names = "--date",
                paramLabel = "DATE",
                description = "The business date (default: today, in the time zone of the service).")
        private String date;

        @Override
        public Integer call() {
            Service.Answer answer =
                    service.get("/series/" + Service.escape(series) + "?coming=3&" + query(date) + given.query());
            if (output.asJson(answer)) return Main.DONE;
            JsonObject shown = answer.body().getAsJsonObject();
            JsonArray restarts = shown.getAsJsonArray("restarts");
            output.line(Json.text(shown, "key", "") + " — " + Json.text(shown, "title", ""));
            shown.getAsJsonObject("about")
                    .entrySet()
                    .forEach(said -> output.line("  %-10s %s"
                            .formatted(said.getKey(), said.getValue().getAsString())));
            if (shown.get("retired").getAsBoolean()) output.line("  retired    yes: nothing is allocated");
            output.line("  pattern    " + Json.text(shown, "pattern", ""));
            output.line("  namespace  " + Json.text(shown, "namespace", ""));
            output.line("  restarts   " + restarts(restarts));
            for (JsonElement each : shown.getAsJsonArray("fields"))
                output.line("  field      " + field(each.getAsJsonObject()));
            output.line("  policy     " + policy(shown.getAsJsonObject("policy")));
            if (!Json.text(shown, "order", "").equals("in-turn"))
                output.line("  order      " + Json.text(shown, "order", ""));
            output.line("  next       " + next(shown)
                    + (shown.has("left")
                            ? " (" + Output.grouped(Json.number(shown, "left")) + " left for "
                                    + Json.text(shown, "date", "") + ")"
                            : ""));
            JsonObject newest = shown.getAsJsonObject("newest");
            if (newest != null)
                output.line("  newest     " + Json.text(newest, "identifier", "") + ", "
                        + Moment.of(Json.text(newest, "at", "")) + " by " + Json.text(newest, "by", ""));
            if (!shown.getAsJsonArray("warnings").isEmpty())
                output.line("  warning    " + warnings(shown).replace("warning: ", ""));
            output.line("");
            List<List<String>> rows = rows(shown);
            var headings = new ArrayList<>(List.of(
                    ">FIRST", ">LAST", ">STEP", "OPENS", "CLOSES", "STATE", "LANE", ">ISSUED", ">LEFT", "LAST DATE"));
            if (rows.stream().anyMatch(row -> !row.getLast().equals("0"))) headings.add(">SKIPPED");
            output.table(
                    headings,
                    rows.stream().map(row -> row.subList(0, headings.size())).toList());
            return Main.DONE;
        }

        private static String restarts(JsonArray restarts) {
            var words = new ArrayList<String>();
            for (JsonElement each : restarts)
                words.add("each " + each.getAsString().replace("field ", "").replace('-', ' '));
            return words.isEmpty() ? "never" : String.join(" and ", words);
        }

        private static String next(JsonObject shown) {
            var next = new ArrayList<String>();
            for (JsonElement each : shown.getAsJsonArray("next")) next.add(each.getAsString());
            if (next.isEmpty() && !shown.getAsJsonArray("fields").isEmpty())
                return "depends on " + String.join(", ", names(shown)) + ". Add --field NAME=VALUE";
            return next.isEmpty() ? "none" : String.join(", ", next) + " …";
        }

        private static String field(JsonObject field) {
            String from = field.get("units").getAsBoolean()
                    ? "a unit, by its key or code"
                    : field.has("codebook")
                            ? "a choice of the codebook " + Json.text(field, "codebook", "")
                            : field.has("within")
                                    ? "a choice within that of " + Json.text(field, "within", "")
                                    : Json.text(field, "takes", "");
            return Json.text(field, "name", "") + ": " + from;
        }

        private static List<List<String>> rows(JsonObject shown) {
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : shown.getAsJsonArray("ranges")) {
                JsonObject range = each.getAsJsonObject();
                List<String> head = List.of(
                        Json.text(range, "first", ""),
                        Json.text(range, "last", ""),
                        Json.text(range, "step", ""),
                        Json.text(range, "opens", ""),
                        Json.text(range, "closes", "—"),
                        Json.text(range, "state", "").replace("serving", "active"));
                JsonArray lanes = range.getAsJsonArray("lanes");
                if (lanes.isEmpty()) rows.add(joined(head, List.of("", "0", left(range, shown, "size"), "—", "0")));
                for (JsonElement lane : lanes)
                    rows.add(joined(
                            head,
                            List.of(
                                    Json.text(lane.getAsJsonObject(), "period", ""),
                                    Output.grouped(Json.number(lane.getAsJsonObject(), "given")),
                                    left(lane.getAsJsonObject(), shown, "left"),
                                    Json.text(lane.getAsJsonObject(), "latest", "—"),
                                    Output.grouped(Json.number(lane.getAsJsonObject(), "skipped")))));
            }
            return rows;
        }

        private static String left(JsonObject from, JsonObject shown, String name) {
            return Json.text(shown, "order", "").equals("repeating")
                    ? "repeats"
                    : from.has(name) ? Output.grouped(Json.number(from, name)) : "";
        }

        private static List<String> joined(List<String> a, List<String> b) {
            var all = new ArrayList<>(a);
            all.addAll(b);
            return all;
        }
    }

    @Command(
            name = "preview",
            description = "Preview the next identifiers of a series, without allocating them.",
            mixinStandardHelpOptions = true)
    static final class Preview implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Given given;

        @Parameters(paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(
                names = "--date",
                paramLabel = "DATE",
                description = "The business date (default: today, in the time zone of the service).")
        private String date;

        @Option(names = "--quantity", paramLabel = "N", description = "How many (default: 10).", defaultValue = "10")
        private int quantity;

        @Override
        public Integer call() {
            Service.Answer answer = service.get(
                    "/series/" + Service.escape(series) + "?coming=" + quantity + "&" + query(date) + given.query());
            if (output.asJson(answer)) return Main.DONE;
            JsonObject shown = answer.body().getAsJsonObject();
            for (JsonElement each : shown.getAsJsonArray("next")) output.line(each.getAsString());
            boolean unknown = shown.getAsJsonArray("next").isEmpty()
                    && !shown.getAsJsonArray("fields").isEmpty()
                    && given.fields().isEmpty();
            if (unknown)
                output.note("The next identifiers depend on " + String.join(", ", names(shown))
                        + ". Add each with --field NAME=VALUE.");
            else if (shown.getAsJsonArray("next").isEmpty())
                output.note("No numbers are left for " + Json.text(shown, "date", "") + ".");
            return Main.DONE;
        }
    }
}
