package org.youngtally.core.inspection;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/** Tells from the first rows of a table which of its columns holds the identifiers. */
public final class ColumnChoice {
    /** So many rows are looked at. */
    public static final int SAMPLE = 10_000;

    private static final int LONGEST = 60;
    private static final Pattern NAME =
            Pattern.compile("(?iu).*\\b(no|nr|num|number|numbers|id|code|serial|identifier|nummer|reference|ref)\\b.*");

    private final List<String> columns;
    private final Numbers numbers;
    private final List<Column> seen = new ArrayList<>();
    private int rows;

    private static final class Column {
        private final Set<String> different = new HashSet<>();
        private final Map<String, Integer> shapes = new HashMap<>();
        private int filled;
        private int withDigits;
        private int tooLong;
        private int read;
    }

    /**
     * What the first rows say of a column.
     *
     * @param column from 0
     * @param filled the share of rows in which it holds anything, 0 to 1
     * @param different the share of its texts that differ from all before them
     * @param alike the share of its texts that have its most frequent shape
     * @param shape the most frequent one: 9 for a digit, A for a capital, a for a small letter
     * @param read the share of its texts that are read as numbers
     * @param likely how likely it holds the identifiers, 0 to 1
     */
    public record Profile(
            int column,
            String name,
            double filled,
            double different,
            double alike,
            String shape,
            double read,
            double likely) {}

    /** @param numbers how identifiers are read */
    public ColumnChoice(List<String> columns, Numbers numbers) {
        this.columns = List.copyOf(columns);
        this.numbers = numbers;
        columns.forEach(column -> seen.add(new Column()));
    }

    /** @return whether another row is wanted */
    public boolean row(List<String> cells) {
        rows++;
        for (int i = 0; i < Math.min(cells.size(), seen.size()); i++) {
            String text = cells.get(i).strip();
            if (text.isEmpty()) continue;
            Column column = seen.get(i);
            column.filled++;
            if (text.length() > LONGEST) {
                column.tooLong++;
                continue;
            }
            column.different.add(text);
            if (text.chars().anyMatch(symbol -> symbol >= '0' && symbol <= '9')) column.withDigits++;
            if (numbers.read(text) != null) column.read++;
            column.shapes.merge(shape(text), 1, Integer::sum);
        }
        return rows < SAMPLE;
    }

    private static String shape(String text) {
        var shape = new StringBuilder(text.length());
        text.codePoints()
                .forEach(symbol -> shape.appendCodePoint(
                        symbol >= '0' && symbol <= '9'
                                ? '9'
                                : Character.isUpperCase(symbol) ? 'A' : Character.isLetter(symbol) ? 'a' : symbol));
        return shape.toString();
    }

    /** The columns, those that likely hold the identifiers first. */
    public List<Profile> profiles() {
        var profiles = new ArrayList<Profile>();
        for (int i = 0; i < seen.size(); i++) profiles.add(profile(i, seen.get(i)));
        profiles.sort(Comparator.comparingDouble(Profile::likely).reversed());
        return profiles;
    }

    private Profile profile(int at, Column column) {
        if (column.filled == 0) return new Profile(at, columns.get(at), 0, 0, 0, "", 0, 0);
        Map.Entry<String, Integer> most = column.shapes.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .orElse(Map.entry("", 0));
        double filled = (double) column.filled / rows;
        double different = (double) column.different.size() / column.filled;
        double alike = (double) most.getValue() / column.filled;
        double digits = (double) column.withDigits / column.filled;
        double read = (double) column.read / column.filled;
        double named = NAME.matcher(columns.get(at)).matches() ? 1 : 0.7;
        double likely = Math.sqrt(filled)
                * different
                * digits
                * (0.05 + read * 0.95)
                * (0.5 + alike / 2)
                * named
                * (1 - (double) column.tooLong / column.filled);
        return new Profile(at, columns.get(at), filled, different, alike, most.getKey(), read, likely);
    }
}
