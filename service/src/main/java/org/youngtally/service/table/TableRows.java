package org.youngtally.service.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;
import org.youngtally.documents.table.Table;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * The rows of a table as records of a kind.
 *
 * @param column where the numbers stand
 * @param blank the lines of the rows that have none yet, in order, each with what it gives for the kind's fields
 * @param given the numbers that there are already, by line
 * @param faults lines whose number occurs before
 */
public record TableRows(
        int column, Map<Integer, Map<String, String>> blank, Map<Integer, String> given, LineFaults faults) {

    /**
     * @param column the name of the column for the numbers; null for the one that bears the name or title of a field
     *     that numbers go into
     * @param filled the fields that nobody fills but the service
     * @param targets those of them that numbers go into
     */
    public static TableRows of(Table table, Kind kind, String column, Set<String> filled, Set<String> targets) {
        List<String> columns = table.columns();
        int at = column(columns, kind, column, targets);
        var fields = new LinkedHashMap<Integer, String>();
        for (int i = 0; i < columns.size(); i++) {
            Optional<KindField> field = field(kind, columns.get(i));
            if (i != at && field.isPresent() && !filled.contains(field.get().name()))
                fields.put(i, field.get().name());
        }
        var blank = new LinkedHashMap<Integer, Map<String, String>>();
        var given = new LinkedHashMap<Integer, String>();
        var seen = new HashMap<String, Integer>();
        var faults = new LineFaults();
        for (Table.Row row : table.rows()) {
            String number = row.cell(at);
            if (!number.isEmpty()) {
                Integer other = seen.put(Comparison.OF_NAMES.key(number), row.line());
                if (other != null)
                    faults.add(
                            row.line(),
                            new Problem(Type.TABLE_FAULTY, "‘" + number + "’ is also in line " + other + ".")
                                    .field("line " + row.line(), "each number once"));
                given.put(row.line(), number);
                continue;
            }
            var values = new HashMap<String, String>();
            fields.forEach((place, name) -> {
                if (!row.cell(place).isEmpty()) values.put(name, row.cell(place));
            });
            blank.put(row.line(), values);
        }
        return new TableRows(at, blank, given, faults);
    }

    private static Optional<KindField> field(Kind kind, String column) {
        String wanted = column.toLowerCase(Locale.ROOT);
        return kind.fields().stream()
                .filter(field -> field.name().equals(wanted)
                        || field.title().toLowerCase(Locale.ROOT).equals(wanted))
                .findFirst();
    }

    private static int column(List<String> columns, Kind kind, String wanted, Set<String> targets) {
        for (int i = 0; i < columns.size(); i++) {
            if (wanted != null
                    ? columns.get(i).equalsIgnoreCase(wanted.strip())
                    : field(kind, columns.get(i))
                            .filter(field -> targets.contains(field.name()))
                            .isPresent()) return i;
        }
        throw wanted == null
                ? new Problem(
                                Type.TABLE_FAULTY,
                                "No column has the name of the field that receives numbers of ‘" + kind.key() + "’.")
                        .field("column", "one of " + names(columns))
                : noColumn(columns, wanted);
    }

    static Problem noColumn(List<String> columns, String wanted) {
        String near = NearestName.to(wanted, new ArrayList<>(columns))
                .map(name -> " Did you mean ‘" + name + "’?")
                .orElse("");
        return new Problem(Type.TABLE_FAULTY, "Column ‘" + wanted + "’ not found." + near)
                .field("column", "one of " + names(columns));
    }

    private static String names(List<String> columns) {
        return columns.stream().filter(name -> !name.isEmpty()).collect(Collectors.joining(", "));
    }
}
