package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;

import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.store.Definitions;
import org.youngtally.ledger.store.PositionState;
import org.youngtally.ledger.store.RoundKey;

/** Walks every position of a lane in the tables: no gap, no overlap, each identifier as its definition renders it. */
final class LaneWalk {
    private static final int PAGE = 10_000;
    /** The most stretches of skipped values that are told of a lane. */
    private static final int MOST_STRETCHES = 10;

    private final DSLContext dsl;
    private final Definitions definitions;
    private final Findings findings;
    private final List<String> explained = new ArrayList<>();
    private long skipped;

    LaneWalk(DSLContext dsl, Findings findings) {
        this.dsl = dsl;
        this.definitions = new Definitions(dsl);
        this.findings = findings;
    }

    LaneDigest run(int id) {
        Definitions.Lane lane = definitions.lane(id);
        var digest = new LaneDigest();
        long skippedBefore = skipped;
        var values = new ArrayList<String>();
        long expected = 0;
        List<? extends Record> page;
        long after = -1;
        do {
            page = dsl.selectFrom(ALLOCATION).where(ALLOCATION.LANE_ID.eq(id), ALLOCATION.FIRST_POSITION.gt(after)).orderBy(ALLOCATION.FIRST_POSITION).limit(PAGE).fetch();
            for (Record row : page) {
                long from = row.get(ALLOCATION.FIRST_POSITION);
                long to = row.get(ALLOCATION.LAST_POSITION);
                if (from > expected) findings.add(name(lane) + ": " + positions(expected, from - 1) + " below the next one never given: a gap");
                if (from < expected || to < from) findings.add(name(lane) + ": " + positions(from, Math.min(to, expected - 1)) + " given twice");
                PositionState state = PositionState.of(row.get(ALLOCATION.STATE));
                var particulars = new Particulars(row.get(ALLOCATION.BUSINESS_DATE), FieldsJson.read(row.get(ALLOCATION.FIELDS)));
                if (state == PositionState.SKIPPED) checkSkipped(lane, row, from, to, values);
                else checkText(lane, row, particulars, from);
                digest.add(state, from, to, row.get(ALLOCATION.SEQ), row.get(ALLOCATION.VERSION), particulars, row.get(ALLOCATION.TEXT));
                expected = Math.max(expected, to + 1);
                after = from;
            }
        } while (page.size() == PAGE);
        if (expected != lane.next()) findings.add(name(lane) + ": the counter stands at position " + lane.next() + ", the numbers end before " + expected);
        if (skipped > skippedBefore) explained.add(name(lane) + ": " + (skipped - skippedBefore) + (skipped - skippedBefore == 1 ? " position" : " positions") + " void, skipped by the definition: " + String.join(", ", values) + (values.size() == MOST_STRETCHES ? " …" : ""));
        return digest;
    }

    /** What the lanes hold that is neither given nor a gap, and why. */
    List<String> explained() { return explained; }

    private static String written(Series series, Range range, LaneKey lane, long position) { return series.pattern().count().written(series.order().valueAt(range, lane, position)); }

    /** How many positions were found to be skipped as their definitions say. */
    long skipped() { return skipped; }

    private void checkSkipped(Definitions.Lane lane, Record row, long from, long to, List<String> values) {
        Series series = definitions.version(lane.seriesId(), row.get(ALLOCATION.VERSION));
        Range range = series.range(lane.range()).orElseThrow();
        var key = new LaneKey(lane.series(), lane.range(), lane.period());
        if (series.order().isSealed()) return;
        long position = from;
        while (position <= to && position < series.positions(range)) {
            long last = series.skippedTo(range, key, position);
            if (last < position) break;
            position = last + 1;
        }
        if (position <= to) findings.add(name(lane) + ": " + positions(position, to) + " passed over, though the definition does not skip the value: a gap");
        else {
            skipped += to - from + 1;
            if (values.size() < MOST_STRETCHES) values.add(written(series, range, key, from) + (from == to ? "" : " to " + written(series, range, key, to)));
        }
    }

    private void checkText(Definitions.Lane lane, Record row, Particulars particulars, long position) {
        String text = row.get(ALLOCATION.TEXT);
        if (text == null) return;
        Series series = definitions.version(lane.seriesId(), row.get(ALLOCATION.VERSION));
        if (series.order().isSealed()) {
            findings.add(name(lane) + ", position " + position + ": ‘" + text + "’ cannot be proved, the secret of the series being away");
            return;
        }
        Range range = series.range(lane.range()).orElseThrow();
        boolean inside = position < series.positions(range);
        String rendered = inside ? series.render(range, particulars, position) : "nothing, being past the end of its range";
        if (!rendered.equals(text)) findings.add(name(lane) + ", position " + position + ": ‘" + text + "’ stands where its definition gives " + (inside ? "‘" + rendered + "’" : rendered));
        // A mark that comes round again is filed under its key, its lane and its round.
        String key = IdentifierKey.of(text) + (series.order().repeats() ? RoundKey.of(lane.id(), series.order().round(range, position)) : "");
        if (!key.equals(row.get(ALLOCATION.TEXT_KEY))) findings.add(name(lane) + ", position " + position + ": ‘" + text + "’ is filed under the wrong key");
    }

    private static String name(Definitions.Lane lane) {
        return "series " + lane.series() + ", range " + lane.range() + (lane.period().isEmpty() ? "" : ", lane " + lane.period());
    }

    private static String positions(long from, long to) {
        return from >= to ? "position " + from + " was" : "positions " + from + " to " + to + " were";
    }
}
