package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** When the ranges of a series open and close, and the dates between them that none serves. */
public final class RangeCalendar {
    private RangeCalendar() {}

    /** Dates in a row, both ends included. */
    public record Dates(LocalDate from, LocalDate to) {}

    /** The dates that no range serves, from the first that one opens on to the last that one closes on. */
    public static List<Dates> holes(Series series) {
        List<DateWindow> windows = series.ranges().stream()
                .map(Range::serves)
                .sorted(Comparator.comparing(DateWindow::opens))
                .toList();
        var holes = new ArrayList<Dates>();
        LocalDate served = windows.getFirst().closes();
        for (DateWindow window : windows) {
            if (window.opens().isAfter(served.plusDays(1)))
                holes.add(new Dates(served.plusDays(1), window.opens().minusDays(1)));
            if (window.closes().isAfter(served)) served = window.closes();
        }
        return holes;
    }

    /** The last date that any range serves; absent where the last one is left open. */
    public static Optional<LocalDate> ends(Series series) {
        LocalDate last = series.ranges().stream()
                .map(range -> range.serves().closes())
                .max(LocalDate::compareTo)
                .orElseThrow();
        return last.equals(DateWindow.HORIZON) ? Optional.empty() : Optional.of(last);
    }

    /**
     * A range that serves the date, closes within the days that it warns before, and has nothing behind it that serves
     * the day after.
     */
    public static Optional<Range> closingSoon(Series series, LocalDate date) {
        return series.serving(date).stream()
                .filter(range -> range.warnDaysBefore() > 0
                        && !range.serves().isOpenEnded()
                        && !date.plusDays(range.warnDaysBefore())
                                .isBefore(range.serves().closes())
                        && series.serving(range.serves().closes().plusDays(1)).isEmpty())
                .max(Comparator.comparing(range -> range.serves().closes()));
    }
}
