package org.youngtally.core.series;

import java.util.Optional;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.text.SymbolSet;

/**
 * What a series takes for one field of the record.
 *
 * @param name as in {@code {field NAME}}
 * @param codebook whose choices it takes; absent where it takes text, or is narrowed by another field
 * @param within the field whose choice narrows this one: it takes the choices beneath that one
 * @param longest for a text: the most symbols that the field may write in an identifier; 0 with a codebook
 * @param symbols for a text: what it may write in an identifier
 */
public record FieldRule(
        String name, Optional<String> codebook, Optional<String> within, int longest, SymbolSet symbols) {
    /** Instead of a codebook's key: the units themselves. No codebook can be called so. */
    public static final String UNITS = "(units)";

    public static final int LONGEST = 40;
    static final int USUAL_LONGEST = 20;
    static final SymbolSet USUAL_SYMBOLS = new SymbolSet("letters digits");

    /** Whether it takes the units of the organisation for its choices. */
    public boolean takesUnits() {
        return codebook.equals(Optional.of(UNITS));
    }

    /** Whether it takes any text, as against a choice. */
    public boolean isText() {
        return codebook.isEmpty() && within.isEmpty();
    }

    /** The symbols that it may write in a place of the pattern, where it takes a text. */
    public String symbols(TextField place) {
        return symbols.symbols() + place.pads();
    }
}
