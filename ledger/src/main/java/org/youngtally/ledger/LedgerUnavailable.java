package org.youngtally.ledger;

/** The ledger cannot answer an act now. What became of the act is said by {@link #kind}. */
public final class LedgerUnavailable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** What the caller can count on. */
    public enum Kind {
        /** Nothing was done; too many wait. */
        BUSY,
        /** It may have been done or not; repeating it with the same key tells. */
        OUTCOME_UNKNOWN,
        /** Nothing was done, and nothing will be until an administrator has looked. */
        STOPPED
    }

    private final Kind kind;

    public LedgerUnavailable(Kind kind, String message, Throwable cause) {
        super(message, cause);
        this.kind = kind;
    }

    public Kind kind() {
        return kind;
    }
}
