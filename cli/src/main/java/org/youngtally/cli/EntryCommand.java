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
        name = "entry",
        description = "Entries of the ledger.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {EntryCommand.Page.class, EntryCommand.Show.class})
final class EntryCommand {

    @Command(name = "show", description = "Show one entry.", mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "ENTRY", description = "The number of the entry.")
        private long seq;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/entries?limit=1&before=" + (seq + 1));
            JsonArray found = answer.body().getAsJsonArray();
            if (found.isEmpty() || Json.number(found.get(0).getAsJsonObject(), "seq") != seq) {
                var refusal = new JsonObject();
                refusal.addProperty("detail", "Entry " + seq + " not found.");
                throw new Refused(refusal);
            }
            JsonObject entry = found.get(0).getAsJsonObject();
            if (output.asJson(answer)) return Main.DONE;
            entry.entrySet()
                    .forEach(each -> output.line("%-12s %s"
                            .formatted(
                                    each.getKey(),
                                    each.getValue().isJsonPrimitive()
                                            ? each.getValue().getAsString()
                                            : each.getValue().toString())));
            return Main.DONE;
        }
    }

    @Command(
            name = "list",
            description = "List entries from new to old, page by page.",
            mixinStandardHelpOptions = true)
    static final class Page implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only of this series.")
        private String series;

        @Option(
                names = "--before",
                paramLabel = "SEQUENCE",
                description = "Only entries before this one: the next page.")
        private Long before;

        @Option(names = "--limit", paramLabel = "N", description = "How many (default: 20).", defaultValue = "20")
        private int limit;

        @Override
        public Integer call() {
            Service.Answer answer =
                    service.get("/entries?limit=" + limit + (series == null ? "" : "&series=" + Service.escape(series))
                            + (before == null ? "" : "&before=" + before));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
            if (rows.isEmpty()) output.note("No entries.");
            else output.table(List.of(">ENTRY", "WHEN", "BY", "ACT", "SERIES", "DATE", "IDENTIFIERS", "FOR"), rows);
            if (answer.next().isPresent())
                output.note("Older entries: --before " + rows.getLast().getFirst());
            return Main.DONE;
        }

        private static List<String> row(JsonObject entry) {
            String first = Json.text(entry, "first", "");
            String last = Json.text(entry, "last", "");
            return List.of(
                    Json.text(entry, "seq", ""),
                    Moment.of(Json.text(entry, "at", "")),
                    Json.text(entry, "by", ""),
                    Json.text(entry, "act", ""),
                    series(entry),
                    Json.text(entry, "date", ""),
                    first.equals(last) ? first : first + " … " + last,
                    Json.text(
                            entry,
                            "reference",
                            Json.text(
                                    entry,
                                    "note",
                                    entry.has("kind") && entry.has("unit")
                                            ? Json.text(entry, "kind", "") + " in " + Json.text(entry, "unit", "")
                                            : "")));
        }

        private static String series(JsonObject entry) {
            JsonArray defined = entry.getAsJsonArray("defined");
            if (defined == null || defined.isEmpty()) return Json.text(entry, "series", "");
            return defined.get(0).getAsString() + (defined.size() == 1 ? "" : " and " + (defined.size() - 1) + " more");
        }
    }
}
