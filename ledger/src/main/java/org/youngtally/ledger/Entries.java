package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.Entry;

/** What an entry says of the act that it records. */
final class Entries {
    private Entries() {}

    static Entry.Kind kind(Act act) {
        return switch (act) {
            case Act.Define define -> Entry.Kind.DEFINE;
            case Act.Allocate allocate -> switch (allocate.form()) {
                case SINGLES -> Entry.Kind.ALLOCATE;
                case BLOCK -> Entry.Kind.BLOCK;
            };
        };
    }

    /** @param effects what became of it */
    static Optional<Entry.Request> request(Act act, List<Effect> effects) {
        return switch (act) {
            case Act.Define define -> Optional.empty();
            case Act.Allocate a -> Optional.of(new Entry.Request(a.series(), particulars(effects), a.quantity(), a.reference(), a.mark().key(), a.mark().digest()));
        };
    }

    /** What all numbers of one act were taken for. */
    private static Particulars particulars(List<Effect> effects) {
        return effects.stream().filter(Effect.Issued.class::isInstance).map(effect -> ((Effect.Issued) effect).particulars()).findFirst().orElseThrow();
    }
}
