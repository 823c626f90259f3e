package org.youngtally.service.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongConsumer;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.act.PlanStep.InUse;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.core.act.TablePlan;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.PlanQueries;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;

/**
 * Carries out a plan for the numbers of a table in steps, so that others allocate between them. The ledger knows how
 * far it has come: after an end in the middle it goes on there.
 */
public final class PlanCarrying {
    /** Numbers of one step, as many as others do not notice. */
    private static final int STEP = 500;
    /** Kept together, many numbers are one row. */
    private static final int MOST_STRETCHES = 500;
    /** Somebody else may carry out the same plan, and be quicker now and then. */
    private static final int MOST_MOVES = 1_000;

    private final Ledger ledger;
    private final String by;
    private final PlanFile plan;
    private final TablePlan stated;
    private final RequestMark mark;

    /**
     * @param digest of the plan's bytes
     * @param mark of the request, without a key: the ledger knows what is done already
     */
    public PlanCarrying(Ledger ledger, PlanFile plan, String digest, RequestMark mark) {
        this.ledger = ledger;
        this.by = mark.account();
        this.plan = plan;
        this.stated = plan.stated(digest);
        this.mark = mark;
    }

    /**
     * States the plan, unless that was done before.
     *
     * @return the entry that did
     */
    public long begin(Optional<String> reason) {
        return ledger.read(dsl -> new PlanQueries(dsl).by(stated.digest()))
                .filter(known -> known.ended().isEmpty() || known.completed())
                .map(known -> known.open().seq())
                .orElseGet(() -> settled(new PlanStep.Begin(stated, plan.standing(), reason)));
    }

    private long settled(PlanStep step) {
        return switch (perform(step)) {
            case Outcome.Settled settled -> settled.entry().seq();
            case Outcome.Refused<Answer.Settlement> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    private Outcome<Answer.Settlement> perform(PlanStep step) {
        try {
            return ledger.perform(new Act.CarryOut(stated.series(), step, mark), by);
        } catch (LedgerUnavailable e) {
            throw unavailable(e);
        }
    }

    private static Problem unavailable(LedgerUnavailable e) {
        Problem problem = Refusals.problem(e);
        return new Problem(
                        problem.type(),
                        problem.getMessage() + " The plan is open; carry it out again to go on with it.")
                .with(problem);
    }

    /** @param progress is told how many numbers are recorded or allocated */
    public void carryOut(long seq, LongConsumer progress) {
        int moves = 0;
        while (true) {
            TablePlan.Open open = ledger.snapshot().counters().plans().get(seq);
            if (open == null) return;
            progress.accept(open.recorded() + open.numbered());
            Optional<Refusal> refusal = step(open);
            if (refusal.isEmpty()) continue;
            if (!(refusal.get() instanceof Refusal.PlanMoved || refusal.get() instanceof Refusal.UnknownPlan)
                    || ++moves > MOST_MOVES) throw refused(open, refusal.get());
        }
    }

    private Optional<Refusal> step(TablePlan.Open open) {
        if (open.recorded() < stated.stretches())
            return refusal(perform(new PlanStep.Record(open.seq(), open.recorded(), stretches((int) open.recorded()))));
        if (open.leavesGaps(ledger.snapshot().counters())) return refusal(perform(new PlanStep.CloseGaps(open.seq())));
        if (open.numbered() < stated.rows()) return refusal(number(open));
        return refusal(perform(new PlanStep.Complete(open.seq())));
    }

    private static Optional<Refusal> refusal(Outcome<?> outcome) {
        return outcome instanceof Outcome.Refused<?> refused ? Optional.of(refused.refusal()) : Optional.empty();
    }

    private Outcome<Answer.Table> number(TablePlan.Open open) {
        try {
            return ledger.perform(
                    new Act.NumberRows(stated.series(), open.seq(), open.numbered(), rows((int) open.numbered()), mark),
                    by);
        } catch (LedgerUnavailable e) {
            throw unavailable(e);
        }
    }

    private Problem refused(TablePlan.Open open, Refusal refusal) {
        Problem problem = Refusals.problem(refusal instanceof Refusal.RowFaulty faulty ? faulty.refusal() : refusal);
        String line = refusal instanceof Refusal.RowFaulty faulty
                ? "Line "
                        + plan.numbering()
                                .get((int) open.numbered() + faulty.row())
                                .line() + ": "
                : "";
        return new Problem(
                        problem.type(),
                        line + problem.getMessage() + " The plan of entry " + open.seq()
                                + " stays open: carry it out again, or abandon it.")
                .with("plan", open.seq())
                .with(problem);
    }

    /** The next stretches that are recorded in one act. */
    private List<InUse> stretches(int from) {
        int to = from;
        long weight = 0;
        while (to < plan.stretches().size() && to - from < MOST_STRETCHES && weight < STEP) {
            InUse next = plan.stretches().get(to);
            weight += next.together() ? 1 : next.to() - next.from() + 1;
            to++;
        }
        return plan.stretches().subList(from, to);
    }

    /** The next rows that are numbered in one act; those in a row that are for the same are numbered together. */
    private List<Act.PlanRow> rows(int from) {
        var rows = new ArrayList<Act.PlanRow>();
        for (PlanFile.Numbering row : plan.numbering()
                .subList(from, Math.min(from + STEP, plan.numbering().size()))) {
            Act.PlanRow last = rows.isEmpty() ? null : rows.getLast();
            var one =
                    new Act.PlanRow(row.particulars().date(), row.particulars().fields(), 1);
            if (last != null && last.date().equals(one.date()) && last.fields().equals(one.fields()))
                rows.set(rows.size() - 1, new Act.PlanRow(last.date(), last.fields(), last.quantity() + 1));
            else rows.add(one);
        }
        return rows;
    }

    /** What the cells of the numbers hold from now on, by line. */
    public Map<Long, String> texts(long seq) {
        var texts = new HashMap<>(plan.corrections());
        List<String> numbers = ledger.read(dsl -> new PlanQueries(dsl).numbered(seq));
        for (int i = 0; i < numbers.size(); i++)
            texts.put(plan.numbering().get(i).line(), numbers.get(i));
        return texts;
    }

    /**
     * Abandons a plan: what it allocated becomes void. What it recorded stays pre-existing, since it is in use.
     *
     * @param known the plan
     * @return how many numbers became void
     */
    public static long abandon(
            Ledger ledger, String by, PlanQueries.Plan known, Optional<String> reason, RequestMark mark) {
        String series = known.open().plan().series();
        if (known.ended().isEmpty())
            done(
                    ledger,
                    new Act.CarryOut(series, new PlanStep.Abandon(known.open().seq(), reason), mark),
                    by);
        long voided = 0;
        List<EntryQueries.Row> pieces =
                ledger.read(dsl -> new PlanQueries(dsl).numbering(known.open().seq()));
        for (EntryQueries.Row piece : pieces) {
            List<String> texts = ledger.read(dsl -> new EntryQueries(dsl).standingBySeries(piece))
                    .getOrDefault(series, List.of());
            if (texts.isEmpty()) continue;
            done(
                    ledger,
                    new Act.Settle(
                            series,
                            new Selection.Identifiers(texts),
                            Act.Deed.VOID,
                            Optional.of("plan " + known.open().seq() + " was abandoned"
                                    + reason.map(why -> ": " + why).orElse("")),
                            new RequestMark(by, Optional.empty(), mark.digest())),
                    by);
            voided += texts.size();
        }
        return voided;
    }

    private static void done(Ledger ledger, Act<Answer.Settlement> act, String by) {
        try {
            if (ledger.perform(act, by) instanceof Outcome.Refused<Answer.Settlement> refused)
                throw Refusals.problem(refused.refusal());
        } catch (LedgerUnavailable e) {
            throw Refusals.problem(e);
        }
    }
}
