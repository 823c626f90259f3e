package org.youngtally.service.api;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.act.PositionState;
import org.youngtally.ledger.store.EntryQueries;

/**
 * The result of an act on issued numbers, or on a period.
 *
 * @param seq the entry of the ledger
 * @param act confirm, release, return, void, use, split, close or reopen
 * @param quantity how many numbers it is about
 * @param state what they are now; where they are several things, what the first of them is
 * @param first the first of them
 * @param note the reason, or for whom
 * @param repeated whether this is the answer to an earlier, same request
 */
record Settlement(
        long seq,
        Instant at,
        String by,
        String act,
        @Nullable String series,
        long quantity,
        @Nullable String state,
        @Nullable String first,
        @Nullable String last,
        @Nullable String note,
        boolean repeated) {
    static Settlement of(EntryQueries.Row entry, boolean repeated) {
        return new Settlement(
                entry.seq(),
                entry.at(),
                entry.by(),
                entry.kind().word(),
                entry.series().orElse(null),
                entry.quantity(),
                entry.state().map(PositionState::word).orElse(null),
                entry.first().orElse(null),
                entry.last().orElse(null),
                entry.note().orElse(null),
                repeated);
    }
}
