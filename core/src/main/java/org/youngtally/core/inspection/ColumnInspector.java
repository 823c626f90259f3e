package org.youngtally.core.inspection;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.youngtally.core.inspection.Inspection.FaultKind;
import org.youngtally.core.inspection.Inspection.LaneUse;
import org.youngtally.core.inspection.Inspection.TextFault;
import org.youngtally.core.text.Comparison;

/**
 * Looks through a column of a table, row by row, in two passes: all rows with {@link #row}, and then, if
 * {@link #needsSecondPass}, all of them again with {@link #again}. It keeps eight to sixteen bytes for each row, and
 * twice that while it grows.
 */
public final class ColumnInspector {
    private static final int MOST_FAULTS = 1_000;
    /** Texts that a near number is looked for: where more than these are unreadable, it is the wrong column. */
    private static final int MOST_SEARCHED = 20_000;

    private static final int MOST_LANES = 500;
    private static final int LONGEST_SHOWN = 100;
    private static final Comparator<LaneValues> MOST_NUMBERS =
            Comparator.comparing(LaneValues::size).reversed().thenComparing(LaneValues::name);
    private static final Pattern EXPONENT = Pattern.compile("[0-9]([.,][0-9]+)?[eE]\\+?[0-9]{1,3}");
    private static final Pattern DATE = Pattern.compile(
            "[0-9]{4}-[0-9]{2}-[0-9]{2}([T ].*)?|[0-9]{1,2}[./][0-9]{1,2}[./]([0-9]{2}|[0-9]{4})|[0-9]{1,2}[- ][A-Za-z]{3}|[A-Za-z]{3}[- ][0-9]{2}");

    private final List<String> columns;
    private final int column;
    private final Numbers numbers;
    private final Comparison comparison;
    private final DuplicateSearch duplicates = new DuplicateSearch();
    private final Map<Numbers.Lane, LaneValues> lanes = new HashMap<>();
    private final Map<FaultKind, Long> byKind = new EnumMap<>(FaultKind.class);
    private final List<TextFault> faults = new ArrayList<>();
    private final Tally years = new Tally();
    private final Tally letters = new Tally();
    private final Map<String, Tally> fields = new TreeMap<>();
    private long rows;
    private long blanks;
    private long read;
    private long unread;
    private long searched;

    /**
     * @param columns the names of the columns
     * @param column which one is looked through, from 0
     * @param comparison by which two texts are one number
     */
    public ColumnInspector(List<String> columns, int column, Numbers numbers, Comparison comparison) {
        this.columns = List.copyOf(columns);
        this.column = column;
        this.numbers = numbers;
        this.comparison = comparison;
    }

    private String cell(List<String> cells) {
        return column < cells.size() ? cells.get(column) : "";
    }

    /**
     * A row in which anything stands.
     *
     * @param line of the file, from 1
     */
    public void row(long line, List<String> cells) {
        rows++;
        String cell = cell(cells);
        if (cell.isBlank()) {
            blanks++;
            return;
        }
        duplicates.first(comparison.key(cell));
        letters.add(letters(cell));
        Numbers.Number number = numbers.read(cell);
        if (number == null) {
            unread++;
            unreadable(line, cell);
            return;
        }
        read++;
        lanes.computeIfAbsent(number.lane(), LaneValues::new).add(number.identifier(), number.value(), line);
        number.year().ifPresent(year -> years.add(Integer.toString(year)));
        number.fields().forEach((field, text) -> fields.computeIfAbsent(field, name -> new Tally())
                .add(text));
        if (!number.deviations().isEmpty())
            fault(new TextFault(
                    line,
                    shown(cell),
                    FaultKind.SPELLING,
                    List.of(new Numbers.Candidate(number.identifier(), number.deviations()))));
    }

    private static String letters(String text) {
        int end = 0;
        while (end < text.length() && end < LONGEST_SHOWN && Character.isLetter(text.charAt(end))) end++;
        return text.substring(0, end);
    }

    private static String shown(String text) {
        return text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text;
    }

    private void unreadable(long line, String cell) {
        String text = cell.strip();
        List<Numbers.Candidate> meant = searched++ < MOST_SEARCHED ? numbers.nearest(text) : List.of();
        FaultKind kind = text.startsWith("=")
                ? FaultKind.FORMULA
                : EXPONENT.matcher(text).matches()
                        ? FaultKind.EXPONENT
                        : !meant.isEmpty()
                                ? FaultKind.NEAR
                                : DATE.matcher(text).matches() ? FaultKind.DATE : FaultKind.UNREADABLE;
        fault(new TextFault(line, shown(cell), kind, meant));
    }

    private void fault(TextFault fault) {
        byKind.merge(fault.kind(), 1L, Long::sum);
        if (faults.size() < MOST_FAULTS) faults.add(fault);
    }

    /** Whether the rows must be looked through again, for what occurs more than once. */
    public boolean needsSecondPass() {
        return duplicates.anyTwice();
    }

    /** A row of the second pass, which is the same as of the first. */
    public void again(long line, List<String> cells) {
        String cell = cell(cells);
        if (!cell.isBlank()) duplicates.second(comparison.key(cell), shown(cell), column, line, cells);
    }

    public Inspection found() {
        List<LaneUse> uses = lanes.values().stream()
                .sorted(MOST_NUMBERS)
                .limit(MOST_LANES)
                .map(LaneValues::use)
                .toList();
        var byField = new LinkedHashMap<String, Map<String, Long>>();
        fields.forEach((field, tally) -> byField.put(field, tally.counts()));
        return new Inspection(
                column < columns.size() ? columns.get(column) : "",
                rows,
                blanks,
                read,
                unread,
                duplicates.found(columns),
                List.copyOf(faults),
                byKind,
                uses,
                lanes.size() - uses.size(),
                years.counts(),
                letters.counts(),
                byField);
    }
}
