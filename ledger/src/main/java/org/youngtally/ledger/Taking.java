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
 * @param identifiers all of them in order; empty for a block
 * @param first the first of them
 * @param last the last of them
 */
public record Taking(long seq, Instant at, String by, String series, Particulars particulars, long quantity, Optional<String> reference, List<String> identifiers, String first, String last) {

    static Taking of(Entry entry, Ledger ledger) {
        if (entry.kind() == Entry.Kind.BLOCK) return ledger.read(dsl -> at(entry.seq(), dsl));
        List<String> texts = entry.effects().stream().filter(Effect.Issued.class::isInstance).flatMap(effect -> ((Effect.Issued) effect).texts().stream()).toList();
        Entry.Request request = entry.request().orElseThrow();
        return new Taking(entry.seq(), entry.at(), entry.by(), request.series(), request.particulars(), request.quantity(), request.reference(), texts, texts.getFirst(), texts.getLast());
    }

    static Taking at(long seq, DSLContext dsl) {
        var queries = new EntryQueries(dsl);
        EntryQueries.Row row = queries.at(seq).orElseThrow();
        List<String> texts = queries.texts(row);
        return new Taking(seq, row.at(), row.by(), row.series(), row.particulars(), row.quantity(), row.reference(), row.kind() == Entry.Kind.BLOCK ? List.of() : texts, texts.getFirst(), texts.getLast());
    }
}
