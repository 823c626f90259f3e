package org.youngtally.service.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.youngtally.core.text.Comparison;
import org.youngtally.documents.table.Table;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * The rows of a table that are known by the text of a column, whatever their order.
 *
 * @param keys by line
 * @param withoutKey lines of rows that have none
 */
public record KeyedRows(Map<Integer, String> keys, List<Integer> withoutKey) {
    /** A key is a part of a reference. */
    private static final int LONGEST = 100;

    /** @throws Problem that names all rows whose key another row has, or that are no keys */
    public static KeyedRows of(Table table, String column) {
        int at = column(table.columns(), column);
        var keys = new LinkedHashMap<Integer, String>();
        var withoutKey = new ArrayList<Integer>();
        var seen = new HashMap<String, Integer>();
        var faults = new LineFaults();
        for (Table.Row row : table.rows()) {
            String key = row.cell(at);
            if (key.isEmpty()) {
                withoutKey.add(row.line());
                continue;
            }
            if (key.length() > LONGEST || key.chars().anyMatch(Character::isISOControl)) {
                faults.add(
                        row.line(),
                        new Problem(Type.TABLE_FAULTY, "The key in ‘" + column + "’ cannot be kept.")
                                .field("line " + row.line(), "up to " + LONGEST + " visible symbols"));
                continue;
            }
            Integer other = seen.put(Comparison.OF_NAMES.key(key), row.line());
            if (other != null)
                faults.add(
                        row.line(),
                        new Problem(Type.TABLE_FAULTY, "The key ‘" + key + "’ is also in line " + other + ".")
                                .field("line " + row.line(), "each key once"));
            keys.put(row.line(), key);
        }
        if (!faults.isEmpty()) throw faults.problem();
        return new KeyedRows(keys, List.copyOf(withoutKey));
    }

    private static int column(List<String> columns, String wanted) {
        String name = wanted.strip().toLowerCase(Locale.ROOT);
        for (int i = 0; i < columns.size(); i++)
            if (columns.get(i).toLowerCase(Locale.ROOT).equals(name)) return i;
        throw TableRows.noColumn(columns, wanted);
    }
}
