package org.youngtally.documents.table;

import org.youngtally.documents.UnreadableDocument;

/** Adds columns to tables as text. */
public final class CsvColumns {
    private CsvColumns() {}

    /** The file with one more column at the end, which holds the same in every row. */
    public static byte[] with(byte[] bytes, String name, String text) throws UnreadableDocument {
        return CsvTable.of(bytes).withColumn(name, text);
    }
}
