package org.youngtally.core.text;

import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;
import org.apache.commons.text.similarity.LevenshteinDistance;

/** Finds the known name that a mistyped one was most likely meant to be. */
public final class NearestName {
    private NearestName() {}

    /** The closest of the known names, if it is within a third of the typed name's length (two edits at least). */
    public static Optional<String> to(String typed, Collection<String> known) {
        int tolerance = Math.max(2, typed.length() / 3);
        var distance = new LevenshteinDistance(tolerance);
        return known.stream()
                .filter(name -> distance.apply(typed, name) >= 0)
                .min(Comparator.<String>comparingInt(name -> distance.apply(typed, name))
                        .thenComparing(name -> name));
    }
}
