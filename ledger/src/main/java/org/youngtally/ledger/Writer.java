package org.youngtally.ledger;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.locks.ReentrantLock;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.proof.Prover;
import org.youngtally.ledger.LedgerUnavailable.Kind;

/**
 * Whoever changes the ledger: one thread at a time. A caller that finds nobody at it does its own act, since waking
 * another thread and being woken by it takes as long as the act; what comes meanwhile waits, and the writing thread
 * takes all of it as one batch. That thread also ends holds, and looks after the folder and the tables' file. What a
 * caller did is committed by whoever comes first: itself once it has answered, a reader, the next who is at work.
 */
final class Writer implements AutoCloseable {
    private static final int MOST_WAITING = 10_000;
    private static final int MOST_IN_A_BATCH = 1_000;
    private static final long LOOK_MILLIS = 100;
    /** After so many batches of a single act, one after the other, callers are believed to come alone. */
    private static final int ALONE = 16;

    /** Numbers, or rows of a table; more takes so long that others would notice. */
    private static final long MOST_NUMBERS = 2_000;

    private static final int MOST_OF_AN_ACCOUNT = 5_000;
    private static final long MOST_NUMBERS_OF_AN_ACCOUNT = 1_000_000;

    private final FairQueue<BatchWork.Waiting> queue = new FairQueue<>(
            MOST_WAITING, MOST_OF_AN_ACCOUNT, MOST_NUMBERS_OF_AN_ACCOUNT, waiting -> numbers(waiting.act()));
    private final BatchWork work;
    private final Thread thread;
    /** Held by whoever is at work. */
    private final ReentrantLock turn = new ReentrantLock();

    /**
     * How many of the last batches were of a single act, up to {@link #ALONE}. Among many callers, whoever does its own
     * act lets the others wait for one force more. Written under {@link #turn}.
     */
    private volatile int alone = ALONE;
    /** Whether a caller did its own act since the writing thread looked last; under {@link #turn}. */
    private boolean led;

    private volatile boolean closing;
    /** Nobody begins any more; under {@link #turn}. */
    private boolean ended;

    Writer(BatchWork work) {
        this.work = work;
        this.thread = Thread.ofPlatform().name("writer").start(this::run);
    }

    CompletableFuture<BatchWork.Result> submit(Act<?> act, String by, Prover prover) {
        if (closing) throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        if (!work.stopped().isEmpty()) throw new LedgerUnavailable(Kind.STOPPED, work.stopped(), null);
        var waiting = new BatchWork.Waiting(act, by, new CompletableFuture<>(), prover);
        if (alone == ALONE && queue.isEmpty() && !turn.hasQueuedThreads() && turn.tryLock()) {
            try {
                lead(waiting);
            } finally {
                turn.unlock();
            }
            return waiting.answer();
        }
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

    /** By the caller itself. */
    private void lead(BatchWork.Waiting own) {
        if (ended) throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        led = true;
        try {
            work.lapse();
            work.serve(List.of(own));
        } catch (RuntimeException | Error e) {
            unrecoverable(e);
            fail(List.of(own));
        }
    }

    /** Has the tables commit what was answered; where somebody is at work, that is left to them. */
    void commitBehind() {
        if (!work.isBehind() || !turn.tryLock()) return;
        try {
            work.commitBehind();
        } catch (RuntimeException | Error e) {
            unrecoverable(e);
        } finally {
            turn.unlock();
        }
    }

    /** Waits until the tables hold all that was answered when this is called. */
    void awaitTables() {
        long answered = work.head().seq();
        if (!work.isBehind()) return;
        commitBehind();
        if (!work.isBehind()) return;
        queue.nudge();
        work.awaitTables(answered);
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
                boolean came = queue.await(LOOK_MILLIS);
                turn.lock();
                try {
                    batch = queue.take(MOST_IN_A_BATCH, MOST_NUMBERS);
                    work.lapse();
                    if (!batch.isEmpty()) {
                        alone = batch.size() > 1 ? 0 : Math.min(alone + 1, ALONE);
                        work.serve(batch);
                    }
                    work.tidy(!came && !led);
                    led = false;
                } finally {
                    turn.unlock();
                }
            }
        } catch (InterruptedException e) {
            work.end("the writer was interrupted; start the service again", e);
        } catch (RuntimeException | Error e) {
            unrecoverable(e);
        } finally {
            end(batch);
        }
    }

    private void end(List<BatchWork.Waiting> unanswered) {
        turn.lock();
        try {
            ended = true;
            fail(unanswered);
            fail(queue.drain());
            work.commitBehind();
        } finally {
            turn.unlock();
        }
    }

    private void unrecoverable(Throwable error) {
        work.end("the writer met an error it cannot recover from (" + error + "); start the service again", error);
    }

    private static void fail(List<BatchWork.Waiting> unanswered) {
        for (BatchWork.Waiting waiting : unanswered)
            waiting.answer()
                    .completeExceptionally(new LedgerUnavailable(
                            Kind.OUTCOME_UNKNOWN,
                            "the service is stopping; repeat it with the same idempotency key once it runs again",
                            null));
    }

    /** Answers what waits, then ends. */
    @Override
    public void close() {
        closing = true;
        queue.nudge();
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
