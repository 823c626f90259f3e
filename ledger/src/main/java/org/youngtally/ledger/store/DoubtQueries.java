package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;

/** Asks for numbers that are in doubt. */
public final class DoubtQueries {
    private final DSLContext dsl;
    private final StateQueries states;
    private final EntryQueries entries;
    private final DefinitionVersions definitions;

    public DoubtQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.states = new StateQueries(dsl);
        this.entries = new EntryQueries(dsl);
        this.definitions = new DefinitionVersions(dsl);
    }

    /**
     * Numbers of a lane in a row.
     *
     * @param entry by which they are in doubt
     */
    public record Doubt(String series, String first, String last, long quantity, EntryQueries.Row entry) {}

    /** @param series only those of these series; absent for all */
    public List<Doubt> all(Optional<? extends Collection<String>> series, int most) {
        return where(series.<Condition>map(SERIES.NAME::in).orElse(DSL.noCondition()), most);
    }

    /** Those that one entry brought into doubt. */
    public List<Doubt> of(long seq, int most) {
        return where(ALLOCATION.CHANGED_SEQ.eq(seq), most);
    }

    private List<Doubt> where(Condition wanted, int most) {
        Map<Long, EntryQueries.Row> known = new HashMap<>();
        return dsl.select(SERIES.NAME, ALLOCATION.LANE_ID, ALLOCATION.FIRST_POSITION, ALLOCATION.LAST_POSITION)
                .from(ALLOCATION)
                .join(LANE)
                .on(LANE.ID.eq(ALLOCATION.LANE_ID))
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(ALLOCATION.STATE.eq(PositionState.IN_DOUBT.code()), wanted)
                .orderBy(SERIES.NAME, ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
                .limit(most)
                .fetch(row -> {
                    Stretch stretch = states.stretches(row.value2(), row.value3(), row.value4())
                            .getFirst();
                    return new Doubt(
                            row.value1(),
                            text(row.value2(), stretch, stretch.from()),
                            text(row.value2(), stretch, stretch.to()),
                            stretch.quantity(),
                            known.computeIfAbsent(
                                    stretch.changed(), seq -> entries.at(seq).orElseThrow()));
                });
    }

    private String text(int lane, Stretch stretch, long position) {
        return stretch.origin()
                .text()
                .orElseGet(() -> definitions.render(lane, stretch.origin().particulars(), position));
    }
}
