package org.youngtally.service.web;

/** Halves of symbols that take two of Java's, standing alone: no text, and written nowhere as they are. */
public final class HalfSymbols {
    static final String REMARK = "holds half a symbol";

    private HalfSymbols() {}

    public static boolean isIn(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (!Character.isSurrogate(c)) continue;
            if (Character.isHighSurrogate(c) && i + 1 < text.length() && Character.isLowSurrogate(text.charAt(i + 1)))
                i++;
            else return true;
        }
        return false;
    }
}
