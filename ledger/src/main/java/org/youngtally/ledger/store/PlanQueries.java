package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.PLAN_PIECE;
import static org.youngtally.ledger.store.db.Tables.TABLE_PLAN;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.TablePlan;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.PlanJson;

/** Plans for tables, and what they did. */
public final class PlanQueries {
    private final DSLContext dsl;

    public PlanQueries(DSLContext dsl) {
        this.dsl = dsl;
    }

    /**
     * A plan that was begun.
     *
     * @param open how far it has come
     * @param ended the entry that ended it; absent while it is open
     * @param completed whether it was carried out, and not abandoned
     */
    public record Plan(TablePlan.Open open, Optional<Long> ended, boolean completed) {}

    /** Every plan, the newest first. */
    public List<Plan> all() {
        return plans(DSL.noCondition());
    }

    public Optional<Plan> at(long seq) {
        return plans(TABLE_PLAN.SEQ.eq(seq)).stream().findFirst();
    }

    /** The newest plan of this digest. */
    public Optional<Plan> by(String digest) {
        return all().stream()
                .filter(plan -> plan.open().plan().digest().equals(digest))
                .findFirst();
    }

    List<TablePlan.Open> open() {
        return plans(TABLE_PLAN.ENDED_SEQ.isNull()).stream().map(Plan::open).toList();
    }

    private List<Plan> plans(Condition of) {
        return dsl.selectFrom(TABLE_PLAN)
                .where(of)
                .orderBy(TABLE_PLAN.SEQ.desc())
                .fetch(PlanQueries::plan);
    }

    private static Plan plan(Record row) {
        return new Plan(
                new TablePlan.Open(
                        row.get(TABLE_PLAN.SEQ),
                        PlanJson.read(row.get(TABLE_PLAN.DEFINITION)),
                        row.get(TABLE_PLAN.RECORDED),
                        row.get(TABLE_PLAN.NUMBERED)),
                Optional.ofNullable(row.get(TABLE_PLAN.ENDED_SEQ)),
                Boolean.TRUE.equals(row.get(TABLE_PLAN.COMPLETED)));
    }

    /** The numbers that rows got by a plan, in the order of the rows. */
    public List<String> numbered(long plan) {
        var entries = new EntryQueries(dsl);
        var texts = new ArrayList<String>();
        for (EntryQueries.Row row : numbering(plan)) texts.addAll(entries.filled(row));
        return texts;
    }

    /** The entries that numbered rows by a plan, in their order. */
    public List<EntryQueries.Row> numbering(long plan) {
        var entries = new EntryQueries(dsl);
        return dsl
                .select(PLAN_PIECE.SEQ)
                .from(PLAN_PIECE)
                .where(PLAN_PIECE.PLAN_SEQ.eq(plan))
                .orderBy(PLAN_PIECE.SEQ)
                .fetch(PLAN_PIECE.SEQ)
                .stream()
                .map(seq -> entries.at(seq).orElseThrow())
                .filter(row -> row.kind() == Entry.Kind.FILL)
                .toList();
    }

    /**
     * Where a number from before was in its table.
     *
     * @param plan by which it was recorded
     * @param line of the file, from 1
     */
    public record Origin(Plan plan, long line) {}

    /** @param recorded the entry that recorded the position */
    public Optional<Origin> origin(long recorded, int lane, long position) {
        return dsl.selectFrom(PLAN_PIECE)
                .where(PLAN_PIECE.SEQ.eq(recorded))
                .fetchOptional()
                .flatMap(piece -> line(piece.get(PLAN_PIECE.LINES), lane, position)
                        .flatMap(line -> at(piece.get(PLAN_PIECE.PLAN_SEQ)).map(plan -> new Origin(plan, line))));
    }

    /** The plan by which an entry recorded or numbered; absent for an entry of none. */
    public Optional<Long> planOf(long seq) {
        return dsl.select(PLAN_PIECE.PLAN_SEQ)
                .from(PLAN_PIECE)
                .where(PLAN_PIECE.SEQ.eq(seq))
                .fetchOptional(PLAN_PIECE.PLAN_SEQ);
    }

    private static Optional<Long> line(String lines, int lane, long position) {
        for (String one : lines.split(" ")) {
            int equals = one.indexOf('=');
            if (equals < 0) continue;
            var span = Spans.read(one.substring(0, equals)).getFirst();
            if (span.lane() == lane && span.from() <= position && position <= span.to())
                return Optional.of(FileLines.read(one.substring(equals + 1)).lineAt(position - span.from()));
        }
        return Optional.empty();
    }
}
