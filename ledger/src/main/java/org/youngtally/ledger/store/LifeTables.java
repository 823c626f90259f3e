package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK_STRETCH;
import static org.youngtally.ledger.store.db.Tables.CLOSED_PERIOD;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.RETIRED;
import static org.youngtally.ledger.store.db.Tables.VOIDED;
import static org.youngtally.ledger.store.db.Tables.WATCHED;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Span;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.LifeJson;
import org.youngtally.ledger.store.statement.BatchInsert;
import org.youngtally.ledger.store.statement.WriterStatement;

/**
 * Writes what becomes of numbers that were given. A row that is changed in part is cut first, so that each has one
 * state.
 */
final class LifeTables {
    private final DSLContext dsl;
    private final WriterStatement settleOne;
    private final WriterStatement settleRow;
    private final WriterStatement unwatch;
    private final WriterStatement watch;
    private final WriterStatement pass;
    private final WriterStatement used;
    private final WriterStatement across;
    private final WriterStatement again;
    private final BatchInsert newVoid;

    LifeTables(DSLContext dsl) {
        this.dsl = dsl;
        settleOne = new WriterStatement(
                dsl,
                dsl.update(ALLOCATION)
                        .set(ALLOCATION.STATE, (Byte) null)
                        .set(ALLOCATION.CHANGED_SEQ, (Long) null)
                        .where(
                                ALLOCATION.LANE_ID.eq((Integer) null),
                                ALLOCATION.FIRST_POSITION.eq((Long) null),
                                ALLOCATION.LAST_POSITION.eq((Long) null)));
        settleRow = new WriterStatement(
                dsl,
                dsl.update(ALLOCATION)
                        .set(ALLOCATION.STATE, (Byte) null)
                        .set(ALLOCATION.CHANGED_SEQ, (Long) null)
                        .where(
                                ALLOCATION.LANE_ID.eq((Integer) null),
                                ALLOCATION.LAST_POSITION.ge((Long) null),
                                ALLOCATION.LAST_POSITION.le((Long) null)));
        // What was typed ahead stays watched, whatever becomes of it: the counter has to step over it.
        var own = ALLOCATION.as("own");
        unwatch = new WriterStatement(
                dsl,
                dsl.deleteFrom(WATCHED)
                        .where(
                                WATCHED.LANE_ID.eq((Integer) null),
                                WATCHED.LAST_POSITION.ge((Long) null),
                                WATCHED.LAST_POSITION.le((Long) null),
                                DSL.notExists(DSL.selectOne()
                                        .from(own)
                                        .where(
                                                own.LANE_ID.eq(WATCHED.LANE_ID),
                                                own.LAST_POSITION.eq(WATCHED.LAST_POSITION),
                                                own.AHEAD.isNotNull()))));
        watch = new WriterStatement(
                dsl,
                dsl.insertInto(WATCHED, WATCHED.LANE_ID, WATCHED.LAST_POSITION)
                        .select(DSL.select(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
                                .from(ALLOCATION)
                                .where(
                                        ALLOCATION.LANE_ID.eq((Integer) null),
                                        ALLOCATION.LAST_POSITION.ge((Long) null),
                                        ALLOCATION.LAST_POSITION.le((Long) null)))
                        .onConflictDoNothing());
        Field<Long> next = DSL.val((Long) null, LANE.NEXT_POSITION);
        pass = new WriterStatement(
                dsl,
                dsl.update(LANE)
                        .set(LANE.NEXT_POSITION, DSL.greatest(LANE.NEXT_POSITION, next))
                        .where(LANE.ID.eq((Integer) null)));
        across = new WriterStatement(
                dsl,
                dsl.select(ALLOCATION.FIRST_POSITION, ALLOCATION.LAST_POSITION)
                        .from(ALLOCATION)
                        .where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.LAST_POSITION.ge((Long) null))
                        .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
                        .limit(DSL.inline(1)));
        again = new WriterStatement(
                dsl,
                dsl.update(ALLOCATION)
                        .set(ALLOCATION.STATE, (Byte) null)
                        .set(ALLOCATION.SEQ, (Long) null)
                        .set(ALLOCATION.VERSION, (Integer) null)
                        .set(ALLOCATION.BUSINESS_DATE, (LocalDate) null)
                        .set(ALLOCATION.FIELDS, (String) null)
                        .set(ALLOCATION.TEXT, (String) null)
                        .set(ALLOCATION.TEXT_KEY, (String) null)
                        .set(ALLOCATION.NAMESPACE_ID, (Integer) null)
                        .set(ALLOCATION.HELD_UNTIL, (LocalDateTime) null)
                        .set(ALLOCATION.CHANGED_SEQ, DSL.inline(null, ALLOCATION.CHANGED_SEQ))
                        .set(ALLOCATION.BLOCK_SEQ, DSL.inline(null, ALLOCATION.BLOCK_SEQ))
                        .where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.LAST_POSITION.eq((Long) null)));
        newVoid = new BatchInsert(
                dsl,
                VOIDED,
                VOIDED.LANE_ID,
                VOIDED.FIRST_POSITION,
                VOIDED.LAST_POSITION,
                VOIDED.SEQ,
                VOIDED.STATE,
                VOIDED.FIRST_TEXT,
                VOIDED.LAST_TEXT);
        Field<LocalDate> date = DSL.val((LocalDate) null, LANE.LATEST_DATE);
        used = new WriterStatement(
                dsl,
                dsl.update(LANE)
                        .set(LANE.LATEST_DATE, DSL.greatest(DSL.coalesce(LANE.LATEST_DATE, date), date))
                        .set(LANE.NEWEST_SEQ, (Long) null)
                        .where(LANE.ID.eq((Integer) null)));
    }

    static LocalDateTime time(Instant instant) {
        return LocalDateTime.ofInstant(instant, ZoneOffset.UTC);
    }

    void settle(Entry entry, Effect.Settled settled) {
        Object[] changed = {settled.now().code(), entry.seq(), settled.lane(), settled.from(), settled.to()};
        if (settled.from() != settled.to() || settleOne.run(changed) == 0) {
            cut(settled.lane(), settled.from(), settled.to());
            settleRow.run(changed);
        }
        boolean waits = settled.now() == PositionState.RETURNED;
        if (waits || settled.was() == PositionState.HELD || settled.was() == PositionState.RETURNED)
            (waits ? watch : unwatch).run(new Object[] {settled.lane(), settled.from(), settled.to()});
        if (settled.now().isVoid())
            newVoid.run(List.<Object[]>of(new Object[] {
                settled.lane(),
                settled.from(),
                settled.to(),
                entry.seq(),
                settled.now().code(),
                settled.first(),
                settled.last()
            }));
    }

    void closeGap(Entry entry, Effect.GapClosed gap) {
        newVoid.run(List.<Object[]>of(new Object[] {
            gap.lane(), gap.from(), gap.to(), entry.seq(), PositionState.GAP_CLOSED.code(), gap.first(), gap.last()
        }));
    }

    /** Sees to it that rows begin at the first and end at the last position. */
    private void cut(int lane, long from, long to) {
        cutBefore(lane, from);
        cutBefore(lane, to + 1);
    }

    private void cutBefore(int lane, long position) {
        List<Span> found =
                across.ask(new Object[] {lane, position}, row -> new Span(lane, row.getLong(1), row.getLong(2)));
        if (found.isEmpty() || found.getFirst().from() >= position) return;
        Condition one = ALLOCATION
                .LANE_ID
                .eq(lane)
                .and(ALLOCATION.LAST_POSITION.eq(found.getFirst().to()));
        Map<String, Object> front =
                dsl.selectFrom(ALLOCATION).where(one).fetchSingle().intoMap();
        front.put(ALLOCATION.LAST_POSITION.getName(), position - 1);
        dsl.update(ALLOCATION)
                .set(ALLOCATION.FIRST_POSITION, position)
                .where(one)
                .execute();
        dsl.insertInto(ALLOCATION).set(front).execute();
        dsl.insertInto(WATCHED, WATCHED.LANE_ID, WATCHED.LAST_POSITION)
                .select(DSL.select(WATCHED.LANE_ID, DSL.val(position - 1))
                        .from(WATCHED)
                        .where(
                                WATCHED.LANE_ID.eq(lane),
                                WATCHED.LAST_POSITION.eq(found.getFirst().to())))
                .execute();
    }

    /** @param key by which the identifier is found */
    void giveAgain(Entry entry, Effect.Issued issued, String key, int namespace) {
        long position = issued.from();
        cut(issued.lane(), position, position);
        boolean held = issued.manner().until().isPresent();
        again.run(new Object[] {
            issued.state().code(),
            entry.seq(),
            issued.version(),
            issued.particulars().date(),
            FieldsJson.write(issued.particulars().fields()),
            issued.texts().getFirst(),
            key,
            namespace,
            issued.manner().until().map(LifeTables::time).orElse(null),
            issued.lane(),
            position
        });
        (held ? watch : unwatch).run(new Object[] {issued.lane(), position, position});
        used(entry, issued);
    }

    /** The lane was used, though its counter did not move. */
    void used(Entry entry, Effect.Issued issued) {
        used.run(new Object[] {issued.particulars().date(), issued.particulars().date(), entry.seq(), issued.lane()});
    }

    void pass(Effect.Passed passed) {
        pass.run(new Object[] {passed.to() + 1, passed.lane()});
    }

    void hand(Entry entry, Effect.Handed handed) {
        cut(handed.lane(), handed.from(), handed.to());
        dsl.update(ALLOCATION)
                .set(ALLOCATION.BLOCK_SEQ, entry.seq())
                .where(
                        ALLOCATION.LANE_ID.eq(handed.lane()),
                        ALLOCATION.LAST_POSITION.between(handed.from(), handed.to()))
                .execute();
        Span span = new Span(handed.lane(), handed.from(), handed.to());
        dsl.insertInto(
                        BLOCK_STRETCH,
                        BLOCK_STRETCH.BLOCK_SEQ,
                        BLOCK_STRETCH.LANE_ID,
                        BLOCK_STRETCH.FIRST_POSITION,
                        BLOCK_STRETCH.LAST_POSITION,
                        BLOCK_STRETCH.SERIES_ID,
                        BLOCK_STRETCH.VERSION,
                        BLOCK_STRETCH.BUSINESS_DATE,
                        BLOCK_STRETCH.FIELDS,
                        BLOCK_STRETCH.PARENT_SEQ)
                .select(DSL.select(
                                DSL.val(entry.seq()),
                                BLOCK_STRETCH.LANE_ID,
                                DSL.val(span.from()),
                                DSL.val(span.to()),
                                BLOCK_STRETCH.SERIES_ID,
                                BLOCK_STRETCH.VERSION,
                                BLOCK_STRETCH.BUSINESS_DATE,
                                BLOCK_STRETCH.FIELDS,
                                DSL.val(handed.was()))
                        .from(BLOCK_STRETCH)
                        .where(
                                BLOCK_STRETCH.BLOCK_SEQ.eq(handed.was()),
                                BLOCK_STRETCH.LANE_ID.eq(span.lane()),
                                BLOCK_STRETCH.FIRST_POSITION.le(span.from()),
                                BLOCK_STRETCH.LAST_POSITION.ge(span.to())))
                .execute();
    }

    /** @param comparison how the namespace compares identifiers */
    void retire(Entry entry, Effect.Retired retired, Comparison comparison) {
        Origin origin = retired.origin();
        String text = origin.text().orElseThrow();
        dsl.insertInto(RETIRED)
                .set(RETIRED.LANE_ID, retired.lane())
                .set(RETIRED.POSITION, retired.position())
                .set(RETIRED.SEQ, origin.seq())
                .set(RETIRED.VERSION, origin.version())
                .set(RETIRED.BUSINESS_DATE, origin.particulars().date())
                .set(RETIRED.FIELDS, FieldsJson.write(origin.particulars().fields()))
                .set(RETIRED.HELD_UNTIL, origin.until().map(LifeTables::time).orElse(null))
                .set(RETIRED.AHEAD, origin.ahead() ? Boolean.TRUE : null)
                .set(RETIRED.TEXT, text)
                .set(RETIRED.TEXT_KEY, comparison.key(text))
                .set(RETIRED.RETIRED_SEQ, entry.seq())
                .execute();
    }

    void close(Entry entry, Effect.PeriodClosed closed) {
        dsl.insertInto(CLOSED_PERIOD)
                .values(
                        entry.seq(),
                        closed.period().scope().code(),
                        closed.period().key(),
                        closed.period().from(),
                        closed.period().to(),
                        LifeJson.write(closed.totals()),
                        null)
                .execute();
    }

    void reopen(Entry entry, Effect.PeriodReopened reopened) {
        dsl.update(CLOSED_PERIOD)
                .set(CLOSED_PERIOD.REOPENED_SEQ, entry.seq())
                .where(CLOSED_PERIOD.SEQ.eq(reopened.closing()))
                .execute();
    }
}
