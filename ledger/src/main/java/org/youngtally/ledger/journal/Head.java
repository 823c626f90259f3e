package org.youngtally.ledger.journal;

/**
 * The newest entry of a journal: whoever keeps it can later prove that nothing up to it was changed or cut off.
 *
 * @param seq its sequence number, 0 for an empty journal
 * @param hash its SHA-256 as 64 small hexadecimal digits, 64 zeros for an empty journal
 */
public record Head(long seq, String hash) {
    public static final Head EMPTY = new Head(0, "0".repeat(64));

    public Head {
        if (seq < 0 || !hash.matches("[0-9a-f]{64}"))
            throw new IllegalArgumentException("a head is a sequence number and 64 hexadecimal digits, as in 17:0f3a…");
    }

    /** Reads {@code SEQ:HASH}. */
    public static Head parse(String text) {
        int colon = text.indexOf(':');
        if (colon < 1 || !text.substring(0, colon).matches("[0-9]{1,18}"))
            throw new IllegalArgumentException("a head is written as SEQUENCE:HASH, as the audit printed it");
        return new Head(
                Long.parseLong(text.substring(0, colon)),
                text.substring(colon + 1).strip());
    }

    @Override
    public String toString() {
        return seq + ":" + hash;
    }
}
