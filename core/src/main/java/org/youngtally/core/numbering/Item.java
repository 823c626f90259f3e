package org.youngtally.core.numbering;

import java.util.Collections;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Pattern;

/**
 * Something in a document that can bear a number: a row of a table, a text of a drawing.
 *
 * @param id by which it is known among all items of all sheets; no two have the same
 * @param sheet the number of its sheet, from 1, in the order of the sheets
 * @param text what is written where the number goes, or beside it; empty for nothing
 * @param number that it has already; absent where it has none
 * @param attributes by their names, as they are in the document
 * @param place on its sheet; absent where it has none, as in a table
 */
public record Item(
        String id,
        int sheet,
        String text,
        Optional<String> number,
        SortedMap<String, String> attributes,
        Optional<Place> place) {
    private static final Pattern FIELD_NAME = Pattern.compile("[a-z0-9-]+");
    private static final Pattern OTHERS = Pattern.compile("[^a-z0-9]+");

    public Item {
        if (sheet < 1) throw new IllegalArgumentException("sheet " + sheet);
        attributes = Collections.unmodifiableSortedMap(new TreeMap<>(attributes));
    }

    public Item(
            String id,
            int sheet,
            String text,
            Optional<String> number,
            Map<String, String> attributes,
            Optional<Place> place) {
        this(id, sheet, text, number, new TreeMap<>(attributes), place);
    }

    /** The same item with a number. */
    public Item with(String borne) {
        return new Item(id, sheet, text, Optional.of(borne), attributes, place);
    }

    /** The attributes by names as patterns write them: small letters, digits and hyphens. */
    public Map<String, String> named() {
        var named = new HashMap<String, String>();
        attributes.forEach((name, value) -> named.putIfAbsent(asField(name), value));
        return named;
    }

    private static String asField(String name) {
        return FIELD_NAME.matcher(name).matches()
                ? name
                : OTHERS.matcher(name.strip().toLowerCase(Locale.ROOT)).replaceAll("-");
    }

    /** A point of a sheet, from its upper left corner to the right and down, in the units of the sheet. */
    public record Place(double x, double y) {
        public Place {
            if (!Double.isFinite(x) || !Double.isFinite(y)) throw new IllegalArgumentException(x + ", " + y);
        }
    }
}
