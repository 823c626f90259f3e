package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.youngtally.core.act.Effect.Manner;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.Refusal.TypedFault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Takes a number that somebody typed: it must be one that the series could give for these particulars and has not
 * given.
 */
record TypedTake(LedgerState state, Series series, Particulars particulars, String text) {

    Decision decide() {
        List<Range> serving = series.serving(particulars.date());
        if (serving.isEmpty()) return refused(Take.notServed(series, particulars.date()));
        OptionalLong value = series.pattern().read(text, particulars);
        if (value.isEmpty()) {
            Optional<String> meant = series.pattern().meant(text, particulars);
            return faulty(
                    meant.isPresent() ? TypedFault.CHECK_WRONG : TypedFault.NOT_OF_THE_PATTERN,
                    Optional.of(meant.orElseGet(() -> series.render(serving.getFirst(), particulars, 0))));
        }
        for (Range range : serving) {
            LaneKey key = series.lane(range, particulars);
            long position = series.order().positionOf(range, key, value.getAsLong());
            if (position >= 0) return at(range, key, position);
        }
        return faulty(TypedFault.OUTSIDE_THE_RANGES, Optional.empty());
    }

    private Decision at(Range range, LaneKey key, long position) {
        if (series.skippedTo(range, key, position) >= position) return faulty(TypedFault.SKIPPED, Optional.empty());
        Optional<LaneState> used = state.lane(key);
        int lane = used.map(LaneState::lane).orElse(state.nextLane());
        long next = used.map(LaneState::next).orElse(0L);
        Optional<TablePlan.Open> plan = state.plan(series.key());
        if (plan.isPresent() && position < plan.get().plan().ends().getOrDefault(key, 0L))
            return refused(new Refusal.PlanOpen(series.key(), plan.get().seq()));
        Map.Entry<Long, Stretch> there =
                used.isEmpty() ? null : state.apart(lane).floorEntry(position);
        if (there != null && there.getValue().to() >= position)
            return again(range, key, lane, there.getValue(), position);
        if (position < next) return faulty(TypedFault.TAKEN, Optional.empty());
        var effects = new ArrayList<Effect>();
        if (used.isEmpty()) effects.add(new Effect.LaneOpened(lane, key));
        effects.add(new Effect.Issued(
                lane,
                position,
                position,
                series.version(),
                particulars,
                0,
                series.render(range, particulars, position, 1),
                position == next ? Manner.USUAL : new Manner(Optional.empty(), true, Optional.empty())));
        return new Decision.Done(effects);
    }

    private Decision again(Range range, LaneKey key, int lane, Stretch stretch, long position) {
        if (stretch.state() != PositionState.RETURNED || !series.policy().givesAgain())
            return faulty(TypedFault.TAKEN, Optional.empty());
        return new Regiving(state, series, particulars, Optional.empty())
                .of(range, key, lane, stretch, position)
                .<Decision>map(Decision.Done::new)
                .orElseGet(() -> faulty(TypedFault.RETIRED, Optional.empty()));
    }

    private Decision faulty(TypedFault fault, Optional<String> instead) {
        return refused(new Refusal.TypedFaulty(series.key(), text, fault, instead));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
