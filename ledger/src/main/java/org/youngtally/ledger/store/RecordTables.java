package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.KEPT_RECORD;
import static org.youngtally.ledger.store.db.Tables.RECORD_KEY;
import static org.youngtally.ledger.store.db.Tables.RECORD_NUMBER;
import static org.youngtally.ledger.store.db.Tables.RECORD_UNIT;
import static org.youngtally.ledger.store.db.Tables.RECORD_VERSION;
import static org.youngtally.ledger.store.db.Tables.RECORD_WORD;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.RecordKeys;
import org.youngtally.ledger.journal.OrganisationJson;
import org.youngtally.ledger.store.statement.BatchInsert;

/**
 * Writes records and all that they are found by. New ones are gathered and put in together; a change is made at once.
 */
final class RecordTables {
    private final DSLContext dsl;
    private final BatchInsert newRecord;
    private final BatchInsert newVersion;
    private final BatchInsert newUnit;
    private final BatchInsert newNumber;
    private final BatchInsert newKey;
    private final BatchInsert newWord;
    private final Map<BatchInsert, List<Object[]>> gathered = new LinkedHashMap<>();
    private Map<String, Kind> kinds = Map.of();

    RecordTables(DSLContext dsl) {
        this.dsl = dsl;
        newRecord = new BatchInsert(
                dsl,
                KEPT_RECORD,
                KEPT_RECORD.ID,
                KEPT_RECORD.KIND,
                KEPT_RECORD.SERIES_ID,
                KEPT_RECORD.TEXT,
                KEPT_RECORD.DELETED,
                KEPT_RECORD.VERSION);
        newVersion = new BatchInsert(
                dsl,
                RECORD_VERSION,
                RECORD_VERSION.RECORD_ID,
                RECORD_VERSION.VERSION,
                RECORD_VERSION.SEQ,
                RECORD_VERSION.CONTENT);
        newUnit = new BatchInsert(dsl, RECORD_UNIT, RECORD_UNIT.UNIT, RECORD_UNIT.RECORD_ID);
        newNumber = new BatchInsert(
                dsl, RECORD_NUMBER, RECORD_NUMBER.TEXT_KEY, RECORD_NUMBER.SERIES_ID, RECORD_NUMBER.RECORD_ID);
        newKey = new BatchInsert(
                dsl, RECORD_KEY, RECORD_KEY.KIND, RECORD_KEY.FIELD, RECORD_KEY.VALUE_KEY, RECORD_KEY.RECORD_ID);
        newWord = new BatchInsert(dsl, RECORD_WORD, RECORD_WORD.WORD, RECORD_WORD.RECORD_ID);
        for (BatchInsert each : List.of(newRecord, newVersion, newUnit, newNumber, newKey, newWord))
            gathered.put(each, new ArrayList<>());
    }

    /** Drops what was remembered of rows that a rollback took away. */
    void forget() {
        kinds = Map.of();
        gathered.values().forEach(List::clear);
    }

    private Kind kind(String key) {
        // Kinds change seldom, and are read anew where one was defined.
        if (!kinds.containsKey(key))
            kinds = new OrganisationTables(dsl).organisation().kinds();
        return kinds.get(key);
    }

    /**
     * Under what a record is found by its number.
     *
     * @param series the row of the series that numbers it
     * @param key of the number, as its namespace compares
     */
    record Filed(int series, String key) {}

    void add(long seq, KeptRecord record, Filed filed) {
        gathered.get(newRecord).add(new Object[] {
            record.id(), record.kind(), filed.series(), record.number().text(), record.deleted(), record.version()
        });
        found(seq, record, filed);
    }

    private void found(long seq, KeptRecord record, Filed filed) {
        gathered.get(newVersion).add(new Object[] {record.id(), record.version(), seq, OrganisationJson.write(record)});
        for (String unit : record.units()) gathered.get(newUnit).add(new Object[] {unit, record.id()});
        Kind kind = kind(record.kind());
        RecordKeys.known(kind, record).forEach((field, value) -> gathered.get(newKey)
                .add(new Object[] {kind.key(), field, value, record.id()}));
        for (String word : RecordKeys.words(kind, record)) gathered.get(newWord).add(new Object[] {word, record.id()});
        if (record.version() == 1) gathered.get(newNumber).add(new Object[] {filed.key(), filed.series(), record.id()});
    }

    /** Nothing may be gathered. */
    void change(long seq, KeptRecord record, Filed filed) {
        dsl.update(KEPT_RECORD)
                .set(KEPT_RECORD.SERIES_ID, filed.series())
                .set(KEPT_RECORD.TEXT, record.number().text())
                .set(KEPT_RECORD.DELETED, record.deleted())
                .set(KEPT_RECORD.VERSION, record.version())
                .where(KEPT_RECORD.ID.eq(record.id()))
                .execute();
        dsl.deleteFrom(RECORD_UNIT).where(RECORD_UNIT.RECORD_ID.eq(record.id())).execute();
        dsl.deleteFrom(RECORD_KEY).where(RECORD_KEY.RECORD_ID.eq(record.id())).execute();
        dsl.deleteFrom(RECORD_WORD).where(RECORD_WORD.RECORD_ID.eq(record.id())).execute();
        dsl.insertInto(RECORD_NUMBER, RECORD_NUMBER.TEXT_KEY, RECORD_NUMBER.SERIES_ID, RECORD_NUMBER.RECORD_ID)
                .values(filed.key(), filed.series(), record.id())
                .onConflictDoNothing()
                .execute();
        found(seq, record, filed);
        flush();
    }

    /** A kind is defined anew: what its records are found by may be another. Nothing may be gathered. */
    void define(Kind kind) {
        kinds = Map.of();
        if (kind.version() == 1) return;
        var known = new LinkedHashMap<List<String>, Object[]>();
        var words = new ArrayList<Object[]>();
        for (KeptRecord record : new RecordQueries(dsl).all(kind.key())) {
            // Of two that are alike now the older one is found.
            RecordKeys.known(kind, record)
                    .forEach((field, value) -> known.putIfAbsent(
                            List.of(field, value), new Object[] {kind.key(), field, value, record.id()}));
            for (String word : RecordKeys.words(kind, record)) words.add(new Object[] {word, record.id()});
        }
        dsl.deleteFrom(RECORD_KEY).where(RECORD_KEY.KIND.eq(kind.key())).execute();
        dsl.deleteFrom(RECORD_WORD)
                .where(RECORD_WORD.RECORD_ID.in(
                        dsl.select(KEPT_RECORD.ID).from(KEPT_RECORD).where(KEPT_RECORD.KIND.eq(kind.key()))))
                .execute();
        newKey.run(List.copyOf(known.values()));
        newWord.run(words);
    }

    void flush() {
        gathered.forEach((insertion, rows) -> {
            insertion.run(rows);
            rows.clear();
        });
    }
}
