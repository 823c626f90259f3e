package org.youngtally.service.definitions;

import java.util.Optional;

/**
 * A line of YAML that is longer than any that a person writes. The parser reads a word, a quoted text or a comment
 * again from its beginning with every piece of it, so that one of some megabytes takes minutes.
 *
 * @param number of the line, from 1
 * @param length in symbols
 */
public record LongLine(int number, int length) {
    public static final int LONGEST = 1 << 16;

    /** The first one of a text; absent where there is none. */
    public static Optional<LongLine> in(String text) {
        int number = 1;
        for (int from = 0; from < text.length(); number++) {
            int end = from;
            while (end < text.length() && text.charAt(end) != '\n' && text.charAt(end) != '\r') end++;
            if (end - from > LONGEST) return Optional.of(new LongLine(number, end - from));
            from = end + 1;
        }
        return Optional.empty();
    }
}
