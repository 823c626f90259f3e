package org.youngtally.service.label;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Rows that labels are printed for, each with the values of fields.
 *
 * @param columns their names, as in the first row of the file
 * @param rows with a cell for each column
 */
public record FieldTable(List<String> columns, List<List<String>> rows) {
    public FieldTable {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
    }

    /** The column that has the values of a field: it bears its name, or its title. */
    public Optional<Integer> column(String field, Optional<String> title) {
        for (int at = 0; at < columns.size(); at++) {
            String column = columns.get(at).strip();
            if (column.equalsIgnoreCase(field)
                    || title.filter(column::equalsIgnoreCase).isPresent()) return Optional.of(at);
        }
        return Optional.empty();
    }

    /**
     * The columns of some fields.
     *
     * @param titles of fields that have one, by their names
     */
    public Map<String, Integer> columns(Collection<String> fields, Map<String, String> titles) {
        var found = new HashMap<String, Integer>();
        for (String field : fields)
            column(field, Optional.ofNullable(titles.get(field))).ifPresent(at -> found.put(field, at));
        return found;
    }

    /**
     * The values of a row.
     *
     * @param row from 0
     * @param columns by the names of the fields
     */
    public Map<String, String> values(int row, Map<String, Integer> columns) {
        var values = new HashMap<String, String>();
        columns.forEach((field, at) -> {
            String value = rows.get(row).get(at);
            if (!value.isEmpty()) values.put(field, value);
        });
        return values;
    }
}
