package org.youngtally.documents.table;

import java.io.IOException;
import java.io.Reader;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.documents.UnreadableDocument;

/** A table as text with separators; its first line has the names of the columns. */
record CsvFile(Path file, TextEncoding encoding, List<String> columns) implements TableFile {

    static CsvFile open(Path file, TextEncoding encoding) throws IOException, UnreadableDocument {
        try (Reader reader = encoding.reader(file)) {
            var scanner = new CsvScanner(reader, TableBounds.streamed());
            var names = new ArrayList<String>();
            if (scanner.read()) cells(scanner, names);
            if (names.stream().allMatch(String::isEmpty))
                throw new UnreadableDocument(
                        "The first line of the file is empty", "a first line with the names of the columns");
            return new CsvFile(file, encoding, List.copyOf(names));
        } catch (CharacterCodingException e) {
            throw encoding.wrong(e);
        }
    }

    private static void cells(CsvScanner scanner, List<String> to) {
        to.clear();
        for (int i = 0; i < scanner.cells(); i++) to.add(scanner.text(i).strip());
    }

    private static boolean isEmpty(List<String> cells) {
        for (String cell : cells) if (!cell.isEmpty()) return false;
        return true;
    }

    @Override
    public List<String> notes() {
        return encoding.note().stream().toList();
    }

    @Override
    public void read(RowReader rows) throws IOException, UnreadableDocument {
        try (Reader reader = encoding.reader(file)) {
            var scanner = new CsvScanner(reader, TableBounds.streamed());
            scanner.read();
            var cells = new ArrayList<String>();
            while (scanner.read()) {
                cells(scanner, cells);
                if (!isEmpty(cells) && !rows.row(scanner.line(), cells)) return;
            }
        } catch (CharacterCodingException e) {
            throw encoding.wrong(e);
        }
    }
}
