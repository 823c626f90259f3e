package org.youngtally.ledger.audit;

import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.text.HalfSymbols;

/**
 * Whether the tables keep the texts of the journal. Earlier builds let half symbols into texts: the journal keeps them
 * and the tables cannot, so that the two are the same but for these. No request brings one any more.
 */
final class KeptTexts {
    private final List<String> told = new ArrayList<>();

    /** Whether the tables hold what was written, as far as they can; where they cannot it is told. */
    boolean agree(String where, String written, String held) {
        if (written.equals(held)) return true;
        if (held == null || written.length() != held.length()) return false;
        for (int i = 0; i < written.length(); i++)
            if (written.charAt(i) != held.charAt(i) && !HalfSymbols.isAt(written, i)) return false;
        told.add(where + " holds half a symbol, which no text can hold; the tables have another sign in its place");
        return true;
    }

    /** What was told, in the order in which it was met. */
    List<String> told() {
        return told;
    }
}
