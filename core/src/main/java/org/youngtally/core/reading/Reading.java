package org.youngtally.core.reading;

import java.util.List;
import java.util.Set;

/**
 * What a text says when it is read by a pattern.
 *
 * @param identifier as the pattern writes it
 * @param texts what each part of the pattern wrote, in order
 * @param deviations how the text differs from the identifier; none where it is written exactly so
 */
public record Reading(String identifier, long value, List<String> texts, Set<Deviation> deviations) {
    public Reading {
        texts = List.copyOf(texts);
        deviations = Set.copyOf(deviations);
    }
}
