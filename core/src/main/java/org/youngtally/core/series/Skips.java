package org.youngtally.core.series;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.text.Comparison;

/**
 * Values that are never given.
 *
 * @param values by their value, in order and apart from each other
 * @param containing texts that the written count must not contain, in its own symbols
 */
public record Skips(List<Run> values, List<String> containing) {
    public static final Skips NONE = new Skips(List.of(), List.of());

    /** Values in a row, both ends included. */
    public record Run(long from, long to) {
        @Override
        public String toString() {
            return from == to ? Long.toString(from) : from + "-" + to;
        }
    }

    public Skips {
        values = List.copyOf(values);
        containing = List.copyOf(containing);
    }

    public boolean isNone() {
        return values.isEmpty() && containing.isEmpty();
    }

    public boolean skips(long value, CountField count) {
        return !isNone() && around(value, count).isPresent();
    }

    /** The values about this one that are skipped for the same reason; empty where it is not skipped. */
    Optional<Run> around(long value, CountField count) {
        for (Run stretch : values) if (stretch.from() <= value && value <= stretch.to()) return Optional.of(stretch);
        if (containing.isEmpty()) return Optional.empty();
        String written = count.written(value);
        int end = containing.stream()
                .mapToInt(text -> written.indexOf(text) < 0 ? Integer.MAX_VALUE : written.indexOf(text) + text.length())
                .min()
                .orElse(Integer.MAX_VALUE);
        if (end > written.length()) return Optional.empty();
        // Whatever follows the text, it is contained.
        String alphabet = count.alphabet().symbols();
        String start = written.substring(0, end);
        int free = written.length() - end;
        return Optional.of(new Run(
                read(start + alphabet.substring(0, 1).repeat(free), count, value),
                read(start + alphabet.substring(alphabet.length() - 1).repeat(free), count, CountField.LARGEST)));
    }

    private static long read(String written, CountField count, long otherwise) {
        OptionalLong value = count.read(Comparison.FIRST.fold(written));
        return value.isPresent() ? value.getAsLong() : otherwise;
    }
}
