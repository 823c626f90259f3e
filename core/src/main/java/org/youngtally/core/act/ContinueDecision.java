package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.Refusal.ContinueFault;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Has a lane go on behind numbers that exist elsewhere, which are pre-existing from then on. */
record ContinueDecision(LedgerState state, Act.Continue act) {

    Decision decide() {
        Optional<Series> known = state.series(act.series());
        if (known.isEmpty()) return refused(new Refusal.UnknownSeries(act.series(), Optional.empty()));
        Series series = known.get();
        if (series.retired()) return refused(new Refusal.Retired(Refusal.What.SERIES, series.key()));
        if (act.reason().isEmpty()) return refused(new Refusal.ReasonMissing("continue"));
        if (series.order().scatters() || series.order().repeats()) return faulty(series, ContinueFault.OUT_OF_ORDER);
        Optional<Range> range = series.range(act.lane().range());
        if (series.version() != act.version()
                || range.isEmpty()
                || !series.lane(range.get(), act.particulars()).equals(act.lane()))
            return faulty(series, ContinueFault.MOVED);
        Optional<Closed> closed = state.closedAt(series, act.particulars().date());
        if (closed.isPresent())
            return refused(new Refusal.DateClosed(
                    series.key(),
                    act.particulars().date(),
                    closed.get().period(),
                    closed.get().closing()));
        Optional<TablePlan.Open> plan = state.plan(series.key());
        if (plan.isPresent())
            return refused(new Refusal.PlanOpen(series.key(), plan.get().seq()));
        return along(series, range.get());
    }

    private Decision along(Series series, Range range) {
        Optional<LaneState> used = state.lane(act.lane());
        int lane = used.map(LaneState::lane).orElse(state.nextLane());
        long next = used.map(LaneState::next).orElse(0L);
        if (act.next() <= next) return faulty(series, ContinueFault.BEHIND);
        if (series.proofWaived() && act.next() - next > Decider.MOST_SINGLES)
            return faulty(series, ContinueFault.UNPROVED);
        var effects = new ArrayList<Effect>();
        if (used.isEmpty()) effects.add(new Effect.LaneOpened(lane, act.lane()));
        long position = next;
        while (true) {
            Map.Entry<Long, Stretch> ahead =
                    used.isEmpty() ? null : state.apart(lane).ceilingEntry(position);
            if (ahead != null && ahead.getKey() == position && stays(ahead.getValue(), position)) {
                // All of it, wherever the lane is to go on: a number in its middle is in use already.
                effects.add(new Effect.Passed(lane, position, ahead.getValue().to()));
                position = ahead.getValue().to() + 1;
            } else if (position < act.next()) {
                long free = ahead == null ? act.next() : Math.min(act.next(), ahead.getKey());
                effects.add(preexisting(series, range, lane, position, free));
                position = free;
            } else {
                return new Decision.Done(effects);
            }
            if (effects.size() > Take.MOST_PIECES) return faulty(series, ContinueFault.IN_PIECES);
        }
    }

    /** Whether the counter passes over what lies apart: a returned number is the next to be issued. */
    private boolean stays(Stretch apart, long position) {
        return position < act.next() || apart.state() != PositionState.RETURNED;
    }

    private Effect preexisting(Series series, Range range, int lane, long from, long behind) {
        return new Effect.Issued(
                lane,
                from,
                behind - 1,
                series.version(),
                act.particulars(),
                0,
                series.proofWaived() ? series.render(range, act.particulars(), from, behind - from) : List.of(),
                Effect.Manner.preexisting(false, FileLines.NONE));
    }

    private Decision faulty(Series series, ContinueFault fault) {
        Optional<Range> range = series.range(act.lane().range());
        return refused(new Refusal.NotContinued(
                series.key(),
                range.filter(in -> act.next() < series.positions(in))
                        .map(in -> series.render(in, act.particulars(), act.next()))
                        .orElse(""),
                fault,
                state.lane(act.lane())
                        .map(LaneState::next)
                        .filter(next -> range.isPresent() && next < series.positions(range.get()))
                        .map(next -> series.render(range.orElseThrow(), act.particulars(), next))));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
