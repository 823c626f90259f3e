package org.youngtally.ledger;

import java.util.Optional;

/** The ledger cannot answer an act now. What became of the act is said by {@link #kind}. */
public final class LedgerUnavailable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** What the caller can count on. */
    public enum Kind {
        /** Nothing was done; too many wait. */
        BUSY,
        /** Nothing was done; as much waits as one account may have waiting. */
        SHARE_TAKEN,
        /** It may have been done or not; repeating it with the same key tells. */
        OUTCOME_UNKNOWN,
        /** Nothing was done, for want of room on the disk; it goes on by itself when there is room. */
        DISK_FULL,
        /** Nothing was done, because the disk takes nothing; it goes on by itself when the disk does. */
        DISK_FAILING,
        /** Nothing was done, because the clock says a date that an administrator has to confirm first. */
        DATE_UNCONFIRMED,
        /** Nothing was done, because a newer state of the ledger may exist; an administrator has to say. */
        NEWEST_UNKNOWN,
        /** Nothing was done, and nothing will be until an administrator has looked. */
        STOPPED
    }

    private final Kind kind;
    private final transient Optional<Shortage> shortage;

    public LedgerUnavailable(Kind kind, String message, Throwable cause) {
        this(kind, message, Optional.empty(), cause);
    }

    LedgerUnavailable(Kind kind, String message, Optional<Shortage> shortage, Throwable cause) {
        super(message, cause);
        this.kind = kind;
        this.shortage = shortage;
    }

    public Kind kind() {
        return kind;
    }

    /** Where room is wanted; absent where it is not for want of room. */
    public Optional<Shortage> shortage() {
        return shortage;
    }
}
