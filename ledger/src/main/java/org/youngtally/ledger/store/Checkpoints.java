package org.youngtally.ledger.store;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.concurrent.TimeUnit;
import org.h2.engine.SessionLocal;
import org.h2.jdbc.JdbcConnection;
import org.h2.mvstore.FileStore;
import org.h2.mvstore.MVStore;

/**
 * Has H2 write its changes to its file between transactions, from the thread that makes them. H2's own background
 * thread notes the state of each of its trees one after the other while the writer goes on, so that its file can hold
 * one tree from before a transaction and another from after it; a process that was killed then left tables with a part
 * of a batch (found by killing a service that saved records). What is written so is unforced: the journal carries the
 * promise, and a start after a kill repeats from it what the file lacks.
 */
final class Checkpoints {
    /**
     * Between two writings while callers wait. A page is written once for all that changed on it since: the rarer, the
     * fewer.
     */
    private static final long PAUSE_NANOS = TimeUnit.SECONDS.toNanos(4);
    /** … and while nobody does. */
    private static final long PAUSE_AT_REST_NANOS = TimeUnit.MILLISECONDS.toNanos(500);
    /** H2's background thread goes by this pause; with none, H2 would write its file after every single transaction. */
    private static final int HARDLY_EVER_MILLIS = Integer.MAX_VALUE;
    /** Of changed pages in memory, beneath which the service is not busy. */
    private static final long FEW_BYTES = 8L << 20;
    /** H2 writes its file in the middle of a transaction where so much has changed. */
    private static final long LEAST_BYTES = 19L << 20;
    /**
     * The part of its file that H2 still needs, in percent, beneath which that is written together anew: while the
     * service is busy …
     */
    private static final int FULL_ENOUGH = 10;
    /** … and while it is not. */
    private static final int FULL_ENOUGH_AT_REST = 50;
    /** Bytes that are written together at a time. */
    private static final int PIECE = 1 << 20;

    private final MVStore file;
    private final long mostBytes = Math.max(LEAST_BYTES, Runtime.getRuntime().maxMemory() / 16);
    private long saved = System.nanoTime();
    private long changed;
    private boolean busy;
    private boolean tidied;
    /** Whether there is nothing more to tidy until something changes. */
    private boolean settled;

    private Checkpoints(MVStore file) {
        this.file = file;
    }

    /** Takes the saving over from H2. */
    static Checkpoints of(Connection connection) throws SQLException {
        var session = (SessionLocal) connection.unwrap(JdbcConnection.class).getSession();
        MVStore file = session.getDatabase().getStore().getMvStore();
        file.setAutoCommitDelay(HARDLY_EVER_MILLIS);
        return new Checkpoints(file);
    }

    /**
     * To be called by the writing thread when no transaction is under way.
     *
     * @param atRest whether nobody waits for it
     */
    void betweenTransactions(boolean atRest) {
        changed += taken();
        long since = System.nanoTime() - saved;
        long pause = atRest ? PAUSE_AT_REST_NANOS : PAUSE_NANOS;
        if (since >= pause || changed > mostBytes) {
            busy = changed > FEW_BYTES;
            file.tryCommit();
            saved += since;
            if (changed > 0) settled = false;
            tidied = settled;
            changed = 0;
        } else if (since >= pause / 2 && !tidied) {
            // Half-way, for it would wait for what is being written.
            settled = !file.compact(atRest || !busy ? FULL_ENOUGH_AT_REST : FULL_ENOUGH, PIECE);
            tidied = true;
        }
    }

    /**
     * The bytes that the next writing takes at the most: of changed pages that are in memory alone. H2 counts a page
     * again each time that it changes, but writes it once.
     */
    long unsaved() {
        long counted = changed + file.getUnsavedMemory();
        FileStore<?> written = file.getFileStore();
        return written == null ? 0 : Math.min(counted, written.size() + LEAST_BYTES);
    }

    /** Whether {@link #betweenTransactions} would write to the file now. */
    boolean isDue(boolean atRest) {
        long since = System.nanoTime() - saved;
        long pause = atRest ? PAUSE_AT_REST_NANOS : PAUSE_NANOS;
        boolean saves = (since >= pause || changed > mostBytes) && changed + file.getUnsavedMemory() > 0;
        return saves || since >= pause / 2 && !tidied;
    }

    /**
     * The bytes of pages that changed since the last call, taken out of H2's own count, by which it would write its
     * file twenty times a second under load.
     */
    private int taken() {
        int bytes = file.getUnsavedMemory();
        file.registerUnsavedMemory(-bytes);
        return bytes;
    }
}
