package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.NoSuchElementException;
import org.youngtally.core.series.Series;

/**
 * Dates of a series or a namespace, both ends included, that are closed: nothing dated inside is given any more.
 *
 * @param key of the series or namespace
 */
public record Period(Scope scope, String key, LocalDate from, LocalDate to) {

    /** What a period is closed for. */
    public enum Scope {
        SERIES(0, "series"),
        NAMESPACE(1, "namespace");

        private final byte code;
        private final String word;

        Scope(int code, String word) {
            this.code = (byte) code;
            this.word = word;
        }

        /** By this the tables know it; it never changes. */
        public byte code() {
            return code;
        }

        /** @throws NoSuchElementException for a code that stands for none */
        public static Scope of(byte code) {
            return Arrays.stream(values())
                    .filter(scope -> scope.code == code)
                    .findFirst()
                    .orElseThrow();
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
