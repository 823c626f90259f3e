package org.youngtally.core.reading;

import java.util.List;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Part.CheckField;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.text.Comparison;

/**
 * The check symbols of an identifier whose other parts are known: those behind what they cover are written in passing,
 * those in front of it at the end, as {@link org.youngtally.core.pattern.Rendering} does.
 */
final class CheckSymbols {
    private final List<Part> parts;
    private final String[] pieces;
    private final int count;

    /** @param pieces what each part wrote; of the check fields what is there, which is put right */
    CheckSymbols(List<Part> parts, String[] pieces) {
        this.parts = parts;
        this.pieces = pieces;
        int at = 0;
        while (!(parts.get(at) instanceof CountField)) at++;
        this.count = at;
    }

    /** @return how many check fields were wrong */
    int fill(Comparison comparison) {
        int wrong = 0;
        for (int i = 0; i < pieces.length; i++)
            if (parts.get(i) instanceof CheckField check && !later(check, i))
                wrong += put(check, i, symbols(check, 0, i, false), comparison);
        for (int i = pieces.length - 1; i >= 0; i--)
            if (parts.get(i) instanceof CheckField check && later(check, i))
                wrong += put(check, i, symbols(check, i + 1, pieces.length, true), comparison);
        return wrong;
    }

    private boolean later(CheckField check, int index) {
        return check.scheme().inFront() || check.ofCount() && count > index;
    }

    private int put(CheckField check, int index, String right, Comparison comparison) {
        boolean wrong = !comparison.fold(right).equals(pieces[index]);
        pieces[index] = right;
        return wrong ? 1 : 0;
    }

    /** @param withLater whether the check symbols that are written at the end are there already */
    private String symbols(CheckField check, int from, int end, boolean withLater) {
        CheckScheme scheme = check.scheme();
        var covered = new StringBuilder();
        for (int i = check.ofCount() ? count : from; i < (check.ofCount() ? count + 1 : end); i++) {
            if (!withLater && parts.get(i) instanceof CheckField other && later(other, i)) continue;
            pieces[i]
                    .chars()
                    .filter(symbol -> scheme.valueOf((char) symbol) >= 0)
                    .forEach(symbol -> covered.append((char) symbol));
        }
        return scheme.check(covered)
                .orElseThrow(
                        () -> new IllegalStateException("a pattern has only schemes with a check for every number"));
    }
}
