package org.youngtally.ledger;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.LongConsumer;
import org.youngtally.core.act.Act;
import org.youngtally.core.proof.Prover;
import org.youngtally.ledger.LedgerUnavailable.Kind;

/** The one thread that changes the ledger: it takes all that waits, and does it as one batch. */
final class Writer implements AutoCloseable {
    private static final int MOST_WAITING = 10_000;
    private static final int MOST_IN_A_BATCH = 1_000;

    private final BlockingQueue<BatchWork.Waiting> queue = new ArrayBlockingQueue<>(MOST_WAITING);
    private final BatchWork work;
    private final Thread thread;
    private volatile boolean closing;

    Writer(BatchWork work) {
        this.work = work;
        this.thread = Thread.ofPlatform().name("writer").start(this::run);
    }

    CompletableFuture<BatchWork.Outcome> submit(Act act, String by, Optional<LongConsumer> progress, Prover prover) {
        if (closing) throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        if (!work.stopped().isEmpty()) throw new LedgerUnavailable(Kind.STOPPED, work.stopped(), null);
        var waiting = new BatchWork.Waiting(act, by, new CompletableFuture<>(), progress, prover);
        if (!queue.offer(waiting))
            throw new LedgerUnavailable(Kind.BUSY, MOST_WAITING + " requests are waiting already", null);
        // The thread may have ended between the look and the offer, and would never take it.
        if (!thread.isAlive() && queue.remove(waiting))
            throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        return waiting.answer();
    }

    BatchWork work() {
        return work;
    }

    private void run() {
        var batch = new ArrayList<BatchWork.Waiting>();
        try {
            while (!closing || !queue.isEmpty()) {
                batch.clear();
                BatchWork.Waiting first = queue.poll(100, TimeUnit.MILLISECONDS);
                work.lapse();
                if (first == null) {
                    work.tidy(true);
                    continue;
                }
                batch.add(first);
                queue.drainTo(batch, MOST_IN_A_BATCH - 1);
                work.serve(List.copyOf(batch));
                work.tidy(false);
            }
        } catch (InterruptedException e) {
            work.end("the writer was interrupted; start the service again", e);
        } catch (RuntimeException | Error e) {
            work.end("the writer met an error it cannot recover from (" + e + "); start the service again", e);
        } finally {
            queue.drainTo(batch);
            for (BatchWork.Waiting waiting : batch)
                waiting.answer()
                        .completeExceptionally(new LedgerUnavailable(
                                Kind.OUTCOME_UNKNOWN,
                                "the service is stopping; repeat it with the same key once it runs again",
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
