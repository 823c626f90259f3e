package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;

/**
 * When the numbers that are left run out, if they go on as they went.
 *
 * @param days over how many days back the rate was counted, today among them
 * @param used how many numbers were issued on them
 * @param runsOut the day on which the last one would be given; absent where none were given lately, where they last
 *     beyond {@link DateWindow#HORIZON}, or where the count restarts or the last range closes before
 * @param endsFirst the day with which what is left ends unused: the last of the lane's period or of the range; absent
 *     where they run out before, or it has no end
 */
public record Forecast(int days, long used, Optional<LocalDate> runsOut, Optional<LocalDate> endsFirst) {

    /**
     * @param left how many numbers are left in what serves today
     * @param ends the last day that they can be given on; absent where there is none
     * @param use how many were given on each day
     */
    public static Forecast of(
            int days, LocalDate today, long left, Optional<LocalDate> ends, Map<LocalDate, Long> use) {
        LocalDate from = today.minusDays(days - 1L);
        long used = use.entrySet().stream()
                .filter(day -> !day.getKey().isBefore(from) && !day.getKey().isAfter(today))
                .mapToLong(Map.Entry::getValue)
                .sum();
        if (used == 0) return new Forecast(days, 0, Optional.empty(), ends);
        // Days that the rest lasts, rounded up: left / (used / days).
        double lasts = Math.ceil((double) left * days / used);
        LocalDate last = lasts > 40_000 ? LocalDate.MAX : today.plusDays(Math.max(0, (long) lasts - 1));
        if (ends.isPresent() && last.isAfter(ends.get())) return new Forecast(days, used, Optional.empty(), ends);
        return new Forecast(
                days, used, Optional.of(last).filter(day -> !day.isAfter(DateWindow.HORIZON)), Optional.empty());
    }

    /**
     * The last day of the periods that a series counts for on a date, and of the ranges that serve it; absent where
     * neither ends.
     */
    public static Optional<LocalDate> ends(Series series, LocalDate date) {
        Optional<LocalDate> closes = series.serving(date).stream()
                .map(range -> range.serves().closes())
                .max(LocalDate::compareTo)
                .filter(last -> !last.equals(DateWindow.HORIZON));
        if (series.restarts().times().isEmpty()) return closes;
        LocalDate last = date;
        while (series.period(last.plusDays(1)).equals(series.period(date))) last = last.plusDays(1);
        LocalDate period = last;
        return Optional.of(closes.filter(day -> day.isBefore(period)).orElse(period));
    }
}
