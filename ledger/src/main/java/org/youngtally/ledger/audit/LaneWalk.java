package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;

import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;
import org.youngtally.ledger.store.Definitions;

/** Walks every position of a lane in the tables: no gap, no overlap, each identifier as its definition renders it. */
final class LaneWalk {
    private static final int PAGE = 10_000;

    private final DSLContext dsl;
    private final Definitions definitions;
    private final Findings findings;

    LaneWalk(DSLContext dsl, Findings findings) {
        this.dsl = dsl;
        this.definitions = new Definitions(dsl);
        this.findings = findings;
    }

    LaneDigest run(int id) {
        Definitions.Lane lane = definitions.lane(id);
        var digest = new LaneDigest();
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
                checkText(lane, row, from);
                digest.add(from, to, row.get(ALLOCATION.SEQ), row.get(ALLOCATION.VERSION), row.get(ALLOCATION.BUSINESS_DATE), row.get(ALLOCATION.TEXT));
                expected = Math.max(expected, to + 1);
                after = from;
            }
        } while (page.size() == PAGE);
        if (expected != lane.next()) findings.add(name(lane) + ": the counter stands at position " + lane.next() + ", the numbers end before " + expected);
        return digest;
    }

    private void checkText(Definitions.Lane lane, Record row, long position) {
        String text = row.get(ALLOCATION.TEXT);
        if (text == null) return;
        Series series = definitions.version(lane.seriesId(), row.get(ALLOCATION.VERSION));
        Range range = series.range(lane.range()).orElseThrow();
        String rendered = position < range.size() ? series.render(range, row.get(ALLOCATION.BUSINESS_DATE), position) : "nothing, being past the end of its range";
        if (!rendered.equals(text)) findings.add(name(lane) + ", position " + position + ": ‘" + text + "’ stands where its definition gives " + (position < range.size() ? "‘" + rendered + "’" : rendered));
        if (!IdentifierKey.of(text).equals(row.get(ALLOCATION.TEXT_KEY))) findings.add(name(lane) + ", position " + position + ": ‘" + text + "’ is filed under the wrong key");
    }

    private static String name(Definitions.Lane lane) {
        return "series " + lane.series() + ", range " + lane.range() + (lane.period().isEmpty() ? "" : ", lane " + lane.period());
    }

    private static String positions(long from, long to) {
        return from >= to ? "position " + from + " was" : "positions " + from + " to " + to + " were";
    }
}
