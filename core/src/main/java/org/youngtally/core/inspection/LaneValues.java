package org.youngtally.core.inspection;

import it.unimi.dsi.fastutil.longs.LongArrayList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.youngtally.core.inspection.Inspection.End;
import org.youngtally.core.inspection.Inspection.Gap;
import org.youngtally.core.inspection.Inspection.LaneUse;

/** The values of a lane as they are met: eight bytes for each. */
final class LaneValues {
    private static final int MOST_GAPS = 100;
    private static final int STRETCHES = 60;

    private final Numbers.Lane lane;
    private final LongArrayList values = new LongArrayList();
    private End lowest;
    private End highest;

    LaneValues(Numbers.Lane lane) {
        this.lane = lane;
    }

    void add(String text, long value, long line) {
        values.add(value);
        if (lowest == null || value < lowest.value()) lowest = new End(text, value, line);
        if (highest == null || value > highest.value()) highest = new End(text, value, line);
    }

    int size() {
        return values.size();
    }

    LaneUse use() {
        long[] sorted = values.toLongArray();
        Arrays.parallelSort(sorted);
        var gaps = new ArrayList<Gap>();
        long different = 1;
        long missing = 0;
        long moreGaps = 0;
        var density = new long[STRETCHES];
        density[0]++;
        for (int i = 1; i < sorted.length; i++) {
            if (sorted[i] == sorted[i - 1]) continue;
            different++;
            density[stretch(sorted[i])]++;
            long between = lane.missing(sorted[i - 1], sorted[i]);
            if (between == 0) continue;
            missing += between;
            if (gaps.size() < MOST_GAPS)
                gaps.add(new Gap(
                        lane.written(lane.next(sorted[i - 1])), lane.written(lane.previous(sorted[i])), between));
            else moreGaps++;
        }
        return new LaneUse(
                lane.series(),
                lane.range(),
                lane.name(),
                sorted.length,
                different,
                lowest,
                highest,
                missing,
                List.copyOf(gaps),
                moreGaps,
                Arrays.stream(density).boxed().toList());
    }

    private int stretch(long value) {
        double share = (double) (value - lowest.value()) / (highest.value() - lowest.value());
        return (int) Math.min(STRETCHES - 1L, (long) (share * STRETCHES));
    }
}
