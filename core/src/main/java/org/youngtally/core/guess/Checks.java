package org.youngtally.core.guess;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.CheckSchemes;

/** Check symbols that are right in all examples. */
final class Checks {
    /** So many different numbers must have it: of ten with one digit each, one in 10^10 by chance. */
    private static final int ENOUGH = 10;

    private static final String CREDITOR_REFERENCE = "iso11649";
    private static final double CREDIT = 0.3;

    private Checks() {}

    /**
     * Check symbols at the end of what is left.
     *
     * @param before what is in front of it in each example
     */
    static List<Piece> behind(String[] before, String[] left) {
        var found = new ArrayList<Piece>();
        if (Count.different(left) < ENOUGH) return found;
        for (CheckScheme scheme : CheckSchemes.all()) {
            if (scheme.inFront()) continue;
            for (boolean ofCount : new boolean[] {false, true}) {
                var written = new String[left.length];
                boolean all = true;
                for (int i = 0; all && i < left.length; i++) {
                    int at = left[i].length() - scheme.length();
                    all = at > 0;
                    if (!all) break;
                    written[i] = left[i].substring(at);
                    String covered = (ofCount ? "" : before[i]) + left[i].substring(0, at);
                    all = isRight(scheme, covered, written[i]);
                }
                if (all && !(ofCount && isEmpty(before)))
                    found.add(piece("{check " + scheme.name() + (ofCount ? " of count" : "") + "}", written));
            }
        }
        return found;
    }

    /** The check symbols of a creditor reference, behind its RF. */
    static List<Piece> inFront(String[] left, String[] after) {
        CheckScheme scheme = CheckSchemes.of(CREDITOR_REFERENCE).orElseThrow();
        if (Count.different(left) < ENOUGH) return List.of();
        var written = new String[left.length];
        for (int i = 0; i < left.length; i++) {
            if (left[i].length() <= scheme.length()) return List.of();
            written[i] = left[i].substring(0, scheme.length());
            if (!isRight(scheme, left[i].substring(scheme.length()) + after[i], written[i])) return List.of();
        }
        return List.of(piece("{check " + CREDITOR_REFERENCE + "}", written));
    }

    private static Piece piece(String pattern, String[] written) {
        return new Piece(pattern, written, Optional.empty(), Optional.empty(), CREDIT);
    }

    private static boolean isEmpty(String[] texts) {
        for (String text : texts) if (!text.isEmpty()) return false;
        return true;
    }

    private static boolean isRight(CheckScheme scheme, String covered, String given) {
        var readable = new StringBuilder();
        covered.chars()
                .filter(symbol -> scheme.valueOf((char) symbol) >= 0)
                .forEach(symbol -> readable.append((char) symbol));
        return !readable.isEmpty() && scheme.isRight(readable, given);
    }
}
