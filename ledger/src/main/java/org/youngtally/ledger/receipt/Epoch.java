package org.youngtally.ledger.receipt;

import java.security.SecureRandom;
import java.util.HexFormat;

/**
 * A stretch of a ledger's life: from the first entry after a start to the last before the next one. Written as the
 * generation and 16 random hexadecimal digits, with a dash between them.
 *
 * @param generation how often the ledger went on after a loss that was stated
 */
public record Epoch(int generation, String random) {
    private static final SecureRandom RANDOM = new SecureRandom();

    public static Epoch fresh(int generation) {
        byte[] bytes = new byte[8];
        RANDOM.nextBytes(bytes);
        return new Epoch(generation, HexFormat.of().formatHex(bytes));
    }

    public static Epoch of(String text) {
        int dash = text.indexOf('-');
        return new Epoch(Integer.parseInt(text.substring(0, dash)), text.substring(dash + 1));
    }

    @Override
    public String toString() {
        return generation + "-" + random;
    }
}
