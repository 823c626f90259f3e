package org.youngtally.core.text;

/**
 * Symbols that may occur in a text.
 *
 * @param words kinds and single symbols, separated by blanks, e.g. {@code letters digits -}; empty for any symbol
 */
public record SymbolSet(String words) {
    public static final SymbolSet ANY = new SymbolSet("");
    public static final String ACCEPTED =
            "write kinds and single symbols, separated by blanks: letters, upper, lower, digits, and any other symbol itself, such as: letters digits -";
    private static final String UPPER = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    private static final String LOWER = "abcdefghijklmnopqrstuvwxyz";
    private static final String DIGITS = "0123456789";

    public SymbolSet {
        words = words.strip().replaceAll(" +", " ");
    }

    public boolean isAny() {
        return words.isEmpty();
    }

    /** Each kind and symbol of the set by itself. */
    public String[] each() {
        return isAny() ? new String[0] : words.split(" ");
    }

    /** Whether a symbol may occur. */
    public boolean allows(char symbol) {
        return isAny() || symbols().indexOf(symbol) >= 0;
    }

    /** Every symbol that may occur; empty for any. */
    public String symbols() {
        var all = new StringBuilder();
        for (String word : each()) {
            all.append(
                    switch (word) {
                        case "letters" -> UPPER + LOWER;
                        case "upper" -> UPPER;
                        case "lower" -> LOWER;
                        case "digits" -> DIGITS;
                        default -> word;
                    });
        }
        return all.toString();
    }

    public static boolean isKind(String word) {
        return word.length() == 1
                || word.equals("letters")
                || word.equals("upper")
                || word.equals("lower")
                || word.equals("digits");
    }

    @Override
    public String toString() {
        return words;
    }
}
