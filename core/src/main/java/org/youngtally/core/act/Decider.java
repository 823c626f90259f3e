package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;

/** Decides what an act does. A pure function of the state, the act and today's date: it reads no clock and changes nothing. */
public final class Decider {
    /** The most numbers that stand alone, taken in one request; more are taken as a block. */
    public static final long MOST_SINGLES = 10_000;

    private Decider() {}

    /** @param today the date of an act that names none */
    public static Decision decide(LedgerState state, Act act, LocalDate today) {
        return switch (act) {
            case Act.Allocate allocate -> allocate(state, allocate, today);
            case Act.Define define -> Definitions.decide(state, define);
        };
    }

    private static Decision allocate(LedgerState state, Act.Allocate act, LocalDate today) {
        Optional<Decision> earlier = earlier(state, act);
        if (earlier.isPresent()) return earlier.get();
        Optional<Series> known = state.series(act.series());
        if (known.isEmpty()) return refused(new Refusal.UnknownSeries(act.series(), NearestName.to(act.series(), state.allSeries().stream().map(Series::key).toList())));
        long most = act.form() == Act.Form.BLOCK ? Long.MAX_VALUE : MOST_SINGLES;
        if (act.quantity() < 1 || act.quantity() > most) return refused(new Refusal.QuantityOutOfBounds(act.quantity(), most, act.form()));
        return take(state, known.get(), act, act.date().orElse(today));
    }

    private static Optional<Decision> earlier(LedgerState state, Act.Allocate act) {
        Optional<EarlierAct> byKey = act.mark().key().flatMap(key -> state.byKey(act.mark().account(), key));
        if (byKey.isPresent()) {
            EarlierAct found = byKey.get();
            return Optional.of(found.digest().equals(act.mark().digest()) ? new Decision.Repeated(found.seq()) : refused(new Refusal.KeyReused(act.mark().key().orElseThrow(), found.seq())));
        }
        return act.reference().flatMap(reference -> state.byReference(act.series(), reference)).map(found ->
                found.digest().equals(act.mark().digest()) ? new Decision.Repeated(found.seq()) : refused(new Refusal.ReferenceReused(act.series(), act.reference().orElseThrow(), found.seq())));
    }

    private static Decision take(LedgerState state, Series series, Act.Allocate act, LocalDate date) {
        List<Range> serving = series.serving(date);
        if (serving.isEmpty()) return refused(new Refusal.DateNotServed(series.key(), date, series.ranges().stream().map(Range::serves).toList()));
        var effects = new ArrayList<Effect>();
        long wanted = act.quantity();
        int newLane = state.nextLane();
        for (Range range : serving) {
            LaneKey key = series.lane(range, date);
            Optional<LaneState> used = state.lane(key);
            long from = used.map(LaneState::next).orElse(0L);
            long taken = Math.min(wanted, range.size() - from);
            if (taken == 0) continue;
            if (used.isEmpty()) effects.add(new Effect.LaneOpened(newLane, key));
            int lane = used.map(LaneState::lane).orElse(newLane);
            if (used.isEmpty()) newLane++;
            effects.add(new Effect.Issued(lane, from, from + taken - 1, series.version(), date, act.form() == Act.Form.BLOCK ? List.of() : series.render(range, date, from, taken)));
            wanted -= taken;
            if (wanted == 0) return new Decision.Done(effects);
        }
        return refused(new Refusal.Exhausted(series.key(), date, act.quantity(), act.quantity() - wanted, opensNext(series, date)));
    }

    private static Optional<LocalDate> opensNext(Series series, LocalDate date) {
        return series.ranges().stream().map(Range::serves).map(DateWindow::opens).filter(opens -> opens.isAfter(date)).min(LocalDate::compareTo);
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
