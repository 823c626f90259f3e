package org.youngtally.core.gs1;

import java.time.YearMonth;
import java.util.Optional;
import org.youngtally.core.check.CheckSchemes;

/**
 * A part of what stands behind an application identifier (GS1 General Specifications, section 3.2).
 *
 * @param shortest how many symbols it has at the least
 * @param longest how many at the most; the same for one of a fixed length
 */
record Component(Content content, int shortest, int longest) {
    /** The symbols of a part, and whether they are checked. */
    enum Content {
        DIGITS("digits", "0123456789"),
        /** Digits of which the last is the check digit of those before it (section 7.9). */
        CHECKED("digits", "0123456789"),
        /** A date as year, month and day, of two digits each; day 00 is the last of the month. */
        DATE("digits", "0123456789"),
        /** The invariant symbols of ISO/IEC 646 (table 7.11-1). */
        TEXT(
                "letters, digits and ! \" % & ' ( ) * + , - . / : ; < = > ? _",
                "!\"%&'()*+,-./0123456789:;<=>?ABCDEFGHIJKLMNOPQRSTUVWXYZ_abcdefghijklmnopqrstuvwxyz"),
        /** The symbols of component and part identifiers (table 7.11-2). */
        PART("capital letters, digits and # - /", "#-/0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ");

        private final String words;
        private final String symbols;

        Content(String words, String symbols) {
            this.words = words;
            this.symbols = symbols;
        }

        /** Which symbols may occur, for people. */
        String words() {
            return words;
        }

        boolean allows(char symbol) {
            return symbols.indexOf(symbol) >= 0;
        }
    }

    static Component fixed(Content content, int length) {
        return new Component(content, length, length);
    }

    /** The first symbol of a text that may not occur in it. */
    Optional<Character> foreign(String text) {
        return text.chars()
                .filter(symbol -> !content.allows((char) symbol))
                .mapToObj(symbol -> (char) symbol)
                .findFirst();
    }

    /** Whether a text of the right symbols and length holds what it should. */
    boolean holds(String text) {
        return switch (content) {
            case DIGITS, TEXT, PART -> true;
            case CHECKED ->
                CheckSchemes.of("gs1")
                        .orElseThrow()
                        .isRight(text.substring(0, text.length() - 1), text.substring(text.length() - 1));
            case DATE -> isDate(text);
        };
    }

    private static boolean isDate(String text) {
        int month = Integer.parseInt(text.substring(2, 4));
        // The century changes nothing: every second digit pair of 00 that matters is a leap year's in 2000.
        return month >= 1
                && month <= 12
                && Integer.parseInt(text.substring(4))
                        <= YearMonth.of(2000 + Integer.parseInt(text.substring(0, 2)), month)
                                .lengthOfMonth();
    }
}
