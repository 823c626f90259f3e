package org.youngtally.service.definitions;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import tools.jackson.databind.json.JsonMapper;

/** Writes series as YAML: each property on a line of its own, ranges a line each. */
final class DefinitionWriter {
    private DefinitionWriter() {}

    /** The properties in the order of the reference, each as it stands behind its colon; those with their default are left out. */
    static Map<String, String> values(SeriesDraft draft, String indent) {
        var values = new LinkedHashMap<String, String>();
        values.put("key", draft.key());
        if (!Objects.equals(draft.title(), draft.key())) values.put("title", text(draft.title()));
        if (!Objects.equals(draft.namespace(), draft.key())) values.put("namespace", draft.namespace());
        values.put("pattern", quoted(draft.pattern()));
        put(values, "locale", draft.locale());
        put(values, "fiscal-year-starts", draft.fiscalYearStarts());
        if (!draft.restarts().isEmpty()) values.put("restarts", draft.restarts().stream().collect(Collectors.joining(", ", "[", "]")));
        put(values, "longest", draft.longest());
        if (draft.symbols() != null) values.put("symbols", quoted(draft.symbols()));
        values.put("ranges", draft.ranges().stream().map(range -> "\n" + indent + "  - " + range(range)).collect(Collectors.joining()));
        return values;
    }

    private static void put(Map<String, String> values, String name, Object value) {
        if (value != null) values.put(name, value.toString());
    }

    /** A whole entry of a list of series. @param indent of its properties, two more than that of its hyphen */
    static String entry(SeriesDraft draft, String indent) {
        String lines = values(draft, indent).entrySet().stream().map(value -> line(value.getKey(), value.getValue())).collect(Collectors.joining("\n" + indent));
        return indent.substring(2) + "- " + lines + "\n";
    }

    static String line(String name, String value) { return name + (value.startsWith("\n") ? ":" : ": ") + value; }

    /** An entry on one line, as it stands in braces. */
    static String inBraces(SeriesDraft draft) {
        return values(draft, "").entrySet().stream().map(value -> value.getKey() + ": " + (value.getKey().equals("ranges") ? draft.ranges().stream().map(DefinitionWriter::range).collect(Collectors.joining(", ", "[", "]")) : value.getValue())).collect(Collectors.joining(", ", "{ ", " }"));
    }

    private static String range(RangeDraft range) {
        var values = new LinkedHashMap<String, Object>();
        values.put("first", range.first());
        values.put("last", range.last());
        if (range.step() != null && range.step() != 1) values.put("step", range.step());
        values.put("opens", range.opens());
        if (range.closes() != null) values.put("closes", range.closes());
        if (range.warnWhenLeft() != null) values.put("warn-when-left", range.warnWhenLeft());
        return values.entrySet().stream().map(value -> value.getKey() + ": " + value.getValue()).collect(Collectors.joining(", ", "{ ", " }"));
    }

    /** A text as it is where YAML reads it so, else in quotes. */
    private static String text(String text) { return text.matches("[\\p{L}][\\p{L}0-9 ._/-]*[\\p{L}0-9.]|[\\p{L}]") && !List.of("true", "false", "null", "yes", "no", "on", "off", "y", "n").contains(text.toLowerCase(Locale.ROOT)) ? text : quoted(text); }

    /** YAML reads JSON's quoted strings as they are. */
    private static String quoted(String text) { return JsonMapper.shared().writeValueAsString(text); }
}
