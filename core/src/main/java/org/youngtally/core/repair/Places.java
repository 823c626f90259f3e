package org.youngtally.core.repair;

import it.unimi.dsi.fastutil.ints.IntArrayList;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;

/** What the numbers of a table are for, each kept once: lane and particulars. */
final class Places {
    /** More of them would not fit into memory. */
    static final int MOST = 300_000;

    private record Place(Optional<LaneKey> lane, Particulars particulars) {}

    private final Map<Place, Integer> numbers = new HashMap<>();
    private final List<Place> places = new ArrayList<>();
    private final IntArrayList counts = new IntArrayList();
    private final Map<LaneKey, Integer> laneNumbers = new HashMap<>();
    private final List<LaneKey> lanes = new ArrayList<>();
    private final List<Range> ranges = new ArrayList<>();
    private final IntArrayList laneOf = new IntArrayList();

    /** The number of a place in a lane. */
    int of(LaneKey lane, Range range, Particulars particulars) {
        int number = of(new Place(Optional.of(lane), particulars));
        if (laneOf.getInt(number) < 0) {
            int known = laneNumbers.computeIfAbsent(lane, added -> {
                lanes.add(added);
                ranges.add(range);
                return lanes.size() - 1;
            });
            laneOf.set(number, known);
        }
        return number;
    }

    /** One more number is of a place. */
    void counted(int place) {
        counts.set(place, counts.getInt(place) + 1);
    }

    /** The number of what a row without a number is for. */
    int of(Particulars particulars) {
        return of(new Place(Optional.empty(), particulars));
    }

    private int of(Place place) {
        Integer known = numbers.get(place);
        if (known != null) return known;
        if (places.size() == MOST) throw new TooLargePlan("more than %,d different dates and fields".formatted(MOST));
        numbers.put(place, places.size());
        places.add(place);
        counts.add(0);
        laneOf.add(-1);
        return places.size() - 1;
    }

    int lane(int place) {
        return laneOf.getInt(place);
    }

    LaneKey key(int lane) {
        return lanes.get(lane);
    }

    Range range(int lane) {
        return ranges.get(lane);
    }

    int lanes() {
        return lanes.size();
    }

    Particulars particulars(int place) {
        return places.get(place).particulars();
    }

    /** How many numbers are of a place. */
    int count(int place) {
        return counts.getInt(place);
    }
}
