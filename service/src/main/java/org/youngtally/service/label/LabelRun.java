package org.youngtally.service.label;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.label.LabelContent;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Advance;
import org.youngtally.core.label.Layout.Sheet;

/**
 * Which identifier each label of a run bears.
 *
 * @param identifiers how many there are
 * @param labels how many labels there are without further copies
 * @param copies of each label
 * @param rows that they are for; absent where all labels have the same fields
 */
public record LabelRun(
        Layout layout,
        long identifiers,
        long labels,
        int copies,
        LocalDate date,
        Optional<String> unit,
        Map<String, String> fields,
        Optional<FieldRows> rows) {

    /**
     * How many labels there are, without further copies.
     *
     * @param quantity of labels, or of sheets where each sheet has a new identifier
     */
    public static long labels(Layout layout, long quantity) {
        return layout.advance() == Advance.SHEET ? quantity * perSheet(layout) : quantity;
    }

    private static long perSheet(Layout layout) {
        return layout.sheet().map(Sheet::labels).orElse(1);
    }

    /** The place of a label's identifier among all, from 0. */
    public long identifierOf(long label) {
        return switch (layout.advance()) {
            case LABEL -> label;
            case ROW -> rows.map(all -> label / all.each()).orElse(label);
            case SHEET -> label / perSheet(layout);
            case JOB -> 0;
        };
    }

    /**
     * What is on a label.
     *
     * @param label its place, from 0
     * @param copy from 1
     */
    public LabelContent content(long label, int copy, String identifier) {
        var all = new HashMap<>(fields);
        rows.ifPresent(each -> all.putAll(each.values(label)));
        return new LabelContent(identifier, date, unit, all, "", label + 1, labels, copy, copies, false);
    }

    /** How many pages all labels take. */
    public long pages() {
        long all = labels * copies;
        long each = perSheet(layout);
        return (all + each - 1) / each;
    }
}
