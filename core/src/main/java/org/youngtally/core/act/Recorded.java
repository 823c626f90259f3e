package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Records numbers in a row as pre-existing. What the ledger knows of them already stays as it is, but for what was
 * returned: that would be given to somebody else.
 */
record Recorded(LedgerState state, Series series, PlanStep.InUse inUse) {

    List<Effect> effects() {
        LaneKey key = inUse.lane();
        Range range = series.range(key.range()).orElseThrow();
        Optional<LaneState> used = state.lane(key);
        int lane = used.map(LaneState::lane).orElse(state.nextLane());
        var effects = new ArrayList<Effect>();
        if (used.isEmpty()) effects.add(new Effect.LaneOpened(lane, key));
        long next = used.map(LaneState::next).orElse(0L);
        for (long position = inUse.from(); position <= inUse.to(); ) {
            Optional<Stretch> there = there(lane, next, position);
            if (there.isPresent()) {
                long to = Math.min(inUse.to(), there.get().to());
                if (there.get().state() == PositionState.RETURNED)
                    returned(range, lane, there.get(), position, to, effects);
                position = to + 1;
                continue;
            }
            long to = Math.min(inUse.to(), beforeNext(lane, position));
            effects.add(new Effect.Issued(
                    lane,
                    position,
                    to,
                    series.version(),
                    inUse.particulars(),
                    0,
                    inUse.together() && !series.proofWaived()
                            ? List.of()
                            : series.render(range, inUse.particulars(), position, to - position + 1),
                    Effect.Manner.preexisting(position != next, lines(position, to))));
            if (position == next) next = to + 1;
            position = to + 1;
        }
        return effects;
    }

    private FileLines lines(long from, long to) {
        return from == inUse.from() && to == inUse.to()
                ? inUse.lines()
                : inUse.lines().between(from - inUse.from(), to - inUse.from());
    }

    /** What the ledger knows of a position already. */
    private Optional<Stretch> there(int lane, long next, long position) {
        if (position < next)
            return state.stretches(lane, position, Math.min(next - 1, inUse.to())).stream()
                    .findFirst();
        Map.Entry<Long, Stretch> apart = state.apart(lane).floorEntry(position);
        return apart == null || apart.getValue().to() < position ? Optional.empty() : Optional.of(apart.getValue());
    }

    /** The last position before what lies ahead of the counter. */
    private long beforeNext(int lane, long position) {
        Map.Entry<Long, Stretch> apart = state.apart(lane).ceilingEntry(position);
        return apart == null ? Long.MAX_VALUE : apart.getKey() - 1;
    }

    private void returned(Range range, int lane, Stretch stretch, long from, long to, List<Effect> effects) {
        var again = new Regiving(state, series, inUse.particulars(), Optional.empty());
        for (long position = from; position <= to; position++)
            again.of(range, inUse.lane(), lane, stretch, position, Optional.of(lines(position, position)))
                    .ifPresent(effects::addAll);
    }
}
