package org.youngtally.ledger.audit;

import java.util.ArrayList;
import java.util.List;

/**
 * Halves of symbols that take two of Java's, standing alone. Earlier builds let them into texts; the journal keeps them
 * and the tables cannot, so that the two are the same but for these. No request brings one any more.
 */
final class HalfSymbols {
    private final List<String> told = new ArrayList<>();

    /** Whether the tables hold what was written, as far as they can; where they cannot it is told. */
    boolean agree(String where, String written, String held) {
        if (written.equals(held)) return true;
        if (held == null || written.length() != held.length()) return false;
        for (int i = 0; i < written.length(); i++)
            if (written.charAt(i) != held.charAt(i) && !isHalf(written, i)) return false;
        told.add(where + " holds half a symbol, which no text can hold; the tables have another sign in its place");
        return true;
    }

    private static boolean isHalf(String text, int at) {
        char c = text.charAt(at);
        if (Character.isHighSurrogate(c))
            return at + 1 == text.length() || !Character.isLowSurrogate(text.charAt(at + 1));
        return Character.isLowSurrogate(c) && (at == 0 || !Character.isHighSurrogate(text.charAt(at - 1)));
    }

    /** What was told, in the order in which it was met. */
    List<String> told() {
        return told;
    }
}
