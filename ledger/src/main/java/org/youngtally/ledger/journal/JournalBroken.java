package org.youngtally.ledger.journal;

/** A journal that cannot be trusted: an answered entry is missing or was changed. Numbering must not go on. */
public class JournalBroken extends Exception {
    private static final long serialVersionUID = 1L;

    private final String wayOut;

    public JournalBroken(String message) {
        this(message, "Restore the journal from a copy");
    }

    /**
     * @param message what is wrong, and where
     * @param wayOut what an administrator can do, as a sentence without its full stop
     */
    JournalBroken(String message, String wayOut) {
        super(message);
        this.wayOut = wayOut;
    }

    public String wayOut() {
        return wayOut;
    }
}
