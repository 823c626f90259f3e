package org.youngtally.ledger.journal;

/** A journal that cannot be trusted: an answered entry is missing or was changed. Numbering must not go on. */
public class JournalBroken extends Exception {
    private static final long serialVersionUID = 1L;

    private final String wayOut;
    private final transient Head proved;

    public JournalBroken(String message) {
        this(message, "Restore the journal from a copy", Head.EMPTY);
    }

    /**
     * @param message what is wrong, and where
     * @param wayOut what an administrator can do, as a sentence without its full stop
     * @param proved the last entry before what is wrong
     */
    JournalBroken(String message, String wayOut, Head proved) {
        super(message);
        this.wayOut = wayOut;
        this.proved = proved;
    }

    /** The last entry that is known to be as it was written; nothing is said of those behind it. */
    public Head proved() {
        return proved;
    }

    public String wayOut() {
        return wayOut;
    }
}
