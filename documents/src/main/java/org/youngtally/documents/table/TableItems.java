package org.youngtally.documents.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/** The rows of a table as items; their columns are their attributes. */
public final class TableItems implements NumberedFile {
    private final Table table;
    private final int column;
    private final Sheet sheet;
    private final List<Item> items = new ArrayList<>();
    private final Map<String, Integer> lines = new HashMap<>();

    private TableItems(Table table, String name, int number, int column) throws UnreadableDocument {
        this.table = table;
        this.column = column;
        this.sheet = new Sheet(name, 0, 0);
        var bounds = new ItemBounds();
        List<String> columns = table.columns();
        for (Table.Row row : table.rows()) {
            var attributes = new TreeMap<String, String>();
            for (int i = 0; i < columns.size(); i++)
                if (!columns.get(i).isEmpty()) attributes.putIfAbsent(columns.get(i), row.cell(i));
            bounds.add(attributes.size());
            String id = number + ":line " + row.line();
            items.add(new Item(id, number, row.cell(column), Optional.empty(), attributes, Optional.empty()));
            lines.put(id, row.line());
        }
    }

    /** @param into the column of the numbers */
    public static TableItems read(byte[] bytes, String name, int number, String into) throws UnreadableDocument {
        Table table = Table.read(Table.Format.of(name), bytes);
        int column = table.columns().indexOf(into);
        if (column < 0)
            throw new UnreadableDocument(
                    "The table ‘" + name + "’ has no column ‘" + into + "’",
                    "one of " + String.join(", ", table.columns()));
        return new TableItems(table, name, number, column);
    }

    @Override
    public Sheet sheet() {
        return sheet;
    }

    @Override
    public List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public byte[] with(Map<String, String> changed) throws UnreadableDocument {
        var texts = new HashMap<Integer, String>();
        changed.forEach((id, text) -> texts.put(lines.get(id), text));
        return table.filled(column, texts);
    }
}
