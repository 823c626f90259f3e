package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK_STRETCH;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.RETIRED;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Result;
import org.jooq.ResultQuery;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Span;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.store.statement.CachedQuery;

/** Finds what an identifier stands for. */
public final class IdentifierQueries {
    /** The most marks that come round again, and go by one text, which are shown. */
    private static final int MOST_ROUNDS = 100;
    /** The most identifiers in one question. */
    private static final int MOST_AT_ONCE = 500;

    // The key itself, and those that begin with it and the separator: nothing else lies between these two.
    private static final CachedQuery BY_KEY = new CachedQuery(dsl -> dsl.selectFrom(ALLOCATION)
            .where(ALLOCATION.TEXT_KEY.ge(""), ALLOCATION.TEXT_KEY.lt(""))
            .orderBy(ALLOCATION.SEQ.desc())
            .limit(DSL.inline(MOST_ROUNDS)));
    /** The series of the lane, which may be another one than the entry is about alone. */
    private static final org.youngtally.ledger.store.db.tables.Series ITS_SERIES = SERIES.as("its_series");
    /**
     * The same with all that is told of them. H2 asks for outer joined tables last, so that it never begins with the
     * entries.
     */
    private static final CachedQuery WHOLE_BY_KEY = new CachedQuery(dsl -> dsl.select(ALLOCATION.fields())
            .select(EntryQueries.COLUMNS)
            .select(LANE.SERIES_ID, LANE.RANGE_ID, LANE.PERIOD, LANE.NEXT_POSITION)
            .select(ITS_SERIES.NAME, NAMESPACE.COMPARISON)
            .from(ALLOCATION)
            .leftJoin(LANE)
            .on(LANE.ID.eq(ALLOCATION.LANE_ID))
            .leftJoin(ITS_SERIES)
            .on(ITS_SERIES.ID.eq(LANE.SERIES_ID))
            .leftJoin(NAMESPACE)
            .on(NAMESPACE.ID.eq(ITS_SERIES.NAMESPACE_ID))
            .leftJoin(ENTRY)
            .on(ENTRY.SEQ.eq(ALLOCATION.SEQ))
            .leftJoin(ACCOUNT)
            .on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID))
            .leftJoin(SERIES)
            .on(SERIES.ID.eq(ENTRY.SERIES_ID))
            .where(ALLOCATION.TEXT_KEY.ge(""), ALLOCATION.TEXT_KEY.lt(""))
            .orderBy(ALLOCATION.SEQ.desc())
            .limit(DSL.inline(MOST_ROUNDS)));

    private static final CachedQuery RETIRED_BY_KEY = new CachedQuery(dsl -> dsl.select(RETIRED.fields())
            .select(ALLOCATION.fields())
            .from(RETIRED)
            .join(ALLOCATION)
            .on(ALLOCATION.LANE_ID.eq(RETIRED.LANE_ID), ALLOCATION.LAST_POSITION.eq(RETIRED.POSITION))
            .where(RETIRED.TEXT_KEY.eq("")));
    private static final CachedQuery LOOKS = new CachedQuery(dsl -> looks(dsl, DSL.noCondition()));
    private static final CachedQuery LOOKS_OF_SERIES = new CachedQuery(dsl -> looks(dsl, SERIES.NAME.eq("")));

    private final DSLContext dsl;
    private final DefinitionVersions definitions;

    public IdentifierQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new DefinitionVersions(dsl);
    }

    /**
     * An identifier that was given.
     *
     * @param identifier as it was rendered
     * @param lane what its lane counts for; empty where the count does not restart
     * @param round the round of a repeating mark, from 1; 0 for an identifier
     * @param stretch how the position stands that it was given at
     * @param entry the act that gave it
     * @param changed the act that changed its state last, if one did
     * @param retired the act that gave the position anew under another text, so that nobody has this one any more
     */
    public record Found(
            String identifier,
            Series series,
            Range range,
            int laneId,
            String lane,
            long position,
            long round,
            Stretch stretch,
            EntryQueries.Row entry,
            Optional<EntryQueries.Row> changed,
            Optional<EntryQueries.Row> retired) {
        public Particulars particulars() {
            return stretch.origin().particulars();
        }

        /** Whether it was given as one of a block. */
        public boolean block() {
            return stretch.block() != 0 && !entry.kind().recordsPreexisting() && entry.kind() != Entry.Kind.PRINT;
        }
    }

    /**
     * Everything that goes by this text: one in a namespace at the most, and perhaps in several namespaces; of marks
     * that come round again the newest.
     */
    public List<Found> find(String text) {
        var found = new ArrayList<Found>();
        for (Record row : candidates(text, this::wholeRows, ALLOCATION.LANE_ID, ALLOCATION.TEXT))
            found.add(found(
                    row.get(ALLOCATION.LANE_ID),
                    Stretches.of(row),
                    row.get(ALLOCATION.FIRST_POSITION),
                    row.get(ALLOCATION.TEXT),
                    EntryQueries.row(row),
                    Optional.empty()));
        found.addAll(inBlocks(text));
        if (!hasRetired()) return found;
        for (Record row : candidates(text, key -> RETIRED_BY_KEY.ask(dsl, key), RETIRED.LANE_ID, RETIRED.TEXT))
            found.add(retired(row));
        return found;
    }

    /** Whether there is any text that a position had before. */
    private boolean hasRetired() {
        return SeldomWritten.answer(
                dsl,
                RETIRED,
                () -> !dsl.selectOne().from(RETIRED).limit(1).fetch().isEmpty());
    }

    /** Rows that go by a text, as the namespace of each compares. */
    private List<Record> candidates(
            String text,
            Function<String, List<? extends Record>> byKey,
            Field<Integer> lane,
            Field<String> identifier) {
        var all = new ArrayList<Record>();
        for (String key : Comparison.keys(text)) all.addAll(byKey.apply(key));
        if (Comparison.matters(text))
            all.removeIf(row -> !definitions.lane(row.get(lane)).comparison().alike(row.get(identifier), text));
        return all;
    }

    /** Those of many identifiers that stand alone, were given by one of these series, and stand for something. */
    public Set<String> issued(Collection<String> texts, Collection<String> series) {
        var issued = new HashSet<String>();
        var byKey = new HashMap<String, List<String>>();
        for (String text : texts)
            for (String key : Comparison.keys(text))
                byKey.computeIfAbsent(key, added -> new ArrayList<>()).add(text);
        List<String> keys = List.copyOf(byKey.keySet());
        for (int from = 0; from < keys.size(); from += MOST_AT_ONCE) {
            List<String> some = keys.subList(from, Math.min(keys.size(), from + MOST_AT_ONCE));
            dsl.select(ALLOCATION.TEXT_KEY, ALLOCATION.STATE, NAMESPACE.COMPARISON)
                    .from(ALLOCATION)
                    .join(LANE)
                    .on(LANE.ID.eq(ALLOCATION.LANE_ID))
                    .join(SERIES)
                    .on(SERIES.ID.eq(LANE.SERIES_ID))
                    .join(NAMESPACE)
                    .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
                    .where(ALLOCATION.TEXT_KEY.in(some), SERIES.NAME.in(series))
                    .fetch()
                    .forEach(row -> {
                        Comparison rule = Comparison.of(row.value3()).orElseThrow();
                        if (PositionState.of(row.value2()).isLive())
                            byKey.get(row.value1()).stream()
                                    .filter(text -> rule.key(text).equals(row.value1()))
                                    .forEach(issued::add);
                    });
        }
        return issued;
    }

    /** Single numbers by their key; of marks that come round again the newest ones. */
    private List<? extends Record> rows(String key) {
        return BY_KEY.ask(dsl, key, key + (char) (RoundKey.SEPARATOR + 1));
    }

    /** The same with their entries and lanes. */
    private List<? extends Record> wholeRows(String key) {
        Result<? extends Record> rows = WHOLE_BY_KEY.ask(dsl, key, key + (char) (RoundKey.SEPARATOR + 1));
        for (Record row : rows) definitions.know(row.get(ALLOCATION.LANE_ID), row, ITS_SERIES.NAME);
        return rows;
    }

    /**
     * Where an identifier of a series stands now that is no single number by its key: a mark that comes round again,
     * the newest of them; or one of a block.
     */
    Optional<Span> spot(Series series, String text) {
        if (series.order().repeats())
            for (Record row : rows(series.comparison().key(text))) {
                DefinitionVersions.Lane lane = definitions.lane(row.get(ALLOCATION.LANE_ID));
                if (lane.series().equals(series.key()))
                    return Optional.of(new Span(
                            lane.id(), row.get(ALLOCATION.FIRST_POSITION), row.get(ALLOCATION.FIRST_POSITION)));
            }
        for (BlockLook look : looks(LOOKS_OF_SERIES.ask(dsl, series.key()))) {
            // Whatever the version, numbers read alike once one was given.
            Optional<Span> found = inBlocks(
                            look, series, text, spot -> new Span(spot.lane(), spot.position(), spot.position()))
                    .findFirst();
            if (found.isPresent()) return found;
        }
        return Optional.empty();
    }

    private record BlockLook(int seriesId, int version, LocalDate date, String fields, Comparison comparison) {
        Particulars particulars() {
            return new Particulars(date, FieldsJson.read(fields));
        }
    }

    private static ResultQuery<?> looks(DSLContext dsl, Condition of) {
        return dsl.selectDistinct(
                        BLOCK_STRETCH.SERIES_ID,
                        BLOCK_STRETCH.VERSION,
                        BLOCK_STRETCH.BUSINESS_DATE,
                        BLOCK_STRETCH.FIELDS,
                        NAMESPACE.COMPARISON)
                .from(BLOCK_STRETCH)
                .join(SERIES)
                .on(SERIES.ID.eq(BLOCK_STRETCH.SERIES_ID))
                .join(NAMESPACE)
                .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
                .where(of);
    }

    private static List<BlockLook> looks(Result<? extends Record> rows) {
        return rows.map(row -> new BlockLook(
                row.get(BLOCK_STRETCH.SERIES_ID),
                row.get(BLOCK_STRETCH.VERSION),
                row.get(BLOCK_STRETCH.BUSINESS_DATE),
                row.get(BLOCK_STRETCH.FIELDS),
                Comparison.of(row.get(NAMESPACE.COMPARISON)).orElseThrow()));
    }

    /**
     * A block keeps no texts: the text is read by every pattern, date and set of fields that blocks were taken with.
     */
    private List<Found> inBlocks(String text) {
        var found = new ArrayList<Found>();
        for (BlockLook look : SeldomWritten.answer(dsl, LOOKS, () -> looks(LOOKS.ask(dsl)))) {
            Series series = definitions.version(look.seriesId(), look.version(), look.comparison());
            inBlocks(
                            look,
                            series,
                            text,
                            spot -> found(
                                    spot.lane(),
                                    spot.stretch(),
                                    spot.position(),
                                    series.render(
                                            series.range(definitions
                                                            .lane(spot.lane())
                                                            .range())
                                                    .orElseThrow(),
                                            look.particulars(),
                                            spot.position()),
                                    Optional.empty()))
                    .forEach(found::add);
        }
        return found;
    }

    private <T> Stream<T> inBlocks(BlockLook look, Series series, String text, Function<Spot, T> make) {
        Particulars particulars = look.particulars();
        OptionalLong value = series.pattern().read(text, particulars);
        if (value.isEmpty() || series.order().isSealed()) return Stream.empty();
        return series.ranges().stream().flatMap(range -> {
            LaneKey lane = series.lane(range, particulars);
            long position = series.order().positionOf(range, lane, value.getAsLong());
            return position < 0 ? Stream.empty() : holding(look, range, lane, position).map(make).stream();
        });
    }

    private Optional<Spot> holding(BlockLook look, Range range, LaneKey lane, long position) {
        Integer id = dsl.select(LANE.ID)
                .from(LANE)
                .where(LANE.SERIES_ID.eq(look.seriesId()), LANE.RANGE_ID.eq(range.id()), LANE.PERIOD.eq(lane.period()))
                .fetchOne(LANE.ID);
        if (id == null) return Optional.empty();
        return Stretches.between(dsl, id, position, position).stream()
                .filter(stretch -> stretch.block() != 0
                        && stretch.origin().version() == look.version()
                        && stretch.origin().particulars().equals(look.particulars()))
                .findFirst()
                .map(stretch -> new Spot(id, stretch, position));
    }

    /** A position of a block. */
    private record Spot(int lane, Stretch stretch, long position) {}

    private Found found(int laneId, Stretch stretch, long position, String text, Optional<EntryQueries.Row> retired) {
        return found(
                laneId,
                stretch,
                position,
                text,
                new EntryQueries(dsl).at(stretch.origin().seq()).orElseThrow(),
                retired);
    }

    private Found found(
            int laneId,
            Stretch stretch,
            long position,
            String text,
            EntryQueries.Row entry,
            Optional<EntryQueries.Row> retired) {
        DefinitionVersions.Lane lane = definitions.lane(laneId);
        Series series = definitions.version(lane, stretch.origin().version());
        Range range = series.range(lane.range()).orElseThrow();
        return new Found(
                text,
                series,
                range,
                laneId,
                lane.period(),
                position,
                series.order().repeats() ? series.order().round(range, position) : 0,
                stretch,
                entry,
                stretch.changed() == 0 ? Optional.empty() : new EntryQueries(dsl).at(stretch.changed()),
                retired);
    }

    /** A text that a position had before it was given anew, with what it had been given for. */
    private Found retired(Record row) {
        var origin = new Origin(
                row.get(RETIRED.SEQ),
                row.get(RETIRED.VERSION),
                new Particulars(row.get(RETIRED.BUSINESS_DATE), FieldsJson.read(row.get(RETIRED.FIELDS))),
                Optional.empty(),
                row.get(RETIRED.AHEAD) != null,
                Optional.of(row.get(RETIRED.TEXT)));
        long position = row.get(RETIRED.POSITION);
        return found(
                row.get(RETIRED.LANE_ID),
                new Stretch(position, position, PositionState.RETURNED, 0, 0, origin),
                position,
                row.get(RETIRED.TEXT),
                new EntryQueries(dsl).at(row.get(RETIRED.RETIRED_SEQ)));
    }
}
