package org.youngtally.core.act;

import java.util.Map;
import java.util.Objects;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;

/**
 * How far a series is counted, in one text that changes as soon as a number is allocated, returned or typed, or the
 * definition changes.
 */
public final class SeriesStanding {
    private SeriesStanding() {}

    public static String of(Counters counters, Series series) {
        long sum = 0;
        long lanes = 0;
        for (Map.Entry<LaneKey, LaneState> lane : counters.lanes().entrySet()) {
            if (!lane.getKey().series().equals(series.key())) continue;
            LaneState state = lane.getValue();
            lanes++;
            sum += mixed(Objects.hash(lane.getKey().range(), lane.getKey().period())
                    ^ mixed(state.next())
                    ^ mixed(state.skipped() + 1) * 31
                    ^ mixed(counters.apart(state.lane()).size() + 2) * 37);
        }
        return series.version() + "-" + lanes + "-" + Long.toHexString(sum);
    }

    /** The finisher of SplitMix64 (Steele, Lea and Flood, 2014). */
    private static long mixed(long value) {
        long z = value + 0x9e3779b97f4a7c15L;
        z = (z ^ (z >>> 30)) * 0xbf58476d1ce4e5b9L;
        z = (z ^ (z >>> 27)) * 0x94d049bb133111ebL;
        return z ^ (z >>> 31);
    }
}
