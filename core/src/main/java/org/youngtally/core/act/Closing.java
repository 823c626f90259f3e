package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.act.LedgerState.Inside;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;

/** Closes periods and opens them again. */
record Closing(LedgerState state) {

    /** Nothing may be held inside it; what is returned there becomes void, since it can be given no more. */
    Decision close(Act.Close act) {
        Period period = act.period();
        Collection<Series> concerned =
                state.allSeries().stream().filter(period::concerns).toList();
        if (concerned.isEmpty())
            return refused(new Refusal.UnknownScope(period, NearestName.to(period.key(), names(period.scope()))));
        Optional<Closed> other = state.closed().stream()
                .filter(closed -> closed.period().scope() == period.scope()
                        && closed.period().key().equals(period.key())
                        && !closed.period().from().isAfter(period.to())
                        && !closed.period().to().isBefore(period.from()))
                .findFirst();
        if (other.isPresent())
            return refused(new Refusal.ClosedAlready(
                    period, other.get().period(), other.get().closing()));
        List<Inside> lanes = state.inside(concerned, period.from(), period.to());
        long held = lanes.stream().mapToLong(Inside::held).sum();
        if (held > 0) return refused(new Refusal.StillHeld(period, held));
        var effects = new ArrayList<Effect>();
        effects.add(
                new Effect.PeriodClosed(period, lanes.stream().map(this::total).toList()));
        for (Inside lane : lanes) for (Stretch stretch : lane.returned()) effects.add(closed(lane.lane(), stretch));
        return new Decision.Done(effects);
    }

    private List<String> names(Period.Scope scope) {
        return state.allSeries().stream()
                .flatMap(series -> Stream.of(scope == Period.Scope.SERIES ? series.key() : series.namespace()))
                .distinct()
                .toList();
    }

    private Effect closed(int lane, Stretch stretch) {
        LaneKey key = state.laneKey(lane);
        Series series = state.series(key.series()).orElseThrow();
        return new Effect.Settled(
                lane,
                stretch.from(),
                stretch.to(),
                stretch.state(),
                stretch.changed(),
                PositionState.CLOSED,
                Identifiers.at(series, key, stretch, stretch.from()),
                Identifiers.at(series, key, stretch, stretch.to()));
    }

    /** With what the closing itself makes void. */
    private Effect.LaneTotal total(Inside inside) {
        LaneKey key = state.laneKey(inside.lane());
        return new Effect.LaneTotal(
                key,
                text(key, inside.lane(), inside.first()),
                text(key, inside.lane(), inside.last()),
                inside.issued(),
                inside.voids()
                        + inside.returned().stream()
                                .mapToLong(Stretch::quantity)
                                .sum());
    }

    private Optional<String> text(LaneKey key, int lane, long position) {
        if (position < 0) return Optional.empty();
        return Optional.of(Identifiers.at(
                state.series(key.series()).orElseThrow(),
                key,
                state.stretches(lane, position, position).getFirst(),
                position));
    }

    Decision reopen(Act.Reopen act) {
        if (act.reason().isEmpty()) return refused(new Refusal.ReasonMissing("reopen"));
        if (state.closed().stream().noneMatch(closed -> closed.closing() == act.closing()))
            return refused(new Refusal.NotClosed(act.closing()));
        return new Decision.Done(List.of(new Effect.PeriodReopened(act.closing())));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
