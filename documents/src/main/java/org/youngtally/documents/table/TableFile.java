package org.youngtally.documents.table;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.youngtally.documents.UnreadableDocument;

/**
 * A table in a file that is read row by row, as often as one likes; the rows of text files are never held in memory
 * together.
 */
public interface TableFile {

    /** Gets the rows. */
    interface RowReader {
        /**
         * @param line of the file, from 1
         * @param cells up to the last one of the row, without blanks at their ends; the list is used again for the next
         *     row
         * @return whether the next row is wanted
         */
        boolean row(long line, List<String> cells);
    }

    /** The names of the columns, in order. */
    List<String> columns();

    /** What a reader should know of how the file was read, in whole sentences. */
    List<String> notes();

    /** Reads the rows in which anything stands, from the first. */
    void read(RowReader reader) throws IOException, UnreadableDocument;

    /** The lines whose cell in a column is worked out by a formula, and is not to be written over. */
    default Set<Long> formulas(int column) {
        return Set.of();
    }

    /** Writes the same file with some cells of a column changed; every other byte stays. */
    void rewrite(Rewriting rewriting, OutputStream to) throws IOException, UnreadableDocument;

    /**
     * Opens a table and reads its first row.
     *
     * @param name of the file, whose ending tells its format
     * @param encoding of a text file, by its name; absent to find out
     */
    static TableFile open(Path file, String name, Optional<String> encoding) throws IOException, UnreadableDocument {
        String lower = name.toLowerCase(Locale.ROOT);
        if (lower.endsWith(".csv") || lower.endsWith(".tsv") || lower.endsWith(".txt"))
            return CsvFile.open(file, TextEncoding.of(file, encoding));
        if (lower.endsWith(".jsonl") || lower.endsWith(".ndjson"))
            return JsonLinesFile.open(file, TextEncoding.of(file, encoding));
        if (lower.endsWith(".xlsx")) return XlsxFile.open(file);
        throw new UnreadableDocument(
                "‘" + name + "’ is no table that can be read",
                "a file whose name ends in .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson");
    }
}
