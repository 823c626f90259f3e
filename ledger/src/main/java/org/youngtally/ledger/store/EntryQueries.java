package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.SelectOnConditionStep;
import org.jooq.impl.DSL;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;

/** The ledger's entries as people read them. */
public final class EntryQueries {
    private final DSLContext dsl;
    private final Definitions definitions;

    public EntryQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new Definitions(dsl);
    }

    /**
     * One entry.
     *
     * @param series null for an act that defines several at once
     * @param particulars null for an act without a business date
     * @param quantity 0 for an act that takes no numbers
     */
    public record Row(long seq, Instant at, String by, Entry.Kind kind, String series, Particulars particulars, long quantity, Optional<String> reference, Optional<String> key, List<Span> spans) {}

    public Optional<Row> at(long seq) {
        return rows().where(ENTRY.SEQ.eq(seq)).fetchOptional(EntryQueries::row);
    }

    /**
     * Entries from new to old.
     *
     * @param series only those that concern this series; absent for all
     * @param before only those with a lower sequence number
     */
    public List<Row> page(Optional<String> series, long before, int most) {
        Condition wanted = ENTRY.SEQ.lt(before);
        if (series.isPresent()) {
            int id = dsl.select(SERIES.ID).from(SERIES).where(SERIES.NAME.eq(series.get())).fetchSingle().value1();
            // Definitions concern a series too, but stand in no column of the entry: one act may define many.
            wanted = wanted.and(ENTRY.SEQ.in(dsl.select(ENTRY.SEQ).from(ENTRY).where(ENTRY.SERIES_ID.eq(id), ENTRY.SEQ.lt(before)).orderBy(ENTRY.SEQ.desc()).limit(most)
                    .union(dsl.select(SERIES_VERSION.SEQ).from(SERIES_VERSION).where(SERIES_VERSION.SERIES_ID.eq(id), SERIES_VERSION.SEQ.lt(before)))));
        }
        return rows().where(wanted).orderBy(ENTRY.SEQ.desc()).limit(most).fetch(EntryQueries::row);
    }

    /** The keys of the codebooks and series that an entry defined. */
    public List<String> defined(long seq) {
        var keys = new ArrayList<>(dsl.select(CODEBOOK_VERSION.NAME).from(CODEBOOK_VERSION).where(CODEBOOK_VERSION.SEQ.eq(seq)).orderBy(CODEBOOK_VERSION.NAME).fetch(CODEBOOK_VERSION.NAME));
        keys.addAll(dsl.select(SERIES.NAME).from(SERIES_VERSION).join(SERIES).on(SERIES.ID.eq(SERIES_VERSION.SERIES_ID)).where(SERIES_VERSION.SEQ.eq(seq)).orderBy(SERIES.ID).fetch(SERIES.NAME));
        return keys;
    }

    /** The identifiers that an entry took; of each block the first and the last. */
    public List<String> texts(Row row) {
        var texts = new ArrayList<String>();
        for (Span span : row.spans()) {
            if (row.kind() == Entry.Kind.BLOCK) texts.addAll(ends(row, span));
            else texts.addAll(dsl.select(ALLOCATION.TEXT).from(ALLOCATION).where(ALLOCATION.LANE_ID.eq(span.lane()), ALLOCATION.FIRST_POSITION.between(span.from(), span.to())).orderBy(ALLOCATION.FIRST_POSITION).fetch(ALLOCATION.TEXT));
        }
        return texts;
    }

    /** The first and the last identifier that an entry took. */
    public List<String> ends(Row row) {
        if (row.spans().isEmpty()) return List.of();
        return List.of(ends(row, row.spans().getFirst()).getFirst(), ends(row, row.spans().getLast()).getLast());
    }

    private List<String> ends(Row row, Span span) {
        if (row.kind() != Entry.Kind.BLOCK) return List.of(text(span.lane(), span.from()), text(span.lane(), span.to()));
        int version = dsl.select(ALLOCATION.VERSION).from(ALLOCATION).where(ALLOCATION.LANE_ID.eq(span.lane()), ALLOCATION.FIRST_POSITION.eq(span.from())).fetchSingle(ALLOCATION.VERSION);
        return List.of(definitions.render(span.lane(), version, row.particulars(), span.from()), definitions.render(span.lane(), version, row.particulars(), span.to()));
    }

    private String text(int lane, long position) {
        return dsl.select(ALLOCATION.TEXT).from(ALLOCATION).where(ALLOCATION.LANE_ID.eq(lane), ALLOCATION.FIRST_POSITION.eq(position)).fetchSingle(ALLOCATION.TEXT);
    }

    private SelectOnConditionStep<? extends Record> rows() {
        return dsl.select(ENTRY.SEQ, ENTRY.AT, ACCOUNT.NAME, ENTRY.KIND, SERIES.NAME, ENTRY.BUSINESS_DATE, DSL.coalesce(ENTRY.QUANTITY, 0L).as("quantity"), ENTRY.REFERENCE, ENTRY.REQUEST_KEY, ENTRY.SPANS, ENTRY.FIELDS)
                .from(ENTRY).join(ACCOUNT).on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID)).leftJoin(SERIES).on(SERIES.ID.eq(ENTRY.SERIES_ID));
    }

    private static Row row(Record row) {
        return new Row(row.get(ENTRY.SEQ), row.get(ENTRY.AT).toInstant(ZoneOffset.UTC), row.get(ACCOUNT.NAME), Entry.Kind.values()[row.get(ENTRY.KIND)], row.get(SERIES.NAME), Optional.ofNullable(row.get(ENTRY.BUSINESS_DATE)).map(date -> new Particulars(date, FieldsJson.read(row.get(ENTRY.FIELDS)))).orElse(null),
                row.get("quantity", Long.class), Optional.ofNullable(row.get(ENTRY.REFERENCE)), Optional.ofNullable(row.get(ENTRY.REQUEST_KEY)), Span.read(row.get(ENTRY.SPANS)));
    }
}
