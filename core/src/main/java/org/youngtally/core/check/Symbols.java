package org.youngtally.core.check;

/** The values of symbols: digits 0 to 9, then letters from A on, as ISO/IEC 7064 counts them. */
final class Symbols {
    static final String DIGITS = "0123456789";
    static final String LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    static final String BOTH = DIGITS + LETTERS;

    private Symbols() {}

    /**
     * The place of a symbol among those that a scheme reads, small letters as capitals; -1 where it is none of them.
     */
    static int value(char symbol, String reads) {
        int letter = symbol >= 'a' && symbol <= 'z' ? symbol - 'a' : symbol >= 'A' && symbol <= 'Z' ? symbol - 'A' : -1;
        int value;
        if (reads.charAt(0) == 'A') value = letter;
        else value = letter >= 0 ? letter + 10 : symbol >= '0' && symbol <= '9' ? symbol - '0' : -1;
        return value < reads.length() ? value : -1;
    }
}
