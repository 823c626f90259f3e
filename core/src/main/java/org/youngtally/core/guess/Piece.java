package org.youngtally.core.guess;

import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.pattern.Part;

/**
 * A part of a pattern that explains the same end of all examples.
 *
 * @param pattern as it is written in the pattern
 * @param written what it writes in each example, in their order
 * @param source what a field is filled from
 * @param restart the word with which a count could start again; absent for literal text and check symbols
 * @param credit how much it speaks for the guess: what rests on another column more than what rests on none
 */
record Piece(String pattern, String[] written, Optional<Source> source, Optional<String> restart, double credit) {

    /**
     * What a field is filled from.
     *
     * @param field its name
     * @param column of the table, from 0; -1 for none
     * @param codes by the text of the column: the codes of a codebook; empty for a field that takes the text itself
     * @param place as the pattern writes it
     */
    record Source(String field, int column, Map<String, String> codes, Part.TextField place) {}

    static Piece literal(String text, int examples, double credit) {
        var written = new String[examples];
        Arrays.fill(written, text);
        return new Piece(
                text.replace("{", "{{").replace("}", "}}"), written, Optional.empty(), Optional.empty(), credit);
    }

    boolean varies() {
        for (String each : written) if (!each.equals(written[0])) return true;
        return false;
    }
}
