package org.youngtally.service.definitions;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;

/** What differs between two versions of a series, property by property. */
public final class Differences {
    private Differences() {}

    /**
     * @param was absent in a new property
     * @param becomes absent in one that goes
     */
    public record Difference(
            String path, @Nullable String was, @Nullable String becomes) {}

    public static List<Difference> between(Series from, Series to) {
        return between(properties(from), properties(to));
    }

    private static List<Difference> between(Map<String, String> before, Map<String, String> after) {
        var paths = new LinkedHashSet<>(after.keySet());
        paths.addAll(before.keySet());
        var differences = new ArrayList<Difference>();
        for (String path : paths)
            if (!Objects.equals(before.get(path), after.get(path)))
                differences.add(new Difference(path, before.get(path), after.get(path)));
        return differences;
    }

    /** What differs between two versions of a codebook, choice by choice. */
    public static List<Difference> between(Codebook from, Codebook to) {
        return between(properties(from), properties(to));
    }

    private static Map<String, String> properties(Codebook book) {
        var properties = new LinkedHashMap<String, String>();
        properties.put("title", book.title());
        choices("", book.choices(), properties);
        return properties;
    }

    private static void choices(String prefix, List<Choice> choices, Map<String, String> properties) {
        for (Choice choice : choices) {
            properties.put("code " + prefix + choice.code(), choice.name() + (choice.retired() ? " (retired)" : ""));
            choices(prefix + choice.code() + " ", choice.choices(), properties);
        }
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
        if (draft.fields() != null)
            for (FieldDraft field : draft.fields())
                properties.put(
                        "field " + field.name(),
                        field.codebook() != null
                                ? "codebook " + field.codebook()
                                : field.within() != null
                                        ? "within " + field.within()
                                        : series.field(field.name())
                                                .map(rule ->
                                                        "up to " + rule.longest() + " symbols of " + rule.symbols())
                                                .orElse(""));
        if (draft.skips() != null) {
            if (draft.skips().values() != null)
                properties.put("skips values", String.join(", ", draft.skips().values()));
            if (draft.skips().containing() != null)
                properties.put(
                        "skips containing", String.join(", ", draft.skips().containing()));
        }
        put(properties, "order", draft.order());
        put(properties, "longest", draft.longest());
        put(properties, "symbols", draft.symbols());
        if (!"refused".equals(draft.typed())) put(properties, "typed", draft.typed());
        put(properties, "gaps", draft.gaps());
        put(properties, "returns", draft.returns());
        put(properties, "chronological", draft.chronological());
        put(properties, "proof", draft.proof());
        for (int i = 0; i < draft.ranges().size(); i++) {
            RangeDraft range = draft.ranges().get(i);
            // Ranges are matched by their lasting ids, so that one put in front of another does not look like a change
            // of both.
            String prefix = "range " + series.ranges().get(i).id() + " ";
            put(properties, prefix + "first", range.first());
            put(properties, prefix + "last", range.last());
            put(properties, prefix + "step", range.step());
            put(properties, prefix + "opens", range.opens());
            put(properties, prefix + "closes", range.closes());
            put(properties, prefix + "warn-when-left", range.warnWhenLeft());
            put(properties, prefix + "warn-days-before", range.warnDaysBefore());
        }
        return properties;
    }

    private static void put(Map<String, String> properties, String path, Object value) {
        if (value != null) properties.put(path, value.toString());
    }
}
