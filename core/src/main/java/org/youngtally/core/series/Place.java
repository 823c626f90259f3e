package org.youngtally.core.series;

import org.youngtally.core.text.SymbolSet;

/**
 * What the place allows that identifiers live in: a host name, a field of another program, a label.
 *
 * @param longest the most symbols; 0 for no limit
 */
public record Place(int longest, SymbolSet symbols) {
    public static final Place ANY = new Place(0, SymbolSet.ANY);
    static final int LONGEST = 200;
}
