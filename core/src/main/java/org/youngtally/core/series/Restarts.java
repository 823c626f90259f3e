package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.pattern.Particulars;

/**
 * When the count starts again at its first value: each combination is a lane of its own.
 *
 * @param times with which periods of time
 * @param fields with which fields of the record; the unit is one of them
 */
public record Restarts(List<Restart> times, List<String> fields) {
    public static final Restarts NEVER = new Restarts(List.of(), List.of());
    /** Before the name of a field, in definitions. */
    static final String FIELD = "field ";

    public Restarts {
        times = List.copyOf(times);
        fields = List.copyOf(fields);
    }

    public boolean isNever() {
        return times.isEmpty() && fields.isEmpty();
    }

    /** The words in definitions. */
    public List<String> words() {
        var words = new ArrayList<String>();
        times.forEach(time -> words.add(time.word()));
        fields.forEach(field -> words.add(field.equals(Particulars.UNIT) ? field : FIELD + field));
        return words;
    }

    /** The words that may be written. */
    static String known() {
        return Stream.concat(Stream.of(Restart.values()).map(Restart::word), Stream.of("unit", "field NAME"))
                .collect(Collectors.joining(", "));
    }

    @Override
    public String toString() {
        return isNever() ? "never" : String.join(", ", words());
    }
}
