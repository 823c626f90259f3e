package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.DEFINITION_FILE;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.LIVE_REFERENCE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.CodebookJson;
import org.youngtally.ledger.journal.SeriesJson;

/** What decisions rest on, asked of the tables. */
public final class StateQueries {
    private final DSLContext dsl;
    private final AnyOf byKeys;
    private final AnyOf byReferences;

    public StateQueries(DSLContext dsl) {
        this.dsl = dsl;
        byKeys = new AnyOf(dsl, keys -> dsl.select(ACCOUNT.NAME, ENTRY.REQUEST_KEY, ENTRY.SEQ, ENTRY.DIGEST).from(ENTRY).join(ACCOUNT).on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID)).where(ENTRY.REQUEST_KEY.in(keys)));
        byReferences = new AnyOf(dsl, references -> dsl.select(SERIES.NAME, LIVE_REFERENCE.REFERENCE, ENTRY.SEQ, ENTRY.DIGEST).from(LIVE_REFERENCE).join(SERIES).on(SERIES.ID.eq(LIVE_REFERENCE.SERIES_ID)).join(ENTRY).on(ENTRY.SEQ.eq(LIVE_REFERENCE.SEQ))
                .where(LIVE_REFERENCE.REFERENCE.in(references)));
    }

    /** Every series in its newest version, in the order in which they were first defined. */
    public List<Series> series() {
        return dsl.select(SERIES_VERSION.DEFINITION).from(SERIES).join(SERIES_VERSION).on(SERIES_VERSION.SERIES_ID.eq(SERIES.ID), SERIES_VERSION.VERSION.eq(SERIES.VERSION))
                .orderBy(SERIES.ID).fetch(row -> Store.secrets(dsl).unsealed(SeriesJson.read(row.value1())));
    }

    /** Every codebook in its newest version, by its key. */
    public List<Codebook> codebooks() {
        var newer = CODEBOOK_VERSION.as("newer");
        return dsl.select(CODEBOOK_VERSION.DEFINITION).from(CODEBOOK_VERSION).where(DSL.notExists(DSL.selectOne().from(newer).where(newer.NAME.eq(CODEBOOK_VERSION.NAME), newer.VERSION.gt(CODEBOOK_VERSION.VERSION))))
                .orderBy(CODEBOOK_VERSION.NAME).fetch(row -> CodebookJson.read(row.value1()));
    }

    /** Every namespace that was defined, by its key. */
    public List<Namespace> namespaces() {
        return dsl.select(NAMESPACE.NAME, NAMESPACE.TITLE, NAMESPACE.REPEATS, NAMESPACE.VERSION).from(NAMESPACE).where(NAMESPACE.VERSION.gt(0)).orderBy(NAMESPACE.NAME).fetch(row -> new Namespace(row.value1(), row.value2(), row.value3(), row.value4()));
    }

    /** The secret by which a series is scattered. */
    public Scatter scatter(String series) { return Store.secrets(dsl).of(series); }

    /** The kept files of definitions, those applied last first. */
    public List<KeptFile> files() {
        return dsl.select(DEFINITION_FILE.NAME, DEFINITION_FILE.TEXT).from(DEFINITION_FILE).orderBy(DEFINITION_FILE.SEQ.desc(), DEFINITION_FILE.NAME).fetch(row -> new KeptFile(row.value1(), row.value2()));
    }

    /** The text that is kept of a file. */
    public Optional<String> file(String name) {
        return dsl.select(DEFINITION_FILE.TEXT).from(DEFINITION_FILE).where(DEFINITION_FILE.NAME.eq(name)).fetchOptional(DEFINITION_FILE.TEXT);
    }

    /** A used lane. @param skipped how many of the positions below the next one were passed over */
    public record LaneRow(int lane, LaneKey key, long next, long skipped, LocalDate latest) {}

    public List<LaneRow> lanes() {
        return dsl.select(LANE.ID, SERIES.NAME, LANE.RANGE_ID, LANE.PERIOD, LANE.NEXT_POSITION, LANE.SKIPPED, LANE.LATEST_DATE).from(LANE).join(SERIES).on(SERIES.ID.eq(LANE.SERIES_ID))
                .orderBy(LANE.ID).fetch(row -> new LaneRow(row.value1(), new LaneKey(row.value2(), row.value3(), row.value4()), row.value5(), row.value6(), row.value7()));
    }

    /** The instant of the newest entry. */
    public Optional<Instant> newest() {
        return Optional.ofNullable(dsl.select(ENTRY.AT).from(ENTRY).orderBy(ENTRY.SEQ.desc()).limit(1).fetchOne(ENTRY.AT)).map(at -> at.toInstant(ZoneOffset.UTC));
    }

    /** An act that was done under a key. */
    public record KeyedAct(String account, String key, EarlierAct act) {}

    public List<KeyedAct> byKeys(Collection<String> keys) {
        return byKeys.ask(keys, row -> new KeyedAct(row.getString(1), row.getString(2), new EarlierAct(row.getLong(3), row.getString(4))));
    }

    /** An act that holds a reference. */
    public record ReferencedAct(String series, String reference, EarlierAct act) {}

    public List<ReferencedAct> byReferences(Collection<String> references) {
        return byReferences.ask(references, row -> new ReferencedAct(row.getString(1), row.getString(2), new EarlierAct(row.getLong(3), row.getString(4))));
    }
}
