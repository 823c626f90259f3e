package org.youngtally.core.act;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import org.pcollections.TreePSet;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;

/**
 * How far everything is counted, as one entry left it; a value that shares with the next one whatever stays.
 *
 * @param lanes every lane that was ever used
 * @param keys what each lane counts for, by its number
 * @param apart of a lane, by their first positions: all that are returned, and all that lie at or behind the next one
 * @param retired of a lane, by position: how it read before it was given anew
 * @param holds held positions, by when they lapse
 * @param closed periods that are closed, by the entries that closed them
 * @param plans for tables that are begun and not ended, by the entries that began them
 * @param statedAt by series, the entry by which it was stated what was lost of it
 * @param nextLane the number that the next new lane gets
 * @param nextRecord the number that the next new record gets
 */
public record Counters(
        PMap<LaneKey, LaneState> lanes,
        PMap<Integer, LaneKey> keys,
        PMap<Integer, TreePMap<Long, Stretch>> apart,
        PMap<Integer, PMap<Long, List<Origin>>> retired,
        TreePMap<Instant, TreePSet<Held>> holds,
        TreePMap<Long, Closed> closed,
        TreePMap<Long, TablePlan.Open> plans,
        PMap<String, Long> statedAt,
        int nextLane,
        long nextRecord) {
    public static final Counters NONE = new Counters(
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            HashTreePMap.empty(),
            TreePMap.empty(),
            TreePMap.empty(),
            TreePMap.empty(),
            HashTreePMap.empty(),
            1,
            1);

    /** A position that is held. */
    public record Held(int lane, long position) implements Comparable<Held> {
        @Override
        public int compareTo(Held other) {
            return lane == other.lane ? Long.compare(position, other.position) : Integer.compare(lane, other.lane);
        }
    }

    /** How far a lane has been used. */
    public Outlook.Used used(LaneKey key) {
        LaneState lane = lanes.get(key);
        if (lane == null) return Outlook.Used.NOT;
        if (!apart.containsKey(lane.lane())) return new Outlook.Used(lane.next(), lane.skipped());
        var returned = new TreeMap<Long, Long>();
        var ahead = new TreeMap<Long, Long>();
        for (Stretch stretch : apart(lane.lane()).values()) {
            if (stretch.state() == PositionState.RETURNED) returned.put(stretch.from(), stretch.to());
            else if (stretch.from() >= lane.next()) ahead.put(stretch.from(), stretch.to());
        }
        return new Outlook.Used(lane.next(), lane.skipped(), returned, ahead);
    }

    /** The plan for a table of a series that is begun and not ended. */
    public Optional<TablePlan.Open> plan(String series) {
        for (TablePlan.Open open : plans.values()) if (open.plan().series().equals(series)) return Optional.of(open);
        return Optional.empty();
    }

    /** What lies apart in a lane. */
    public TreePMap<Long, Stretch> apart(int lane) {
        return apart.getOrDefault(lane, TreePMap.empty());
    }
}
