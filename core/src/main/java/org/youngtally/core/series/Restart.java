package org.youngtally.core.series;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** When a count starts again at its first value. */
public enum Restart {
    YEAR("year"), MONTH("month");

    private final String word;

    Restart(String word) {
        this.word = word;
    }

    /** The word in definitions. */
    public String word() { return word; }

    public static Optional<Restart> of(String word) {
        for (Restart restart : values()) if (restart.word.equals(word)) return Optional.of(restart);
        return Optional.empty();
    }

    /** The unit of the calendar with whose beginning the period changes. */
    public ChronoUnit changes() {
        return switch (this) {
            case YEAR -> ChronoUnit.YEARS;
            case MONTH -> ChronoUnit.MONTHS;
        };
    }

    /** The name of the period that a date falls in, e.g. {@code 2026} or {@code 2026-02}. */
    String period(LocalDate date) {
        return switch (this) {
            case YEAR -> "%04d".formatted(date.getYear());
            case MONTH -> "%04d-%02d".formatted(date.getYear(), date.getMonthValue());
        };
    }
}
