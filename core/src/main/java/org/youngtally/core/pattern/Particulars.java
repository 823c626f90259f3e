package org.youngtally.core.pattern;

import java.time.LocalDate;
import java.util.Collections;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * What an identifier's text rests on beside its value: the business date, and what the record gives for each field.
 *
 * @param fields by the field's name: the code of a field with a codebook, else the text as it was given; the unit is
 *     the field {@value #UNIT}
 */
public record Particulars(LocalDate date, SortedMap<String, String> fields) {
    /** The field that {@code {unit}} writes. */
    public static final String UNIT = "unit";
    /** The shape of a field's name, as a regular expression. */
    public static final String FIELD_NAME = "[a-z][a-z0-9-]{0,31}";

    public Particulars {
        // Most series take no fields, and this is made for every number.
        fields = fields.isEmpty()
                ? Collections.emptySortedMap()
                : Collections.unmodifiableSortedMap(new TreeMap<>(fields));
    }

    public Particulars(LocalDate date, Map<String, String> fields) {
        this(date, fields.isEmpty() ? Collections.emptySortedMap() : new TreeMap<>(fields));
    }

    /** A date alone. */
    public static Particulars on(LocalDate date) {
        return new Particulars(date, Collections.emptySortedMap());
    }
}
