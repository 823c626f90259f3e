package org.youngtally.documents;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.youngtally.documents.NumberedFile.Reading;

/** Reads the files of a document, in their order. */
public final class DocumentFiles {
    private DocumentFiles() {}

    /** A file with its name. */
    public record NamedContent(String name, Content content) {}

    /**
     * @throws UnreadableDocument that names the file; for two of one name; and for a table that has rows for more
     *     pieces than there are
     */
    public static List<NumberedFile> read(List<NamedContent> files, Reading reading)
            throws IOException, UnreadableDocument {
        var names = new HashSet<String>();
        var read = new ArrayList<NumberedFile>();
        int rows = 0;
        for (NamedContent file : files) {
            if (!names.add(file.name()))
                throw new UnreadableDocument("Two files are called ‘" + file.name() + "’", "each file by its own name");
            NumberedFile sheet = read(file, read.size() + 1, reading.behind(rows));
            rows += sheet.rows();
            read.add(sheet);
        }
        int all = reading.rows().map(List::size).orElse(0);
        if (rows < all)
            throw new UnreadableDocument(
                    "The table has " + all + " rows for " + rows + " pieces", "a row for each piece");
        return read;
    }

    private static NumberedFile read(NamedContent file, int number, Reading reading)
            throws IOException, UnreadableDocument {
        try {
            return NumberedFile.read(file.content(), file.name(), number, reading);
        } catch (UnreadableDocument e) {
            throw e.getMessage().contains("‘" + file.name() + "’")
                    ? e
                    : new UnreadableDocument(file.name() + ": " + e.getMessage(), e.accepted(), e);
        }
    }
}
