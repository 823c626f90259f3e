package org.youngtally.service.definitions;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;

/** What differs between two versions of a series, property by property. */
public final class Differences {
    private Differences() {}

    /** @param was absent in a new property @param becomes absent in one that goes */
    public record Difference(String path, @Nullable String was, @Nullable String becomes) {}

    public static List<Difference> between(Series from, Series to) {
        Map<String, String> before = properties(from);
        Map<String, String> after = properties(to);
        var paths = new LinkedHashSet<>(after.keySet());
        paths.addAll(before.keySet());
        var differences = new ArrayList<Difference>();
        for (String path : paths) if (!Objects.equals(before.get(path), after.get(path))) differences.add(new Difference(path, before.get(path), after.get(path)));
        return differences;
    }

    private static Map<String, String> properties(Series series) {
        SeriesDraft draft = SeriesDraft.of(series);
        var properties = new LinkedHashMap<String, String>();
        properties.put("title", draft.title());
        properties.put("namespace", draft.namespace());
        properties.put("pattern", draft.pattern());
        if (!draft.restarts().isEmpty()) properties.put("restarts", String.join(", ", draft.restarts()));
        put(properties, "locale", draft.locale());
        put(properties, "fiscal-year-starts", draft.fiscalYearStarts());
        put(properties, "longest", draft.longest());
        put(properties, "symbols", draft.symbols());
        for (int i = 0; i < draft.ranges().size(); i++) {
            RangeDraft range = draft.ranges().get(i);
            // Ranges are matched by their lasting ids, so that one put in front of another does not look like a change of both.
            String prefix = "range " + series.ranges().get(i).id() + " ";
            put(properties, prefix + "first", range.first());
            put(properties, prefix + "last", range.last());
            put(properties, prefix + "step", range.step());
            put(properties, prefix + "opens", range.opens());
            put(properties, prefix + "closes", range.closes());
            put(properties, prefix + "warn-when-left", range.warnWhenLeft());
        }
        return properties;
    }

    private static void put(Map<String, String> properties, String path, Object value) {
        if (value != null) properties.put(path, value.toString());
    }
}
