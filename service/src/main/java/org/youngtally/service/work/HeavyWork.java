package org.youngtally.service.work;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Does what computes for long on a few platform threads of its own. Requests are served by virtual threads, which share
 * as many carriers as there are processors: a long computation on one of those would keep everybody waiting. Of each
 * sort only so much is done at a time, and an account has only so much of it under way.
 */
@Component
public final class HeavyWork implements DisposableBean {
    private static final int MOST_WAITING = 64;

    /** The sorts of work, each with threads of its own, so that none waits for another. */
    public enum Sort {
        PASSWORD("passwords are checked", 16),
        PROOF("definitions are checked", 4),
        AUDIT("audits run", 2),
        TABLE("files are read", 1),
        /** One after another, so that nobody numbers a document that somebody else has looked at. */
        DOCUMENT("documents are numbered", 4),
        INSPECTION("tables are inspected", 1),
        PAPER("pages are made", 2),
        BACKUP("backups are made", 1);

        private final String words;
        /** How many one account may have under way or waiting. */
        private final int share;

        Sort(String words, int share) {
            this.words = words;
            this.share = share;
        }
    }

    private record Share(Sort sort, String account) {}

    private final Map<Sort, ExecutorService> threads = new EnumMap<>(Sort.class);
    private final Map<Share, Integer> underWay = new HashMap<>();

    HeavyWork() {
        for (Sort sort : Sort.values()) {
            var pool = new ThreadPoolExecutor(
                    1,
                    1,
                    1,
                    TimeUnit.MINUTES,
                    new ArrayBlockingQueue<>(MOST_WAITING, true),
                    Thread.ofPlatform()
                            .daemon()
                            .name(sort.name().toLowerCase(Locale.ROOT) + "-", 1)
                            .factory());
            pool.allowCoreThreadTimeOut(true);
            threads.put(sort, pool);
        }
    }

    /** What is to be done. */
    @FunctionalInterface
    public interface Work<T, E extends Exception> {
        T done() throws E;
    }

    /**
     * Does it and waits for what it comes to.
     *
     * @param account who asks for it, or from where
     * @throws Problem where too much is under way, for this account or for all
     */
    public <T, E extends Exception> T run(Sort sort, String account, Work<T, E> work) throws E {
        try (Place place = enter(sort, account)) {
            return place.run(work);
        }
    }

    /**
     * Takes a place, for work that begins with something that costs no processor, such as reading what somebody sends.
     *
     * @throws Problem where the account has as many as it may
     */
    public Place enter(Sort sort, String account) {
        var share = new Share(sort, account);
        if (!begin(share))
            throw new Problem(Type.SHARE_TAKEN, "Too many requests of one account: " + sort.words + " for it.")
                    .with("retryAfter", 1L);
        return new Place(share);
    }

    /** A place among what is under way. */
    public final class Place implements AutoCloseable {
        private final Share share;

        private Place(Share share) {
            this.share = share;
        }

        public <T, E extends Exception> T run(Work<T, E> work) throws E {
            return HeavyWork.this.run(share.sort(), work);
        }

        @Override
        public void close() {
            end(share);
        }
    }

    @SuppressWarnings("unchecked")
    private <T, E extends Exception> T run(Sort sort, Work<T, E> work) throws E {
        Future<T> result;
        try {
            result = threads.get(sort).submit(work::done);
        } catch (RejectedExecutionException e) {
            throw new Problem(Type.BUSY, "Too many requests are waiting while " + sort.words + ".");
        }
        try {
            return result.get();
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Error error) throw error;
            // Work throws nothing but what it says, and what is not checked.
            throw (E) e.getCause();
        } catch (CancellationException e) {
            throw new Problem(Type.BUSY, "The service is stopping.");
        } catch (InterruptedException e) {
            result.cancel(true);
            Thread.currentThread().interrupt();
            throw new Problem(Type.BUSY, "The service is stopping.");
        }
    }

    private synchronized boolean begin(Share share) {
        int already = underWay.getOrDefault(share, 0);
        if (already >= share.sort().share) return false;
        underWay.put(share, already + 1);
        return true;
    }

    private synchronized void end(Share share) {
        underWay.computeIfPresent(share, (of, count) -> count > 1 ? count - 1 : null);
    }

    @Override
    public void destroy() {
        threads.values().forEach(ExecutorService::shutdownNow);
    }
}
