package org.youngtally.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.proof.Prover;
import org.youngtally.ledger.LedgerUnavailable.Kind;

/** The one thread that changes the ledger: it takes all that waits, and does it as one batch. */
final class Writer implements AutoCloseable {
    private static final int MOST_WAITING = 10_000;
    private static final int MOST_IN_A_BATCH = 1_000;
    private static final long LOOK_MILLIS = 100;

    /** Numbers, or rows of a table; more takes so long that others would notice. */
    private static final long MOST_NUMBERS = 2_000;

    private static final int MOST_OF_AN_ACCOUNT = 5_000;
    private static final long MOST_NUMBERS_OF_AN_ACCOUNT = 1_000_000;

    private final FairQueue<BatchWork.Waiting> queue = new FairQueue<>(
            MOST_WAITING, MOST_OF_AN_ACCOUNT, MOST_NUMBERS_OF_AN_ACCOUNT, waiting -> numbers(waiting.act()));
    private final BatchWork work;
    private final Thread thread;
    private volatile boolean closing;

    Writer(BatchWork work) {
        this.work = work;
        this.thread = Thread.ofPlatform().name("writer").start(this::run);
    }

    CompletableFuture<BatchWork.Result> submit(Act<?> act, String by, Prover prover) {
        if (closing) throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        if (!work.stopped().isEmpty()) throw new LedgerUnavailable(Kind.STOPPED, work.stopped(), null);
        var waiting = new BatchWork.Waiting(act, by, new CompletableFuture<>(), prover);
        switch (queue.offer(by, waiting)) {
            case TAKEN -> {}
            case FULL -> throw new LedgerUnavailable(Kind.BUSY, MOST_WAITING + " requests are waiting already", null);
            case SHARE_TAKEN ->
                throw new LedgerUnavailable(
                        Kind.SHARE_TAKEN,
                        "‘" + by + "’ has as many requests waiting as one account may, or for as many numbers",
                        null);
        }
        // The thread may have ended between the look and the offer, and would never take it.
        if (!thread.isAlive() && queue.remove(by, waiting))
            throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        return waiting.answer();
    }

    /** How many numbers an act asks for at the most, each of which is written by itself. */
    private static long numbers(Act<?> act) {
        return switch (act) {
            case Act.Allocate allocate -> allocate.form().isBlock() ? 1 : Math.max(1, allocate.quantity());
            case Act.FillTable fill -> fill.rows().size();
            case Act.NumberDocument number -> number.rows().size();
            case Act.NumberRows rows ->
                rows.rows().stream().mapToLong(Act.PlanRow::quantity).sum();
            case Act.PrintLabels print ->
                print.rows().stream()
                        .mapToLong(row -> Math.min(row.quantity(), Decider.MOST_SETTLED))
                        .sum();
            case Act.ChangeLabels change -> change.step() instanceof LabelStep.Spoil ? Decider.MOST_SETTLED : 1;
            case Act.Continue on -> 1;
            case Act.StateHighest stated -> Decider.MOST_SETTLED;
            case Act.Resume resume -> 1;
            case Act.CarryOut carry ->
                carry.step() instanceof PlanStep.Record record ? weight(record) : Decider.MOST_SETTLED;
            case Act.Settle settle -> 1;
            case Act.Lapse lapse -> 1;
            case Act.Split split -> 1;
            case Act.Close close -> 1;
            case Act.Reopen reopen -> 1;
            case Act.Define define -> 1 + define.drafts().size();
            case Act.RemoveRoute remove -> 1;
            case Act.ChangeAccount change -> 1;
            case Act.SaveRecord save -> 1;
            case Act.ChangeRecord change -> 1;
        };
    }

    /** What is kept together is one row. */
    private static long weight(PlanStep.Record record) {
        return record.stretches().stream()
                .mapToLong(stretch -> stretch.together() ? 1 : stretch.to() - stretch.from() + 1)
                .sum();
    }

    BatchWork work() {
        return work;
    }

    private void run() {
        List<BatchWork.Waiting> batch = List.of();
        try {
            while (!closing || !queue.isEmpty()) {
                batch = queue.take(LOOK_MILLIS, MOST_IN_A_BATCH, MOST_NUMBERS);
                work.lapse();
                if (batch.isEmpty()) {
                    work.tidy(true);
                    continue;
                }
                work.serve(batch);
                work.tidy(false);
            }
        } catch (InterruptedException e) {
            work.end("the writer was interrupted; start the service again", e);
        } catch (RuntimeException | Error e) {
            work.end("the writer met an error it cannot recover from (" + e + "); start the service again", e);
        } finally {
            var left = new ArrayList<>(batch);
            left.addAll(queue.drain());
            for (BatchWork.Waiting waiting : left)
                waiting.answer()
                        .completeExceptionally(new LedgerUnavailable(
                                Kind.OUTCOME_UNKNOWN,
                                "the service is stopping; repeat it with the same idempotency key once it runs again",
                                null));
        }
    }

    /** Answers what waits, then ends. */
    @Override
    public void close() {
        closing = true;
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
