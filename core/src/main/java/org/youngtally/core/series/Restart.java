package org.youngtally.core.series;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** When a count starts again at its first value. */
public enum Restart {
    YEAR("year"),
    FISCAL_YEAR("fiscal-year"),
    QUARTER("quarter"),
    MONTH("month"),
    WEEK("week"),
    DAY("day");

    private final String word;

    Restart(String word) {
        this.word = word;
    }

    /** The word in definitions. */
    public String word() {
        return word;
    }

    public static Optional<Restart> of(String word) {
        for (Restart restart : values()) if (restart.word.equals(word)) return Optional.of(restart);
        return Optional.empty();
    }

    /** The least of these that say the same: a month lies within a quarter and a year, a day within them all. */
    static List<Restart> least(Set<Restart> wanted) {
        return wanted.stream()
                .filter(restart -> wanted.stream().noneMatch(restart::isImpliedBy))
                .sorted()
                .toList();
    }

    private boolean isImpliedBy(Restart other) {
        return switch (other) {
            case DAY -> this != DAY;
            case MONTH -> EnumSet.of(YEAR, FISCAL_YEAR, QUARTER).contains(this);
            case QUARTER -> this == YEAR;
            case YEAR, FISCAL_YEAR, WEEK -> false;
        };
    }

    /** The unit of the calendar with whose beginning the period can change. */
    public ChronoUnit changes() {
        return switch (this) {
            case YEAR -> ChronoUnit.YEARS;
            case FISCAL_YEAR, QUARTER, MONTH -> ChronoUnit.MONTHS;
            case WEEK, DAY -> ChronoUnit.DAYS;
        };
    }

    /**
     * The name of the period that a date falls in, e.g. {@code 2026}, {@code 2026-02}, {@code 2026-Q1} or
     * {@code 2026-W07}.
     */
    String period(LocalDate date, int fiscalStart) {
        return switch (this) {
            case YEAR -> "%04d".formatted(date.getYear());
            case FISCAL_YEAR ->
                "fiscal %04d"
                        .formatted(date.withDayOfMonth(1)
                                .minusMonths(fiscalStart - 1L)
                                .getYear());
            case QUARTER -> "%04d-Q%d".formatted(date.getYear(), date.get(IsoFields.QUARTER_OF_YEAR));
            case MONTH -> "%04d-%02d".formatted(date.getYear(), date.getMonthValue());
            case WEEK ->
                "%04d-W%02d"
                        .formatted(date.get(IsoFields.WEEK_BASED_YEAR), date.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR));
            case DAY -> date.toString();
        };
    }
}
