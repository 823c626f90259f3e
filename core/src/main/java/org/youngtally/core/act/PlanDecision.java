package org.youngtally.core.act;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.Refusal.PlanFault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Carries out a plan for the numbers of a table, step by step. While it is begun and not ended, others are given
 * numbers behind all of the table, see {@link Take}; so each step finds the positions that it is about as the plan saw
 * them.
 */
record PlanDecision(LedgerState state, String key) {
    /** The most lanes that a plan may reach into: what it says of them is one line of the journal. */
    static final int MOST_LANES = 20_000;

    Decision decide(PlanStep step) {
        return switch (step) {
            case PlanStep.Begin begin -> begin(begin);
            case PlanStep.Record record -> record(record);
            case PlanStep.CloseGaps close -> closeGaps(close);
            case PlanStep.Complete complete -> complete(complete);
            case PlanStep.Abandon abandon -> abandon(abandon);
        };
    }

    private Decision begin(PlanStep.Begin begin) {
        TablePlan plan = begin.plan();
        Optional<Series> known = state.series(plan.series());
        if (known.isEmpty()) return refused(new Refusal.UnknownSeries(plan.series(), Optional.empty()));
        Series series = known.get();
        if (series.retired()) return refused(new Refusal.Retired(Refusal.What.SERIES, series.key()));
        Optional<TablePlan.Open> other = state.plan(series.key());
        if (other.isPresent())
            return refused(new Refusal.PlanOpen(series.key(), other.get().seq()));
        if (series.order().scatters() || series.order().repeats()) return faulty(series, PlanFault.OUT_OF_ORDER);
        if (series.policy().chronological() && plan.gaps() == TablePlan.Gaps.KEEP)
            return faulty(series, PlanFault.CHRONOLOGICAL);
        if (plan.rows() > 0 && series.policy().typed() == Policy.Typed.REQUIRED)
            return refused(new Refusal.TypedNotAllowed(series.key(), true));
        if (plan.ends().size() > MOST_LANES) return faulty(series, PlanFault.TOO_MANY_LANES);
        if (plan.gaps() == TablePlan.Gaps.CLOSE && begin.reason().isEmpty())
            return refused(new Refusal.ReasonMissing("close the gaps"));
        if (series.version() != plan.version()
                || !SeriesStanding.of(state.counters(), series).equals(begin.standing()))
            return faulty(series, PlanFault.LEDGER_MOVED);
        return new Decision.Done(List.of(new Effect.PlanBegun(plan)));
    }

    private static Decision faulty(Series series, PlanFault fault) {
        return refused(new Refusal.PlanRefused(series.key(), fault));
    }

    private Optional<TablePlan.Open> open(long plan) {
        return Optional.ofNullable(state.counters().plans().get(plan))
                .filter(open -> open.plan().series().equals(key));
    }

    private Decision record(PlanStep.Record step) {
        Optional<TablePlan.Open> open = open(step.plan());
        if (open.isEmpty()) return refused(new Refusal.UnknownPlan(step.plan()));
        Series series = state.series(open.get().plan().series()).orElseThrow();
        if (series.version() != open.get().plan().version()) return faulty(series, PlanFault.LEDGER_MOVED);
        if (open.get().recorded() != step.from()) return moved(open.get());
        StateInMemory ahead = state.ahead();
        var effects = new ArrayList<Effect>();
        for (PlanStep.InUse inUse : step.stretches()) {
            List<Effect> done = new Recorded(ahead, series, inUse).effects();
            ahead.take(0, Optional.empty(), done);
            effects.addAll(done);
        }
        effects.add(new Effect.PlanAdvanced(
                step.plan(), step.from() + step.stretches().size(), open.get().numbered()));
        return new Decision.Done(effects);
    }

    private static Decision moved(TablePlan.Open open) {
        return refused(new Refusal.PlanMoved(open.seq(), open.recorded(), open.numbered()));
    }

    private Decision closeGaps(PlanStep.CloseGaps step) {
        Optional<TablePlan.Open> open = open(step.plan());
        if (open.isEmpty()) return refused(new Refusal.UnknownPlan(step.plan()));
        Series series = state.series(open.get().plan().series()).orElseThrow();
        if (series.version() != open.get().plan().version()) return faulty(series, PlanFault.LEDGER_MOVED);
        if (open.get().plan().gaps() != TablePlan.Gaps.CLOSE
                || open.get().recorded() < open.get().plan().stretches()) return moved(open.get());
        var effects = new ArrayList<Effect>();
        for (Map.Entry<LaneKey, Long> end : open.get().plan().ends().entrySet()) {
            if (effects.size() >= Decider.MOST_SETTLED) break;
            closeGaps(series, end.getKey(), end.getValue(), effects);
        }
        return effects.isEmpty() ? moved(open.get()) : new Decision.Done(effects);
    }

    private void closeGaps(Series series, LaneKey key, long end, List<Effect> effects) {
        LaneState used = state.lane(key).orElseThrow();
        Range range = series.range(key.range()).orElseThrow();
        if (used.next() >= end) return;
        for (long position = used.next(); effects.size() < Decider.MOST_SETTLED; ) {
            Map.Entry<Long, Stretch> apart = state.apart(used.lane()).ceilingEntry(position);
            if (apart != null
                    && apart.getKey() == position
                    && (position < end || apart.getValue().state() != PositionState.RETURNED)) {
                effects.add(new Effect.Passed(
                        used.lane(), position, apart.getValue().to()));
                position = apart.getValue().to() + 1;
                continue;
            }
            // Whatever ends a gap is apart: the highest number of the lane is, at the latest, once it is recorded.
            if (position >= end || apart == null) return;
            Stretch next = apart.getValue();
            long last = Math.min(next.from(), end) - 1;
            Particulars particulars = next.origin().particulars();
            effects.add(new Effect.GapClosed(
                    used.lane(),
                    position,
                    last,
                    series.version(),
                    particulars,
                    series.render(range, particulars, position),
                    series.render(range, particulars, last)));
            position = last + 1;
        }
    }

    Decision number(Act.NumberRows act, Instant now) {
        Optional<TablePlan.Open> open = open(act.plan());
        if (open.isEmpty()) return refused(new Refusal.UnknownPlan(act.plan()));
        Series series = state.series(open.get().plan().series()).orElseThrow();
        if (series.version() != open.get().plan().version()) return faulty(series, PlanFault.LEDGER_MOVED);
        if (open.get().numbered() != act.from()
                || open.get().recorded() < open.get().plan().stretches()
                || open.get().leavesGaps(state.counters())) return moved(open.get());
        StateInMemory ahead = state.ahead();
        Fields fields = Fields.of(series, state::choices);
        var effects = new ArrayList<Effect>();
        int row = 0;
        for (Act.PlanRow wanted : act.rows()) {
            Decision decision =
                    switch (fields.read(wanted.fields())) {
                        case Fields.Reading.Faulty faulty ->
                            refused(new Refusal.FieldFaulty(series.key(), faulty.fault()));
                        case Fields.Reading.Understood understood
                        when state.closedAt(series, wanted.date()).isPresent() -> refused(closed(series, wanted));
                        case Fields.Reading.Understood understood ->
                            new Take(
                                            ahead,
                                            series,
                                            allocate(series, wanted, act),
                                            new Particulars(wanted.date(), understood.fields()),
                                            now,
                                            Optional.empty())
                                    .decide();
                    };
            if (!(decision instanceof Decision.Done done))
                return refused(new Refusal.RowFaulty(row, ((Decision.Refused) decision).refusal()));
            ahead.take(0, Optional.empty(), done.effects());
            effects.addAll(done.effects());
            row += wanted.quantity();
        }
        effects.add(new Effect.PlanAdvanced(act.plan(), open.get().recorded(), act.from() + row));
        return new Decision.Done(effects);
    }

    private Refusal closed(Series series, Act.PlanRow row) {
        LedgerState.Closed closed = state.closedAt(series, row.date()).orElseThrow();
        return new Refusal.DateClosed(series.key(), row.date(), closed.period(), closed.closing());
    }

    private static Act.Allocate allocate(Series series, Act.PlanRow wanted, Act.NumberRows act) {
        return new Act.Allocate(
                series.key(),
                Optional.of(wanted.date()),
                wanted.fields(),
                wanted.quantity(),
                Act.Form.SINGLES,
                Optional.empty(),
                Purpose.NONE,
                act.mark());
    }

    private Decision complete(PlanStep.Complete step) {
        Optional<TablePlan.Open> open = open(step.plan());
        if (open.isEmpty()) return refused(new Refusal.UnknownPlan(step.plan()));
        boolean done = open.get().recorded() == open.get().plan().stretches()
                && open.get().numbered() == open.get().plan().rows()
                && !open.get().leavesGaps(state.counters());
        return done ? new Decision.Done(List.of(new Effect.PlanEnded(step.plan(), true))) : moved(open.get());
    }

    private Decision abandon(PlanStep.Abandon step) {
        if (step.reason().isEmpty()) return refused(new Refusal.ReasonMissing("abandon"));
        return open(step.plan()).isEmpty()
                ? refused(new Refusal.UnknownPlan(step.plan()))
                : new Decision.Done(List.of(new Effect.PlanEnded(step.plan(), false)));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
