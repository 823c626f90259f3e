package org.youngtally.service.table;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.inspection.ColumnChoice;
import org.youngtally.core.inspection.ColumnInspector;
import org.youngtally.core.inspection.Inspection;
import org.youngtally.core.inspection.Numbers;
import org.youngtally.core.text.Comparison;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.TableFile;

/**
 * Looks through a table, one column after the other.
 *
 * @param notes what to know of the table, in whole sentences
 * @param columns what the first rows say of all its columns, those that likely hold the identifiers first
 * @param inspections of the columns that were asked for, or of the likeliest one
 */
public record TableInspection(List<String> notes, List<ColumnChoice.Profile> columns, List<Inspection> inspections) {

    /**
     * @param series reads the identifiers; absent where no series is named
     * @param wanted the names of the columns; none for the likeliest one
     */
    public static TableInspection of(
            TableFile table, Optional<Numbers> series, Comparison comparison, List<String> wanted)
            throws IOException, UnreadableDocument {
        var choice = new ColumnChoice(table.columns(), series.orElseGet(() -> Numbers.byShape(List.of())));
        table.read((line, cells) -> choice.row(cells));
        List<ColumnChoice.Profile> profiles = choice.profiles();
        var inspections = new ArrayList<Inspection>();
        var longRows = new LongRows(table.columns().size());
        for (int column : columns(table.columns(), wanted, profiles)) {
            Numbers numbers = series.isPresent() ? series.get() : Numbers.byShape(sample(table, column));
            inspections.add(inspected(table, column, numbers, comparison, longRows));
        }
        return new TableInspection(longRows.notes(), profiles, inspections);
    }

    private static List<Integer> columns(List<String> names, List<String> wanted, List<ColumnChoice.Profile> profiles) {
        if (wanted.isEmpty())
            return profiles.isEmpty() ? List.of() : List.of(profiles.getFirst().column());
        return wanted.stream().map(name -> column(names, name)).distinct().toList();
    }

    private static int column(List<String> names, String wanted) {
        for (int i = 0; i < names.size(); i++) if (names.get(i).equalsIgnoreCase(wanted.strip())) return i;
        throw TableRows.noColumn(names, wanted);
    }

    private static List<String> sample(TableFile table, int column) throws IOException, UnreadableDocument {
        var sample = new ArrayList<String>();
        table.read((line, cells) -> {
            if (column < cells.size() && !cells.get(column).isEmpty()) sample.add(cells.get(column));
            return sample.size() < ColumnChoice.SAMPLE;
        });
        return sample;
    }

    private static Inspection inspected(
            TableFile table, int column, Numbers numbers, Comparison comparison, LongRows longRows)
            throws IOException, UnreadableDocument {
        var inspector = new ColumnInspector(table.columns(), column, numbers, comparison);
        longRows.begin();
        table.read((line, cells) -> {
            longRows.row(line, cells);
            inspector.row(line, cells);
            return true;
        });
        if (inspector.needsSecondPass())
            table.read((line, cells) -> {
                inspector.again(line, cells);
                return true;
            });
        return inspector.found();
    }

    /** Rows with a text behind the last column. */
    private static final class LongRows {
        private final int columns;
        private long rows;
        private long first;

        LongRows(int columns) {
            this.columns = columns;
        }

        void begin() {
            rows = 0;
        }

        void row(long line, List<String> cells) {
            if (cells.size() <= columns
                    || cells.subList(columns, cells.size()).stream().allMatch(String::isEmpty)) return;
            if (rows++ == 0) first = line;
        }

        List<String> notes() {
            return rows == 0
                    ? List.of()
                    : List.of("%,d %s more cells than the first row; the first is line %,d."
                            .formatted(rows, rows == 1 ? "row has" : "rows have", first));
        }
    }
}
