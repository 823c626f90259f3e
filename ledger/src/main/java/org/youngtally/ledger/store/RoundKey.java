package org.youngtally.ledger.store;

/** What is added to the key of a mark that comes round again, so that each round and each lane has its own. */
public final class RoundKey {
    /** Stands in no key, and in front of what is added. */
    static final char SEPARATOR = '\u001f';

    private RoundKey() {}

    public static String of(int lane, long round) {
        return SEPARATOR + Integer.toString(lane) + "." + round;
    }
}
