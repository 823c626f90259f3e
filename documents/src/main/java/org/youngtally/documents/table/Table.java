package org.youngtally.documents.table;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.youngtally.documents.UnreadableDocument;

/**
 * A table in a file: a row with the names of its columns, and rows beneath it. Cells can be filled; everything else of
 * the file stays as it was.
 */
public interface Table {

    /** The formats, by the ending of a file's name. */
    enum Format {
        CSV("csv", "text/csv"),
        XLSX("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet");

        private final String ending;
        private final String type;

        Format(String ending, String type) {
            this.ending = ending;
            this.type = type;
        }

        public String ending() {
            return ending;
        }

        /** The media type. */
        public String type() {
            return type;
        }

        public static Format of(String name) throws UnreadableDocument {
            for (Format format : values())
                if (name.toLowerCase(Locale.ROOT).endsWith("." + format.ending)) return format;
            throw new UnreadableDocument(
                    "‘" + name + "’ is no table that can be read", "a file whose name ends in .csv or .xlsx");
        }
    }

    static Table read(Format format, byte[] bytes) throws UnreadableDocument {
        return switch (format) {
            case CSV -> CsvTable.of(bytes);
            case XLSX -> XlsxTable.of(bytes);
        };
    }

    /** The names of the columns, in order; empty for a column without one. */
    List<String> columns();

    /**
     * A row.
     *
     * @param line where it is in the file, from 1
     * @param cells as many as there are columns at the most
     */
    record Row(int line, List<String> cells) {
        public Row {
            cells = List.copyOf(cells);
        }

        /** What is in a column; empty where nothing does. */
        public String cell(int column) {
            return column < cells.size() ? cells.get(column) : "";
        }
    }

    /** The rows in which anything stands. */
    List<Row> rows();

    /**
     * The same file with some cells filled.
     *
     * @param texts by the line of the row
     */
    byte[] filled(int column, Map<Integer, String> texts) throws UnreadableDocument;
}
