package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.youngtally.cli.RecordCommand.Which;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Changes of records. */
final class RecordChanges {
    private RecordChanges() {}

    /** Lines as they are written: NAME=VALUE with semicolons between them. */
    static JsonArray lines(List<String> written, CommandSpec spec) {
        var lines = new JsonArray();
        for (String text : written) lines.add(line(text, spec));
        return lines;
    }

    private static JsonObject line(String text, CommandSpec spec) {
        var fields = new JsonObject();
        for (String field : text.split(";")) {
            int equals = field.indexOf('=');
            if (equals < 1)
                throw new ParameterException(
                        spec.commandLine(),
                        "‘" + field + "’ is not a field of a line. Write NAME=VALUE, separated by semicolons.");
            fields.addProperty(
                    field.substring(0, equals).strip(),
                    field.substring(equals + 1).strip());
        }
        var line = new JsonObject();
        line.add("fields", fields);
        return line;
    }

    /** What every change has. */
    abstract static class Change implements Callable<Integer> {
        @Mixin
        protected Service service;

        @Mixin
        protected Output output;

        @Mixin
        private Which which;

        @Spec
        protected CommandSpec spec;

        protected JsonObject record() {
            return which.of(service);
        }

        /** Shows what became of the record. */
        protected int changed(Service.Answer answer, String told) {
            if (output.asJson(answer)) return Main.DONE;
            JsonObject kept = answer.body().getAsJsonObject();
            RecordCommand.print(output, kept.getAsJsonObject("record"));
            output.note(kept.has("seq") ? told + ", entry " + Json.number(kept, "seq") + "." : "No changes.");
            return Main.DONE;
        }

        /** An act on a record, done once. */
        protected Service.Answer act(JsonObject record, String act, JsonObject body) {
            return service.take(
                    RecordCommand.path(record) + act, body, UUID.randomUUID().toString());
        }

        /** What the record holds in a unit; the only one where none is named. */
        protected JsonObject standing(JsonObject record, String unit) {
            JsonArray all = Json.list(record, "units");
            if (unit == null && all.size() == 1) return all.get(0).getAsJsonObject();
            for (JsonElement each : all)
                if (Json.text(each.getAsJsonObject(), "unit", "").equals(unit)) return each.getAsJsonObject();
            throw new ParameterException(
                    spec.commandLine(),
                    (unit == null ? "The record is in several units" : "The record is not in the unit ‘" + unit + "’")
                            + ". Choose one with --unit: " + String.join(", ", RecordCommand.units(record)));
        }

        /** Changes what a record holds, on the version that was looked at. */
        protected Service.Answer put(JsonObject record, JsonObject standing, JsonArray lines) {
            var body = new JsonObject();
            body.addProperty("unit", Json.text(standing, "unit", ""));
            body.add("fields", standing.getAsJsonObject("fields"));
            if (lines != null) body.add("lines", lines);
            return service.put(RecordCommand.path(record), body, "\"" + Json.number(record, "version") + "\"");
        }
    }

    @Command(
            name = "edit",
            description = "Change the fields of a record; its number stays.",
            mixinStandardHelpOptions = true)
    static final class Edit extends Change {
        @Option(
                names = "--field",
                paramLabel = "NAME=VALUE",
                required = true,
                description = "The new value of a field; NAME= empties it. Repeatable; other fields stay.")
        private Map<String, String> fields = new LinkedHashMap<>();

        @Option(
                names = "--unit",
                paramLabel = "CODE",
                description = "The unit to change, for a record in several units.")
        private String unit;

        @Override
        public Integer call() {
            JsonObject record = record();
            JsonObject standing = standing(record, unit);
            fields.forEach((name, value) -> standing.getAsJsonObject("fields").addProperty(name, value));
            return changed(put(record, standing, null), "Changed");
        }
    }

    @Command(
            name = "lines",
            description = "Add, remove or move lines of a document. Lines are renumbered, unless they are frozen.",
            mixinStandardHelpOptions = true)
    static final class Lines extends Change {
        @Option(
                names = "--add",
                paramLabel = "NAME=VALUE;…",
                description = "A new line at the end: its fields, separated by semicolons.")
        private List<String> added = List.of();

        @Option(names = "--remove", paramLabel = "N", description = "Remove the line with this number.")
        private List<Integer> gone = List.of();

        @Option(names = "--move", paramLabel = "N", description = "Move the line with this number; see --before.")
        private Integer moved;

        @Option(names = "--before", paramLabel = "N", description = "Move it before this line (default: to the end).")
        private Integer before;

        @Override
        public Integer call() {
            JsonObject record = record();
            var lines = new ArrayList<JsonObject>();
            for (JsonElement line : Json.list(record, "lines")) lines.add(line.getAsJsonObject());
            for (int number : gone) lines.remove(place(lines, number));
            if (moved != null) {
                JsonObject line = lines.remove(place(lines, moved));
                lines.add(before == null ? lines.size() : place(lines, before), line);
            }
            var wanted = new JsonArray();
            lines.forEach(wanted::add);
            RecordChanges.lines(added, spec).forEach(wanted::add);
            return changed(
                    put(record, standing(record, RecordCommand.units(record).getFirst()), wanted), "Changed");
        }

        private int place(List<JsonObject> lines, int number) {
            for (int i = 0; i < lines.size(); i++) if (Json.number(lines.get(i), "number") == number) return i;
            throw new ParameterException(spec.commandLine(), "Line " + number + " not found.");
        }
    }

    @Command(
            name = "freeze-lines",
            description = "Freeze the lines of a document: they keep their numbers from now on.",
            mixinStandardHelpOptions = true)
    static final class Fix extends Change {
        @Override
        public Integer call() {
            JsonObject record = record();
            var body = new JsonObject();
            body.addProperty("unit", RecordCommand.units(record).getFirst());
            return changed(act(record, "/fixings", body), "Lines frozen");
        }
    }

    @Command(
            name = "renumber",
            description =
                    "Renumber a record: it gets the number of a new record with its fields. The old number becomes void, and still finds the record.",
            mixinStandardHelpOptions = true)
    static final class Renumber extends Change {
        @Option(
                names = "--reason",
                paramLabel = "TEXT",
                required = true,
                description = "The reason, kept in the ledger.")
        private String reason;

        @Option(
                names = "--unit",
                paramLabel = "CODE",
                description = "The unit whose route is used, for a record in several units.")
        private String unit;

        @Option(
                names = "--typed",
                paramLabel = "IDENTIFIER",
                description = "The new number, for a series that allows typed numbers.")
        private String typed;

        @Override
        public Integer call() {
            JsonObject record = record();
            var body = new JsonObject();
            body.addProperty("unit", Json.text(standing(record, unit), "unit", ""));
            body.addProperty("reason", reason);
            if (typed != null) body.addProperty("typed", typed);
            return changed(act(record, "/renumberings", body), Json.text(record, "identifier", "") + " is void");
        }
    }

    @Command(
            name = "share",
            description = "Share a record with another unit, with the same number.",
            mixinStandardHelpOptions = true)
    static final class Share extends Change {
        @Mixin
        private Given given;

        @Override
        public Integer call() {
            var body = new JsonObject();
            given.write(body);
            if (!body.has("unit"))
                throw new ParameterException(
                        spec.commandLine(), "No unit is named. Add --unit, the unit to share the record with.");
            return changed(act(record(), "/units", body), "Shared");
        }
    }

    @Command(
            name = "delete",
            description =
                    "Delete a record in all units. Its number becomes void, or is returned where its kind and series say so.",
            mixinStandardHelpOptions = true)
    static final class Delete extends Change {
        @Option(
                names = "--reason",
                paramLabel = "TEXT",
                description = "The reason; optional where the number is returned.")
        private String reason;

        @Override
        public Integer call() {
            var body = new JsonObject();
            if (reason != null) body.addProperty("reason", reason);
            return changed(act(record(), "/deletions", body), "Deleted");
        }
    }
}
