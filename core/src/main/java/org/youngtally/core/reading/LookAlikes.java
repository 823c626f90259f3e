package org.youngtally.core.reading;

import java.text.Normalizer;
import java.util.HashMap;
import java.util.Map;

/** Symbols that people mistake for one another, all of them as they are compared: small letters. */
final class LookAlikes {
    /** A digit, and the letters that are mistaken for it. */
    private static final String[] DIGITS = {"0o", "1il", "2z", "5s", "6g", "8b"};
    /** Letters of other scripts, each before the Latin one that it looks like. */
    private static final String SCRIPTS = "аaеeоoрpсcхxуyкkмmтtвbнhіiαaοoνvτtκkιiηnρp";

    private static final String DASHES = "‐‑‒–—―−﹣－";

    private static final Map<Character, Character> TO_DIGIT = new HashMap<>();
    private static final Map<Character, Character> TO_LATIN = new HashMap<>();

    static {
        for (String group : DIGITS)
            for (int i = 1; i < group.length(); i++) TO_DIGIT.put(group.charAt(i), group.charAt(0));
        for (int i = 0; i < SCRIPTS.length(); i += 2) TO_LATIN.put(SCRIPTS.charAt(i), SCRIPTS.charAt(i + 1));
    }

    private LookAlikes() {}

    /** A symbol, or the Latin letter that it looks like. */
    private static char latin(char symbol) {
        return TO_LATIN.getOrDefault(symbol, symbol);
    }

    /** The digit that a symbol is or looks like; else the symbol itself. */
    static char digit(char symbol) {
        char latin = latin(symbol);
        return TO_DIGIT.getOrDefault(latin, latin);
    }

    /** The letter that a digit is usually mistaken for, or a letter of another script; else the symbol itself. */
    static char letter(char symbol) {
        for (String group : DIGITS) if (group.charAt(0) == symbol) return group.charAt(1);
        return latin(symbol);
    }

    /** Whether two symbols are mistaken for each other. */
    static boolean alike(char one, char other) {
        return digit(one) == digit(other);
    }

    /** A text without blanks and invisible symbols. */
    static String withoutBlanks(String text) {
        var kept = new StringBuilder(text.length());
        text.chars()
                .filter(symbol -> !Character.isWhitespace(symbol)
                        && !Character.isSpaceChar(symbol)
                        && !Character.isISOControl(symbol)
                        && Character.getType(symbol) != Character.FORMAT)
                .forEach(symbol -> kept.append((char) symbol));
        return kept.toString();
    }

    /** A text whose dashes are all the plain one. */
    static String plainDashes(String text) {
        String plain = text;
        for (char dash : DASHES.toCharArray()) plain = plain.replace(dash, '-');
        return plain;
    }

    /** A text with its compatibility forms, such as wide digits, as plain ones. */
    static String plainForms(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFKC);
    }
}
