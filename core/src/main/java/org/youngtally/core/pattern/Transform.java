package org.youngtally.core.pattern;

import java.util.function.IntPredicate;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import org.apache.commons.lang3.StringUtils;

/** What is done to the text of a field before it is in an identifier. */
public sealed interface Transform {
    /** The longest that a field can be cut or padded to. */
    int LONGEST = 40;

    String apply(String text);

    /** The first letters and digits; all other symbols are passed over. */
    record First(int symbols) implements Transform {
        @Override
        public String apply(String text) {
            String kept = keep(text, Character::isLetterOrDigit);
            return kept.substring(
                    0, kept.offsetByCodePoints(0, Math.min(symbols, kept.codePointCount(0, kept.length()))));
        }
    }

    /** The first letter or digit of each word; words are parted by anything that is neither. */
    record Initials() implements Transform {
        @Override
        public String apply(String text) {
            var initials = new StringBuilder();
            boolean inWord = false;
            for (int symbol : text.codePoints().toArray()) {
                boolean ofWord = Character.isLetterOrDigit(symbol);
                if (ofWord && !inWord) initials.appendCodePoint(symbol);
                inWord = ofWord;
            }
            return initials.toString();
        }
    }

    /** Capital letters, one for each. */
    record Upper() implements Transform {
        @Override
        public String apply(String text) {
            return map(text, Character::toUpperCase);
        }
    }

    /** Small letters, one for each. */
    record Lower() implements Transform {
        @Override
        public String apply(String text) {
            return map(text, Character::toLowerCase);
        }
    }

    /** Letters without their accents; a letter that is written with two without them may become two. */
    record Unaccented() implements Transform {
        @Override
        public String apply(String text) {
            // Letters that are no accented ones, and are written with two without them.
            String spelled = text.replace("ß", "ss")
                    .replace("æ", "ae")
                    .replace("Æ", "AE")
                    .replace("œ", "oe")
                    .replace("Œ", "OE")
                    .replace("ø", "o")
                    .replace("Ø", "O")
                    .replace("þ", "th")
                    .replace("Þ", "TH");
            return StringUtils.stripAccents(spelled);
        }
    }

    /**
     * Filled up to a length with one symbol.
     *
     * @param inFront whether in front of the text, or else behind it
     */
    record Pad(int length, char with, boolean inFront) implements Transform {
        @Override
        public String apply(String text) {
            return inFront ? StringUtils.leftPad(text, length, with) : StringUtils.rightPad(text, length, with);
        }
    }

    private static String keep(String text, IntPredicate wanted) {
        return joined(text.codePoints().filter(wanted));
    }

    private static String map(String text, IntUnaryOperator by) {
        return joined(text.codePoints().map(by));
    }

    private static String joined(IntStream symbols) {
        return symbols.collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
    }
}
