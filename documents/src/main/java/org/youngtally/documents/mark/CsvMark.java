package org.youngtally.documents.mark;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.CsvColumns;
import org.youngtally.documents.table.Table;

/** A column of a table as text, which holds the identifier in every row. */
record CsvMark(String column) implements FileMark {

    @Override
    public String place() {
        return "its column ‘" + column + "’";
    }

    @Override
    public Optional<String> borne(byte[] bytes) throws UnreadableDocument {
        Table table = Table.read(Table.Format.CSV, bytes);
        int at = table.columns().indexOf(column);
        return at < 0
                ? Optional.empty()
                : table.rows().stream()
                        .map(row -> row.cell(at))
                        .filter(text -> !text.isEmpty())
                        .findFirst();
    }

    @Override
    public byte[] marked(byte[] bytes, String identifier) throws UnreadableDocument {
        Table table = Table.read(Table.Format.CSV, bytes);
        List<String> columns = table.columns();
        if (!columns.contains(column)) return CsvColumns.with(bytes, column, identifier);
        Map<Integer, String> texts =
                table.rows().stream().collect(Collectors.toMap(Table.Row::line, row -> identifier));
        return table.filled(columns.indexOf(column), texts);
    }
}
