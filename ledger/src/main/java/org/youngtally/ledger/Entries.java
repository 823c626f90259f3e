package org.youngtally.ledger;

import java.time.LocalDate;
import java.util.Optional;
import org.youngtally.core.act.Act;
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

    static Optional<Entry.Request> request(Act act, LocalDate today) {
        return switch (act) {
            case Act.Define define -> Optional.empty();
            case Act.Allocate a -> Optional.of(new Entry.Request(a.series(), a.date().orElse(today), a.quantity(), a.reference(), a.mark().key(), a.mark().digest()));
        };
    }
}
