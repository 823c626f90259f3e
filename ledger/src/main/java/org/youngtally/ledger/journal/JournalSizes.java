package org.youngtally.ledger.journal;

/**
 * How a journal is cut, and how much of it a start proves at once, in bytes.
 *
 * @param segment at which size a segment is followed by a new one
 * @param provedAtOnce up to which size a journal is proved as a whole before numbers are allocated; of a longer one,
 *     what was written since the last checkpoint is, and the rest while the service runs
 */
public record JournalSizes(long segment, long provedAtOnce) {
    public static final JournalSizes USUAL = new JournalSizes(64L << 20, 8L << 20);
}
