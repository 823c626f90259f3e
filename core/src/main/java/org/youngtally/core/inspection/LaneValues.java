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
    private String lastAsText = "";

    LaneValues(Numbers.Lane lane) {
        this.lane = lane;
    }

    void add(String text, long value, long line) {
        values.add(value);
        if (lowest == null || value < lowest.value()) lowest = new End(text, value, line);
        if (highest == null || value > highest.value()) highest = new End(text, value, line);
        if (text.compareTo(lastAsText) > 0) lastAsText = text;
    }

    /** By which lanes with as many numbers are put in order. */
    String name() {
        return lane.series() + "\0" + lane.name() + "\0" + lane.range();
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
        for (int i = 1; i < sorted.length; i++) {
            if (sorted[i] == sorted[i - 1]) continue;
            different++;
            long between = lane.missing(sorted[i - 1], sorted[i]);
            if (between == 0) continue;
            missing += between;
            if (gaps.size() < MOST_GAPS) gaps.add(gap(lane.next(sorted[i - 1]), lane.previous(sorted[i]), between));
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
                lastAsText,
                missing,
                List.copyOf(gaps),
                moreGaps,
                stretch(different + missing),
                density(sorted, different + missing));
    }

    private static long stretch(long numbers) {
        return (numbers + STRETCHES - 1) / STRETCHES;
    }

    private Gap gap(long low, long high, long numbers) {
        return new Gap(lane.written(low), lane.written(high), low, high, numbers);
    }

    /** @param numbers how many there are from the lowest to the highest, those that are missing among them */
    private List<Long> density(long[] sorted, long numbers) {
        long stretch = stretch(numbers);
        var density = new long[(int) ((numbers + stretch - 1) / stretch)];
        double span = Math.max(1, highest.value() - lowest.value());
        for (int i = 0; i < sorted.length; i++) {
            if (i > 0 && sorted[i] == sorted[i - 1]) continue;
            double share = (sorted[i] - lowest.value()) / span;
            density[(int) (Math.round(share * (numbers - 1)) / stretch)]++;
        }
        return Arrays.stream(density).boxed().toList();
    }
}
