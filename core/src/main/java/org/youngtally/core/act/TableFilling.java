package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.text.NearestName;

/**
 * Takes the numbers of a table's rows, from the top to the bottom. Rows in a row that are for the same are taken
 * together.
 */
final class TableFilling {
    /** The most rows that are numbered in one act. */
    static final int MOST_ROWS = 200_000;
    /** Reading the same fields again costs more than remembering what they came to. */
    private static final int MOST_REMEMBERED = 10_000;

    private final StateInMemory state;
    private final Act.FillTable act;
    private final Instant now;
    private final LocalDate today;
    private final List<Effect> effects = new ArrayList<>();

    TableFilling(LedgerState state, Act.FillTable act, Instant now, LocalDate today) {
        this.state = state.ahead();
        this.act = act;
        this.now = now;
        this.today = today;
    }

    /**
     * Rows in a row for which the same is given.
     *
     * @param from the first of them
     */
    private record Run(int from, int quantity, Act.Allocate act) {}

    Decision decide() {
        Kind kind = state.organisation().kinds().get(act.kind());
        if (kind == null)
            return refused(new Refusal.UnknownKind(
                    act.kind(),
                    NearestName.to(act.kind(), state.organisation().kinds().keySet())));
        Unit unit = state.organisation().units().get(act.unit());
        if (unit == null)
            return refused(new Refusal.UnknownUnit(
                    act.unit(),
                    NearestName.to(act.unit(), state.organisation().units().keySet())));
        if (act.rows().isEmpty() || act.rows().size() > MOST_ROWS)
            return refused(new Refusal.QuantityOutOfBounds(act.rows().size(), MOST_ROWS, Act.Form.SINGLES));
        var placing = new SeriesAssignment(state.organisation(), state::choices, state::series);
        var remembered = new HashMap<Map<String, String>, SeriesAssignment.Result>();
        Run run = null;
        for (int i = 0; i < act.rows().size(); i++) {
            if (remembered.size() > MOST_REMEMBERED) remembered.clear();
            SeriesAssignment.Result result =
                    remembered.computeIfAbsent(act.rows().get(i), row -> placing.place(kind, unit, row, Map.of()));
            if (result instanceof SeriesAssignment.Faulty faulty)
                return refused(i, new Refusal.FieldFaulty(faulty.kind(), faulty.fault()));
            if (result instanceof SeriesAssignment.NoRoute)
                return refused(i, new Refusal.NoRoute(kind.key(), unit.key()));
            SeriesAssignment.Assigned placed = (SeriesAssignment.Assigned) result;
            if (!act.series().contains(placed.route().series()))
                return refused(
                        i,
                        new Refusal.RouteMoved(
                                kind.key(), unit.key(), placed.route().series()));
            var wanted = new Act.Allocate(
                    placed.route().series(),
                    act.date().or(() -> Recording.dated(placed)),
                    placed.given(),
                    1,
                    Act.Form.SINGLES,
                    Optional.empty(),
                    new Purpose(Optional.of(kind.key()), Optional.of(unit.key())),
                    act.mark());
            if (run != null && run.act().equals(wanted) && run.quantity() < Decider.MOST_SINGLES) {
                run = new Run(run.from(), run.quantity() + 1, wanted);
                continue;
            }
            Optional<Refusal> refusal = take(run);
            if (refusal.isPresent()) return new Decision.Refused(refusal.get());
            run = new Run(i, 1, wanted);
        }
        Optional<Refusal> refusal = take(run);
        return refusal.<Decision>map(Decision.Refused::new).orElseGet(() -> new Decision.Done(effects));
    }

    private Optional<Refusal> take(Run run) {
        if (run == null) return Optional.empty();
        Act.Allocate one = run.act();
        Decision decision = Decider.allocate(
                state,
                new Act.Allocate(
                        one.series(),
                        one.date(),
                        one.fields(),
                        run.quantity(),
                        one.form(),
                        one.reference(),
                        one.purpose(),
                        one.mark()),
                now,
                today);
        if (decision instanceof Decision.Refused refused)
            return Optional.of(new Refusal.RowFaulty(run.from(), refused.refusal()));
        List<Effect> taken = ((Decision.Done) decision).effects();
        // The entry has no number yet; what is counted after it does not ask for one.
        state.take(0, Optional.empty(), taken);
        effects.addAll(taken);
        return Optional.empty();
    }

    private static Decision refused(int row, Refusal refusal) {
        return refused(new Refusal.RowFaulty(row, refusal));
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
