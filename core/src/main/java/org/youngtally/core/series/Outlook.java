package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.ToLongFunction;

/**
 * What a series would give on a date, without giving it.
 *
 * @param next the next numbers in order
 * @param left how many numbers are left on that date, over all ranges that serve it
 */
public record Outlook(LocalDate date, List<Coming> next, long left) {

    /** A number that is still to be given. */
    public record Coming(String identifier, Range range, LaneKey lane, long position, long value) {}

    /**
     * @param nextPosition the lowest position of a lane that was not given yet
     * @param most how many numbers to show at the most
     */
    public static Outlook of(Series series, LocalDate date, ToLongFunction<LaneKey> nextPosition, int most) {
        var next = new ArrayList<Coming>();
        long left = 0;
        for (Range range : series.serving(date)) {
            LaneKey lane = series.lane(range, date);
            long from = nextPosition.applyAsLong(lane);
            left += range.size() - from;
            for (long position = from; position < range.size() && next.size() < most; position++) next.add(new Coming(series.render(range, date, position), range, lane, position, range.valueAt(position)));
        }
        return new Outlook(date, List.copyOf(next), left);
    }
}
