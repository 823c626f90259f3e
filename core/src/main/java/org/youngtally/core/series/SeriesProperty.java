package org.youngtally.core.series;

import java.util.Optional;
import java.util.function.Function;
import org.youngtally.core.property.Property;

/**
 * One thing that a series can say.
 *
 * @param of what a series says, however it came to it
 * @param fixed whether it stays as it is once the first number was given
 * @param kept what the journal calls it
 * @param keptAs the two values that the journal keeps as true and false; absent where it keeps the value itself
 */
public record SeriesProperty<T>(
        Property<T> property, Function<Series, T> of, boolean fixed, String kept, Optional<Flag<T>> keptAs) {
    /** What true and false stand for. */
    public record Flag<T>(T yes, T no) {}

    static <T> SeriesProperty<T> of(Property<T> property, Function<Series, T> of) {
        return new SeriesProperty<>(property, of, false, property.json(), Optional.empty());
    }

    /** One that nothing is computed from. */
    static SeriesProperty<String> plain(Property<String> property) {
        return of(property, series -> series.plain().get(property));
    }

    SeriesProperty<T> fixedOnceUsed() {
        return new SeriesProperty<>(property, of, true, kept, keptAs);
    }

    SeriesProperty<T> keptAs(String name) {
        return new SeriesProperty<>(property, of, fixed, name, keptAs);
    }

    SeriesProperty<T> keptAsFlag(T yes, T no) {
        return new SeriesProperty<>(property, of, fixed, kept, Optional.of(new Flag<>(yes, no)));
    }

    public String name() {
        return property.name();
    }
}
