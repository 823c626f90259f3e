package org.youngtally.ledger;

import java.util.ArrayList;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.LongConsumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.act.Act;
import org.youngtally.ledger.LedgerUnavailable.Kind;

/** The one thread that changes the ledger: it takes all that waits, and does it as one batch. */
final class Writer implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Writer.class);
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

    CompletableFuture<BatchWork.Outcome> submit(Act act, String by, Optional<LongConsumer> progress) {
        if (closing) throw new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null);
        if (!work.stopped().isEmpty()) throw new LedgerUnavailable(Kind.STOPPED, work.stopped(), null);
        var waiting = new BatchWork.Waiting(act, by, new CompletableFuture<>(), progress);
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
        try {
            while (!closing || !queue.isEmpty()) {
                var batch = new ArrayList<BatchWork.Waiting>();
                BatchWork.Waiting first = queue.poll(100, TimeUnit.MILLISECONDS);
                work.lapse();
                if (first == null) {
                    work.tidy(true);
                    continue;
                }
                batch.add(first);
                queue.drainTo(batch, MOST_IN_A_BATCH - 1);
                work.serve(batch);
                work.tidy(false);
            }
        } catch (InterruptedException e) {
            LOG.error("the writer was interrupted; no numbers are given until the service is started again", e);
        } finally {
            var left = new ArrayList<BatchWork.Waiting>();
            queue.drainTo(left);
            for (BatchWork.Waiting waiting : left)
                waiting.answer()
                        .completeExceptionally(new LedgerUnavailable(Kind.STOPPED, "the service is stopping", null));
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
