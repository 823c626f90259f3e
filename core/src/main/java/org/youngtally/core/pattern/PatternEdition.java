package org.youngtally.core.pattern;

import java.util.Arrays;

/**
 * What the words of patterns meant at a time. A version of a series that has given numbers keeps the meaning that it
 * was written with, whatever a later release makes of the same words.
 */
public enum PatternEdition {
    /**
     * {@code mod97-10} writes 00 to 96; two quotes inside quoted text of a date are passed over; a symbol that only
     * looks blank may stand at the edge.
     */
    FIRST(1),
    /** {@code mod97-10} writes 02 to 98; two quotes inside quoted text of a date are one quote. */
    SECOND(2);

    public static final PatternEdition NEWEST = SECOND;

    private final int number;

    PatternEdition(int number) {
        this.number = number;
    }

    /** By which the journal knows it. */
    public int number() {
        return number;
    }

    public static PatternEdition of(int number) {
        return Arrays.stream(values())
                .filter(edition -> edition.number == number)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "patterns of edition " + number + " are not known; they are of a later release"));
    }
}
