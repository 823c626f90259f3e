package org.youngtally.core.series;

import org.youngtally.core.text.SymbolSet;

/**
 * What the place allows that identifiers live in: a host name, a field of another program, a label.
 *
 * @param longest the most symbols; 0 for no limit
 */
public record IdentifierLimits(int longest, SymbolSet symbols) {
    public static final IdentifierLimits ANY = new IdentifierLimits(0, SymbolSet.ANY);
    static final int LONGEST = 200;

    /** As a draft says, as far as it can be read. */
    static IdentifierLimits of(SeriesDraft draft) {
        Long longest = draft.get(SeriesProperties.LONGEST);
        String symbols = draft.get(SeriesProperties.SYMBOLS);
        return new IdentifierLimits(
                longest == null ? 0 : Math.clamp(longest, 0, LONGEST),
                symbols == null ? SymbolSet.ANY : new SymbolSet(symbols));
    }
}
