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
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Span;
import org.youngtally.core.text.IdentifierKey;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.LifeJson;

/** Writes what becomes of numbers that were given. A row that is changed in part is cut first, so that each has one state. */
final class LifeTables {
    private final DSLContext dsl;
    private final Prepared settleOne;
    private final Prepared settleRow;
    private final Prepared unwatch;
    private final Prepared watch;
    private final Prepared pass;
    private final Prepared used;

    LifeTables(DSLContext dsl) {
        this.dsl = dsl;
        settleOne = new Prepared(dsl, dsl.update(ALLOCATION).set(ALLOCATION.STATE, (Byte) null).set(ALLOCATION.CHANGED_SEQ, (Long) null).where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.FIRST_POSITION.eq((Long) null), ALLOCATION.LAST_POSITION.eq((Long) null)));
        settleRow = new Prepared(dsl, dsl.update(ALLOCATION).set(ALLOCATION.STATE, (Byte) null).set(ALLOCATION.CHANGED_SEQ, (Long) null).where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.FIRST_POSITION.ge((Long) null), ALLOCATION.FIRST_POSITION.le((Long) null)));
        // What was typed ahead stays watched, whatever becomes of it: the counter has to step over it.
        var own = ALLOCATION.as("own");
        unwatch = new Prepared(dsl, dsl.deleteFrom(WATCHED).where(WATCHED.LANE_ID.eq((Integer) null), WATCHED.FIRST_POSITION.ge((Long) null), WATCHED.FIRST_POSITION.le((Long) null),
                DSL.notExists(DSL.selectOne().from(own).where(own.LANE_ID.eq(WATCHED.LANE_ID), own.FIRST_POSITION.eq(WATCHED.FIRST_POSITION), own.AHEAD.isNotNull()))));
        watch = new Prepared(dsl, dsl.mergeInto(WATCHED, WATCHED.LANE_ID, WATCHED.FIRST_POSITION).key(WATCHED.LANE_ID, WATCHED.FIRST_POSITION)
                .select(DSL.select(ALLOCATION.LANE_ID, ALLOCATION.FIRST_POSITION).from(ALLOCATION).where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.FIRST_POSITION.ge((Long) null), ALLOCATION.FIRST_POSITION.le((Long) null))));
        Field<Long> next = DSL.val((Long) null, LANE.NEXT_POSITION);
        pass = new Prepared(dsl, dsl.update(LANE).set(LANE.NEXT_POSITION, DSL.greatest(LANE.NEXT_POSITION, next)).where(LANE.ID.eq((Integer) null)));
        Field<LocalDate> date = DSL.val((LocalDate) null, LANE.LATEST_DATE);
        used = new Prepared(dsl, dsl.update(LANE).set(LANE.LATEST_DATE, DSL.greatest(DSL.coalesce(LANE.LATEST_DATE, date), date)).set(LANE.NEWEST_SEQ, (Long) null).where(LANE.ID.eq((Integer) null)));
    }

    static LocalDateTime time(Instant instant) { return LocalDateTime.ofInstant(instant, ZoneOffset.UTC); }

    void settle(Entry entry, Effect.Settled settled) {
        Object[] changed = {settled.now().code(), entry.seq(), settled.lane(), settled.from(), settled.to()};
        if (settled.from() != settled.to() || settleOne.run(changed) == 0) {
            cut(settled.lane(), settled.from(), settled.to());
            settleRow.run(changed);
        }
        boolean waits = settled.now() == PositionState.RETURNED;
        if (waits || settled.was() == PositionState.HELD || settled.was() == PositionState.RETURNED) (waits ? watch : unwatch).run(new Object[] {settled.lane(), settled.from(), settled.to()});
        if (settled.now().isVoid()) dsl.insertInto(VOIDED).values(settled.lane(), settled.from(), settled.to(), entry.seq(), settled.now().code(), settled.first(), settled.last()).execute();
    }

    /** Sees to it that rows begin at the first and end at the last position. */
    private void cut(int lane, long from, long to) {
        cutBefore(lane, from);
        cutBefore(lane, to + 1);
    }

    private void cutBefore(int lane, long position) {
        Optional<? extends Record> found = dsl.selectFrom(ALLOCATION).where(ALLOCATION.LANE_ID.eq(lane), ALLOCATION.FIRST_POSITION.lt(position)).orderBy(ALLOCATION.FIRST_POSITION.desc()).limit(1).fetchOptional().filter(row -> row.get(ALLOCATION.LAST_POSITION) >= position);
        if (found.isEmpty()) return;
        Record row = found.get();
        long first = row.get(ALLOCATION.FIRST_POSITION);
        dsl.update(ALLOCATION).set(ALLOCATION.LAST_POSITION, position - 1).where(ALLOCATION.LANE_ID.eq(lane), ALLOCATION.FIRST_POSITION.eq(first)).execute();
        Map<String, Object> rest = row.intoMap();
        rest.put(ALLOCATION.FIRST_POSITION.getName(), position);
        dsl.insertInto(ALLOCATION).set(rest).execute();
        if (dsl.fetchExists(WATCHED, WATCHED.LANE_ID.eq(lane), WATCHED.FIRST_POSITION.eq(first))) dsl.insertInto(WATCHED).values(lane, position).execute();
    }

    /** @param key by which the identifier is found */
    void giveAgain(Entry entry, Effect.Issued issued, String key, int namespace) {
        long position = issued.from();
        cut(issued.lane(), position, position);
        boolean held = issued.manner().until().isPresent();
        dsl.update(ALLOCATION).set(ALLOCATION.STATE, (held ? PositionState.HELD : PositionState.ISSUED).code()).set(ALLOCATION.SEQ, entry.seq()).set(ALLOCATION.VERSION, issued.version()).set(ALLOCATION.BUSINESS_DATE, issued.particulars().date())
                .set(ALLOCATION.FIELDS, FieldsJson.write(issued.particulars().fields())).set(ALLOCATION.TEXT, issued.texts().getFirst()).set(ALLOCATION.TEXT_KEY, key).set(ALLOCATION.NAMESPACE_ID, namespace)
                .set(ALLOCATION.CHANGED_SEQ, (Long) null).set(ALLOCATION.BLOCK_SEQ, (Long) null).set(ALLOCATION.HELD_UNTIL, issued.manner().until().map(LifeTables::time).orElse(null))
                .where(ALLOCATION.LANE_ID.eq(issued.lane()), ALLOCATION.FIRST_POSITION.eq(position)).execute();
        (held ? watch : unwatch).run(new Object[] {issued.lane(), position, position});
        used(entry, issued);
    }

    /** The lane was used, though its counter did not move. */
    void used(Entry entry, Effect.Issued issued) { used.run(new Object[] {issued.particulars().date(), issued.particulars().date(), entry.seq(), issued.lane()}); }

    void pass(Effect.Passed passed) { pass.run(new Object[] {passed.to() + 1, passed.lane()}); }

    void hand(Entry entry, Effect.Handed handed) {
        cut(handed.lane(), handed.from(), handed.to());
        dsl.update(ALLOCATION).set(ALLOCATION.BLOCK_SEQ, entry.seq()).where(ALLOCATION.LANE_ID.eq(handed.lane()), ALLOCATION.FIRST_POSITION.between(handed.from(), handed.to())).execute();
        Span span = new Span(handed.lane(), handed.from(), handed.to());
        dsl.insertInto(BLOCK_STRETCH, BLOCK_STRETCH.BLOCK_SEQ, BLOCK_STRETCH.LANE_ID, BLOCK_STRETCH.FIRST_POSITION, BLOCK_STRETCH.LAST_POSITION, BLOCK_STRETCH.SERIES_ID, BLOCK_STRETCH.VERSION, BLOCK_STRETCH.BUSINESS_DATE, BLOCK_STRETCH.FIELDS, BLOCK_STRETCH.PARENT_SEQ)
                .select(DSL.select(DSL.val(entry.seq()), BLOCK_STRETCH.LANE_ID, DSL.val(span.from()), DSL.val(span.to()), BLOCK_STRETCH.SERIES_ID, BLOCK_STRETCH.VERSION, BLOCK_STRETCH.BUSINESS_DATE, BLOCK_STRETCH.FIELDS, DSL.val(handed.was())).from(BLOCK_STRETCH)
                .where(BLOCK_STRETCH.BLOCK_SEQ.eq(handed.was()), BLOCK_STRETCH.LANE_ID.eq(span.lane()), BLOCK_STRETCH.FIRST_POSITION.le(span.from()), BLOCK_STRETCH.LAST_POSITION.ge(span.to()))).execute();
    }

    void retire(Entry entry, Effect.Retired retired) {
        Origin origin = retired.origin();
        String text = origin.text().orElseThrow();
        dsl.insertInto(RETIRED).set(RETIRED.LANE_ID, retired.lane()).set(RETIRED.POSITION, retired.position()).set(RETIRED.SEQ, origin.seq()).set(RETIRED.VERSION, origin.version()).set(RETIRED.BUSINESS_DATE, origin.particulars().date())
                .set(RETIRED.FIELDS, FieldsJson.write(origin.particulars().fields())).set(RETIRED.HELD_UNTIL, origin.until().map(LifeTables::time).orElse(null)).set(RETIRED.AHEAD, origin.ahead() ? Boolean.TRUE : null)
                .set(RETIRED.TEXT, text).set(RETIRED.TEXT_KEY, IdentifierKey.of(text)).set(RETIRED.RETIRED_SEQ, entry.seq()).execute();
    }

    void close(Entry entry, Effect.PeriodClosed closed) {
        dsl.insertInto(CLOSED_PERIOD).values(entry.seq(), (byte) closed.period().scope().ordinal(), closed.period().key(), closed.period().from(), closed.period().to(), LifeJson.write(closed.totals()), null).execute();
    }

    void reopen(Entry entry, Effect.PeriodReopened reopened) { dsl.update(CLOSED_PERIOD).set(CLOSED_PERIOD.REOPENED_SEQ, entry.seq()).where(CLOSED_PERIOD.SEQ.eq(reopened.closing())).execute(); }
}
