package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK_STRETCH;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.DEFINITION_FILE;
import static org.youngtally.ledger.store.db.Tables.DOCUMENT_ITEM;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.EPOCH;
import static org.youngtally.ledger.store.db.Tables.FILLING_SERIES;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.LIVE_REFERENCE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_STATED;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;
import static org.youngtally.ledger.store.db.Tables.TABLE_FILLING;
import static org.youngtally.ledger.store.db.Tables.WATCHED;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Span;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.CodebookJson;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.SeriesJson;
import org.youngtally.ledger.store.statement.BatchInsert;
import org.youngtally.ledger.store.statement.WriterStatement;

/**
 * Writes entries into the tables. The one piece of code that does, for new acts and for those replayed from the
 * journal; it depends on nothing but the entries in their order.
 */
final class EntryTables {
    private record SeriesRow(int id, int namespace, Comparison comparison) {}

    private final DSLContext dsl;
    private final BatchInsert newLane;
    private final BatchInsert newEntry;
    private final BatchInsert newReference;
    private final BatchInsert newAllocation;
    private final BatchInsert newBlock;
    private final BatchInsert newWatched;
    private final BatchInsert newDocumentItem;
    private final BatchInsert newFilling;
    private final BatchInsert newFillingSeries;
    private final WriterStatement counter;
    private final WriterStatement free;
    private final LifeTables life;
    private final PlanTables plans;
    private final LabelTables labels;
    private final OrganisationTables organisation;
    private final RecordTables records;
    private final Map<String, Integer> accounts = new HashMap<>();
    private final Map<String, SeriesRow> series = new HashMap<>();
    private final Map<Integer, String> laneSeries = new HashMap<>();

    EntryTables(DSLContext dsl) {
        this.dsl = dsl;
        newLane = new BatchInsert(
                dsl, LANE, LANE.ID, LANE.SERIES_ID, LANE.RANGE_ID, LANE.PERIOD, LANE.NEXT_POSITION, LANE.SKIPPED);
        newEntry = new BatchInsert(
                dsl,
                ENTRY,
                ENTRY.SEQ,
                ENTRY.AT,
                ENTRY.ACCOUNT_ID,
                ENTRY.KIND,
                ENTRY.SERIES_ID,
                ENTRY.BUSINESS_DATE,
                ENTRY.QUANTITY,
                ENTRY.REFERENCE,
                ENTRY.REQUEST_KEY,
                ENTRY.DIGEST,
                ENTRY.SPANS,
                ENTRY.FIELDS,
                ENTRY.NOTE,
                ENTRY.STATE,
                ENTRY.FIRST_TEXT,
                ENTRY.LAST_TEXT,
                ENTRY.PURPOSE,
                ENTRY.KEY_MARK);
        life = new LifeTables(dsl);
        plans = new PlanTables(dsl);
        labels = new LabelTables(dsl);
        organisation = new OrganisationTables(dsl);
        records = new RecordTables(dsl);
        free = new WriterStatement(
                dsl,
                dsl.deleteFrom(LIVE_REFERENCE)
                        .where(
                                LIVE_REFERENCE.REFERENCE.eq((String) null),
                                LIVE_REFERENCE.SERIES_ID.eq((Integer) null),
                                LIVE_REFERENCE.SEQ.eq((Long) null)));
        newReference = new BatchInsert(
                dsl, LIVE_REFERENCE, LIVE_REFERENCE.REFERENCE, LIVE_REFERENCE.SERIES_ID, LIVE_REFERENCE.SEQ);
        newAllocation = new BatchInsert(
                dsl,
                ALLOCATION,
                ALLOCATION.LANE_ID,
                ALLOCATION.FIRST_POSITION,
                ALLOCATION.LAST_POSITION,
                ALLOCATION.STATE,
                ALLOCATION.SEQ,
                ALLOCATION.VERSION,
                ALLOCATION.BUSINESS_DATE,
                ALLOCATION.TEXT,
                ALLOCATION.TEXT_KEY,
                ALLOCATION.NAMESPACE_ID,
                ALLOCATION.FIELDS,
                ALLOCATION.BLOCK_SEQ,
                ALLOCATION.HELD_UNTIL,
                ALLOCATION.AHEAD);
        newBlock = new BatchInsert(
                dsl,
                BLOCK_STRETCH,
                BLOCK_STRETCH.BLOCK_SEQ,
                BLOCK_STRETCH.LANE_ID,
                BLOCK_STRETCH.FIRST_POSITION,
                BLOCK_STRETCH.LAST_POSITION,
                BLOCK_STRETCH.SERIES_ID,
                BLOCK_STRETCH.VERSION,
                BLOCK_STRETCH.BUSINESS_DATE,
                BLOCK_STRETCH.FIELDS);
        newWatched = new BatchInsert(dsl, WATCHED, WATCHED.LANE_ID, WATCHED.LAST_POSITION);
        newDocumentItem = new BatchInsert(
                dsl,
                DOCUMENT_ITEM,
                DOCUMENT_ITEM.SEQ,
                DOCUMENT_ITEM.PLACE,
                DOCUMENT_ITEM.SERIES_ID,
                DOCUMENT_ITEM.DOCUMENT,
                DOCUMENT_ITEM.ITEM);
        newFilling = new BatchInsert(dsl, TABLE_FILLING, TABLE_FILLING.SEQ, TABLE_FILLING.SPANS);
        newFillingSeries = new BatchInsert(dsl, FILLING_SERIES, FILLING_SERIES.SERIES_ID, FILLING_SERIES.SEQ);
        Field<LocalDate> date = DSL.val((LocalDate) null, LANE.LATEST_DATE);
        counter = new WriterStatement(
                dsl,
                dsl.update(LANE)
                        .set(LANE.NEXT_POSITION, (Long) null)
                        .set(LANE.LATEST_DATE, DSL.greatest(DSL.coalesce(LANE.LATEST_DATE, date), date))
                        .set(LANE.NEWEST_SEQ, (Long) null)
                        .set(LANE.SKIPPED, LANE.SKIPPED.plus(DSL.val((Long) null, LANE.SKIPPED)))
                        .where(LANE.ID.eq((Integer) null)));
    }

    /** Drops what was remembered of rows that a rollback took away. */
    void forget() {
        accounts.clear();
        series.clear();
        laneSeries.clear();
        records.forget();
    }

    void write(List<Entry> entries) {
        var batch = new Batch();
        for (Entry entry : entries) {
            for (Effect effect : entry.effects()) {
                switch (effect) {
                    case Effect.Defined defined -> {
                        batch.flush();
                        define(entry, defined.series());
                    }
                    case Effect.CodebookDefined defined ->
                        dsl.insertInto(CODEBOOK_VERSION)
                                .values(
                                        defined.codebook().key(),
                                        defined.codebook().version(),
                                        entry.seq(),
                                        CodebookJson.write(defined.codebook()))
                                .execute();
                    case Effect.NamespaceDefined defined -> define(entry, defined.namespace());
                    case Effect.ComparisonChanged compared -> {
                        batch.flush();
                        compare(compared);
                    }
                    case Effect.Skipped skipped -> batch.skip(entry, skipped);
                    case Effect.Organising organising -> {
                        organisation.write(
                                entry.seq(),
                                entry.effects().indexOf(organising),
                                OrganisationTables.Part.of(organising));
                        if (organising instanceof Effect.KindDefined defined) {
                            batch.flush();
                            records.define(defined.kind());
                        }
                    }
                    case Effect.RecordKept kept
                    when kept.record().version() == 1 -> records.add(entry.seq(), kept.record(), filed(kept.record()));
                    case Effect.RecordKept kept -> {
                        // What it was known by can be another's later in the batch.
                        batch.flush();
                        records.change(entry.seq(), kept.record(), filed(kept.record()));
                    }
                    case Effect.FileKept kept -> keep(entry, kept.file());
                    case Effect.LaneOpened opened -> batch.open(opened);
                    case Effect.Issued issued when issued.isCounted() -> batch.issue(entry, issued);
                    case Effect.Issued issued
                    when issued.manner().formerly().isPresent() ->
                        batch.then(() -> life.giveAgain(
                                entry,
                                issued,
                                keyed(issued),
                                series(laneSeries(issued.lane())).namespace()));
                    case Effect.Issued issued -> {
                        batch.issueAhead(entry, issued);
                        batch.then(() -> life.used(entry, issued));
                    }
                    case Effect.GapClosed gap -> batch.closeGap(entry, gap);
                    case Effect.PlanBegun begun ->
                        batch.then(() ->
                                plans.begin(entry, series(begun.plan().series()).id(), begun.plan()));
                    case Effect.PlanAdvanced done -> batch.then(() -> plans.advance(entry, done));
                    case Effect.PlanEnded ended -> batch.then(() -> plans.end(entry, ended));
                    case Effect.ItemsNumbered numbered -> batch.number(entry, numbered);
                    case Effect.LabelJobBegun begun ->
                        batch.then(() ->
                                labels.begin(entry, series(begun.job().series()).id(), begun));
                    case Effect.LabelsAdded added -> batch.then(() -> labels.add(entry, added));
                    case Effect.LabelsMoved moved -> batch.then(() -> labels.move(entry, moved));
                    case Effect.Passed passed -> batch.then(() -> life.pass(passed));
                    case Effect.Settled settled -> batch.then(() -> life.settle(entry, settled));
                    case Effect.Handed handed -> batch.then(() -> life.hand(entry, handed));
                    case Effect.Retired retired ->
                        batch.then(() -> life.retire(
                                entry,
                                retired,
                                series(laneSeries(retired.lane())).comparison()));
                    case Effect.ReferenceFreed freed -> batch.free(freed);
                    case Effect.SeriesStated stated ->
                        dsl.insertInto(SERIES_STATED)
                                .values(stated.series(), entry.seq())
                                .onConflict(SERIES_STATED.SERIES)
                                .doUpdate()
                                .set(SERIES_STATED.SEQ, entry.seq())
                                .execute();
                    case Effect.EpochBegun begun ->
                        dsl.insertInto(EPOCH).values(entry.seq(), begun.epoch()).execute();
                    case Effect.PeriodClosed closed -> life.close(entry, closed);
                    case Effect.PeriodReopened reopened -> life.reopen(entry, reopened);
                }
            }
            batch.history(entry);
        }
        batch.flush();
    }

    private void define(Entry entry, Series defined) {
        if (defined.version() == 1 && dsl.fetchCount(SERIES, SERIES.NAME.eq(defined.key())) == 0) {
            dsl.insertInto(SERIES)
                    .values(nextId(SERIES, SERIES.ID), defined.key(), namespace(defined.namespace()), 1)
                    .execute();
        } else {
            dsl.update(SERIES)
                    .set(SERIES.VERSION, defined.version())
                    .set(SERIES.NAMESPACE_ID, namespace(defined.namespace()))
                    .where(SERIES.NAME.eq(defined.key()))
                    .execute();
        }
        series.remove(defined.key());
        dsl.insertInto(SERIES_VERSION)
                .values(series(defined.key()).id(), defined.version(), entry.seq(), SeriesJson.write(defined))
                .execute();
    }

    private void define(Entry entry, Namespace defined) {
        dsl.update(NAMESPACE)
                .set(NAMESPACE.TITLE, defined.title())
                .set(NAMESPACE.REPEATS, defined.repeats())
                .set(NAMESPACE.VERSION, defined.version())
                .set(NAMESPACE.SEQ, entry.seq())
                .where(NAMESPACE.ID.eq(namespace(defined.key())))
                .execute();
    }

    private void compare(Effect.ComparisonChanged compared) {
        int namespace = namespace(compared.namespace());
        dsl.update(NAMESPACE)
                .set(NAMESPACE.COMPARISON, compared.now().number())
                .where(NAMESPACE.ID.eq(namespace))
                .execute();
        series.clear();
        if (compared.before().isPresent()) new ComparisonTables(dsl).rekey(namespace, compared.now());
    }

    private void keep(Entry entry, KeptFile file) {
        dsl.insertInto(DEFINITION_FILE, DEFINITION_FILE.NAME, DEFINITION_FILE.SEQ, DEFINITION_FILE.TEXT)
                .values(file.name(), entry.seq(), file.text())
                .onConflict(DEFINITION_FILE.NAME)
                .doUpdate()
                .set(DEFINITION_FILE.SEQ, entry.seq())
                .set(DEFINITION_FILE.TEXT, file.text())
                .execute();
    }

    private int namespace(String name) {
        Integer known = dsl.select(NAMESPACE.ID)
                .from(NAMESPACE)
                .where(NAMESPACE.NAME.eq(name))
                .fetchOne(NAMESPACE.ID);
        if (known != null) return known;
        int id = nextId(NAMESPACE, NAMESPACE.ID);
        dsl.insertInto(NAMESPACE, NAMESPACE.ID, NAMESPACE.NAME).values(id, name).execute();
        return id;
    }

    private int account(String name) {
        return accounts.computeIfAbsent(name, wanted -> {
            Integer known = dsl.select(ACCOUNT.ID)
                    .from(ACCOUNT)
                    .where(ACCOUNT.NAME.eq(wanted))
                    .fetchOne(ACCOUNT.ID);
            if (known != null) return known;
            int id = nextId(ACCOUNT, ACCOUNT.ID);
            dsl.insertInto(ACCOUNT).values(id, wanted).execute();
            return id;
        });
    }

    private SeriesRow series(String key) {
        return series.computeIfAbsent(key, wanted -> dsl.select(SERIES.ID, SERIES.NAMESPACE_ID, NAMESPACE.COMPARISON)
                .from(SERIES)
                .join(NAMESPACE)
                .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
                .where(SERIES.NAME.eq(wanted))
                .fetchSingle(row -> new SeriesRow(
                        row.value1(), row.value2(), Comparison.of(row.value3()).orElseThrow())));
    }

    private RecordTables.Filed filed(KeptRecord record) {
        SeriesRow row = series(record.number().series());
        return new RecordTables.Filed(
                row.id(), row.comparison().key(record.number().text()));
    }

    private String laneSeries(int lane) {
        return laneSeries.computeIfAbsent(lane, wanted -> dsl.select(SERIES.NAME)
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(LANE.ID.eq(wanted))
                .fetchSingle(SERIES.NAME));
    }

    private int nextId(Table<?> table, Field<Integer> id) {
        return dsl.select(DSL.coalesce(DSL.max(id), 0))
                        .from(table)
                        .fetchSingle()
                        .value1()
                + 1;
    }

    /** By what an identifier is found, and told from all others of its namespace. */
    private String key(String text, Effect.Issued issued) {
        String key = series(laneSeries(issued.lane())).comparison().key(text);
        return issued.round() == 0 ? key : key + RoundKey.of(issued.lane(), issued.round());
    }

    private String keyed(Effect.Issued issued) {
        return key(issued.texts().getFirst(), issued);
    }

    /** Rows gathered to be written together: one statement a table, whatever the number of entries. */
    private final class Batch {
        private final List<Object[]> lanes = new ArrayList<>();
        private final List<Object[]> entries = new ArrayList<>();
        private final List<Object[]> references = new ArrayList<>();
        private final List<Object[]> allocations = new ArrayList<>();
        private final List<Object[]> blocks = new ArrayList<>();
        private final List<Object[]> watched = new ArrayList<>();
        private final List<Object[]> documentItems = new ArrayList<>();
        private final List<Object[]> fillings = new ArrayList<>();
        private final List<Object[]> fillingSeries = new ArrayList<>();
        private final List<Runnable> changes = new ArrayList<>();
        private final Set<List<String>> gone = new HashSet<>();
        private final Map<Integer, Object[]> counters = new LinkedHashMap<>();

        /**
         * Changes of what stands are made in their order, after everything new of the batch was put in: nothing new
         * rests on them but a freed reference.
         */
        void then(Runnable change) {
            changes.add(change);
        }

        /** A reference that is freed can be taken again in the same batch, which must be written after it is gone. */
        void free(Effect.ReferenceFreed freed) {
            gone.add(List.of(freed.series(), freed.reference()));
            changes.add(() -> free.run(
                    new Object[] {freed.reference(), series(freed.series()).id(), freed.seq()}));
        }

        void number(Entry entry, Effect.ItemsNumbered numbered) {
            int series = series(numbered.series()).id();
            int place = 0;
            for (String item : numbered.items())
                documentItems.add(new Object[] {entry.seq(), place++, series, numbered.document(), item});
        }

        void open(Effect.LaneOpened opened) {
            laneSeries.put(opened.lane(), opened.key().series());
            lanes.add(new Object[] {
                opened.lane(),
                series(opened.key().series()).id(),
                opened.key().range(),
                opened.key().period(),
                0L,
                0L
            });
        }

        void issue(Entry entry, Effect.Issued issued) {
            SeriesRow row = series(laneSeries(issued.lane()));
            LocalDate date = issued.particulars().date();
            String fields = FieldsJson.write(issued.particulars().fields());
            if (issued.isBlock()) block(entry, issued, row, fields, null);
            singles(entry, issued, row, fields, null);
            counters.merge(
                    issued.lane(), new Object[] {issued.to() + 1, date, entry.seq(), 0L, issued.lane()}, Batch::newer);
        }

        private void block(Entry entry, Effect.Issued issued, SeriesRow row, String fields, Boolean ahead) {
            LocalDate date = issued.particulars().date();
            allocations.add(new Object[] {
                issued.lane(),
                issued.from(),
                issued.to(),
                issued.state().code(),
                entry.seq(),
                issued.version(),
                date,
                null,
                null,
                null,
                fields,
                entry.seq(),
                null,
                ahead
            });
            blocks.add(new Object[] {
                entry.seq(), issued.lane(), issued.from(), issued.to(), row.id(), issued.version(), date, fields
            });
            if (ahead != null) watched.add(new Object[] {issued.lane(), issued.to()});
        }

        /** Given while the counter had not come so far: it stays where it is. */
        void issueAhead(Entry entry, Effect.Issued issued) {
            SeriesRow row = series(laneSeries(issued.lane()));
            String fields = FieldsJson.write(issued.particulars().fields());
            if (issued.isBlock()) block(entry, issued, row, fields, true);
            singles(entry, issued, row, fields, true);
        }

        private void singles(Entry entry, Effect.Issued issued, SeriesRow row, String fields, Boolean ahead) {
            LocalDateTime until = issued.manner().until().map(LifeTables::time).orElse(null);
            byte state = issued.state().code();
            for (int i = 0; i < issued.texts().size(); i++) {
                long position = issued.from() + i;
                String text = issued.texts().get(i);
                allocations.add(new Object[] {
                    issued.lane(),
                    position,
                    position,
                    state,
                    entry.seq(),
                    issued.version(),
                    issued.particulars().date(),
                    text,
                    key(text, issued),
                    row.namespace(),
                    fields,
                    null,
                    until,
                    ahead
                });
                if (until != null || ahead != null) watched.add(new Object[] {issued.lane(), position});
            }
        }

        /** Passed over: no identifier, but a row that says why. */
        void skip(Entry entry, Effect.Skipped skipped) {
            pass(
                    entry,
                    new Span(skipped.lane(), skipped.from(), skipped.to()),
                    PositionState.SKIPPED,
                    skipped.version(),
                    skipped.particulars());
        }

        /** Passed over for the reason of the act, and listed among what became void. */
        void closeGap(Entry entry, Effect.GapClosed gap) {
            pass(
                    entry,
                    new Span(gap.lane(), gap.from(), gap.to()),
                    PositionState.GAP_CLOSED,
                    gap.version(),
                    gap.particulars());
            then(() -> life.closeGap(entry, gap));
        }

        private void pass(Entry entry, Span span, PositionState state, int version, Particulars particulars) {
            LocalDate date = particulars.date();
            allocations.add(new Object[] {
                span.lane(),
                span.from(),
                span.to(),
                state.code(),
                entry.seq(),
                version,
                date,
                null,
                null,
                null,
                FieldsJson.write(particulars.fields()),
                null,
                null,
                null
            });
            counters.merge(
                    span.lane(),
                    new Object[] {span.to() + 1, date, entry.seq(), span.quantity(), span.lane()},
                    Batch::newer);
        }

        private static Object[] newer(Object[] before, Object[] after) {
            LocalDate earlier = (LocalDate) before[1];
            LocalDate later = (LocalDate) after[1];
            return new Object[] {
                after[0],
                earlier.isAfter(later) ? earlier : later,
                after[2],
                (Long) before[3] + (Long) after[3],
                after[4]
            };
        }

        void history(Entry entry) {
            LocalDateTime at = LocalDateTime.ofInstant(entry.at(), ZoneOffset.UTC);
            int account = account(entry.by());
            byte kind = entry.kind().code();
            Object[] row = new Object[18];
            System.arraycopy(new Object[] {entry.seq(), at, account, kind}, 0, row, 0, 4);
            entry.request().ifPresent(request -> {
                row[4] = request.series().map(key -> series(key).id()).orElse(null);
                row[5] = request.particulars().map(Particulars::date).orElse(null);
                row[6] = request.quantity();
                row[7] = request.reference().orElse(null);
                row[8] = request.key().orElse(null);
                row[9] = request.digest();
                row[11] = request.particulars()
                        .map(particulars -> FieldsJson.write(particulars.fields()))
                        .orElse(null);
                row[12] = request.note().orElse(null);
                row[16] = Purposes.write(request.purpose());
                row[17] = request.key().map(key -> KeyMark.of(entry.by(), key)).orElse(null);
            });
            List<Span> spans = Spans.of(entry);
            row[10] = entry.request().isEmpty() && spans.isEmpty() ? null : Spans.write(spans);
            if (!entry.kind().takes()) {
                Mention mention = Mention.of(entry);
                row[13] = mention.state().map(PositionState::code).orElse(null);
                row[14] = mention.first().orElse(null);
                row[15] = mention.last().orElse(null);
            }
            if (entry.kind() == Entry.Kind.FILL) {
                fillings.add(new Object[] {entry.seq(), Spans.write(Spans.inOrder(entry))});
                if (row[4] == null)
                    spans.stream()
                            .map(span -> series(laneSeries(span.lane())).id())
                            .distinct()
                            .forEach(id -> fillingSeries.add(new Object[] {id, entry.seq()}));
            }
            entries.add(row);
            if (entry.kind().takes())
                entry.request().flatMap(Entry.Request::reference).ifPresent(reference -> {
                    if (gone.contains(List.of(entry.request().get().series().orElseThrow(), reference))) flush();
                    references.add(new Object[] {reference, row[4], entry.seq()});
                });
        }

        void flush() {
            newLane.run(lanes);
            newEntry.run(entries);
            newReference.run(references);
            newAllocation.run(allocations);
            newBlock.run(blocks);
            newWatched.run(watched);
            newDocumentItem.run(documentItems);
            newFilling.run(fillings);
            newFillingSeries.run(fillingSeries);
            records.flush();
            if (!counters.isEmpty())
                counter.run(counters.values().stream()
                        .map(row -> new Object[] {row[0], row[1], row[1], row[2], row[3], row[4]})
                        .toList());
            changes.forEach(Runnable::run);
            changes.clear();
            gone.clear();
            watched.clear();
            lanes.clear();
            entries.clear();
            references.clear();
            allocations.clear();
            blocks.clear();
            documentItems.clear();
            fillings.clear();
            fillingSeries.clear();
            counters.clear();
        }
    }
}
