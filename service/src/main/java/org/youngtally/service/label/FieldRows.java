package org.youngtally.service.label;

import java.util.Map;

/**
 * The rows that labels are for.
 *
 * @param columns with the values of fields, by their names
 * @param each how many labels in a row are for one
 */
public record FieldRows(FieldTable table, Map<String, Integer> columns, long each) {
    public FieldRows {
        columns = Map.copyOf(columns);
    }

    public int size() {
        return table.rows().size();
    }

    /**
     * The values of the row that a label is for.
     *
     * @param label its number among those of the job without further copies, from 0
     */
    public Map<String, String> values(long label) {
        return table.values((int) (label / each), columns);
    }
}
