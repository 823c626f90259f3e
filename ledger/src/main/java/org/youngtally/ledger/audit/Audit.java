package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.APPLIED;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.TablePlan;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;

/**
 * Reads every journal line and every row, and says whether the ledger is gap-free and unchanged, or exactly what is
 * wrong. It looks at one committed state while numbers go on being given.
 */
public final class Audit {
    private Audit() {}

    /**
     * @param series the series whose lanes are walked; absent for all. The journal is read whole in any case
     * @param earlier a head that an earlier audit ended with, to prove that nothing up to it was rewritten or cut off
     */
    public static AuditReport of(Ledger ledger, Optional<String> series, Head earlier) {
        return ledger.read(dsl ->
                of(ledger.journalDisk(), dsl, series, earlier, ledger.status().stopped()));
    }

    /** The same of the tables that a question is asked of, and of the journal on a disk. */
    public static AuditReport of(Disk journal, DSLContext dsl, Optional<String> series, Head earlier) {
        return of(journal, dsl, series, earlier, "");
    }

    private static AuditReport of(Disk journal, DSLContext dsl, Optional<String> series, Head earlier, String stopped) {
        Head head = dsl.selectFrom(APPLIED).fetchOne(row -> new Head(row.get(APPLIED.SEQ), row.get(APPLIED.HASH)));
        return of(journal, dsl, head, series, earlier, stopped);
    }

    /** @param stopped why the ledger gives no numbers, which no proof of its tables makes good; empty while it does */
    private static AuditReport of(
            Disk journal, DSLContext dsl, Head head, Optional<String> series, Head earlier, String stopped) {
        var findings = new Findings();
        if (!stopped.isEmpty()) findings.add(stopped);
        var journalWalk = new JournalWalk(dsl, findings);
        try {
            journalWalk.run(journal, head, earlier);
            journalWalk.compareLife();
        } catch (IOException e) {
            throw new UncheckedIOException("the journal cannot be read", e);
        }
        List<Integer> lanes = dsl.select(LANE.ID)
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(series.map(SERIES.NAME::eq).orElse(DSL.noCondition()))
                .orderBy(LANE.ID)
                .fetch(LANE.ID);
        var walk = new LaneWalk(dsl, findings);
        Map<Integer, LaneDigest> journalLanes = journalWalk.lanes();
        long positions = 0;
        for (int lane : lanes) {
            LaneDigest rows = walk.run(lane);
            positions += dsl.select(LANE.NEXT_POSITION)
                    .from(LANE)
                    .where(LANE.ID.eq(lane))
                    .fetchSingle(LANE.NEXT_POSITION);
            LaneDigest written = journalLanes.get(lane);
            if (written == null || !rows.agrees(written))
                findings.add(
                        "lane " + lane + journalWalk.name(lane) + ": the tables hold other numbers than the journal");
        }
        var explained = new ArrayList<>(walk.explained().lines());
        explained.addAll(journalWalk.halves());
        Optional<String> namespace = series.map(key -> dsl.select(NAMESPACE.NAME)
                .from(SERIES)
                .join(NAMESPACE)
                .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
                .where(SERIES.NAME.eq(key))
                .fetchOne(NAMESPACE.NAME));
        journalWalk.periods().entrySet().stream()
                .filter(each ->
                        series.isEmpty() || concerns(each.getValue().period(), series.get(), namespace.orElse("")))
                .forEach(each ->
                        explained.add(line(each.getKey(), each.getValue().period())));
        journalWalk.plans().values().stream()
                .filter(open -> series.isEmpty() || open.plan().series().equals(series.get()))
                .forEach(open -> explained.add(line(open)));
        return findings.report(
                journalWalk.entries(),
                lanes.size(),
                positions,
                walk.explained().ahead(),
                walk.explained().states(),
                head,
                explained);
    }

    /** Whether a closed period is one of a series: its own, or its namespace's. */
    private static boolean concerns(Period period, String series, String namespace) {
        return period.key().equals(period.scope() == Period.Scope.SERIES ? series : namespace);
    }

    private static String line(TablePlan.Open open) {
        TablePlan plan = open.plan();
        return "plan of entry " + open.seq() + " for " + plan.file() + ", series " + plan.series()
                + ", is open: %,d of %,d stretches recorded, %,d of %,d rows numbered"
                        .formatted(open.recorded(), plan.stretches(), open.numbered(), plan.rows());
    }

    private static String line(long seq, Period period) {
        return "closed by entry " + seq + ": the " + period.scope().word() + " " + period.key() + " from "
                + period.from() + " to " + period.to();
    }
}
