package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "record",
        description = "Records, with their numbers.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            RecordCommand.New.class,
            RecordCommand.Search.class,
            RecordCommand.Show.class,
            RecordChanges.Edit.class,
            RecordChanges.Lines.class,
            RecordChanges.Fix.class,
            RecordChanges.Renumber.class,
            RecordChanges.Share.class,
            RecordChanges.Delete.class,
            RecordFiles.Attach.class,
            RecordFiles.Fetch.class,
            RecordFiles.Print.class
        })
final class RecordCommand {

    /** Which record: by an identifier, or by its internal number, which is never taken for one. */
    static final class Which {
        @Spec(Spec.Target.MIXEE)
        private CommandSpec spec;

        @Parameters(
                index = "0",
                arity = "0..1",
                paramLabel = "RECORD",
                description = "The current or an earlier identifier.")
        private String identifier;

        @Option(
                names = "--internal",
                paramLabel = "NUMBER",
                description = "The internal number instead of an identifier; record search shows it.")
        private Long internal;

        /** What stands behind the record on the line: the first of it, where the record is named by an option. */
        Optional<String> behind() {
            if (internal == null) return Optional.empty();
            Optional<String> behind = Optional.ofNullable(identifier);
            identifier = null;
            return behind;
        }

        /** The record as it stands. */
        JsonObject of(Service service) {
            if ((identifier == null) == (internal == null))
                throw new ParameterException(
                        spec.commandLine(),
                        identifier == null
                                ? "No record is named. Add its identifier, or --internal NUMBER."
                                : "The record is named twice. Use its identifier or --internal, not both.");
            return record(service, internal == null ? identified(service) : internal);
        }

        private static JsonObject record(Service service, long number) {
            return service.get("/records/" + number).body().getAsJsonObject().getAsJsonObject("record");
        }

        private long identified(Service service) {
            var records = new TreeMap<Long, String>();
            for (JsonElement each : found(service)) {
                JsonObject found = each.getAsJsonObject();
                if (found.has("record"))
                    records.put(
                            Json.number(found, "record"),
                            Json.text(found, "identifier", "") + " of " + Json.text(found, "series", ""));
            }
            if (records.size() == 1) return records.firstKey();
            if (records.isEmpty())
                throw refused("No record has the identifier ‘" + identifier + "’."
                        + (identifier.matches("[0-9]{1,18}")
                                ? " For the record with the internal number " + identifier + ", use --internal "
                                        + identifier + "."
                                : ""));
            throw refused("‘" + identifier + "’ is the identifier of " + records.size() + " records: "
                    + records.entrySet().stream()
                            .map(record -> record.getValue() + " (--internal " + record.getKey() + ")")
                            .collect(Collectors.joining(", "))
                    + ". Name one with --internal.");
        }

        private JsonArray found(Service service) {
            try {
                return service.get("/identifiers?text=" + Service.escape(identifier))
                        .body()
                        .getAsJsonArray();
            } catch (Refused refused) {
                if (refused.is("unknown-identifier")) return new JsonArray();
                throw refused;
            }
        }

        private static Refused refused(String detail) {
            var refusal = new JsonObject();
            refusal.addProperty("detail", detail);
            return new Refused(refusal);
        }
    }

    static String path(JsonObject record) {
        return "/records/" + Json.number(record, "record");
    }

    static List<String> units(JsonObject record) {
        var units = new ArrayList<String>();
        for (JsonElement unit : Json.list(record, "units")) units.add(Json.text(unit.getAsJsonObject(), "unit", ""));
        return units;
    }

    /** Prints a record: where it stands and what it holds there. */
    static void print(Output output, JsonObject record) {
        output.line(Json.text(record, "identifier", "") + "  " + Json.text(record, "kind", "") + ", record "
                + Json.number(record, "record") + ", version " + Json.number(record, "version")
                + (record.get("deleted").getAsBoolean() ? ", deleted" : "")
                + (record.get("fixed").getAsBoolean() ? ", lines frozen" : ""));
        for (JsonElement each : Json.list(record, "units")) {
            JsonObject standing = each.getAsJsonObject();
            output.line("  unit " + Json.text(standing, "unit", ""));
            int width = standing.getAsJsonObject("fields").keySet().stream()
                    .mapToInt(String::length)
                    .max()
                    .orElse(0);
            standing.getAsJsonObject("fields")
                    .entrySet()
                    .forEach(field -> output.line("    " + field.getKey()
                            + " ".repeat(width - field.getKey().length()) + "  "
                            + field.getValue().getAsString()));
        }
        for (JsonElement each : Json.list(record, "lines"))
            output.line("  line " + Json.number(each.getAsJsonObject(), "number")
                    + Json.fields(each.getAsJsonObject(), "  "));
        for (JsonElement each : Json.list(record, "files"))
            output.line("  file " + Json.number(each.getAsJsonObject(), "place") + "  "
                    + Json.text(each.getAsJsonObject(), "name", "") + ", "
                    + Output.grouped(Json.number(each.getAsJsonObject(), "size"))
                    + " bytes");
    }

    @Command(
            name = "new",
            description =
                    "Save a new record and allocate its number, both or neither; or find the record with the same identifying value.",
            mixinStandardHelpOptions = true)
    static final class New implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Spec
        private CommandSpec spec;

        @Mixin
        private Given given;

        @Option(names = "--kind", paramLabel = "KIND", required = true, description = "The kind of record.")
        private String kind;

        @Option(
                names = "--line",
                paramLabel = "NAME=VALUE;…",
                description = "A line: its fields, separated by semicolons. Repeatable, in order.")
        private List<String> lines = List.of();

        @Option(
                names = "--typed",
                paramLabel = "IDENTIFIER",
                description = "The number, for a series that allows typed numbers.")
        private String typed;

        @Option(
                names = "--date",
                paramLabel = "DATE",
                description = "The business date (default: that of the record, or today in the unit).")
        private String date;

        @Option(
                names = "--key",
                paramLabel = "KEY",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key = UUID.randomUUID().toString();

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("kind", kind);
            given.write(body);
            if (!lines.isEmpty()) body.add("lines", RecordChanges.lines(lines, spec));
            if (typed != null) body.addProperty("typed", typed);
            if (date != null) body.addProperty("date", date);
            Service.Answer answer = service.take("/records", body, key);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject kept = answer.body().getAsJsonObject();
            JsonObject record = kept.getAsJsonObject("record");
            output.line(Json.text(record, "identifier", ""));
            if (kept.get("known").getAsBoolean())
                output.note("This record already exists: record " + Json.number(record, "record") + ", units "
                        + String.join(", ", units(record)) + ". Nothing was allocated.");
            else
                output.note("Record " + Json.number(record, "record") + ", entry " + Json.number(kept, "seq")
                        + (kept.get("repeated").getAsBoolean() ? ", saved by the same request before." : "."));
            return Main.DONE;
        }
    }

    @Command(
            name = "search",
            description = "Search records by words of their texts, or by a current or earlier identifier.",
            mixinStandardHelpOptions = true)
    static final class Search implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(
                paramLabel = "TEXT",
                arity = "0..*",
                description =
                        "Words, such as of a name or a tax number; the last word may be incomplete. Or an identifier (default: all records).")
        private List<String> text = List.of();

        @Option(names = "--kind", paramLabel = "KIND", description = "Only of this kind.")
        private String kind;

        @Option(names = "--unit", paramLabel = "CODE", description = "Only in this unit.")
        private String unit;

        @Option(names = "--deleted", description = "Include deleted records.")
        private boolean deleted;

        @Option(
                names = "--limit",
                paramLabel = "N",
                description = "At most this many (default 50).",
                defaultValue = "50")
        private int limit;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/records?text=" + Service.escape(String.join(" ", text))
                    + (kind == null ? "" : "&kind=" + Service.escape(kind))
                    + (unit == null ? "" : "&unit=" + Service.escape(unit)) + "&deleted=" + deleted + "&limit="
                    + limit);
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject record = each.getAsJsonObject();
                rows.add(List.of(
                        String.valueOf(Json.number(record, "record")),
                        Json.text(record, "identifier", ""),
                        Json.text(record, "kind", ""),
                        what(record),
                        String.join(", ", units(record)),
                        record.get("deleted").getAsBoolean() ? "deleted" : ""));
            }
            if (rows.isEmpty()) output.note("No records found.");
            else output.table(List.of(">RECORD", "IDENTIFIER", "KIND", "WHAT", "IN", ""), rows);
            answer.next().ifPresent(next -> output.note("There are older records. Add words, or raise --limit."));
            return Main.DONE;
        }

        /** What people would call it: its name, or else the first text that is not its number. */
        private static String what(JsonObject record) {
            JsonObject fields =
                    Json.list(record, "units").get(0).getAsJsonObject().getAsJsonObject("fields");
            if (fields.has("name")) return fields.get("name").getAsString();
            return fields.entrySet().stream()
                    .filter(field -> !field.getKey().equals(Json.text(record, "into", "")))
                    .map(Map.Entry::getValue)
                    .map(JsonElement::getAsString)
                    .findFirst()
                    .orElse("");
        }
    }

    @Command(
            name = "show",
            description = "Show a record with its units, lines, files and history.",
            mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Which which;

        @Override
        public Integer call() {
            String path = path(which.of(service));
            Service.Answer answer = service.get(path);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject detail = answer.body().getAsJsonObject();
            print(output, detail.getAsJsonObject("record"));
            output.line("  number " + Json.text(detail, "state", "") + ", series "
                    + Json.text(detail.getAsJsonObject("record"), "series", ""));
            if (detail.has("instead"))
                output.note(
                        "The number was made of earlier values of the record. For a new number: youngtally record renumber");
            for (JsonElement each : service.get(path + "/versions").body().getAsJsonArray())
                history(each.getAsJsonObject());
            return Main.DONE;
        }

        private void history(JsonObject version) {
            String note = Json.text(version, "note", "");
            output.line("  " + Moment.of(Json.text(version, "at", "")) + "  " + Json.text(version, "act", "") + " by "
                    + Json.text(version, "by", "") + ", entry " + Json.number(version, "seq") + ": "
                    + Json.text(version, "identifier", "") + " in " + Json.text(version, "unit", "")
                    + (note.isEmpty() ? "" : ", " + note));
            if (Json.text(version, "act", "").equals("save")) return;
            for (JsonElement each : Json.list(version, "changes")) {
                JsonObject change = each.getAsJsonObject();
                output.line("      " + Json.text(change, "field", "") + " in " + Json.text(change, "unit", "") + ": "
                        + Json.text(change, "before", "nothing") + " → " + Json.text(change, "after", "nothing"));
            }
        }
    }
}
