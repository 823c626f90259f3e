package org.youngtally.core.text;

/** Halves of symbols that take two of Java's, standing alone: no text, and written nowhere as they are. */
public final class HalfSymbols {
    private HalfSymbols() {}

    public static boolean isIn(String text) {
        for (int i = 0; i < text.length(); i++) if (isAt(text, i)) return true;
        return false;
    }

    /** Whether one stands at a place of a text, counted from 0. */
    public static boolean isAt(String text, int at) {
        char c = text.charAt(at);
        if (Character.isHighSurrogate(c))
            return at + 1 == text.length() || !Character.isLowSurrogate(text.charAt(at + 1));
        return Character.isLowSurrogate(c) && (at == 0 || !Character.isHighSurrogate(text.charAt(at - 1)));
    }
}
