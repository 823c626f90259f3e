package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;

import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.FieldsJson;

/** Rows of allocation as stretches. */
public final class Stretches {
    private Stretches() {}

    public static Stretch of(Record row) {
        Long changed = row.get(ALLOCATION.CHANGED_SEQ);
        Long block = row.get(ALLOCATION.BLOCK_SEQ);
        var origin = new Origin(row.get(ALLOCATION.SEQ), row.get(ALLOCATION.VERSION), new Particulars(row.get(ALLOCATION.BUSINESS_DATE), FieldsJson.read(row.get(ALLOCATION.FIELDS))),
                Optional.ofNullable(row.get(ALLOCATION.HELD_UNTIL)).map(until -> until.toInstant(ZoneOffset.UTC)), row.get(ALLOCATION.AHEAD) != null, Optional.ofNullable(row.get(ALLOCATION.TEXT)));
        return new Stretch(row.get(ALLOCATION.FIRST_POSITION), row.get(ALLOCATION.LAST_POSITION), PositionState.of(row.get(ALLOCATION.STATE)), changed == null ? 0 : changed, block == null ? 0 : block, origin);
    }

    /** Those that reach into a stretch of positions, whole, in order. */
    static List<Stretch> between(DSLContext dsl, int lane, long from, long to) {
        Long first = dsl.select(ALLOCATION.FIRST_POSITION).from(ALLOCATION).where(ALLOCATION.LANE_ID.eq(lane), ALLOCATION.FIRST_POSITION.le(from)).orderBy(ALLOCATION.FIRST_POSITION.desc()).limit(1).fetchOne(ALLOCATION.FIRST_POSITION);
        return dsl.selectFrom(ALLOCATION).where(ALLOCATION.LANE_ID.eq(lane), ALLOCATION.FIRST_POSITION.between(first == null ? from : first, to), ALLOCATION.LAST_POSITION.ge(from)).orderBy(ALLOCATION.FIRST_POSITION).fetch(Stretches::of);
    }
}
