package org.youngtally.core.act;

import java.time.LocalDate;
import org.youngtally.core.series.Series;

/**
 * Dates of a series or a namespace, both ends included, that are closed: nothing dated inside is given any more.
 *
 * @param key of the series or namespace
 */
public record Period(Scope scope, String key, LocalDate from, LocalDate to) {

    /** What a period is closed for. */
    public enum Scope {
        SERIES("series"),
        NAMESPACE("namespace");

        private final String word;

        Scope(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public boolean concerns(Series series) {
        return key.equals(scope == Scope.SERIES ? series.key() : series.namespace());
    }

    public boolean includes(LocalDate date) {
        return !date.isBefore(from) && !date.isAfter(to);
    }
}
