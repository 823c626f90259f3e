package org.youngtally.core.series;

import java.util.Optional;
import org.youngtally.core.property.Values;

/** A series as somebody wrote it, not yet checked: what it says of {@link SeriesProperties}. */
public record SeriesDraft(Values said) {
    /** One that says no more than its key and its pattern yet. */
    public static SeriesDraft of(String key, String pattern) {
        return new SeriesDraft(Values.NONE).with(SeriesProperties.KEY, key).with(SeriesProperties.PATTERN, pattern);
    }

    /** The definition that this series would be written as. */
    public static SeriesDraft of(Series series) {
        var draft = new SeriesDraft(Values.NONE);
        for (SeriesProperty<?> property : SeriesProperties.ALL) draft = draft.with(property, series);
        return draft;
    }

    private <T> SeriesDraft with(SeriesProperty<T> property, Series series) {
        return with(property, property.of().apply(series));
    }

    /** @param value null to leave it out */
    public <T> SeriesDraft with(SeriesProperty<T> property, T value) {
        return new SeriesDraft(said.with(property.property(), value));
    }

    /** What it says; null where it says nothing. */
    public <T> T get(SeriesProperty<T> property) {
        return said.get(property.property());
    }

    /** What it says, or what counts where it says nothing. */
    public <T> T orUsual(SeriesProperty<T> property) {
        return said.orUsual(property.property());
    }

    /** Where it does not say whether it is retired, it stays what it was. */
    public Series continued(Series checked, Optional<Series> before) {
        return get(SeriesProperties.RETIRED) != null || before.isEmpty()
                ? checked
                : checked.withRetired(before.get().retired());
    }

    public String key() {
        return get(SeriesProperties.KEY);
    }

    /** The key where it names none. */
    public String namespace() {
        String namespace = get(SeriesProperties.NAMESPACE);
        return namespace == null ? key() : namespace;
    }
}
