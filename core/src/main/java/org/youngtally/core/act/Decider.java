package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Fields;
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
        if (act.form() == Act.Form.BLOCK && (known.get().proofWaived() || known.get().order().repeats())) return refused(new Refusal.NoBlocks(act.series(), known.get().order().repeats()));
        return switch (Fields.of(known.get(), state::codebook).read(act.fields())) {
            case Fields.Reading.Faulty faulty -> refused(new Refusal.FieldFaulty(act.series(), faulty.fault()));
            case Fields.Reading.Understood understood -> new Take(state, known.get(), act, new Particulars(act.date().orElse(today), understood.fields())).decide();
        };
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

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
