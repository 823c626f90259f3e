package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
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
     * @param next the lowest position that the counter has not passed
     * @param skipped how many of those below it were skipped
     * @param returned positions that wait to be given again: the last of a stretch by its first
     * @param ahead positions from the next one on that stand for something already, or are void
     */
    public record Used(long next, long skipped, NavigableMap<Long, Long> returned, NavigableMap<Long, Long> ahead) {
        public static final Used NOT = new Used(0, 0);

        /** A lane whose counter has passed all that was given, and to which nothing was returned. */
        public Used(long next, long skipped) {
            this(next, skipped, Collections.emptyNavigableMap(), Collections.emptyNavigableMap());
        }

        private static long count(NavigableMap<Long, Long> stretches) {
            return stretches.entrySet().stream()
                    .mapToLong(stretch -> stretch.getValue() - stretch.getKey() + 1)
                    .sum();
        }
    }

    /** @param most how many numbers to show at the most */
    public static Outlook of(Series series, Particulars particulars, Function<LaneKey, Used> used, int most) {
        var next = new ArrayList<Coming>();
        long left = 0;
        for (Range range : series.serving(particulars.date())) {
            LaneKey lane = series.lane(range, particulars);
            Used so = used.apply(lane);
            left += Math.max(0, left(series, range, lane, so));
            if (!series.order().isSealed()) new Ahead(series, particulars, range, lane, so, most, next).look();
        }
        return new Outlook(particulars, List.copyOf(next), series.order().repeats() ? -1 : left);
    }

    /** The next number of a lane; empty where none is left, or it cannot be told. */
    public static Optional<Coming> next(Series series, Particulars particulars, Range range, LaneKey lane, Used used) {
        var next = new ArrayList<Coming>();
        if (!series.order().isSealed()) new Ahead(series, particulars, range, lane, used, 1, next).look();
        return next.stream().findFirst();
    }

    /** Looks along one lane. */
    private record Ahead(
            Series series, Particulars particulars, Range range, LaneKey lane, Used used, int most, List<Coming> next) {
        void look() {
            if (series.policy().givesAgain())
                for (Map.Entry<Long, Long> stretch :
                        used.returned().headMap(used.next(), false).entrySet())
                    for (long position = stretch.getKey();
                            position <= stretch.getValue() && next.size() < most;
                            position++) if (series.skippedTo(range, lane, position) < position) come(position);
            int passed = 0;
            for (long position = used.next();
                    position < series.positions(range) && next.size() < most && passed < MOST_SKIPPED;
                    position++) {
                Map.Entry<Long, Long> taken = used.ahead().floorEntry(position);
                long skipped = taken != null && taken.getValue() >= position
                        ? taken.getValue()
                        : series.skippedTo(range, lane, position);
                if (skipped >= position) {
                    position = skipped;
                    passed++;
                    continue;
                }
                come(position);
            }
        }

        private void come(long position) {
            next.add(new Coming(
                    series.render(range, particulars, position),
                    range,
                    lane,
                    position,
                    series.order().valueAt(range, lane, position)));
        }
    }

    /** How many numbers of a lane are left; -1 where the series starts over. */
    public static long left(Series series, Range range, LaneKey lane, Used used) {
        if (series.order().repeats()) return -1;
        long again = series.policy().givesAgain() ? Used.count(used.returned().headMap(used.next(), false)) : 0;
        return Math.max(0, counted(series, range, lane, used) - Used.count(used.ahead())) + again;
    }

    private static long counted(Series series, Range range, LaneKey lane, Used used) {
        if (used.next() >= range.size()) return 0;
        if (series.skips().isNone()) return range.size() - used.next();
        if (series.order().scatters())
            return SkipCount.given(series.skips(), series.pattern().count(), range, range.first())
                    - (used.next() - used.skipped());
        return SkipCount.given(
                series.skips(), series.pattern().count(), range, series.order().valueAt(range, lane, used.next()));
    }
}
