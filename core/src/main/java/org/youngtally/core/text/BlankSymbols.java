package org.youngtally.core.text;

/** Symbols that nobody can see: white space of every width, and letters that only fill a place. */
public final class BlankSymbols {
    /** Hangul fillers of three sorts, the filler of half width, and the blank pattern of Braille. */
    private static final String FILLERS = "\u115F\u1160\u3164\uFFA0\u2800";

    private BlankSymbols() {}

    public static boolean isBlank(char symbol) {
        return Character.isWhitespace(symbol) || Character.isSpaceChar(symbol) || FILLERS.indexOf(symbol) >= 0;
    }
}
