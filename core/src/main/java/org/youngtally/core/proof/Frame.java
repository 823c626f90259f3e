package org.youngtally.core.proof;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Series;

/**
 * What stands around the count in one lane on some date: every identifier of the lane on that date is front, value,
 * back. Front and back are folded, as identifiers are compared.
 *
 * @param date the first date on which the lane has this frame
 */
record Frame(Series series, Range range, LaneKey lane, LocalDate date, String front, String back) {

    private record Look(LaneKey lane, String front, String back) {}

    /**
     * Every frame that the series can ever show, from the first opening to the last closing: each date on which one can
     * change is looked at.
     */
    static List<Frame> of(Series series, Budget budget) {
        var frames = new ArrayList<Frame>();
        for (Range range : series.ranges()) {
            var seen = new HashSet<Look>();
            Optional<ChronoUnit> changes = Stream.concat(
                            series.pattern().changes().stream(),
                            series.restarts().times().stream().map(Restart::changes))
                    .min(Comparator.naturalOrder());
            for (LocalDate date = range.serves().opens();
                    !date.isAfter(range.serves().closes());
                    date = next(date, changes)) {
                budget.spend(Budget.COMPARED);
                var look = new Look(
                        series.lane(range, Particulars.on(date)),
                        series.comparison().fold(series.pattern().renderBefore(date)),
                        series.comparison().fold(series.pattern().renderAfter(date)));
                if (!seen.add(look)) continue;
                budget.spend(Budget.FRAME);
                frames.add(new Frame(series, range, look.lane(), date, look.front(), look.back()));
            }
        }
        return frames;
    }

    /** The next day on which anything can change. */
    static LocalDate next(LocalDate date, Optional<ChronoUnit> changes) {
        if (changes.isEmpty()) return LocalDate.MAX;
        return switch (changes.get()) {
            case YEARS -> date.withDayOfYear(1).plusYears(1);
            case MONTHS -> date.withDayOfMonth(1).plusMonths(1);
            case DAYS -> date.plusDays(1);
            default -> throw new IllegalStateException("nothing changes with " + changes.get());
        };
    }
}
