package org.youngtally.core.property;

import java.util.List;
import java.util.Map;
import java.util.function.Supplier;

/**
 * What the value of a property looks like; files, interface, schema and export each write it in their own way.
 *
 * @param <T> what a value is in memory
 */
public sealed interface Shape<T> {
    /**
     * A text.
     *
     * @param pattern the regular expression that it matches as a whole; empty for any text
     * @param quoted whether files always write it in quotes
     */
    record Text(String pattern, boolean quoted) implements Shape<String> {}

    /** One of several words. */
    record Word(List<String> words) implements Shape<String> {
        public Word {
            words = List.copyOf(words);
        }
    }

    /** A date as ISO 8601 writes it. */
    record Date() implements Shape<String> {}

    /** A whole number. */
    record Whole() implements Shape<Long> {}

    /** A number as it was written: up to four digits, and up to three behind a point. */
    record Decimal() implements Shape<String> {}

    /** True, or left out. */
    record Flag() implements Shape<Boolean> {}

    /**
     * Several texts.
     *
     * @param pattern the regular expression that each matches as a whole; empty for any text
     * @param numbers whether an editor may write numbers without quotes
     * @param quoted whether files always write each in quotes
     * @param example a list of them, as a file writes it
     */
    record Texts(String pattern, boolean numbers, boolean quoted, String example) implements Shape<List<String>> {}

    /** Properties of its own, in braces. */
    record One<R>(Group<R> group) implements Shape<R> {}

    /**
     * A list of things with properties of their own.
     *
     * @param group asked for when it is needed, because a thing can hold others of its kind
     * @param least how many there are at least
     * @param called what the list is called, such as "a list of ranges"
     */
    record Many<R>(Supplier<Group<R>> group, int least, String called) implements Shape<List<R>> {}

    /**
     * By the name of a field: a value, a list of values, or the properties of a group.
     *
     * @param group what is in braces for a field
     */
    record ByField<R>(Group<R> group) implements Shape<Map<String, R>> {}
}
