package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.EPOCH;
import static org.youngtally.ledger.store.db.Tables.FILLING_SERIES;
import static org.youngtally.ledger.store.db.Tables.LIVE_REFERENCE;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_STATED;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;
import static org.youngtally.ledger.store.db.Tables.TABLE_FILLING;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.SelectOnConditionStep;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.Span;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.store.statement.CachedQuery;

/** The ledger's entries as people read them. */
public final class EntryQueries {
    /** The columns of a row. */
    static final List<Field<?>> COLUMNS = List.of(
            ENTRY.SEQ,
            ENTRY.AT,
            ACCOUNT.NAME,
            ENTRY.KIND,
            SERIES.NAME,
            ENTRY.BUSINESS_DATE,
            ENTRY.QUANTITY,
            ENTRY.REFERENCE,
            ENTRY.REQUEST_KEY,
            ENTRY.SPANS,
            ENTRY.FIELDS,
            ENTRY.NOTE,
            ENTRY.STATE,
            ENTRY.FIRST_TEXT,
            ENTRY.LAST_TEXT,
            ENTRY.PURPOSE);

    private static final CachedQuery BY_SEQ = new CachedQuery(dsl -> rows(dsl).where(ENTRY.SEQ.eq(0L)));
    private static final CachedQuery BEFORE = new CachedQuery(
            dsl -> rows(dsl).where(ENTRY.SEQ.lt(0L)).orderBy(ENTRY.SEQ.desc()).limit(0));
    // Sorted by both columns of the index, so that H2 reads it backwards and stops.
    private static final CachedQuery OF_SERIES_BEFORE = new CachedQuery(dsl -> rows(dsl)
            .where(ENTRY.SERIES_ID.eq(0), ENTRY.SEQ.lt(0L))
            .orderBy(ENTRY.SERIES_ID.desc(), ENTRY.SEQ.desc())
            .limit(0));
    /** Tables and definitions concern a series too, but are in no column of the entry: one act may be about many. */
    private static final List<CachedQuery> OTHERS_OF_SERIES_BEFORE = List.of(
            newest(FILLING_SERIES, FILLING_SERIES.SERIES_ID, FILLING_SERIES.SEQ),
            newest(SERIES_VERSION, SERIES_VERSION.SERIES_ID, SERIES_VERSION.SEQ));

    private static CachedQuery newest(Table<?> table, Field<Integer> series, Field<Long> seq) {
        return new CachedQuery(dsl -> dsl.select(seq)
                .from(table)
                .where(series.eq(0), seq.lt(0L))
                .orderBy(series.desc(), seq.desc())
                .limit(0));
    }

    private final DSLContext dsl;
    private final DefinitionVersions definitions;

    public EntryQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new DefinitionVersions(dsl);
    }

    /**
     * One entry.
     *
     * @param series null for an act that defines several at once
     * @param particulars null for an act without a business date
     * @param quantity 0 for an act that takes no numbers
     */
    public record Row(
            long seq,
            Instant at,
            String by,
            Entry.Kind kind,
            Optional<String> series,
            Optional<Particulars> particulars,
            long quantity,
            Optional<String> reference,
            Optional<String> key,
            Optional<String> note,
            Optional<PositionState> state,
            Optional<String> first,
            Optional<String> last,
            List<Span> spans,
            Purpose purpose) {}

    /** An entry as it will be in the tables, for one on numbers that were given or on a period. */
    public static Row of(Entry entry) {
        Entry.Request request = entry.request().orElseThrow();
        Mention mention = Mention.of(entry);
        return new Row(
                entry.seq(),
                entry.at(),
                entry.by(),
                entry.kind(),
                request.series(),
                request.particulars(),
                request.quantity(),
                request.reference(),
                request.key(),
                request.note(),
                mention.state(),
                mention.first(),
                mention.last(),
                Spans.of(entry),
                request.purpose());
    }

    public Optional<Row> at(long seq) {
        return BY_SEQ.ask(dsl, seq).map(EntryQueries::row).stream().findFirst();
    }

    /** The epochs, by the entries that began them. */
    public NavigableMap<Long, String> epochs() {
        var epochs = new TreeMap<Long, String>();
        dsl.selectFrom(EPOCH).forEach(row -> epochs.put(row.get(EPOCH.SEQ), row.get(EPOCH.EPOCH_)));
        return epochs;
    }

    /** Whether numbers were allocated again, behind an entry, after a loss. */
    public boolean resumed(long after) {
        return dsl.fetchCount(ENTRY, ENTRY.SEQ.gt(after), ENTRY.KIND.eq(Entry.Kind.RESUME.code())) > 0;
    }

    /** The series of which it was stated behind an entry what a lost state of the ledger may have issued. */
    public Set<String> stated(long after) {
        return new TreeSet<>(dsl.select(SERIES_STATED.SERIES)
                .from(SERIES_STATED)
                .where(SERIES_STATED.SEQ.gt(after))
                .fetch(SERIES_STATED.SERIES));
    }

    /**
     * Entries from new to old.
     *
     * @param series only those that concern one of these series; absent for all
     * @param before only those with a lower sequence number
     */
    public List<Row> page(Optional<? extends Collection<String>> series, long before, int most) {
        if (series.isEmpty()) return BEFORE.ask(dsl, before, most).map(EntryQueries::row);
        var rows = new TreeMap<Long, Row>(Comparator.reverseOrder());
        var others = new TreeSet<Long>(Comparator.reverseOrder());
        for (int id : dsl.select(SERIES.ID)
                .from(SERIES)
                .where(SERIES.NAME.in(series.get()))
                .fetch(SERIES.ID)) {
            for (Record row : OF_SERIES_BEFORE.ask(dsl, id, before, most)) rows.put(row.get(ENTRY.SEQ), row(row));
            for (CachedQuery each : OTHERS_OF_SERIES_BEFORE)
                for (Record row : each.ask(dsl, id, before, most)) others.add((Long) row.get(0));
        }
        others.stream()
                .limit(most)
                .forEach(seq -> rows.computeIfAbsent(seq, other -> at(other).orElse(null)));
        return rows.values().stream().limit(most).toList();
    }

    /** The entries that hold a reference, of whatever series, from new to old. */
    public List<Row> referenced(String reference, int most) {
        return rows(dsl)
                .where(ENTRY.SEQ.in(dsl.select(LIVE_REFERENCE.SEQ)
                        .from(LIVE_REFERENCE)
                        .where(LIVE_REFERENCE.REFERENCE.eq(reference))))
                .orderBy(ENTRY.SEQ.desc())
                .limit(most)
                .fetch(EntryQueries::row);
    }

    /** What an entry defined or took away: the keys of codebooks and series, others behind their sort. */
    public List<String> defined(long seq) {
        var keys = new ArrayList<>(dsl.select(CODEBOOK_VERSION.NAME)
                .from(CODEBOOK_VERSION)
                .where(CODEBOOK_VERSION.SEQ.eq(seq))
                .orderBy(CODEBOOK_VERSION.NAME)
                .fetch(CODEBOOK_VERSION.NAME));
        keys.addAll(dsl.select(SERIES.NAME)
                .from(SERIES_VERSION)
                .join(SERIES)
                .on(SERIES.ID.eq(SERIES_VERSION.SERIES_ID))
                .where(SERIES_VERSION.SEQ.eq(seq))
                .orderBy(SERIES.ID)
                .fetch(SERIES.NAME));
        keys.addAll(new OrganisationTables(dsl).defined(seq));
        return keys;
    }

    /** When each of these series was first defined, by its key. */
    public Map<String, Instant> firstDefined(Collection<String> series) {
        return dsl.select(SERIES.NAME, DSL.min(ENTRY.AT))
                .from(SERIES_VERSION)
                .join(SERIES)
                .on(SERIES.ID.eq(SERIES_VERSION.SERIES_ID))
                .join(ENTRY)
                .on(ENTRY.SEQ.eq(SERIES_VERSION.SEQ))
                .where(SERIES.NAME.in(series))
                .groupBy(SERIES.NAME)
                .fetchMap(SERIES.NAME, row -> row.value2().toInstant(ZoneOffset.UTC));
    }

    /**
     * A number that a reference stands for.
     *
     * @param identifier the first, if it stands for several
     */
    public record Referenced(String series, String reference, String identifier) {}

    /** The live references of some series that begin with a text, in their order. */
    public List<Referenced> referencesFrom(String beginning, Collection<String> series) {
        // The next text that does not begin so.
        String behind =
                beginning.substring(0, beginning.length() - 1) + (char) (beginning.charAt(beginning.length() - 1) + 1);
        return dsl
                .select(SERIES.NAME, LIVE_REFERENCE.REFERENCE, LIVE_REFERENCE.SEQ)
                .from(LIVE_REFERENCE)
                .join(SERIES)
                .on(SERIES.ID.eq(LIVE_REFERENCE.SERIES_ID))
                .where(
                        LIVE_REFERENCE.REFERENCE.ge(beginning),
                        LIVE_REFERENCE.REFERENCE.lt(behind),
                        SERIES.NAME.in(series))
                .orderBy(LIVE_REFERENCE.REFERENCE, LIVE_REFERENCE.SEQ)
                .fetch()
                .stream()
                .map(row -> new Referenced(
                        row.value1(),
                        row.value2(),
                        texts(at(row.value3()).orElseThrow()).getFirst()))
                .toList();
    }

    /** The identifiers that a table was filled with, in the order of its rows. */
    public List<String> filled(Row row) {
        return texts(
                row,
                Spans.read(dsl.select(TABLE_FILLING.SPANS)
                        .from(TABLE_FILLING)
                        .where(TABLE_FILLING.SEQ.eq(row.seq()))
                        .fetchSingle()
                        .value1()));
    }

    /** The identifiers that an entry took, as it took them; of each block the first and the last. */
    public List<String> texts(Row row) {
        return texts(row, row.spans());
    }

    private List<String> texts(Row row, List<Span> spans) {
        var texts = new ArrayList<String>();
        for (Span span : spans) {
            List<Stretch> stretches = Stretches.between(dsl, span.lane(), span.from(), span.to());
            if (row.kind() == Entry.Kind.BLOCK)
                texts.addAll(List.of(
                        text(row, span.lane(), stretches.getFirst(), span.from()),
                        text(row, span.lane(), stretches.getLast(), span.to())));
            else
                for (Stretch stretch : stretches)
                    for (long position = Math.max(span.from(), stretch.from());
                            position <= Math.min(span.to(), stretch.to());
                            position++) texts.add(text(row, span.lane(), stretch, position));
        }
        return texts;
    }

    /**
     * The first and the last identifier that an entry is about.
     *
     * @param among of these series alone; only a table has others
     */
    public List<String> ends(Row row, Predicate<String> among) {
        if (row.first().isPresent())
            return List.of(row.first().get(), row.last().orElseThrow());
        List<Span> spans = row.series().isPresent()
                ? row.spans()
                : row.spans().stream()
                        .filter(span -> among.test(definitions.lane(span.lane()).series()))
                        .toList();
        if (spans.isEmpty()) return List.of();
        Span first = spans.getFirst();
        Span last = spans.getLast();
        if (first.equals(last) && first.from() == first.to())
            return Collections.nCopies(2, text(row, first.lane(), first.from()));
        return List.of(text(row, first.lane(), first.from()), text(row, last.lane(), last.to()));
    }

    /**
     * The business date of an entry, or that of the last number that it took of a series where its numbers have
     * several.
     */
    public LocalDate date(Row row, String series) {
        return row.particulars().map(Particulars::date).orElseGet(() -> {
            Span last = row.spans().stream()
                    .filter(span -> definitions.lane(span.lane()).series().equals(series))
                    .reduce((before, after) -> after)
                    .orElseThrow();
            return Stretches.between(dsl, last.lane(), last.to(), last.to())
                    .getFirst()
                    .origin()
                    .particulars()
                    .date();
        });
    }

    private String text(Row row, int lane, long position) {
        return text(row, lane, Stretches.between(dsl, lane, position, position).getFirst(), position);
    }

    /**
     * As it stands at the position, or as it was before that was given anew: what a pattern writes for given
     * particulars never changes once a number was given.
     */
    private String text(Row row, int lane, Stretch there, long position) {
        Origin origin = there.origin();
        return origin.text()
                .filter(text -> origin.seq() == row.seq())
                .orElseGet(() -> definitions.render(lane, row.particulars().orElse(origin.particulars()), position));
    }

    /** When the numbers that an entry took lapse, if they were held. */
    public Optional<Instant> until(Row row) {
        if (row.kind() != Entry.Kind.HOLD) return Optional.empty();
        Span span = row.spans().getFirst();
        return Stretches.between(dsl, span.lane(), span.from(), span.from())
                .getFirst()
                .origin()
                .until();
    }

    /** How many of the numbers that an entry took are still what it made of them. */
    public long standing(Row row) {
        return row.spans().stream()
                .flatMap(span -> Stretches.between(dsl, span.lane(), span.from(), span.to()).stream()
                        .filter(stretch -> stretch.origin().seq() == row.seq()
                                && stretch.state().isLive())
                        .map(stretch -> stretch.between(span.from(), span.to())))
                .mapToLong(Stretch::quantity)
                .sum();
    }

    /** The identifiers of an entry that are still what it made of them, by their series. */
    public Map<String, List<String>> standingBySeries(Row row) {
        var texts = new TreeMap<String, List<String>>();
        for (Span span : row.spans())
            for (Stretch stretch : Stretches.between(dsl, span.lane(), span.from(), span.to())) {
                if (stretch.origin().seq() != row.seq() || !stretch.state().isLive()) continue;
                Stretch part = stretch.between(span.from(), span.to());
                for (long position = part.from(); position <= part.to(); position++)
                    texts.computeIfAbsent(definitions.lane(span.lane()).series(), added -> new ArrayList<>())
                            .add(text(row, span.lane(), stretch, position));
            }
        return texts;
    }

    private static SelectOnConditionStep<? extends Record> rows(DSLContext dsl) {
        return dsl.select(COLUMNS)
                .from(ENTRY)
                .join(ACCOUNT)
                .on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID))
                .leftJoin(SERIES)
                .on(SERIES.ID.eq(ENTRY.SERIES_ID));
    }

    /** @param row of the {@link #COLUMNS}, and perhaps others */
    static Row row(Record row) {
        return new Row(
                row.get(ENTRY.SEQ),
                row.get(ENTRY.AT).toInstant(ZoneOffset.UTC),
                row.get(ACCOUNT.NAME),
                Entry.Kind.of(row.get(ENTRY.KIND)),
                Optional.ofNullable(row.get(SERIES.NAME)),
                Optional.ofNullable(row.get(ENTRY.BUSINESS_DATE))
                        .map(date -> new Particulars(date, FieldsJson.read(row.get(ENTRY.FIELDS)))),
                Objects.requireNonNullElse(row.get(ENTRY.QUANTITY), 0L),
                Optional.ofNullable(row.get(ENTRY.REFERENCE)),
                Optional.ofNullable(row.get(ENTRY.REQUEST_KEY)),
                Optional.ofNullable(row.get(ENTRY.NOTE)),
                Optional.ofNullable(row.get(ENTRY.STATE)).map(PositionState::of),
                Optional.ofNullable(row.get(ENTRY.FIRST_TEXT)),
                Optional.ofNullable(row.get(ENTRY.LAST_TEXT)),
                Spans.read(row.get(ENTRY.SPANS)),
                Purposes.read(row.get(ENTRY.PURPOSE)));
    }
}
