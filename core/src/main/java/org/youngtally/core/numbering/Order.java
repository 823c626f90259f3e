package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.youngtally.core.numbering.Item.Place;

/**
 * In what order items are counted. Each key decides between those that the keys before it leave equal; what all leave
 * equal stays as it is listed.
 */
public record Order(List<Key> keys) {
    /** As they are listed. */
    public static final Order LISTED = new Order(List.of());

    public Order {
        keys = List.copyOf(keys);
    }

    /** By what items are put in order. The keys of places go sheet by sheet. */
    public sealed interface Key {
        /** @param descending from the greatest to the least; blank ones are last either way */
        record ByAttribute(String name, boolean descending) implements Key {}

        /**
         * Along one axis.
         *
         * @param descending from the right, or from below
         */
        record Along(Axis axis, boolean descending) implements Key {}

        /**
         * In lines, and along each line.
         *
         * @param lines the axis along which the lines follow on each other: {@code Y} for rows, {@code X} for columns
         * @param tolerance how far items of a line may lie from its first one, in the units of the sheet
         * @param linesDescending from the last line to the first
         * @param descending from the end of each line to its beginning
         */
        record InLines(Axis lines, double tolerance, boolean linesDescending, boolean descending) implements Key {
            public InLines {
                if (!(tolerance >= 0)) throw new IllegalArgumentException("a tolerance of " + tolerance);
            }
        }
    }

    /** Across a sheet, or down it. */
    public enum Axis {
        X,
        Y;

        double of(Place place) {
            return this == X ? place.x() : place.y();
        }

        Axis other() {
            return this == X ? Y : X;
        }
    }

    /** Whether it needs to know where items are. */
    public boolean needsPlaces() {
        return keys.stream().anyMatch(key -> !(key instanceof Key.ByAttribute));
    }

    /** @throws IllegalArgumentException where a key of places meets an item that has none */
    public List<Item> of(List<Item> items) {
        var sorted = new ArrayList<>(items);
        Comparator<Item> order = (one, other) -> 0;
        for (Key key : keys) order = order.thenComparing(comparator(key, items));
        sorted.sort(order);
        return sorted;
    }

    private static Comparator<Item> comparator(Key key, List<Item> items) {
        return switch (key) {
            case Key.ByAttribute by -> byAttribute(by);
            case Key.Along along ->
                Comparator.comparingInt(Item::sheet).thenComparing(along(along.axis(), along.descending()));
            case Key.InLines in -> {
                Map<String, Integer> lines = lines(in, items);
                Comparator<Item> byLine = Comparator.comparing(item -> lines.get(item.id()));
                yield Comparator.comparingInt(Item::sheet)
                        .thenComparing(in.linesDescending() ? byLine.reversed() : byLine)
                        .thenComparing(along(in.lines().other(), in.descending()));
            }
        };
    }

    private static Comparator<Item> byAttribute(Key.ByAttribute by) {
        Comparator<String> values = by.descending() ? NaturalOrder.INSTANCE.reversed() : NaturalOrder.INSTANCE;
        return Comparator.comparing((Item item) -> value(item, by.name()).isEmpty())
                .thenComparing(item -> value(item, by.name()), values);
    }

    private static String value(Item item, String attribute) {
        return item.attributes().getOrDefault(attribute, "").strip();
    }

    private static Comparator<Item> along(Axis axis, boolean descending) {
        Comparator<Item> along = Comparator.comparingDouble(item -> axis.of(place(item)));
        return descending ? along.reversed() : along;
    }

    private static Place place(Item item) {
        return item.place().orElseThrow(() -> new IllegalArgumentException("‘" + item.id() + "’ has no place"));
    }

    /**
     * The line of each item: a line begins with the first item that lies further than the tolerance from the first one
     * of the line before, so that no item of a line is further from its first one than that.
     */
    private static Map<String, Integer> lines(Key.InLines in, List<Item> items) {
        var sorted = new ArrayList<>(items);
        sorted.sort(Comparator.comparingInt(Item::sheet).thenComparing(along(in.lines(), false)));
        var lines = new HashMap<String, Integer>();
        int line = 0;
        Item first = null;
        for (Item item : sorted) {
            boolean next = first == null
                    || item.sheet() != first.sheet()
                    || in.lines().of(place(item)) - in.lines().of(place(first)) > in.tolerance();
            if (next) {
                line++;
                first = item;
            }
            lines.put(item.id(), line);
        }
        return lines;
    }
}
