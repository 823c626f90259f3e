package org.youngtally.service.label;

import java.time.LocalDate;
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
 */
public record LabelRun(
        Layout layout,
        long identifiers,
        long labels,
        int copies,
        LocalDate date,
        Optional<String> unit,
        Map<String, String> fields) {

    /** @param quantity of labels, or of sheets where each sheet has a new identifier */
    public static LabelRun of(
            Layout layout,
            long quantity,
            int copies,
            LocalDate date,
            Optional<String> unit,
            Map<String, String> fields) {
        long identifiers = layout.advance() == Advance.JOB ? 1 : quantity;
        return new LabelRun(layout, identifiers, labels(layout, quantity), copies, date, unit, fields);
    }

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
            case LABEL, ROW -> label;
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
        return new LabelContent(identifier, date, unit, fields, "", label + 1, labels, copy, copies, false);
    }

    /** How many pages all labels take. */
    public long pages() {
        long all = labels * copies;
        long each = perSheet(layout);
        return (all + each - 1) / each;
    }
}
