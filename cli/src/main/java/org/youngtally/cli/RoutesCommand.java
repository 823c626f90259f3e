package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "routes",
        description = "The routes: which series is used for records of a kind in a unit.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            RoutesCommand.All.class,
            RoutesCommand.Grid.class,
            RoutesCommand.Why.class,
            RoutesCommand.Add.class,
            RoutesCommand.Remove.class
        })
final class RoutesCommand {
    @Command(name = "list", description = "List the routes.", mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only routes to this series.")
        private String series;

        @Override
        public Integer call() {
            Service.Answer answer =
                    service.get(series == null ? "/routes" : "/series/" + Service.escape(series) + "/routes");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject route = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(route, "kind", ""),
                        Json.text(route, "unit", ""),
                        Json.text(route, "condition", ""),
                        Json.text(route, "series", ""),
                        Json.text(route, "into", "")));
            }
            if (rows.isEmpty())
                output.note(
                        series == null
                                ? "No routes are defined. Define some with: youngtally apply FILE"
                                : "No route leads to " + series + ".");
            else output.table(List.of("KIND", "UNIT", "WHEN", "SERIES", "INTO"), rows);
            return Main.DONE;
        }
    }

    @Command(
            name = "grid",
            description =
                    "Show kinds by units: which series is used, by an own or inherited route, and missing routes.",
            mixinStandardHelpOptions = true)
    static final class Grid implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/route-grid");
            if (output.asJson(answer)) return Main.DONE;
            JsonObject grid = answer.body().getAsJsonObject();
            var headings = new ArrayList<>(List.of("KIND"));
            for (JsonElement unit : Json.list(grid, "units"))
                headings.add(Json.text(unit.getAsJsonObject(), "key", ""));
            var rows = new LinkedHashMap<String, List<String>>();
            int gaps = 0;
            for (JsonElement each : Json.list(grid, "cells")) {
                JsonObject cell = each.getAsJsonObject();
                String kind = Json.text(cell, "kind", "");
                rows.computeIfAbsent(kind, added -> new ArrayList<>(List.of(kind)))
                        .add(cell(cell));
                if (cell.get("gap").getAsBoolean()) gaps++;
            }
            output.table(headings, List.copyOf(rows.values()));
            output.note(
                    "In brackets: from a unit above. With a question mark: under a condition; the next one is used for all others."
                            + (gaps == 0
                                    ? ""
                                    : " " + gaps + (gaps == 1 ? " missing route" : " missing routes")
                                            + ". Add one with: youngtally routes add KIND UNIT SERIES"));
            return Main.DONE;
        }

        private static String cell(JsonObject cell) {
            var series = new ArrayList<String>();
            for (JsonElement each : Json.list(cell, "routes")) {
                JsonObject route = each.getAsJsonObject();
                String name = Json.text(route, "series", "") + (route.has("condition") ? "?" : "");
                series.add(Json.text(route, "unit", "").equals(Json.text(cell, "unit", "")) ? name : "(" + name + ")");
            }
            if (cell.get("hidden").getAsBoolean()) series.add("…");
            if (cell.get("gap").getAsBoolean()) series.add("— missing —");
            return String.join(" ", series);
        }
    }

    @Command(
            name = "why",
            description =
                    "Show which series a record would be numbered from, each route that was tried, and why it applies or not.",
            mixinStandardHelpOptions = true)
    static final class Why implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--kind", paramLabel = "KIND", required = true, description = "The kind of record.")
        private String kind;

        @Mixin
        private Given given;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            var asked = new JsonObject();
            given.write(asked);
            if (!asked.has("unit"))
                throw new ParameterException(spec.commandLine(), "Add --unit, the unit of the record.");
            var query = new StringBuilder("/routes/why?kind=" + Service.escape(kind) + "&unit="
                    + Service.escape(Json.text(asked, "unit", "")));
            if (asked.has("fields"))
                asked.getAsJsonObject("fields").entrySet().forEach(field -> query.append("&field=")
                        .append(Service.escape(
                                field.getKey() + "=" + field.getValue().getAsString())));
            Service.Answer answer = service.get(query.toString());
            JsonObject why = answer.body().getAsJsonObject();
            if (!output.asJson(answer)) print(why);
            return why.has("series") ? Main.DONE : Main.REFUSED;
        }

        private void print(JsonObject why) {
            for (JsonElement each : Json.list(why, "steps")) {
                JsonObject step = each.getAsJsonObject();
                output.line(Json.text(step, "unit", ""));
                if (Json.list(step, "tried").isEmpty()) output.line("  no route for " + Json.text(why, "kind", ""));
                for (JsonElement rule : Json.list(step, "tried")) output.line("  " + rule(rule.getAsJsonObject()));
            }
            output.line(
                    why.has("series")
                            ? "→ " + Json.text(why, "series", "") + ", into the field " + Json.text(why, "into", "")
                            : "→ no series: missing route. Add one with: youngtally routes add "
                                    + Json.text(why, "kind", "") + " " + Json.text(why, "unit", "") + " SERIES");
        }

        private static String rule(JsonObject rule) {
            String what = (rule.has("condition") ? "when " + Json.text(rule, "condition", "") : "always") + " → "
                    + Json.text(rule, "series", "");
            return what
                    + switch (Json.text(rule, "verdict", "")) {
                        case "chosen" -> ": serves";
                        case "condition-fails" ->
                            ": does not apply, the field " + Json.text(rule, "fails", "") + " has another value";
                        default -> ": not reached";
                    };
        }
    }

    /** A change of the routes of a kind in a unit. */
    abstract static class Change implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(index = "0", paramLabel = "KIND", description = "The kind of record.")
        private String kind;

        @Parameters(index = "1", paramLabel = "UNIT", description = "The unit; units below it inherit the route.")
        private String unit;

        String path() {
            return "/routes/" + Service.escape(kind) + "/" + Service.escape(unit);
        }
    }

    @Command(
            name = "add",
            description = "Define which series is used for a kind in a unit.",
            mixinStandardHelpOptions = true)
    static final class Add extends Change {
        @Parameters(index = "2", paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(
                names = "--when",
                paramLabel = "FIELD=VALUE",
                description =
                        "Only for records with this value in the field; several values separated by |, a range as FROM..TO. Repeatable.")
        private Map<String, String> when = new LinkedHashMap<>();

        @Option(
                names = "--into",
                paramLabel = "FIELD",
                description = "The field that receives the number (default: number).")
        private String into;

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("series", series);
            if (into != null) body.addProperty("into", into);
            var tests = new JsonObject();
            when.forEach((field, value) -> tests.add(field, test(value)));
            if (!when.isEmpty()) body.add("when", tests);
            Service.Answer answer = super.service.putNew(path(), body);
            if (!super.output.asJson(answer))
                super.output.note(Json.text(answer.body().getAsJsonObject(), "route", "") + " now uses the series "
                        + series + ".");
            return Main.DONE;
        }

        private static JsonObject test(String value) {
            var test = new JsonObject();
            int dots = value.indexOf("..");
            if (dots >= 0) {
                if (dots > 0) test.addProperty("from", value.substring(0, dots));
                if (dots + 2 < value.length()) test.addProperty("to", value.substring(dots + 2));
                return test;
            }
            var values = new JsonArray();
            for (String each : value.split("\\|")) values.add(each.strip());
            test.add("oneOf", values);
            return test;
        }
    }

    @Command(
            name = "remove",
            description = "Remove a route; numbers that were allocated by it do not change.",
            mixinStandardHelpOptions = true)
    static final class Remove extends Change {
        @Option(
                names = "--when",
                paramLabel = "CONDITION",
                description = "The condition as in routes list (default: the route without a condition).")
        private String when;

        @Override
        public Integer call() {
            Service.Answer answer =
                    super.service.delete(path() + (when == null ? "" : "?condition=" + Service.escape(when)), Map.of());
            if (!super.output.asJson(answer))
                super.output.note("The route of " + super.kind + " in " + super.unit
                        + (when == null ? "" : " when " + when) + " was removed.");
            return Main.DONE;
        }
    }
}
