package org.youngtally.ledger.journal;

/** A journal that cannot be trusted: an answered entry is missing or was changed. Numbering must not go on. */
public final class JournalBroken extends Exception {
    private static final long serialVersionUID = 1L;

    public JournalBroken(String message) {
        super(message);
    }
}
