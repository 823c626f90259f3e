package org.youngtally.core.series;

import java.util.List;
import java.util.Optional;

/**
 * What is wrong with a field of a request.
 *
 * @param text what was given, or what it would write; empty where nothing was
 * @param nearest what was most likely meant
 * @param accepted what would do: the choices, the names of the fields, or the shape of the text
 */
public record FieldFault(String field, Kind kind, String text, Optional<String> nearest, List<String> accepted) {
    /** The longest text that a field is read from. */
    static final int LONGEST_TEXT = 200;

    /** What sort of fault it is. */
    public enum Kind {
        NOT_A_FIELD,
        MISSING,
        NOT_A_CHOICE,
        RETIRED,
        TOO_LONG,
        SYMBOL,
        NOTHING_LEFT,
        NOT_OF_THE_TYPE,
        FILLED
    }
}
