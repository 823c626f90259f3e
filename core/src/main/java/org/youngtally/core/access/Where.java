package org.youngtally.core.access;

import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Where something is done: on a series, for a kind of record, in a unit, each as far as it is known. */
public record Where(Optional<String> series, Optional<String> kind, Optional<String> unit) {
    /** Something that concerns everything: only a grant for all covers it. */
    public static final Where EVERYWHERE = new Where(Optional.empty(), Optional.empty(), Optional.empty());

    public static Where series(String series) {
        return new Where(Optional.of(series), Optional.empty(), Optional.empty());
    }

    public static Where kind(String kind) {
        return new Where(Optional.empty(), Optional.of(kind), Optional.empty());
    }

    public static Where unit(String unit) {
        return new Where(Optional.empty(), Optional.empty(), Optional.of(unit));
    }

    @Override
    public String toString() {
        String text = Stream.of(
                        series.map(key -> "the series ‘" + key + "’"),
                        kind.map(key -> "the kind ‘" + key + "’"),
                        unit.map(key -> "the unit ‘" + key + "’"))
                .flatMap(Optional::stream)
                .collect(Collectors.joining(", "));
        return text.isEmpty() ? "everything" : text;
    }
}
