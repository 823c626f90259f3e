package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.store.statement.CachedQuery;
import org.youngtally.ledger.store.statement.WriterStatement;

/** Rows of allocation as stretches. */
public final class Stretches {
    private static final CachedQuery WITHIN = new CachedQuery(dsl -> dsl.selectFrom(ALLOCATION)
            .where(ALLOCATION.LANE_ID.eq(0), ALLOCATION.LAST_POSITION.between(0L, 0L))
            .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION));
    private static final CachedQuery BEHIND = new CachedQuery(dsl -> dsl.selectFrom(ALLOCATION)
            .where(ALLOCATION.LANE_ID.eq(0), ALLOCATION.LAST_POSITION.gt(0L))
            .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
            .limit(DSL.inline(1)));

    private Stretches() {}

    public static Stretch of(Record row) {
        Long changed = row.get(ALLOCATION.CHANGED_SEQ);
        Long block = row.get(ALLOCATION.BLOCK_SEQ);
        var origin = new Origin(
                row.get(ALLOCATION.SEQ),
                row.get(ALLOCATION.VERSION),
                new Particulars(row.get(ALLOCATION.BUSINESS_DATE), FieldsJson.read(row.get(ALLOCATION.FIELDS))),
                Optional.ofNullable(row.get(ALLOCATION.HELD_UNTIL)).map(until -> until.toInstant(ZoneOffset.UTC)),
                row.get(ALLOCATION.AHEAD) != null,
                Optional.ofNullable(row.get(ALLOCATION.TEXT)));
        return new Stretch(
                row.get(ALLOCATION.FIRST_POSITION),
                row.get(ALLOCATION.LAST_POSITION),
                PositionState.of(row.get(ALLOCATION.STATE)),
                changed == null ? 0 : changed,
                block == null ? 0 : block,
                origin);
    }

    /** Those that reach into a stretch of positions, whole, in order. */
    static List<Stretch> between(DSLContext dsl, int lane, long from, long to) {
        List<Stretch> found = new ArrayList<>(WITHIN.ask(dsl, lane, from, to).map(row -> of((Record) row)));
        if (found.isEmpty() || found.getLast().to() < to)
            BEHIND.ask(dsl, lane, to).map(row -> of((Record) row)).stream()
                    .filter(stretch -> stretch.from() <= to)
                    .forEach(found::add);
        return found;
    }

    /** The same questions made ready once, for the writer. */
    static final class Lookup {
        private final WriterStatement within;
        private final WriterStatement behind;

        Lookup(DSLContext dsl) {
            // The columns in the order in which they are read below.
            var columns = List.of(
                    ALLOCATION.FIRST_POSITION,
                    ALLOCATION.LAST_POSITION,
                    ALLOCATION.STATE,
                    ALLOCATION.CHANGED_SEQ,
                    ALLOCATION.BLOCK_SEQ,
                    ALLOCATION.SEQ,
                    ALLOCATION.VERSION,
                    ALLOCATION.BUSINESS_DATE,
                    ALLOCATION.FIELDS,
                    ALLOCATION.HELD_UNTIL,
                    ALLOCATION.AHEAD,
                    ALLOCATION.TEXT);
            within = new WriterStatement(
                    dsl,
                    dsl.select(columns)
                            .from(ALLOCATION)
                            .where(
                                    ALLOCATION.LANE_ID.eq((Integer) null),
                                    ALLOCATION.LAST_POSITION.ge((Long) null),
                                    ALLOCATION.LAST_POSITION.le((Long) null))
                            .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION));
            behind = new WriterStatement(
                    dsl,
                    dsl.select(columns)
                            .from(ALLOCATION)
                            .where(ALLOCATION.LANE_ID.eq((Integer) null), ALLOCATION.LAST_POSITION.gt((Long) null))
                            .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
                            .limit(DSL.inline(1)));
        }

        List<Stretch> between(int lane, long from, long to) {
            List<Stretch> found = within.ask(new Object[] {lane, from, to}, Stretches::of);
            if (found.isEmpty() || found.getLast().to() < to)
                behind.ask(new Object[] {lane, to}, Stretches::of).stream()
                        .filter(stretch -> stretch.from() <= to)
                        .forEach(found::add);
            return found;
        }
    }

    private static Stretch of(ResultSet row) throws SQLException {
        LocalDateTime until = row.getObject(10, LocalDateTime.class);
        var origin = new Origin(
                row.getLong(6),
                row.getInt(7),
                new Particulars(row.getObject(8, LocalDate.class), FieldsJson.read(row.getString(9))),
                Optional.ofNullable(until).map(time -> time.toInstant(ZoneOffset.UTC)),
                row.getObject(11) != null,
                Optional.ofNullable(row.getString(12)));
        return new Stretch(
                row.getLong(1),
                row.getLong(2),
                PositionState.of(row.getByte(3)),
                row.getLong(4),
                row.getLong(5),
                origin);
    }
}
