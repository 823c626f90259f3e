package org.youngtally.ledger.store;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.concurrent.TimeUnit;
import org.h2.engine.SessionLocal;
import org.h2.jdbc.JdbcConnection;
import org.h2.mvstore.MVStore;

/**
 * Has H2 write its changes to its file between transactions, from the thread that makes them. H2's own background thread notes the state of
 * each of its trees one after the other while the writer goes on, so that its file can hold one tree from before a transaction and another from
 * after it; a process that was killed then left tables with a part of a batch (found by killing a service that saved records). What is written so is as old as before, half a second at
 * the most, and as unforced: the journal carries the promise.
 */
final class Saving {
    private static final long PAUSE_NANOS = TimeUnit.MILLISECONDS.toNanos(500);
    /** H2's background thread goes by this pause; with none, H2 would write its file after every single transaction. */
    private static final int HARDLY_EVER_MILLIS = Integer.MAX_VALUE;
    /** The part of its file that H2 still needs, in percent, beneath which that is written together anew: while callers wait … */
    private static final int FULL_ENOUGH = 25;
    /** … and while nobody does. */
    private static final int FULL_ENOUGH_AT_REST = 50;
    /** Bytes that are written together at a time. */
    private static final int PIECE = 1 << 20;

    private final MVStore file;
    private long saved = System.nanoTime();

    private Saving(MVStore file) {
        this.file = file;
    }

    /** Takes the saving over from H2. */
    static Saving of(Connection connection) throws SQLException {
        var session = (SessionLocal) connection.unwrap(JdbcConnection.class).getSession();
        MVStore file = session.getDatabase().getStore().getMvStore();
        file.setAutoCommitDelay(HARDLY_EVER_MILLIS);
        return new Saving(file);
    }

    /** To be called by the writing thread when no transaction is under way. @param atRest whether nobody waits for it */
    void betweenTransactions(boolean atRest) {
        long now = System.nanoTime();
        if (now - saved < PAUSE_NANOS) return;
        saved = now;
        file.tryCommit();
        file.compact(atRest ? FULL_ENOUGH_AT_REST : FULL_ENOUGH, PIECE);
    }
}
