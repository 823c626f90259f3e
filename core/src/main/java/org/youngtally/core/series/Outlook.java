package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.youngtally.core.pattern.Particulars;

/**
 * What a series would give for some particulars, without giving it.
 *
 * @param next the next numbers in order
 * @param left how many numbers are left, over all ranges that serve the date; -1 where the series starts over
 */
public record Outlook(Particulars particulars, List<Coming> next, long left) {
    /** How many skipped positions are looked over for the next number that is not. */
    private static final int MOST_SKIPPED = 100_000;

    /** A number that is still to be given. */
    public record Coming(String identifier, Range range, LaneKey lane, long position, long value) {}

    /**
     * How far a lane has been used.
     *
     * @param next the lowest position that was not given yet
     * @param skipped how many of those below it were skipped
     */
    public record Used(long next, long skipped) {
        public static final Used NOT = new Used(0, 0);
    }

    /** @param most how many numbers to show at the most */
    public static Outlook of(Series series, Particulars particulars, Function<LaneKey, Used> used, int most) {
        var next = new ArrayList<Coming>();
        long left = 0;
        for (Range range : series.serving(particulars.date())) {
            LaneKey lane = series.lane(range, particulars);
            Used so = used.apply(lane);
            left += Math.max(0, left(series, range, lane, so));
            int passed = 0;
            for (long position = so.next(); position < series.positions(range) && !series.order().isSealed() && next.size() < most && passed < MOST_SKIPPED; position++) {
                long skipped = series.skippedTo(range, lane, position);
                if (skipped >= position) {
                    position = skipped;
                    passed++;
                    continue;
                }
                next.add(new Coming(series.render(range, particulars, position), range, lane, position, series.order().valueAt(range, lane, position)));
            }
        }
        return new Outlook(particulars, List.copyOf(next), series.order().repeats() ? -1 : left);
    }

    /** How many numbers of a lane are left; -1 where the series starts over. */
    public static long left(Series series, Range range, LaneKey lane, Used used) {
        if (series.order().repeats()) return -1;
        if (used.next() >= range.size()) return 0;
        if (series.skips().isNone()) return range.size() - used.next();
        if (series.order().scatters()) return SkipCount.given(series.skips(), series.pattern().count(), range, range.first()) - (used.next() - used.skipped());
        return SkipCount.given(series.skips(), series.pattern().count(), range, series.order().valueAt(range, lane, used.next()));
    }
}
