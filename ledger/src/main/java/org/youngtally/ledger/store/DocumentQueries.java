package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.DOCUMENT_ITEM;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;

/** The numbers of the items of documents. */
public final class DocumentQueries {
    private final DSLContext dsl;

    public DocumentQueries(DSLContext dsl) {
        this.dsl = dsl;
    }

    /**
     * The number of an item.
     *
     * @param seq the entry that allocated it
     */
    public record ItemNumber(long seq, String item, String identifier) {}

    /** The last entry that numbered items of a document; 0 for none. */
    public long last(String series, String document) {
        return dsl.select(DSL.coalesce(DSL.max(DOCUMENT_ITEM.SEQ), 0L))
                .from(DOCUMENT_ITEM)
                .where(
                        DOCUMENT_ITEM.DOCUMENT.eq(document),
                        DOCUMENT_ITEM.SERIES_ID.eq(
                                dsl.select(SERIES.ID).from(SERIES).where(SERIES.NAME.eq(series))))
                .fetchSingle()
                .value1();
    }

    /**
     * The numbers that items of a document have and that are neither void nor returned, in the order in which they got
     * them.
     */
    public List<ItemNumber> standing(String series, String document) {
        var numbers = new ArrayList<ItemNumber>();
        var entries = new EntryQueries(dsl);
        dsl.select(DOCUMENT_ITEM.SEQ, DOCUMENT_ITEM.ITEM)
                .from(DOCUMENT_ITEM)
                .join(SERIES)
                .on(SERIES.ID.eq(DOCUMENT_ITEM.SERIES_ID))
                .where(DOCUMENT_ITEM.DOCUMENT.eq(document), SERIES.NAME.eq(series))
                .orderBy(DOCUMENT_ITEM.SEQ, DOCUMENT_ITEM.PLACE)
                .fetchGroups(DOCUMENT_ITEM.SEQ, DOCUMENT_ITEM.ITEM)
                .forEach((seq, items) -> {
                    EntryQueries.Row row = entries.at(seq).orElseThrow();
                    List<String> identifiers = entries.filled(row);
                    Set<String> standing =
                            new HashSet<>(entries.standingBySeries(row).getOrDefault(series, List.of()));
                    for (int i = 0; i < items.size(); i++)
                        if (standing.contains(identifiers.get(i)))
                            numbers.add(new ItemNumber(seq, items.get(i), identifiers.get(i)));
                });
        return numbers;
    }

    /** Whether an entry is kept with these items, in their order. */
    public boolean isKept(long seq, Effect.ItemsNumbered numbered) {
        return dsl.select(DOCUMENT_ITEM.DOCUMENT, DOCUMENT_ITEM.ITEM)
                .from(DOCUMENT_ITEM)
                .join(SERIES)
                .on(SERIES.ID.eq(DOCUMENT_ITEM.SERIES_ID))
                .where(DOCUMENT_ITEM.SEQ.eq(seq), SERIES.NAME.eq(numbered.series()))
                .orderBy(DOCUMENT_ITEM.PLACE)
                .fetch(row -> List.of(row.value1(), row.value2()))
                .equals(numbered.items().stream()
                        .map(item -> List.of(numbered.document(), item))
                        .toList());
    }

    /** How many items of documents were ever numbered. */
    public long count() {
        return dsl.fetchCount(DOCUMENT_ITEM);
    }

    /** The document and the item that a number of an entry is in; absent for an entry of no document. */
    public Optional<String> reference(EntryQueries.Row entry, String identifier) {
        return dsl.select(DOCUMENT_ITEM.DOCUMENT, DOCUMENT_ITEM.ITEM)
                .from(DOCUMENT_ITEM)
                .where(
                        DOCUMENT_ITEM.SEQ.eq(entry.seq()),
                        DOCUMENT_ITEM.PLACE.eq(
                                new EntryQueries(dsl).filled(entry).indexOf(identifier)))
                .fetchOptional(row -> row.value1() + ", " + row.value2());
    }
}
