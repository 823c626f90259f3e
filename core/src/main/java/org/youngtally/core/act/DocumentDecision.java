package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Optional;

/** Allocates the numbers of the items of a document. */
final class DocumentDecision {
    /** The most items that are numbered in one act; more takes so long that others would notice. */
    static final int MOST_ITEMS = 2_000;

    private final LedgerState state;
    private final Act.NumberDocument act;
    private final Instant now;
    private final LocalDate today;

    DocumentDecision(LedgerState state, Act.NumberDocument act, Instant now, LocalDate today) {
        this.state = state;
        this.act = act;
        this.now = now;
        this.today = today;
    }

    Decision decide() {
        if (act.rows().isEmpty() || act.rows().size() > MOST_ITEMS)
            return refused(new Refusal.QuantityOutOfBounds(act.rows().size(), MOST_ITEMS, Act.Form.SINGLES));
        long last = state.documentNumbered(act.series(), act.document());
        if (last != act.after()) return refused(new Refusal.DocumentMoved(act.document(), last));
        StateInMemory ahead = state.ahead();
        var effects = new ArrayList<Effect>();
        for (int row = 0; row < act.rows().size(); row++) {
            Decision decision = Decider.allocate(ahead, allocate(act.rows().get(row)), now, today);
            if (!(decision instanceof Decision.Done done))
                return refused(
                        ((Decision.Refused) decision).refusal() instanceof Refusal.FieldFaulty faulty
                                ? new Refusal.RowFaulty(row, faulty)
                                : ((Decision.Refused) decision).refusal());
            ahead.take(0, Optional.empty(), done.effects());
            effects.addAll(done.effects());
        }
        effects.add(new Effect.ItemsNumbered(
                act.series(),
                act.document(),
                act.rows().stream().map(Act.DocumentRow::item).toList()));
        return new Decision.Done(effects);
    }

    private Act.Allocate allocate(Act.DocumentRow row) {
        return new Act.Allocate(
                act.series(),
                act.date(),
                row.fields(),
                1,
                Act.Form.SINGLES,
                Optional.empty(),
                Purpose.NONE,
                act.mark());
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
