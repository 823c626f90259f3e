package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** What was found in a table, as people read it. */
final class InspectionText {
    private static final int FIRST = 10;
    /** The most symbols that values are drawn with. */
    private static final int WIDEST = 30;

    private static final String LEVELS = " ▁▂▃▄▅▆▇█";
    private static final Map<String, String> DEVIATIONS = Map.of(
            "blank", "blanks",
            "case", "other case",
            "dash", "another dash",
            "look-alike", "a symbol that looks alike",
            "lost-zero", "leading zeros missing",
            "extra-zero", "too many leading zeros",
            "separator", "a separator missing, added or another",
            "check", "wrong or missing check digit");
    private static final Map<String, String> KINDS = Map.of(
            "spelling", "spelled in another way",
            "near", "near to a number",
            "exponent", "a figure with an exponent, made by a spreadsheet",
            "date", "a date",
            "formula", "a formula",
            "unreadable", "no number");
    private static final Set<String> WITH_REASON = Set.of("spelling", "near");

    private final Output output;
    private final boolean all;

    /** @param all whether everything is listed, or only the first of each */
    InspectionText(Output output, boolean all) {
        this.output = output;
        this.all = all;
    }

    void print(JsonObject answer) {
        for (JsonElement note : Json.list(answer, "notes")) output.note(note.getAsString());
        JsonArray inspections = Json.list(answer, "inspections");
        for (int i = 0; i < inspections.size(); i++) {
            if (i > 0) output.line("");
            column(inspections.get(i).getAsJsonObject());
        }
        JsonArray columns = Json.list(answer, "columns");
        if (columns.size() > 1 && inspections.size() == 1) likely(columns);
    }

    private void column(JsonObject found) {
        output.line("Column ‘" + Json.text(found, "column", "") + "’: "
                + Output.counted(Json.number(found, "rows"), "row") + ": "
                + Json.count(found, "read") + " with a number, "
                + Json.count(found, "blanks") + " blank, "
                + Json.count(found, "unread") + " with another text");
        lanes(found);
        gaps(found);
        duplicates(found);
        faults(found);
        tally("By year", found.getAsJsonObject("byYear"));
        tally("By letters in front", found.getAsJsonObject("byLetters"));
        for (Map.Entry<String, JsonElement> field :
                found.getAsJsonObject("byField").entrySet())
            tally("By field ‘" + field.getKey() + "’", field.getValue().getAsJsonObject());
        lastAsText(found);
    }

    private void lanes(JsonObject found) {
        List<JsonObject> lanes = objects(found, "lanes");
        if (lanes.isEmpty()) return;
        output.line("");
        boolean series = lanes.stream().anyMatch(lane -> !text(lane, "series").isEmpty());
        boolean named = lanes.stream().anyMatch(lane -> !text(lane, "lane").isEmpty());
        var headings = new ArrayList<String>();
        if (series) headings.addAll(List.of("series", ">range"));
        if (named) headings.add(series ? "lane" : "shape");
        headings.addAll(List.of(">numbers", "lowest", "highest", ">missing", "values"));
        output.table(
                headings,
                shown(lanes).stream().map(lane -> row(lane, series, named)).toList());
        more(lanes.size() + Json.number(found, "moreLanes"), lanes, "lanes");
    }

    private static List<String> row(JsonObject lane, boolean series, boolean named) {
        var row = new ArrayList<String>();
        if (series) {
            long range = Json.number(lane, "range");
            row.add(text(lane, "series"));
            row.add(range == 0 ? "none" : Long.toString(range));
        }
        if (named) row.add(text(lane, "lane"));
        row.add(Json.count(lane, "numbers"));
        row.add(text(lane.getAsJsonObject("lowest"), "text"));
        row.add(last(lane));
        row.add(Json.count(lane, "missing"));
        row.add(density(lane.getAsJsonArray("density")));
        return row;
    }

    /** How dense the values lie, from the lowest to the highest. */
    private static String density(JsonArray density) {
        int together = density.size() > WIDEST ? 2 : 1;
        long most = 1;
        var stretches = new long[(density.size() + together - 1) / together];
        for (int i = 0; i < density.size(); i++)
            most = Math.max(most, stretches[i / together] += density.get(i).getAsLong());
        var drawn = new StringBuilder("|");
        for (long stretch : stretches)
            drawn.append(LEVELS.charAt((int) ((stretch * (LEVELS.length() - 1) + most - 1) / most)));
        return drawn.append('|').toString();
    }

    private void gaps(JsonObject found) {
        var lines = new ArrayList<String>();
        long gaps = 0;
        for (JsonObject lane : objects(found, "lanes")) {
            for (JsonObject gap : objects(lane, "gaps")) {
                String from = text(gap, "from");
                String to = text(gap, "to");
                lines.add("  "
                        + (from.equals(to)
                                ? from
                                : from + " to " + to + "  (" + Output.counted(Json.number(gap, "numbers"), "number")
                                        + ")"));
            }
            gaps += objects(lane, "gaps").size() + Json.number(lane, "moreGaps");
        }
        section("Gaps", gaps, lines);
    }

    private void duplicates(JsonObject found) {
        var lines = new ArrayList<String>();
        for (JsonObject duplicate : objects(found, "listedDuplicates")) {
            String differing = texts(duplicate, "differing");
            long rows = Json.number(duplicate, "rows");
            int listed = Json.list(duplicate, "lines").size();
            lines.add("  " + text(duplicate, "text") + "  lines " + texts(duplicate, "lines")
                    + (rows > listed ? " and " + Output.grouped(rows - listed) + " more" : "")
                    + (differing.isEmpty() ? "; the rows are alike" : "; the rows differ in: " + differing));
        }
        section("Duplicates", Json.number(found, "duplicates"), lines);
    }

    private void faults(JsonObject found) {
        JsonObject byKind = found.getAsJsonObject("faultsByKind");
        long total = byKind.entrySet().stream()
                .mapToLong(kind -> kind.getValue().getAsLong())
                .sum();
        var lines = new ArrayList<String>();
        for (JsonObject fault : objects(found, "faults")) {
            String kind = text(fault, "kind");
            String meant = objects(fault, "meant").stream()
                    .map(each -> text(each, "identifier")
                            + (WITH_REASON.contains(kind) ? " (" + deviations(each) + ")" : ""))
                    .collect(Collectors.joining(" or "));
            lines.add("  line " + Json.count(fault, "line") + ": " + text(fault, "text")
                    + (meant.isEmpty() ? "  " + KINDS.get(kind) : "  → " + meant));
        }
        section("Texts with a fault", total, lines);
        if (byKind.size() > 1)
            output.line("  "
                    + byKind.entrySet().stream()
                            .map(kind -> Output.grouped(kind.getValue().getAsLong()) + " " + KINDS.get(kind.getKey()))
                            .collect(Collectors.joining("; ")));
    }

    private static String deviations(JsonObject meant) {
        return Json.list(meant, "deviations").asList().stream()
                .map(word -> DEVIATIONS.get(word.getAsString()))
                .collect(Collectors.joining(", "));
    }

    private void tally(String heading, JsonObject counts) {
        // One value alone says nothing.
        if (counts.size() < 2) return;
        section(
                heading,
                0,
                counts.entrySet().stream()
                        .map(count -> "  " + (count.getKey().isEmpty() ? "(none)" : count.getKey()) + "  "
                                + Output.grouped(count.getValue().getAsLong()))
                        .toList());
    }

    private void lastAsText(JsonObject found) {
        section(
                "The last number, sorted as text and by value",
                0,
                objects(found, "lanes").stream()
                        .filter(lane -> !last(lane).equals(text(lane, "lastAsText")))
                        .map(lane -> "  " + text(lane, "lastAsText") + "  " + last(lane))
                        .toList());
    }

    private static String last(JsonObject lane) {
        return text(lane.getAsJsonObject("highest"), "text");
    }

    private void likely(JsonArray columns) {
        output.line("\nColumns by how likely they hold the identifiers:");
        output.table(
                List.of("column", ">likely", ">filled", ">different", "shape"),
                objects(columns).stream()
                        .limit(all ? Long.MAX_VALUE : FIRST)
                        .map(column -> List.of(
                                text(column, "name"),
                                percent(column, "likely"),
                                percent(column, "filled"),
                                percent(column, "different"),
                                text(column, "shape")))
                        .toList());
    }

    private static String percent(JsonObject column, String share) {
        return Math.round(column.get(share).getAsDouble() * 100) + " %";
    }

    /** @param total how many there are, those that are not listed among them; 0 for as many as there are lines */
    private void section(String heading, long total, List<String> lines) {
        if (lines.isEmpty()) return;
        output.line("\n" + heading + (total == 0 ? ":" : ": " + Output.grouped(total)));
        shown(lines).forEach(output::line);
        more(total == 0 ? lines.size() : total, lines, "");
    }

    private <T> List<T> shown(List<T> list) {
        return all ? list : list.subList(0, Math.min(list.size(), FIRST));
    }

    private void more(long total, List<?> listed, String what) {
        long hidden = total - shown(listed).size();
        if (hidden > 0)
            output.line("  … and " + Output.grouped(hidden) + " more" + (what.isEmpty() ? "" : " " + what)
                    + (all || listed.size() <= FIRST ? "" : "; list them with --all"));
    }

    private static String text(JsonObject object, String name) {
        return Json.text(object, name, "");
    }

    private static String texts(JsonObject object, String name) {
        return Json.list(object, name).asList().stream()
                .map(JsonElement::getAsString)
                .collect(Collectors.joining(", "));
    }

    private static List<JsonObject> objects(JsonObject object, String name) {
        return objects(Json.list(object, name));
    }

    private static List<JsonObject> objects(JsonArray list) {
        return list.asList().stream().map(JsonElement::getAsJsonObject).toList();
    }
}
