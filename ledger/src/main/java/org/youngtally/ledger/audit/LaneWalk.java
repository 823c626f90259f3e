package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.WATCHED;

import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.store.DefinitionVersions;
import org.youngtally.ledger.store.RoundKey;
import org.youngtally.ledger.store.Stretches;

/** Walks every position of a lane in the tables: no gap, no overlap, each identifier as its definition renders it. */
final class LaneWalk {
    private static final int PAGE = 10_000;
    private final DSLContext dsl;
    private final DefinitionVersions definitions;
    private final Findings findings;
    private final Explained explained;

    LaneWalk(DSLContext dsl, Findings findings) {
        this.dsl = dsl;
        this.definitions = new DefinitionVersions(dsl);
        this.findings = findings;
        this.explained = new Explained(dsl, definitions);
    }

    LaneDigest run(int id) {
        DefinitionVersions.Lane lane = definitions.lane(id);
        var digest = new LaneDigest();
        explained.begin(lane, name(lane));
        Set<Long> watched = dsl.select(WATCHED.LAST_POSITION)
                .from(WATCHED)
                .where(WATCHED.LANE_ID.eq(id))
                .fetchSet(WATCHED.LAST_POSITION);
        long expected = 0;
        long counted = 0;
        List<? extends Record> page;
        long after = -1;
        do {
            page = dsl.selectFrom(ALLOCATION)
                    .where(ALLOCATION.LANE_ID.eq(id), ALLOCATION.LAST_POSITION.gt(after))
                    .orderBy(ALLOCATION.LANE_ID, ALLOCATION.LAST_POSITION)
                    .limit(PAGE)
                    .fetch();
            for (Record row : page) {
                Stretch stretch = Stretches.of(row);
                place(lane, stretch, expected);
                if (watched.remove(stretch.to())
                        != (stretch.state() == PositionState.HELD
                                || stretch.state() == PositionState.RETURNED
                                || stretch.origin().ahead()))
                    findings.add(name(lane) + ", position " + (stretch.from() + 1) + ": "
                            + stretch.state().word() + ", which the writer is not told of, or told wrongly");
                if (stretch.state() == PositionState.SKIPPED) checkSkipped(lane, stretch);
                else checkText(lane, stretch, row.get(ALLOCATION.TEXT_KEY));
                digest.add(stretch);
                explained.add(stretch);
                expected = Math.max(expected, stretch.to() + 1);
                if (!stretch.origin().ahead()) counted = stretch.to() + 1;
                after = stretch.to();
            }
        } while (page.size() == PAGE);
        // Ahead of the counter only what was typed may stand.
        if (expected < lane.next() || counted > lane.next())
            findings.add(name(lane) + ": the counter is at position " + (lane.next() + 1) + ", the numbers end before "
                    + (Math.max(counted, expected < lane.next() ? expected : 0) + 1));
        if (!watched.isEmpty())
            findings.add(name(lane) + ": the writer is told of " + watched.size() + " positions that are not there");
        explained.end();
        return digest;
    }

    /** Below the counter nothing may be missing, and nowhere may anything stand twice. */
    private void place(DefinitionVersions.Lane lane, Stretch stretch, long expected) {
        if (stretch.from() > expected && expected < lane.next())
            findings.add(name(lane) + ": " + positions(expected, Math.min(stretch.from(), lane.next()) - 1)
                    + " never issued: a gap");
        if (stretch.from() < expected || stretch.to() < stretch.from())
            findings.add(name(lane) + ": " + positions(stretch.from(), Math.min(stretch.to(), expected - 1))
                    + " issued twice");
    }

    /** What the lanes hold that is out of the ordinary, and why; how many positions there are in each state. */
    Explained explained() {
        return explained;
    }

    private void checkSkipped(DefinitionVersions.Lane lane, Stretch stretch) {
        Series series = definitions.version(lane, stretch.origin().version());
        Range range = series.range(lane.range()).orElseThrow();
        var key = new LaneKey(lane.series(), lane.range(), lane.period());
        if (series.order().isSealed()) return;
        long position = stretch.from();
        while (position <= stretch.to() && position < series.positions(range)) {
            long last = series.skippedTo(range, key, position);
            if (last < position) break;
            position = last + 1;
        }
        if (position <= stretch.to())
            findings.add(name(lane) + ": " + positions(position, stretch.to())
                    + " passed over, though the definition does not skip the value: a gap");
    }

    private void checkText(DefinitionVersions.Lane lane, Stretch stretch, String filed) {
        if (stretch.origin().text().isEmpty()) return;
        String text = stretch.origin().text().get();
        long position = stretch.from();
        Series series = definitions.version(lane, stretch.origin().version());
        if (series.order().isSealed()) {
            findings.add(name(lane) + ", position " + (position + 1) + ": ‘" + text
                    + "’ cannot be proved, because the secret of the series is missing");
            return;
        }
        Range range = series.range(lane.range()).orElseThrow();
        boolean inside = position < series.positions(range);
        String rendered = inside
                ? series.render(range, stretch.origin().particulars(), position)
                : "nothing, because it lies past the end of its range";
        if (!rendered.equals(text))
            findings.add(name(lane) + ", position " + (position + 1) + ": ‘" + text
                    + "’ was found where the definition writes " + (inside ? "‘" + rendered + "’" : rendered));
        // A mark that comes round again is filed under its key, its lane and its round.
        String key = lane.comparison().key(text)
                + (series.order().repeats()
                        ? RoundKey.of(lane.id(), series.order().round(range, position))
                        : "");
        if (!key.equals(filed))
            findings.add(name(lane) + ", position " + (position + 1) + ": ‘" + text + "’ is filed under the wrong key");
    }

    private static String name(DefinitionVersions.Lane lane) {
        return "series " + lane.series() + ", range " + lane.range()
                + (lane.period().isEmpty() ? "" : ", lane " + lane.period());
    }

    /** Positions count from 0 in the ledger, and from 1 for people. */
    private static String positions(long from, long to) {
        return from >= to ? "position " + (from + 1) + " was" : "positions " + (from + 1) + " to " + (to + 1) + " were";
    }
}
