package org.youngtally.service.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.LongConsumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/**
 * Takes the numbers of a table's rows in steps, so that others take theirs between them: all of them or none. Whether
 * all can be had is looked at first; where somebody was quicker all the same, what the steps before took is given back.
 * After an end in the middle the same request with its key goes on where it stopped.
 */
public final class TableNumbering {
    private static final Logger LOG = LoggerFactory.getLogger(TableNumbering.class);
    /** Rows that are numbered in one act: as many as others do not notice, and as are given back in one. */
    private static final int STEP = 1_000;

    private final Ledger ledger;
    private final String by;
    private final Act.FillTable whole;
    private final List<Outcome.Filled> steps = new ArrayList<>();

    /**
     * @param by who asks
     * @param whole all rows
     */
    public TableNumbering(Ledger ledger, String by, Act.FillTable whole) {
        this.ledger = ledger;
        this.by = by;
        this.whole = whole.rows().size() > STEP && whole.mark().key().isEmpty() ? keyed(whole) : whole;
    }

    /** What is done in steps may have to be gone on with. */
    private static Act.FillTable keyed(Act.FillTable table) {
        RequestMark mark = table.mark();
        return new Act.FillTable(
                table.kind(),
                table.unit(),
                table.rows(),
                table.date(),
                table.series(),
                new RequestMark(mark.account(), Optional.of(UUID.randomUUID().toString()), mark.digest()));
    }

    /** That not all rows have their number, and none has one by this. */
    public static final class Refused extends Exception {
        private static final long serialVersionUID = 1;

        private final transient Refusal refusal;
        private final boolean givenBack;

        public Refused(Refusal refusal, boolean givenBack) {
            this.refusal = refusal;
            this.givenBack = givenBack;
        }

        public Refusal refusal() {
            return refusal;
        }

        /** Whether earlier rows had their numbers, which were given back. */
        public boolean givenBack() {
            return givenBack;
        }
    }

    /** Looks whether all can be had as the ledger stands, which takes as long as the table is large. */
    public TableNumbering looked() throws Refused {
        if (whole.rows().size() > STEP && ledger.decide(whole) instanceof Decision.Refused refused)
            throw new Refused(refused.refusal(), false);
        return this;
    }

    /**
     * @param progress is told how many rows have their number
     * @return the numbers in the order of the rows
     */
    public List<String> take(LongConsumer progress) throws Refused {
        var texts = new ArrayList<String>(whole.rows().size());
        while (texts.size() < whole.rows().size()) {
            switch (ledger.perform(step(texts.size()), by)) {
                case Outcome.Filled filled -> {
                    steps.add(filled);
                    if (filled.withdrawn() > 0) throw withdrawn(filled, "table");
                    texts.addAll(filled.identifiers());
                }
                case Outcome.Refused<Answer.Table> refused -> {
                    giveBack();
                    throw new Refused(
                            refused.refusal() instanceof Refusal.RowFaulty faulty
                                    ? new Refusal.RowFaulty(texts.size() + faulty.row(), faulty.refusal())
                                    : refused.refusal(),
                            !steps.isEmpty());
                }
            }
            progress.accept(texts.size());
        }
        return texts;
    }

    public Act.FillTable table() {
        return whole;
    }

    /** What the ledger could not answer, and how the table is gone on with where a part of it has its numbers. */
    public Problem unavailable(LedgerUnavailable e) {
        Problem problem = Refusals.problem(e);
        if (steps.isEmpty()) return problem;
        int done = steps.stream().mapToInt(step -> step.identifiers().size()).sum();
        return new Problem(
                        problem.type(),
                        problem.getMessage()
                                + " The first %,d rows are numbered. Send the same table again with the Idempotency-Key ‘%s’ to number the rest."
                                        .formatted(done, whole.mark().key().orElseThrow()))
                .with(problem)
                .with("key", whole.mark().key().orElseThrow());
    }

    /** The entries that gave them. */
    public List<Long> entries() {
        return steps.stream().map(step -> step.entry().seq()).toList();
    }

    private Act.FillTable step(int from) {
        return new Act.FillTable(
                whole.kind(),
                whole.unit(),
                whole.rows().subList(from, Math.min(from + STEP, whole.rows().size())),
                whole.date(),
                whole.series(),
                from == 0
                        ? whole.mark()
                        : new RequestMark(
                                whole.mark().account(),
                                // No key of a caller holds a line feed.
                                whole.mark().key().map(key -> key + "\n" + from),
                                whole.mark().digest()));
    }

    /** @param what of that the numbers are, in a word */
    public static Problem withdrawn(Outcome.Filled filled, String what) {
        return new Problem(
                        Type.UNFIT,
                        "The numbers of this " + what + " were allocated before, in entry "
                                + filled.entry().seq() + ", and " + filled.withdrawn()
                                + " of them were returned or voided since. This request allocates none again.")
                .field("Idempotency-Key", "a new one, so that the " + what + " gets other numbers");
    }

    private void giveBack() {
        for (Outcome.Filled step : steps)
            ledger.read(dsl -> new EntryQueries(dsl).standingBySeries(step.entry()))
                    .forEach((series, texts) ->
                            giveBack(series, texts, step.entry().seq()));
    }

    private void giveBack(String series, List<String> texts, long entry) {
        Outcome<Answer.Settlement> outcome = null;
        try {
            for (Act.Deed deed : List.of(Act.Deed.RETURN, Act.Deed.VOID)) {
                outcome = ledger.perform(
                        new Act.Settle(
                                series,
                                new Selection.Identifiers(texts),
                                deed,
                                Optional.of("a later row of the table was refused"),
                                new RequestMark(
                                        by, Optional.empty(), whole.mark().digest())),
                        by);
                if (outcome instanceof Outcome.Settled) return;
            }
        } catch (LedgerUnavailable e) {
            LOG.warn("numbers of a table that was refused were not returned", e);
        }
        String why = outcome instanceof Outcome.Refused<Answer.Settlement> refused
                ? " " + Refusals.problem(refused.refusal()).getMessage()
                : "";
        throw new Problem(
                        Type.TABLE_FAULTY,
                        "A later row of the table was refused, and the numbers that entry " + entry
                                + " allocated to earlier rows could not be returned." + why)
                .field("entry " + entry, "voiding or returning its numbers, or the same table with the same key")
                .with("entry", entry);
    }
}
