package org.youngtally.core.act;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.Refusal.ContinueFault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Puts in doubt what a later state of the ledger, which is lost, may have issued: the positions from each lane's next
 * one up to the highest that is known outside, and those that wait to be issued again or are held, since they may have
 * been issued again too.
 */
record StatingDecision(LedgerState state, Act.StateHighest act) {
    /** Of one act, so that nobody waits for it. */
    private static final int MOST_PIECES = 10_000;

    Decision decide() {
        Optional<Series> known = state.series(act.series());
        if (known.isEmpty()) return refused(new Refusal.UnknownSeries(act.series(), Optional.empty()));
        Series series = known.get();
        if (act.reason().isEmpty()) return refused(new Refusal.ReasonMissing("state"));
        if (!act.lanes().isEmpty() && series.order().repeats()) return faulty(series, "", ContinueFault.OUT_OF_ORDER);
        var effects = new ArrayList<Effect>();
        effects.add(new Effect.SeriesStated(series.key()));
        int opened = state.nextLane();
        for (Act.HighestIn highest : act.lanes()) {
            Optional<Range> range = series.range(highest.lane().range());
            if (series.version() != act.version()
                    || range.isEmpty()
                    || !series.lane(range.get(), highest.particulars()).equals(highest.lane())
                    || highest.highest() >= series.positions(range.get()))
                return faulty(series, "", ContinueFault.MOVED);
            Optional<Closed> closed =
                    state.closedAt(series, highest.particulars().date());
            if (closed.isPresent())
                return refused(new Refusal.DateClosed(
                        series.key(),
                        highest.particulars().date(),
                        closed.get().period(),
                        closed.get().closing()));
            Optional<LaneState> lane = state.lane(highest.lane());
            if (lane.isEmpty()) effects.add(new Effect.LaneOpened(opened, highest.lane()));
            Optional<ContinueFault> fault = doubt(
                    new Lane(
                            series,
                            range.get(),
                            highest,
                            lane.map(LaneState::lane).orElse(opened)),
                    lane.map(LaneState::next).orElse(0L),
                    effects);
            if (fault.isPresent())
                return faulty(
                        series, series.render(range.get(), highest.particulars(), highest.highest()), fault.get());
            if (lane.isEmpty()) opened++;
        }
        return new Decision.Done(effects);
    }

    /** A lane in which numbers may have been issued. */
    private record Lane(Series series, Range range, Act.HighestIn highest, int id) {}

    private Optional<ContinueFault> doubt(Lane lane, long next, List<Effect> effects) {
        long highest = lane.highest().highest();
        if (lane.series().proofWaived() && highest - next >= Decider.MOST_SINGLES)
            return Optional.of(ContinueFault.UNPROVED);
        boolean used = state.lane(lane.highest().lane()).isPresent();
        NavigableMap<Long, Stretch> apart = used ? state.apart(lane.id()) : new TreeMap<>();
        if (used) underWay(lane, apart).values().forEach(stretch -> effects.add(doubted(lane, stretch)));
        for (long position = next; position <= highest; ) {
            Map.Entry<Long, Stretch> ahead = apart.ceilingEntry(position);
            if (ahead != null && ahead.getKey() == position) {
                effects.add(
                        new Effect.Passed(lane.id(), position, ahead.getValue().to()));
                position = ahead.getValue().to() + 1;
            } else {
                long last = ahead == null ? highest : Math.min(highest, ahead.getKey() - 1);
                unknown(lane, position, last, effects);
                position = last + 1;
            }
            if (effects.size() > MOST_PIECES) return Optional.of(ContinueFault.IN_PIECES);
        }
        return effects.size() > MOST_PIECES ? Optional.of(ContinueFault.IN_PIECES) : Optional.empty();
    }

    /** What is held, or waits to be issued again, by its first position. */
    private Map<Long, Stretch> underWay(Lane lane, NavigableMap<Long, Stretch> apart) {
        var found = new TreeMap<Long, Stretch>();
        for (Stretch stretch : apart.values()) if (isUnderWay(stretch)) found.put(stretch.from(), stretch);
        for (Span held : state.due(Instant.MAX, Integer.MAX_VALUE))
            if (held.lane() == lane.id())
                for (Stretch stretch : state.stretches(held.lane(), held.from(), held.to()))
                    if (isUnderWay(stretch)) found.put(stretch.from(), stretch);
        return found;
    }

    private static boolean isUnderWay(Stretch stretch) {
        return stretch.state() == PositionState.RETURNED || stretch.state() == PositionState.HELD;
    }

    private Effect doubted(Lane lane, Stretch stretch) {
        return new Effect.Settled(
                lane.id(),
                stretch.from(),
                stretch.to(),
                stretch.state(),
                stretch.changed(),
                PositionState.IN_DOUBT,
                Identifiers.at(lane.series(), lane.highest().lane(), stretch, stretch.from()),
                Identifiers.at(lane.series(), lane.highest().lane(), stretch, stretch.to()));
    }

    /** They are pre-existing, as far as this ledger is concerned, and at once in doubt. */
    private void unknown(Lane lane, long from, long to, List<Effect> effects) {
        Series series = lane.series();
        Particulars particulars = lane.highest().particulars();
        effects.add(new Effect.Issued(
                lane.id(),
                from,
                to,
                series.version(),
                particulars,
                0,
                series.proofWaived() ? series.render(lane.range(), particulars, from, to - from + 1) : List.of(),
                Effect.Manner.preexisting(false, FileLines.NONE)));
        effects.add(new Effect.Settled(
                lane.id(),
                from,
                to,
                PositionState.PREEXISTING,
                0,
                PositionState.IN_DOUBT,
                series.render(lane.range(), particulars, from),
                series.render(lane.range(), particulars, to)));
    }

    private Decision faulty(Series series, String text, ContinueFault fault) {
        return refused(new Refusal.NotStated(series.key(), text, fault));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
