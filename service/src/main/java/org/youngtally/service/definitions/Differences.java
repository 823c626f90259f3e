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
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Values;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SeriesProperty;
import org.youngtally.core.series.SkipsDraft;

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
        var properties = new LinkedHashMap<String, String>();
        for (SeriesProperty<?> property : SeriesProperties.ALL) put(property, series, properties);
        return properties;
    }

    private static <T> void put(SeriesProperty<T> property, Series series, Map<String, String> properties) {
        T value = property.of().apply(series);
        if (property == SeriesProperties.KEY || property.property().isUsual(value)) return;
        if (property == SeriesProperties.FIELDS)
            for (FieldRule rule : series.fields()) properties.put("field " + rule.name(), taken(rule));
        else if (property == SeriesProperties.RANGES)
            // Ranges are matched by their lasting ids, so that one put in front of another does not look like a change
            // of both.
            for (Range range : series.ranges())
                each("range " + range.id(), SeriesProperties.RANGE, RangeDraft.of(range), properties);
        else if (property == SeriesProperties.SKIPS)
            each(property.name(), SeriesProperties.SKIPPED, SkipsDraft.of(series.skips()), properties);
        else properties.put(property.name(), property.property().written(value));
    }

    private static <R> void each(String prefix, Group<R> group, R thing, Map<String, String> properties) {
        Values values = group.values(thing);
        for (Property<?> property : group.properties()) {
            String text = text(property, values);
            if (text != null) properties.put(prefix + " " + property.name(), text);
        }
    }

    private static <T> String text(Property<T> property, Values values) {
        T value = values.get(property);
        return value == null ? null : property.written(value);
    }

    private static String taken(FieldRule rule) {
        return rule.codebook()
                .map(book -> "codebook " + book)
                .or(() -> rule.within().map(other -> "within " + other))
                .orElse("up to " + rule.longest() + " symbols of " + rule.symbols());
    }
}
