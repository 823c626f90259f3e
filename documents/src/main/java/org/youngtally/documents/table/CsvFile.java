package org.youngtally.documents.table;

import java.io.IOException;
import java.io.OutputStream;
import java.io.Reader;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
    public void rewrite(Rewriting rewriting, OutputStream to) throws IOException, UnreadableDocument {
        try (Reader reader = encoding.reader(file);
                TextCopy copy = encoding.copy(file, to)) {
            var scanner = new CsvScanner(reader, TableBounds.streamed());
            var cells = new ArrayList<String>();
            while (scanner.read()) {
                cells(scanner, cells);
                boolean head = scanner.line() == 1;
                Optional<String> text = head || isEmpty(cells)
                        ? Optional.empty()
                        : rewriting.texts().apply(scanner.line());
                if (text.isPresent()) replace(scanner, rewriting.column(), text.get(), copy);
                if (rewriting.oldColumn().isEmpty() || isEmpty(cells)) continue;
                String old = rewriting.column() < cells.size() ? cells.get(rewriting.column()) : "";
                copy.copyTo(scanner.to(scanner.cells() - 1));
                int width = Math.max(scanner.cells(), text.isPresent() ? rewriting.column() + 1 : 0);
                for (int missing = width; missing <= columns.size(); missing++)
                    copy.put(String.valueOf(scanner.separator()));
                copy.put(written(
                        head ? rewriting.oldColumn().get() : text.isPresent() ? Formulas.harmless(old) : "",
                        scanner.separator()));
            }
            copy.copyRest();
        } catch (CharacterCodingException e) {
            throw encoding.wrong(e);
        }
    }

    private static void replace(CsvScanner scanner, int column, String text, TextCopy copy)
            throws IOException, UnreadableDocument {
        boolean there = column < scanner.cells();
        copy.copyTo(there ? scanner.from(column) : scanner.to(scanner.cells() - 1));
        for (int missing = scanner.cells(); missing <= column; missing++) copy.put(String.valueOf(scanner.separator()));
        copy.put(written(text, scanner.separator()));
        copy.skipTo(scanner.to(Math.min(column, scanner.cells() - 1)));
    }

    /** A text as a cell, in quotes where it needs them. */
    static String written(String text, char separator) {
        boolean plain = text.indexOf(separator) < 0
                && text.indexOf('"') < 0
                && text.indexOf('\n') < 0
                && text.indexOf('\r') < 0;
        return plain ? text : "\"" + text.replace("\"", "\"\"") + "\"";
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
