package org.youngtally.ledger;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.youngtally.core.act.Effect;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.EntryQueries;

/**
 * Numbers that one act took.
 *
 * @param identifiers all of them in order; empty for a block, and where some were given back since
 * @param first the first of them
 * @param last the last of them
 * @param until when they lapse, if they are held
 * @param withdrawn how many of them are not what this act made of them any more: given back, lapsed, or void
 */
public record Taking(
        long seq,
        Instant at,
        String by,
        Entry.Kind kind,
        String series,
        Particulars particulars,
        long quantity,
        Optional<String> reference,
        List<String> identifiers,
        String first,
        String last,
        Optional<Instant> until,
        long withdrawn) {

    static Taking of(Entry entry, Committed committed) {
        if (entry.kind() == Entry.Kind.BLOCK)
            return committed.read(
                    dsl -> of(new EntryQueries(dsl).at(entry.seq()).orElseThrow(), dsl));
        List<Effect.Issued> issued = entry.effects().stream()
                .filter(Effect.Issued.class::isInstance)
                .map(Effect.Issued.class::cast)
                .toList();
        List<String> texts = issued.size() == 1
                ? issued.getFirst().texts()
                : issued.stream().flatMap(effect -> effect.texts().stream()).toList();
        Entry.Request request = entry.request().orElseThrow();
        return new Taking(
                entry.seq(),
                entry.at(),
                entry.by(),
                entry.kind(),
                request.series().orElseThrow(),
                request.particulars().orElseThrow(),
                request.quantity(),
                request.reference(),
                texts,
                texts.getFirst(),
                texts.getLast(),
                issued.getFirst().manner().until(),
                0);
    }

    static Taking of(EntryQueries.Row row, DSLContext dsl) {
        var queries = new EntryQueries(dsl);
        List<String> texts = queries.texts(row);
        long withdrawn = row.quantity() - queries.standing(row);
        return new Taking(
                row.seq(),
                row.at(),
                row.by(),
                row.kind(),
                row.series().orElseThrow(),
                row.particulars().orElseThrow(),
                row.quantity(),
                row.reference(),
                row.kind() == Entry.Kind.BLOCK || withdrawn > 0 ? List.of() : texts,
                texts.getFirst(),
                texts.getLast(),
                queries.until(row),
                withdrawn);
    }
}
