package org.youngtally.core.series;

/**
 * What the place allows that identifiers live in: a host name, a field of another program, a label.
 *
 * @param longest the most symbols; 0 for no limit
 * @param symbols the kinds and single symbols that may occur, separated by blanks, e.g. {@code letters digits -}; empty for any
 */
public record Place(int longest, String symbols) {
    public static final Place ANY = new Place(0, "");
    static final int LONGEST = 200;
    static final String ACCEPTED = "write kinds and single symbols, separated by blanks: letters, upper, lower, digits, and any other symbol as it is, such as: letters digits -";

    /** Whether a symbol may occur. */
    public boolean allows(char symbol) {
        if (symbols.isEmpty()) return true;
        for (String kind : symbols.split(" ")) {
            boolean allowed = switch (kind) {
                case "letters" -> isUpper(symbol) || isLower(symbol);
                case "upper" -> isUpper(symbol);
                case "lower" -> isLower(symbol);
                case "digits" -> symbol >= '0' && symbol <= '9';
                default -> kind.charAt(0) == symbol;
            };
            if (allowed) return true;
        }
        return false;
    }

    private static boolean isUpper(char symbol) { return symbol >= 'A' && symbol <= 'Z'; }

    private static boolean isLower(char symbol) { return symbol >= 'a' && symbol <= 'z'; }

    static boolean isKind(String word) { return word.length() == 1 || word.equals("letters") || word.equals("upper") || word.equals("lower") || word.equals("digits"); }
}
