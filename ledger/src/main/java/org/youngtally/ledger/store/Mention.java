package org.youngtally.ledger.store;

import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.PositionState;
import org.youngtally.ledger.journal.Entry;

/**
 * What an entry that takes no numbers, or keeps a record, is about, as people read it.
 *
 * @param state what became of the numbers that it settles
 * @param first the first of the identifiers
 * @param last the last of them
 */
record Mention(Optional<PositionState> state, Optional<String> first, Optional<String> last) {
    static Mention of(Entry entry) {
        List<Effect.Settled> settled = of(entry, Effect.Settled.class);
        Optional<String> record = of(entry, Effect.RecordKept.class).stream()
                .findFirst()
                .map(kept -> kept.record().number().text());
        Optional<PositionState> state = settled.stream().findFirst().map(Effect.Settled::now);
        Optional<String> first =
                settled.stream().findFirst().map(Effect.Settled::first).or(() -> record);
        // A record that has another number now: the one it had, and the one that it has.
        Optional<String> last = record.or(() -> settled.isEmpty()
                ? Optional.empty()
                : Optional.of(settled.getLast().last()));
        return new Mention(state, first, last);
    }

    private static <E extends Effect> List<E> of(Entry entry, Class<E> sort) {
        return entry.effects().stream().filter(sort::isInstance).map(sort::cast).toList();
    }
}
