package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.PLAN_PIECE;
import static org.youngtally.ledger.store.db.Tables.TABLE_PLAN;

import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.TablePlan;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.PlanJson;

/** Writes what becomes of plans for tables. */
final class PlanTables {
    private final DSLContext dsl;

    PlanTables(DSLContext dsl) {
        this.dsl = dsl;
    }

    void begin(Entry entry, int series, TablePlan plan) {
        dsl.insertInto(TABLE_PLAN)
                .values(entry.seq(), series, PlanJson.write(plan), 0L, 0L, null, null)
                .execute();
    }

    void advance(Entry entry, Effect.PlanAdvanced done) {
        dsl.update(TABLE_PLAN)
                .set(TABLE_PLAN.RECORDED, done.recorded())
                .set(TABLE_PLAN.NUMBERED, done.numbered())
                .where(TABLE_PLAN.SEQ.eq(done.plan()))
                .execute();
        dsl.insertInto(PLAN_PIECE)
                .values(entry.seq(), done.plan(), lines(entry))
                .execute();
    }

    private static String lines(Entry entry) {
        return entry.effects().stream()
                .filter(Effect.Issued.class::isInstance)
                .map(Effect.Issued.class::cast)
                .filter(issued -> issued.manner().preexisting().isPresent())
                .map(issued -> issued.lane() + ":" + issued.from() + "-" + issued.to() + "="
                        + issued.manner().preexisting().get().written())
                .collect(Collectors.joining(" "));
    }

    void end(Entry entry, Effect.PlanEnded ended) {
        dsl.update(TABLE_PLAN)
                .set(TABLE_PLAN.ENDED_SEQ, entry.seq())
                .set(TABLE_PLAN.COMPLETED, ended.completed())
                .where(TABLE_PLAN.SEQ.eq(ended.plan()))
                .execute();
    }
}
