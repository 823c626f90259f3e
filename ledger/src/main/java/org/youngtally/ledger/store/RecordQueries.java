package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.KEPT_RECORD;
import static org.youngtally.ledger.store.db.Tables.RECORD_KEY;
import static org.youngtally.ledger.store.db.Tables.RECORD_NUMBER;
import static org.youngtally.ledger.store.db.Tables.RECORD_UNIT;
import static org.youngtally.ledger.store.db.Tables.RECORD_VERSION;
import static org.youngtally.ledger.store.db.Tables.RECORD_WORD;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.RecordKeys;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.OrganisationJson;

/** The records that are kept, as people look for them. */
public final class RecordQueries {
    private final DSLContext dsl;

    public RecordQueries(DSLContext dsl) {
        this.dsl = dsl;
    }

    /** A record in its newest version. */
    public Optional<KeptRecord> at(long id) {
        return dsl.select(RECORD_VERSION.CONTENT)
                .from(RECORD_VERSION)
                .where(RECORD_VERSION.RECORD_ID.eq(id))
                .orderBy(RECORD_VERSION.VERSION.desc())
                .limit(1)
                .fetchOptional(row -> OrganisationJson.record(row.value1()));
    }

    /** The record that an entry kept, as it kept it. */
    public Optional<KeptRecord> by(long seq) {
        return dsl.select(RECORD_VERSION.CONTENT)
                .from(RECORD_VERSION)
                .where(RECORD_VERSION.SEQ.eq(seq))
                .fetchOptional(row -> OrganisationJson.record(row.value1()));
    }

    /** Every record of a kind, the oldest first. */
    List<KeptRecord> all(String kind) {
        return dsl.select(RECORD_VERSION.CONTENT)
                .from(KEPT_RECORD)
                .join(RECORD_VERSION)
                .on(RECORD_VERSION.RECORD_ID.eq(KEPT_RECORD.ID), RECORD_VERSION.VERSION.eq(KEPT_RECORD.VERSION))
                .where(KEPT_RECORD.KIND.eq(kind))
                .orderBy(KEPT_RECORD.ID)
                .fetch(row -> OrganisationJson.record(row.value1()));
    }

    /** A version of a record, and the entry that made it so. */
    public record Version(KeptRecord record, EntryQueries.Row entry) {}

    /** Every version of a record, the newest first. */
    public List<Version> versions(long id) {
        var entries = new EntryQueries(dsl);
        return dsl.select(RECORD_VERSION.CONTENT, RECORD_VERSION.SEQ)
                .from(RECORD_VERSION)
                .where(RECORD_VERSION.RECORD_ID.eq(id))
                .orderBy(RECORD_VERSION.VERSION.desc())
                .fetch(row -> new Version(
                        OrganisationJson.record(row.value1()),
                        entries.at(row.value2()).orElseThrow()));
    }

    /** The record of a kind that is known by a value, in the form in which values are compared. */
    Optional<Long> known(String kind, String field, String value) {
        return dsl.select(RECORD_KEY.RECORD_ID)
                .from(RECORD_KEY)
                .where(RECORD_KEY.KIND.eq(kind), RECORD_KEY.FIELD.eq(field), RECORD_KEY.VALUE_KEY.eq(value))
                .fetchOptional(RECORD_KEY.RECORD_ID);
    }

    /** The record that has an identifier of a series; or, where none has it now, the one that had it last. */
    public Optional<Long> numbered(Series series, String text) {
        return dsl.select(RECORD_NUMBER.RECORD_ID)
                .from(RECORD_NUMBER)
                .join(SERIES)
                .on(SERIES.ID.eq(RECORD_NUMBER.SERIES_ID))
                .join(KEPT_RECORD)
                .on(KEPT_RECORD.ID.eq(RECORD_NUMBER.RECORD_ID))
                .where(
                        SERIES.NAME.eq(series.key()),
                        RECORD_NUMBER.TEXT_KEY.eq(series.comparison().key(text)))
                .orderBy(KEPT_RECORD.DELETED, RECORD_NUMBER.RECORD_ID.desc())
                .limit(1)
                .fetchOptional(RECORD_NUMBER.RECORD_ID);
    }

    /** The number that the next record gets. */
    long next() {
        return dsl.select(DSL.coalesce(DSL.max(KEPT_RECORD.ID), DSL.inline(0L)))
                        .from(KEPT_RECORD)
                        .fetchSingle()
                        .value1()
                + 1;
    }

    /**
     * What is looked for.
     *
     * @param text words that each record has, the last of them perhaps only begun; or an identifier that it ever had;
     *     empty for all
     * @param kind absent for every kind
     * @param unit that it is in; absent for any
     * @param deleted whether deleted ones are looked for as well
     */
    public record Wanted(String text, Optional<String> kind, Optional<String> unit, boolean deleted) {}

    /**
     * Records from new to old.
     *
     * @param series those whose records may be seen; absent for all
     * @param before only those with a lower number
     */
    public List<KeptRecord> search(
            Wanted wanted, Optional<? extends Collection<String>> series, long before, int most) {
        Condition condition = KEPT_RECORD.ID.lt(before);
        if (!wanted.deleted() && wanted.text().isBlank()) condition = condition.and(KEPT_RECORD.DELETED.isFalse());
        if (wanted.kind().isPresent())
            condition = condition.and(KEPT_RECORD.KIND.eq(wanted.kind().get()));
        if (wanted.unit().isPresent())
            condition = condition.and(KEPT_RECORD.ID.in(dsl.select(RECORD_UNIT.RECORD_ID)
                    .from(RECORD_UNIT)
                    .where(RECORD_UNIT.UNIT.eq(wanted.unit().get()))));
        if (series.isPresent())
            condition = condition.and(
                    KEPT_RECORD.SERIES_ID.in(dsl.select(SERIES.ID).from(SERIES).where(SERIES.NAME.in(series.get()))));
        if (!wanted.text().isBlank())
            condition = condition.and(had(wanted.text()).or(words(wanted)));
        return dsl.select(RECORD_VERSION.CONTENT)
                .from(KEPT_RECORD)
                .join(RECORD_VERSION)
                .on(RECORD_VERSION.RECORD_ID.eq(KEPT_RECORD.ID), RECORD_VERSION.VERSION.eq(KEPT_RECORD.VERSION))
                .where(condition)
                .orderBy(KEPT_RECORD.ID.desc())
                .limit(most)
                .fetch(row -> OrganisationJson.record(row.value1()));
    }

    private Condition had(String text) {
        return KEPT_RECORD.ID.in(dsl.select(RECORD_NUMBER.RECORD_ID)
                .from(RECORD_NUMBER)
                .where(RECORD_NUMBER.TEXT_KEY.in(Comparison.keys(text))));
    }

    private Condition words(Wanted wanted) {
        List<String> words = new ArrayList<>(RecordKeys.words(wanted.text()));
        Condition all = wanted.deleted() ? DSL.trueCondition() : KEPT_RECORD.DELETED.isFalse();
        for (String word : words)
            all = all.and(KEPT_RECORD.ID.in(dsl.select(RECORD_WORD.RECORD_ID)
                    .from(RECORD_WORD)
                    .where(RECORD_WORD.WORD.ge(word), RECORD_WORD.WORD.lt(word + Character.MAX_VALUE))));
        return all;
    }

    /** How many versions of records the tables keep. */
    public int versions() {
        return dsl.fetchCount(RECORD_VERSION);
    }

    /** What the tables hold of a version of a record. */
    public Optional<String> content(long id, int version) {
        return dsl.select(RECORD_VERSION.CONTENT)
                .from(RECORD_VERSION)
                .where(RECORD_VERSION.RECORD_ID.eq(id), RECORD_VERSION.VERSION.eq(version))
                .fetchOptional(RECORD_VERSION.CONTENT);
    }
}
