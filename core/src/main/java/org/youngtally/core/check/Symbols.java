package org.youngtally.core.check;

/** The values of symbols: digits 0 to 9, then letters from A on, as ISO/IEC 7064 counts them. */
final class Symbols {
    static final String DIGITS = "0123456789";
    static final String LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    static final String BOTH = DIGITS + LETTERS;

    private Symbols() {}

    /** The place of a symbol among those that a scheme reads. */
    static int value(char symbol, String reads) {
        int value = reads.charAt(0) == '0'
                ? symbol >= '0' && symbol <= '9' ? symbol - '0' : symbol >= 'A' && symbol <= 'Z' ? symbol - 'A' + 10 : -1
                : symbol >= 'A' && symbol <= 'Z' ? symbol - 'A' : -1;
        if (value < 0 || value >= reads.length()) throw new IllegalArgumentException("‘" + symbol + "’ cannot be read; only " + reads + " can");
        return value;
    }
}
