package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.CLOSED_PERIOD;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.DEFINITION_FILE;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.LIVE_REFERENCE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.RETIRED;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_STATED;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;
import static org.youngtally.ledger.store.db.Tables.WATCHED;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.LedgerState.AskedFor;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.act.LedgerState.Inside;
import org.youngtally.core.act.LedgerState.Taken;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.RowReader.MergedIdentifiers;
import org.youngtally.core.act.Span;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.CodebookJson;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.SeriesJson;
import org.youngtally.ledger.store.statement.InListQuery;
import org.youngtally.ledger.store.statement.WriterStatement;

/** What decisions rest on, asked of the tables. */
public final class StateQueries {
    private final DSLContext dsl;
    private final Function<String, Scatter> scatter;
    private final InListQuery<UUID> byKeys;
    private final InListQuery<String> byReferences;
    private final Stretches.Lookup stretches;
    private final WriterStatement byText;
    private final WriterStatement holder;
    private final WriterStatement taking;

    /** For questions, which write nothing. */
    public StateQueries(DSLContext dsl) {
        this(dsl, series -> Store.secrets(dsl).proposed(series));
    }

    /** @param scatter the secret by which a series is scattered that is being defined */
    StateQueries(DSLContext dsl, Function<String, Scatter> scatter) {
        this.dsl = dsl;
        this.scatter = scatter;
        stretches = new Stretches.Lookup(dsl);
        holder = new WriterStatement(
                dsl,
                dsl.select(LIVE_REFERENCE.SEQ)
                        .from(LIVE_REFERENCE)
                        .join(SERIES)
                        .on(SERIES.ID.eq(LIVE_REFERENCE.SERIES_ID))
                        .where(LIVE_REFERENCE.REFERENCE.eq((String) null), SERIES.NAME.eq((String) null)));
        taking = new WriterStatement(
                dsl,
                dsl.select(SERIES.NAME, ENTRY.REFERENCE, ENTRY.SPANS, ENTRY.KIND)
                        .from(ENTRY)
                        .join(SERIES)
                        .on(SERIES.ID.eq(ENTRY.SERIES_ID))
                        .where(ENTRY.SEQ.eq((Long) null)));
        byText = new WriterStatement(
                dsl,
                dsl.select(ALLOCATION.LANE_ID, ALLOCATION.FIRST_POSITION)
                        .from(ALLOCATION)
                        .join(LANE)
                        .on(LANE.ID.eq(ALLOCATION.LANE_ID))
                        .join(SERIES)
                        .on(SERIES.ID.eq(LANE.SERIES_ID))
                        .where(ALLOCATION.TEXT_KEY.eq((String) null), SERIES.NAME.eq((String) null)));
        byKeys = new InListQuery<>(
                dsl, new UUID(0, 0), marks -> dsl.select(ACCOUNT.NAME, ENTRY.REQUEST_KEY, ENTRY.SEQ, ENTRY.DIGEST)
                        .from(ENTRY)
                        .join(ACCOUNT)
                        .on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID))
                        .where(ENTRY.KEY_MARK.in(marks)));
        byReferences = new InListQuery<>(dsl, "", references -> dsl.select(
                        SERIES.NAME, LIVE_REFERENCE.REFERENCE, ENTRY.SEQ, ENTRY.DIGEST, ENTRY.KIND, ENTRY.PURPOSE)
                .from(LIVE_REFERENCE)
                .join(SERIES)
                .on(SERIES.ID.eq(LIVE_REFERENCE.SERIES_ID))
                .join(ENTRY)
                .on(ENTRY.SEQ.eq(LIVE_REFERENCE.SEQ))
                .where(LIVE_REFERENCE.REFERENCE.in(references)));
    }

    /** Every series in its newest version, in the order in which they were first defined. */
    public List<Series> series() {
        return dsl.select(SERIES_VERSION.DEFINITION, NAMESPACE.COMPARISON)
                .from(SERIES)
                .join(NAMESPACE)
                .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
                .join(SERIES_VERSION)
                .on(SERIES_VERSION.SERIES_ID.eq(SERIES.ID), SERIES_VERSION.VERSION.eq(SERIES.VERSION))
                .orderBy(SERIES.ID)
                .fetch(row -> Store.secrets(dsl)
                        .unsealed(SeriesJson.read(row.value1()))
                        .comparedBy(Comparison.of(row.value2()).orElseThrow()));
    }

    /** Every codebook in its newest version, by its key. */
    public List<Codebook> codebooks() {
        var newer = CODEBOOK_VERSION.as("newer");
        return dsl.select(CODEBOOK_VERSION.DEFINITION)
                .from(CODEBOOK_VERSION)
                .where(DSL.notExists(DSL.selectOne()
                        .from(newer)
                        .where(newer.NAME.eq(CODEBOOK_VERSION.NAME), newer.VERSION.gt(CODEBOOK_VERSION.VERSION))))
                .orderBy(CODEBOOK_VERSION.NAME)
                .fetch(row -> CodebookJson.read(row.value1()));
    }

    /** Every namespace that was defined, by its key. */
    public List<Namespace> namespaces() {
        return dsl.select(NAMESPACE.NAME, NAMESPACE.TITLE, NAMESPACE.REPEATS, NAMESPACE.VERSION)
                .from(NAMESPACE)
                .where(NAMESPACE.VERSION.gt(0))
                .orderBy(NAMESPACE.NAME)
                .fetch(row -> new Namespace(row.value1(), row.value2(), row.value3(), row.value4()));
    }

    /** How each namespace compares its identifiers, by its key. */
    public Map<String, Comparison> comparisons() {
        return dsl.select(NAMESPACE.NAME, NAMESPACE.COMPARISON)
                .from(NAMESPACE)
                .fetchMap(
                        row -> row.value1(), row -> Comparison.of(row.value2()).orElseThrow());
    }

    /** What stands against comparing identifiers of these series, all of one namespace, by another rule. */
    public Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule) {
        return new ComparisonTables(dsl).against(members, rule);
    }

    /** Units, kinds and routes as they stand. */
    public Organisation organisation() {
        return new OrganisationTables(dsl).organisation();
    }

    /** Every account, in the order in which they were opened. */
    public List<Account> accounts() {
        return new OrganisationTables(dsl).accounts();
    }

    /** The secret by which a series is scattered. */
    public Scatter scatter(String series) {
        return scatter.apply(series);
    }

    /** The kept files of definitions, those applied last first. */
    public List<KeptFile> files() {
        return dsl.select(DEFINITION_FILE.NAME, DEFINITION_FILE.TEXT)
                .from(DEFINITION_FILE)
                .orderBy(DEFINITION_FILE.SEQ.desc(), DEFINITION_FILE.NAME)
                .fetch(row -> new KeptFile(row.value1(), row.value2()));
    }

    /** The text that is kept of a file. */
    public Optional<String> file(String name) {
        return dsl.select(DEFINITION_FILE.TEXT)
                .from(DEFINITION_FILE)
                .where(DEFINITION_FILE.NAME.eq(name))
                .fetchOptional(DEFINITION_FILE.TEXT);
    }

    /**
     * A used lane.
     *
     * @param skipped how many of the positions below the next one were passed over
     */
    public record LaneRow(int lane, LaneKey key, long next, long skipped, Optional<LocalDate> latest) {}

    public List<LaneRow> lanes() {
        return dsl.select(
                        LANE.ID,
                        SERIES.NAME,
                        LANE.RANGE_ID,
                        LANE.PERIOD,
                        LANE.NEXT_POSITION,
                        LANE.SKIPPED,
                        LANE.LATEST_DATE)
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .orderBy(LANE.ID)
                .fetch(row -> new LaneRow(
                        row.value1(),
                        new LaneKey(row.value2(), row.value3(), row.value4()),
                        row.value5(),
                        row.value6(),
                        Optional.ofNullable(row.value7())));
    }

    /** What lies apart in the lanes, or is held. */
    public List<LaneStretch> watched() {
        return dsl.select(ALLOCATION.fields())
                .from(WATCHED)
                .join(ALLOCATION)
                .on(ALLOCATION.LANE_ID.eq(WATCHED.LANE_ID), ALLOCATION.LAST_POSITION.eq(WATCHED.LAST_POSITION))
                .orderBy(WATCHED.LANE_ID, WATCHED.LAST_POSITION)
                .fetch(row -> new LaneStretch(row.get(ALLOCATION.LANE_ID), Stretches.of(row)));
    }

    /** A stretch of a lane. */
    public record LaneStretch(int lane, Stretch stretch) {}

    /** How a position read before it was given anew. */
    public record RetiredRow(int lane, long position, Origin origin) {}

    public List<RetiredRow> retired() {
        return dsl.selectFrom(RETIRED)
                .orderBy(RETIRED.LANE_ID, RETIRED.POSITION, RETIRED.RETIRED_SEQ)
                .fetch(row -> new RetiredRow(
                        row.get(RETIRED.LANE_ID),
                        row.get(RETIRED.POSITION),
                        new Origin(
                                row.get(RETIRED.SEQ),
                                row.get(RETIRED.VERSION),
                                new Particulars(
                                        row.get(RETIRED.BUSINESS_DATE), FieldsJson.read(row.get(RETIRED.FIELDS))),
                                Optional.ofNullable(row.get(RETIRED.HELD_UNTIL))
                                        .map(until -> until.toInstant(ZoneOffset.UTC)),
                                row.get(RETIRED.AHEAD) != null,
                                Optional.of(row.get(RETIRED.TEXT)))));
    }

    /** The periods that are closed now. */
    public List<Closed> closed() {
        return dsl.selectFrom(CLOSED_PERIOD)
                .where(CLOSED_PERIOD.REOPENED_SEQ.isNull())
                .orderBy(CLOSED_PERIOD.SEQ)
                .fetch(row -> new Closed(
                        row.get(CLOSED_PERIOD.SEQ),
                        new Period(
                                Period.Scope.of(row.get(CLOSED_PERIOD.SCOPE)),
                                row.get(CLOSED_PERIOD.NAME),
                                row.get(CLOSED_PERIOD.FROM_DATE),
                                row.get(CLOSED_PERIOD.TO_DATE))));
    }

    /** The plans for tables that are begun and not ended. */
    public List<TablePlan.Open> openPlans() {
        return new PlanQueries(dsl).open();
    }

    /** The labels of a job. */
    public Optional<JobLabels> labels(long job) {
        return new LabelQueries(dsl).at(job);
    }

    /** The job of labels whose numbers an entry allocated. */
    public Optional<Long> labelJob(long seq) {
        return new LabelQueries(dsl).allocatedBy(seq);
    }

    /** The last entry that numbered items of a document; 0 for none. */
    public long documentNumbered(String series, String document) {
        return new DocumentQueries(dsl).last(series, document);
    }

    public List<Stretch> stretches(int lane, long from, long to) {
        return stretches.between(lane, from, to);
    }

    /** Where an identifier of a series stands. */
    public Optional<Span> spot(Series series, String text) {
        List<Span> single = byText.ask(
                new Object[] {series.comparison().key(text), series.key()},
                row -> new Span(row.getInt(1), row.getLong(2), row.getLong(2)));
        return single.isEmpty() ? new IdentifierQueries(dsl).spot(series, text) : Optional.of(single.getFirst());
    }

    /** The entry that holds a reference of a series. */
    public Optional<Long> holder(String series, String reference) {
        return holder.ask(new Object[] {reference, series}, row -> row.getLong(1)).stream()
                .findFirst();
    }

    /** What an entry took. */
    public Optional<Taken> taking(long seq) {
        return about(seq, Entry.Kind::takes);
    }

    /** A block, by the entry that made it; its numbers in the order in which they were taken. */
    public Optional<Taken> block(long seq) {
        return about(seq, kind -> kind == Entry.Kind.BLOCK || kind == Entry.Kind.SPLIT);
    }

    private Optional<Taken> about(long seq, Predicate<Entry.Kind> wanted) {
        return taking
                .ask(
                        new Object[] {seq},
                        row -> wanted.test(Entry.Kind.of(row.getByte(4)))
                                ? new Taken(
                                        row.getString(1),
                                        Optional.ofNullable(row.getString(2)),
                                        Spans.read(row.getString(3)))
                                : null)
                .stream()
                .filter(Objects::nonNull)
                .findFirst();
    }

    /** Whether it is still to be said what becomes of it. */
    private static boolean isOpen(PositionState state) {
        return state == PositionState.HELD || state == PositionState.IN_DOUBT;
    }

    /** By series, the entry by which it was last stated what a lost state of the ledger may have issued of it. */
    public Map<String, Long> statedAt() {
        return dsl.selectFrom(SERIES_STATED).fetchMap(SERIES_STATED.SERIES, SERIES_STATED.SEQ);
    }

    /** What the lanes of series hold that is dated inside a period. */
    public List<Inside> inside(Collection<Series> series, LocalDate from, LocalDate to) {
        var wanted = series.stream().map(Series::key).toList();
        var inside = new ArrayList<Inside>();
        Condition live = ALLOCATION.STATE.in(codes(PositionState::isLive));
        Field<Long> quantity =
                ALLOCATION.LAST_POSITION.minus(ALLOCATION.FIRST_POSITION).plus(1L);
        for (var row : dsl.select(
                        ALLOCATION.LANE_ID,
                        DSL.min(DSL.when(live, ALLOCATION.FIRST_POSITION)),
                        DSL.max(DSL.when(live, ALLOCATION.LAST_POSITION)),
                        sum(quantity, ALLOCATION.STATE.in(codes(state -> state.isLive() && !isOpen(state)))),
                        sum(quantity, ALLOCATION.STATE.in(codes(StateQueries::isOpen))),
                        sum(quantity, live.not().and(ALLOCATION.STATE.ne(PositionState.RETURNED.code()))),
                        sum(quantity, ALLOCATION.STATE.eq(PositionState.RETURNED.code())))
                .from(ALLOCATION)
                .where(
                        ALLOCATION.LANE_ID.in(DSL.select(LANE.ID)
                                .from(LANE)
                                .join(SERIES)
                                .on(SERIES.ID.eq(LANE.SERIES_ID))
                                .where(SERIES.NAME.in(wanted), LANE.LATEST_DATE.ge(from))),
                        ALLOCATION.BUSINESS_DATE.between(from, to))
                .groupBy(ALLOCATION.LANE_ID)
                .orderBy(ALLOCATION.LANE_ID)
                .fetch()) {
            List<Stretch> returned = row.value7() == 0
                    ? List.of()
                    : dsl.selectFrom(ALLOCATION)
                            .where(
                                    ALLOCATION.LANE_ID.eq(row.value1()),
                                    ALLOCATION.BUSINESS_DATE.between(from, to),
                                    ALLOCATION.STATE.eq(PositionState.RETURNED.code()))
                            .orderBy(ALLOCATION.FIRST_POSITION)
                            .fetch(Stretches::of);
            inside.add(new Inside(
                    row.value1(),
                    row.value2() == null ? -1 : row.value2(),
                    row.value3() == null ? -1 : row.value3(),
                    row.value4(),
                    row.value5(),
                    row.value6(),
                    returned));
        }
        return inside;
    }

    private static List<Byte> codes(Predicate<PositionState> wanted) {
        return Arrays.stream(PositionState.values())
                .filter(wanted)
                .map(PositionState::code)
                .toList();
    }

    private static Field<Long> sum(Field<Long> quantity, Condition where) {
        return DSL.coalesce(DSL.sum(DSL.when(where, quantity).otherwise(0L)), DSL.inline(0L))
                .cast(Long.class);
    }

    /** The instant of the newest entry. */
    public Optional<Instant> newest() {
        return dsl.select(ENTRY.AT)
                .from(ENTRY)
                .where(ENTRY.SEQ.eq(dsl.select(DSL.max(ENTRY.SEQ)).from(ENTRY)))
                .fetchOptional(ENTRY.AT)
                .map(at -> at.toInstant(ZoneOffset.UTC));
    }

    /** An act that was done under a key. */
    public record KeyedAct(String account, String key, EarlierAct act) {}

    /** @param marks which have a key */
    public List<KeyedAct> byKeys(Collection<RequestMark> marks) {
        return byKeys.ask(
                marks.stream()
                        .map(mark -> KeyMark.of(mark.account(), mark.key().orElseThrow()))
                        .distinct()
                        .toList(),
                row -> new KeyedAct(
                        row.getString(1), row.getString(2), new EarlierAct(row.getLong(3), row.getString(4))));
    }

    /** An act that holds a reference. */
    public record ReferencedAct(String series, String reference, EarlierAct act) {}

    public List<ReferencedAct> byReferences(Collection<String> references) {
        return byReferences.ask(
                references,
                row -> new ReferencedAct(
                        row.getString(1),
                        row.getString(2),
                        new EarlierAct(
                                row.getLong(3),
                                row.getString(4),
                                Optional.of(new AskedFor(
                                        Entry.Kind.of(row.getByte(5)).way(),
                                        Purposes.read(row.getString(6)).unit())))));
    }

    public Optional<KeptRecord> record(long id) {
        return new RecordQueries(dsl).at(id);
    }

    public Optional<Long> knownRecord(String kind, String field, String value) {
        return new RecordQueries(dsl).known(kind, field, value);
    }

    public Optional<Long> numberedRecord(Series series, String text) {
        return new RecordQueries(dsl).numbered(series, text);
    }

    public long nextRecord() {
        return new RecordQueries(dsl).next();
    }
}
