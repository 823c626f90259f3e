package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK_STRETCH;
import static org.youngtally.ledger.store.db.Tables.CLOSED_PERIOD;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.VOIDED;
import static org.youngtally.ledger.store.db.Tables.WATCHED;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.DatePart;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect.LaneTotal;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.LifeJson;

/** Lists of what is under way or ended: open holds, blocks, voids, closed periods, use over time. */
public final class LifeQueries {
    private final DSLContext dsl;
    private final EntryQueries entries;
    private final DefinitionVersions definitions;

    public LifeQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.entries = new EntryQueries(dsl);
        this.definitions = new DefinitionVersions(dsl);
    }

    /** A number that is held. */
    public record Hold(String identifier, String series, Instant until, EntryQueries.Row entry) {}

    /**
     * The open holds, the oldest first.
     *
     * @param series of these; absent for all
     */
    public List<Hold> holds(Optional<? extends Collection<String>> series, int most) {
        return dsl.select(ALLOCATION.fields())
                .select(SERIES.NAME)
                .from(WATCHED)
                .join(ALLOCATION)
                .on(ALLOCATION.LANE_ID.eq(WATCHED.LANE_ID), ALLOCATION.LAST_POSITION.eq(WATCHED.LAST_POSITION))
                .join(LANE)
                .on(LANE.ID.eq(WATCHED.LANE_ID))
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(ALLOCATION.STATE.eq(PositionState.HELD.code()), of(series))
                .orderBy(ALLOCATION.SEQ, ALLOCATION.LANE_ID, ALLOCATION.FIRST_POSITION)
                .limit(most)
                .fetch(row -> new Hold(
                        row.get(ALLOCATION.TEXT),
                        row.get(SERIES.NAME),
                        row.get(ALLOCATION.HELD_UNTIL).toInstant(ZoneOffset.UTC),
                        entries.at(row.get(ALLOCATION.SEQ)).orElseThrow()));
    }

    private static Condition of(Optional<? extends Collection<String>> series) {
        return series.<Condition>map(SERIES.NAME::in).orElse(DSL.noCondition());
    }

    /**
     * A block and the states of its numbers.
     *
     * @param seq the entry that made it, by which it is called
     * @param parent the block it was a part of
     * @param first its first identifier
     * @param quantity how many numbers it had at first
     * @param states how many of them, that it has still, are in each state; what was handed on or given anew is not
     *     among them
     */
    public record Block(
            long seq,
            Optional<Long> parent,
            String series,
            String first,
            String last,
            long quantity,
            Map<PositionState, Long> states,
            EntryQueries.Row entry) {
        /** How many were not reported yet. */
        public long left() {
            return states.getOrDefault(PositionState.ISSUED, 0L);
        }
    }

    /** Every block, those first that have most left. */
    public List<Block> blocks(Optional<? extends Collection<String>> series) {
        Field<Long> quantity =
                ALLOCATION.LAST_POSITION.minus(ALLOCATION.FIRST_POSITION).plus(1L);
        Map<Long, Map<PositionState, Long>> states = new TreeMap<>();
        dsl.select(BLOCK_STRETCH.BLOCK_SEQ, ALLOCATION.STATE, DSL.sum(quantity).cast(Long.class))
                .from(BLOCK_STRETCH)
                .join(ALLOCATION)
                .on(
                        ALLOCATION.LANE_ID.eq(BLOCK_STRETCH.LANE_ID),
                        ALLOCATION.LAST_POSITION.between(BLOCK_STRETCH.FIRST_POSITION, BLOCK_STRETCH.LAST_POSITION),
                        ALLOCATION.BLOCK_SEQ.eq(BLOCK_STRETCH.BLOCK_SEQ))
                .groupBy(BLOCK_STRETCH.BLOCK_SEQ, ALLOCATION.STATE)
                .fetch()
                .forEach(row -> states.computeIfAbsent(row.value1(), added -> new EnumMap<>(PositionState.class))
                        .put(PositionState.of(row.value2()), row.value3()));
        Map<Long, List<Record>> stretches = new LinkedHashMap<>();
        dsl.select(BLOCK_STRETCH.fields())
                .select(SERIES.NAME)
                .from(BLOCK_STRETCH)
                .join(SERIES)
                .on(SERIES.ID.eq(BLOCK_STRETCH.SERIES_ID))
                .join(ENTRY)
                .on(ENTRY.SEQ.eq(BLOCK_STRETCH.BLOCK_SEQ))
                // Numbers from before are kept in the same way, and are nobody's block.
                .where(of(series), ENTRY.KIND.in(Entry.Kind.BLOCK.code(), Entry.Kind.SPLIT.code()))
                .orderBy(BLOCK_STRETCH.BLOCK_SEQ, BLOCK_STRETCH.LANE_ID, BLOCK_STRETCH.FIRST_POSITION)
                .fetch()
                .forEach(row -> stretches
                        .computeIfAbsent(row.get(BLOCK_STRETCH.BLOCK_SEQ), added -> new ArrayList<>())
                        .add(row));
        var blocks = new ArrayList<Block>();
        stretches.forEach((seq, own) -> blocks.add(block(seq, own, states.getOrDefault(seq, Map.of()))));
        blocks.sort((a, b) -> Long.compare(b.left(), a.left()));
        return blocks;
    }

    private Block block(long seq, List<Record> own, Map<PositionState, Long> states) {
        EntryQueries.Row entry = entries.at(seq).orElseThrow();
        long quantity = own.stream()
                .mapToLong(row -> row.get(BLOCK_STRETCH.LAST_POSITION) - row.get(BLOCK_STRETCH.FIRST_POSITION) + 1)
                .sum();
        return new Block(
                seq,
                Optional.ofNullable(own.getFirst().get(BLOCK_STRETCH.PARENT_SEQ)),
                own.getFirst().get(SERIES.NAME),
                text(entry.spans().getFirst().lane(), entry.spans().getFirst().from(), own),
                text(entry.spans().getLast().lane(), entry.spans().getLast().to(), own),
                quantity,
                states,
                entry);
    }

    /** One that was given anew to somebody else reads as it did in the block. */
    private String text(int lane, long position, List<Record> own) {
        return definitions.render(
                lane,
                new Particulars(
                        own.getFirst().get(BLOCK_STRETCH.BUSINESS_DATE),
                        FieldsJson.read(own.getFirst().get(BLOCK_STRETCH.FIELDS))),
                position);
    }

    /**
     * Numbers that became void, in a row.
     *
     * @param entry the act that made them so
     */
    public record Voided(
            String series, String first, String last, long quantity, PositionState state, EntryQueries.Row entry) {}

    /**
     * What became void, the newest first.
     *
     * @param before only what an earlier entry than this made void
     */
    public List<Voided> voids(Optional<? extends Collection<String>> series, long before, int most) {
        return dsl.select(VOIDED.fields())
                .select(SERIES.NAME)
                .from(VOIDED)
                .join(LANE)
                .on(LANE.ID.eq(VOIDED.LANE_ID))
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(VOIDED.SEQ.lt(before), of(series))
                .orderBy(VOIDED.SEQ.desc(), VOIDED.LANE_ID, VOIDED.FIRST_POSITION)
                .limit(most)
                .fetch(this::voided);
    }

    private Voided voided(Record row) {
        return new Voided(
                row.get(SERIES.NAME),
                row.get(VOIDED.FIRST_TEXT),
                row.get(VOIDED.LAST_TEXT),
                row.get(VOIDED.LAST_POSITION) - row.get(VOIDED.FIRST_POSITION) + 1,
                PositionState.of(row.get(VOIDED.STATE)),
                entries.at(row.get(VOIDED.SEQ)).orElseThrow());
    }

    /**
     * A period that was closed.
     *
     * @param reopened the act that opened it again
     */
    public record Closing(
            EntryQueries.Row entry, Period period, List<LaneTotal> totals, Optional<EntryQueries.Row> reopened) {}

    /** Every closing, the newest first. */
    public List<Closing> closings() {
        return dsl.selectFrom(CLOSED_PERIOD).orderBy(CLOSED_PERIOD.SEQ.desc()).fetch(this::closing);
    }

    public Optional<Closing> closing(long seq) {
        return dsl.selectFrom(CLOSED_PERIOD)
                .where(CLOSED_PERIOD.SEQ.eq(seq))
                .fetchOptional()
                .map(this::closing);
    }

    private Closing closing(Record row) {
        var period = new Period(
                Period.Scope.of(row.get(CLOSED_PERIOD.SCOPE)),
                row.get(CLOSED_PERIOD.NAME),
                row.get(CLOSED_PERIOD.FROM_DATE),
                row.get(CLOSED_PERIOD.TO_DATE));
        return new Closing(
                entries.at(row.get(CLOSED_PERIOD.SEQ)).orElseThrow(),
                period,
                LifeJson.totals(row.get(CLOSED_PERIOD.TOTALS)),
                Optional.ofNullable(row.get(CLOSED_PERIOD.REOPENED_SEQ)).flatMap(entries::at));
    }

    /**
     * What is void inside a closed period, and was by its closing. A void number stays void, so that this is the same
     * for ever.
     */
    public List<Voided> voids(Closing closing) {
        return voids(closing, VOIDED.SEQ.le(closing.entry().seq()));
    }

    /** What is void inside a closed period, and became so after its closing. */
    public List<Voided> voidsSince(Closing closing) {
        return voids(closing, VOIDED.SEQ.gt(closing.entry().seq()));
    }

    /** How many numbers dated inside a period were given after its closing, as can be once it was opened again. */
    public long issuedSince(Closing closing) {
        return dsl.select(DSL.sum(ALLOCATION
                        .LAST_POSITION
                        .minus(ALLOCATION.FIRST_POSITION)
                        .plus(1)))
                .from(ALLOCATION)
                .join(LANE)
                .on(LANE.ID.eq(ALLOCATION.LANE_ID))
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(
                        ALLOCATION.SEQ.gt(closing.entry().seq()),
                        SERIES.NAME.in(series(closing)),
                        ALLOCATION.BUSINESS_DATE.between(
                                closing.period().from(), closing.period().to()))
                .fetchOptional(record -> record.value1())
                .map(Number::longValue)
                .orElse(0L);
    }

    private static List<String> series(Closing closing) {
        return closing.totals().stream()
                .map(total -> total.lane().series())
                .distinct()
                .toList();
    }

    private List<Voided> voids(Closing closing, Condition when) {
        return dsl.select(VOIDED.fields())
                .select(SERIES.NAME)
                .from(VOIDED)
                .join(LANE)
                .on(LANE.ID.eq(VOIDED.LANE_ID))
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(
                        when,
                        SERIES.NAME.in(series(closing)),
                        DSL.exists(DSL.selectOne()
                                .from(ALLOCATION)
                                .where(
                                        ALLOCATION.LANE_ID.eq(VOIDED.LANE_ID),
                                        ALLOCATION.LAST_POSITION.ge(VOIDED.FIRST_POSITION),
                                        ALLOCATION.LAST_POSITION.le(VOIDED.LAST_POSITION),
                                        ALLOCATION.BUSINESS_DATE.between(
                                                closing.period().from(),
                                                closing.period().to()))))
                .orderBy(SERIES.NAME, VOIDED.LANE_ID, VOIDED.FIRST_POSITION)
                .fetch(this::voided);
    }

    /**
     * How many numbers a series gave on each of the days up to today, the days in the order of time; days without any
     * are left out.
     */
    public Map<LocalDate, Long> use(String series, LocalDate from, ZoneId zone) {
        List<Byte> takes = List.of(Entry.Kind.values()).stream()
                .filter(Entry.Kind::takes)
                .map(Entry.Kind::code)
                .toList();
        Field<LocalDateTime> hour = DSL.trunc(ENTRY.AT, DatePart.HOUR);
        return dsl
                .select(hour, DSL.sum(ENTRY.QUANTITY).cast(Long.class))
                .from(ENTRY)
                .join(SERIES)
                .on(SERIES.ID.eq(ENTRY.SERIES_ID))
                .where(
                        SERIES.NAME.eq(series),
                        ENTRY.KIND.in(takes),
                        ENTRY.AT.ge(
                                LocalDateTime.ofInstant(from.atStartOfDay(zone).toInstant(), ZoneOffset.UTC)))
                .groupBy(hour)
                .fetch()
                .stream()
                .collect(Collectors.groupingBy(
                        row -> row.value1()
                                .atOffset(ZoneOffset.UTC)
                                .atZoneSameInstant(zone)
                                .toLocalDate(),
                        TreeMap::new,
                        Collectors.summingLong(row -> row.value2())));
    }
}
