package org.youngtally.core.reading;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.youngtally.core.text.Comparison;

/** What a part of a pattern can write, where neither the date nor the record is known. */
sealed interface PartTexts {

    /**
     * These texts and no others.
     *
     * @param written as they are written, by the text as it is compared
     * @param lengths of the texts as they are compared, the shortest first
     */
    record Listed(Map<String, Set<String>> written, int[] lengths) implements PartTexts {
        static Listed of(Collection<String> texts, Comparison comparison) {
            var written = new LinkedHashMap<String, Set<String>>();
            for (String text : texts)
                written.computeIfAbsent(comparison.fold(text), same -> new LinkedHashSet<>())
                        .add(text);
            IntStream lengths = written.keySet().stream()
                    .mapToInt(String::length)
                    .distinct()
                    .sorted();
            return new Listed(written, lengths.toArray());
        }
    }

    /**
     * Any text of some symbols.
     *
     * @param symbols as they are compared
     * @param longest in symbols, at least as many as the shortest
     */
    record Free(String symbols, int shortest, int longest) implements PartTexts {}

    /** What is written by the value alone, or follows from the rest: the count, literal text, check symbols. */
    record None() implements PartTexts {}
}
