package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** What a rule comes to in a document, for people. */
final class DocumentText {
    private static final int FIRST = 40;
    private static final String ALSO = "also";

    private DocumentText() {}

    /**
     * @param lines of programs that change
     * @param all whether all changes are listed, and not only the first
     */
    static void changes(Output output, JsonArray lines, JsonObject plan, boolean all) {
        if (!lines.isEmpty()) {
            lines(output, lines, all);
            return;
        }
        List<JsonElement> changes = Json.list(plan, "changes").asList();
        if (changes.isEmpty()) return;
        Set<String> further = new LinkedHashSet<>();
        for (JsonElement each : changes)
            if (each.getAsJsonObject().has(ALSO))
                further.addAll(each.getAsJsonObject().getAsJsonObject(ALSO).keySet());
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : changes) {
            JsonObject change = each.getAsJsonObject();
            if (!all && rows.size() == FIRST) break;
            String item = Json.text(change, "item", "");
            var row = new ArrayList<>(List.of(
                    Json.count(change, "sheet"),
                    item.substring(item.indexOf(':') + 1),
                    shown(Json.text(change, "before", "")),
                    shown(Json.text(change, "after", ""))));
            for (String name : further) row.add(shown(Json.text(change.getAsJsonObject(ALSO), name, "")));
            rows.add(row);
        }
        var headings = new ArrayList<>(List.of("SHEET", "ITEM", "OLD", "NEW"));
        for (String name : further) headings.add(name.toUpperCase(Locale.ROOT));
        output.table(headings, rows);
        more(output, changes.size() - rows.size(), "change");
    }

    private static void more(Output output, int more, String what) {
        if (more > 0) output.line("… and " + Output.counted(more, "further " + what) + "; --all lists them");
    }

    private static void lines(Output output, JsonArray lines, boolean all) {
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : lines) {
            JsonObject line = each.getAsJsonObject();
            if (!all && rows.size() == FIRST) break;
            rows.add(List.of(
                    Json.count(line, "sheet"),
                    String.valueOf(Json.number(line, "line")),
                    shown(Json.text(line, "before", "")),
                    shown(Json.text(line, "after", ""))));
        }
        output.table(List.of("SHEET", "LINE", "OLD", "NEW"), rows);
        more(output, lines.size() - rows.size(), "line");
    }

    /** The items of a document with their attributes. */
    static void items(Output output, JsonObject plan) {
        List<JsonElement> items = Json.list(plan, "items").asList();
        Set<String> names = new LinkedHashSet<>();
        Map<String, Integer> texts = new HashMap<>();
        for (JsonElement each : items) {
            JsonObject item = each.getAsJsonObject();
            item.getAsJsonObject("attributes").entrySet().stream()
                    .filter(one -> !one.getValue().getAsString().isBlank())
                    .forEach(one -> names.add(one.getKey()));
            texts.merge(Json.text(item, "text", "").strip(), 1, Integer::sum);
        }
        // What is the text of every item is shown once.
        names.removeIf(name -> items.stream().map(JsonElement::getAsJsonObject).allMatch(item -> Json.text(
                        item.getAsJsonObject("attributes"), name, "")
                .equals(Json.text(item, "text", ""))));
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : items) {
            JsonObject item = each.getAsJsonObject();
            String id = Json.text(item, "item", "");
            var row = new ArrayList<>(List.of(
                    Json.count(item, "sheet"), id.substring(id.indexOf(':') + 1), shown(Json.text(item, "text", ""))));
            for (String name : names) row.add(shown(Json.text(item.getAsJsonObject("attributes"), name, "")));
            rows.add(row);
        }
        var headings = new ArrayList<>(List.of("SHEET", "ITEM", "TEXT"));
        for (String name : names) headings.add(name.toUpperCase(Locale.ROOT));
        if (!rows.isEmpty()) output.table(headings, rows);
        int blank = texts.getOrDefault("", 0);
        texts.remove("");
        long shared = texts.values().stream().filter(count -> count > 1).count();
        output.note(Output.counted(items.size(), "item")
                + (blank == 0 ? "" : ", " + Output.grouped(blank) + " without a text")
                + (shared == 0 ? "" : ", " + Output.counted(shared, "text") + " at several items")
                + ".");
    }

    /** That numbers were allocated before; empty where none was. */
    static String known(JsonObject plan) {
        return Json.number(plan, "known") == 0
                ? ""
                : "; " + Output.counted(Json.number(plan, "known"), "number") + " allocated earlier for ‘"
                        + Json.text(plan, "document", "") + "’";
    }

    /** The entries that allocated numbers; empty for none. */
    static String entries(JsonObject done) {
        List<String> entries = Json.list(done, "allocations").asList().stream()
                .map(each -> String.valueOf(Json.number(each.getAsJsonObject(), "entry")))
                .toList();
        return entries.isEmpty()
                ? ""
                : "; " + (entries.size() == 1 ? "entry " : "entries ") + String.join(", ", entries);
    }

    private static String shown(String text) {
        return text.isBlank() ? "—" : text.strip().replaceAll("\\s+", " ");
    }

    static void groups(Output output, JsonObject plan) {
        var headings = new ArrayList<String>();
        for (JsonElement name : Json.list(plan, "restarts"))
            headings.add(name.getAsString().toUpperCase(Locale.ROOT));
        headings.addAll(List.of("ITEMS", "FIRST", "LAST"));
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : Json.list(plan, "groups")) {
            JsonObject group = each.getAsJsonObject();
            var row = new ArrayList<String>();
            for (JsonElement value : Json.list(group, "values")) row.add(shown(value.getAsString()));
            row.add(Json.count(group, "items"));
            row.add(shown(Json.text(group, "first", "")));
            row.add(shown(Json.text(group, "last", "")));
            rows.add(row);
        }
        if (!rows.isEmpty()) output.table(headings, rows);
    }

    /** One line that adds up. */
    static String sum(JsonObject plan, String done) {
        return Output.counted(Json.list(plan, "changes").size(), "item") + " " + done + ", "
                + Output.grouped(Json.number(plan, "unchanged")) + " unchanged"
                + (Json.number(plan, "filled") == 0
                        ? ""
                        : ", " + Output.counted(Json.number(plan, "filled"), "value") + " in their places");
    }
}
