package org.youngtally.ledger;

import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.youngtally.ledger.LedgerUnavailable.Kind;

/**
 * Why no numbers are given for now, and what is to be put right before they are given again. Changed by the writing
 * thread, read by everybody.
 */
final class Pause {
    private static final long BETWEEN_TRIES = TimeUnit.MILLISECONDS.toNanos(250);

    private volatile LedgerUnavailable why;
    private boolean unforced;
    private boolean tablesLost;
    private boolean stoodIn;
    private long triedAt;

    /** Absent while numbers are given. */
    Optional<LedgerUnavailable> why() {
        return Optional.ofNullable(why);
    }

    boolean isOn() {
        return why != null;
    }

    /** @param failure what the disk said; null where it said nothing */
    void begin(Optional<Shortage> shortage, Throwable failure) {
        why = shortage.map(each -> new LedgerUnavailable(Kind.DISK_FULL, each.toString(), shortage, failure))
                .orElseGet(() -> new LedgerUnavailable(
                        Kind.DISK_FAILING, "the disk accepts nothing (" + said(failure) + ")", failure));
        triedAt = System.nanoTime();
    }

    private static String said(Throwable failure) {
        String message = failure.getMessage();
        return message == null
                ? failure.toString()
                : message.lines().findFirst().orElse("").replaceFirst("; SQL statement:$", "");
    }

    /** What a failed append may have left in the journal is to be taken away first. */
    void leavesUnforced() {
        unforced = true;
    }

    /** The tables are to be opened anew first. */
    void losesTables() {
        tablesLost = true;
    }

    boolean isUnforced() {
        return unforced;
    }

    boolean hasLostTables() {
        return tablesLost;
    }

    void forgotUnforced() {
        unforced = false;
    }

    /** Whether it is time to try again; if it is, the next time is a while later. */
    boolean isTimeToTry() {
        long now = System.nanoTime();
        if (now - triedAt < BETWEEN_TRIES) return false;
        triedAt = now;
        return true;
    }

    /** Whether this was not asked since the pause began. */
    boolean isFirstTime() {
        boolean first = !stoodIn;
        stoodIn = true;
        return first;
    }

    void end() {
        stoodIn = false;
        unforced = false;
        tablesLost = false;
        why = null;
    }
}
