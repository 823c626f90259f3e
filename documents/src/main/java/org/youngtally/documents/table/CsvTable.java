package org.youngtally.documents.table;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.youngtally.documents.UnreadableDocument;

/**
 * A table as text with separators, by RFC 4180; semicolons and tabs separate as well as commas. It remembers where each
 * cell stands, so that a file is given back letter by letter but for what is filled.
 */
final class CsvTable implements Table {
    /** Where a cell stands: from its first symbol, quotes among them, to behind its last. */
    private record Cell(int from, int to, String text) {}

    private final String text;
    private final Charset charset;
    private final char separator;
    private final List<List<Cell>> lines = new ArrayList<>();

    private CsvTable(String text, Charset charset) throws UnreadableDocument {
        this.text = text;
        this.charset = charset;
        try {
            var scanner = new CsvScanner(new StringReader(text), TableBounds.inMemory());
            this.separator = scanner.separator();
            while (scanner.read()) lines.add(cells(scanner));
        } catch (IOException e) {
            throw new UncheckedIOException("a text in memory was not read", e);
        }
        if (lines.isEmpty())
            throw new UnreadableDocument("The file is empty", "a first line with the names of the columns");
    }

    private static List<Cell> cells(CsvScanner scanner) {
        var cells = new ArrayList<Cell>(scanner.cells());
        for (int i = 0; i < scanner.cells(); i++)
            cells.add(new Cell((int) scanner.from(i), (int) scanner.to(i), scanner.text(i)));
        return cells;
    }

    static CsvTable of(byte[] bytes) throws UnreadableDocument {
        try {
            return new CsvTable(
                    StandardCharsets.UTF_8
                            .newDecoder()
                            .decode(ByteBuffer.wrap(bytes))
                            .toString(),
                    StandardCharsets.UTF_8);
        } catch (CharacterCodingException e) {
            // Each byte is a symbol then, so that all of them come back as they were.
            return new CsvTable(new String(bytes, StandardCharsets.ISO_8859_1), StandardCharsets.ISO_8859_1);
        }
    }

    @Override
    public List<String> columns() {
        return lines.getFirst().stream().map(cell -> cell.text().strip()).toList();
    }

    @Override
    public List<Row> rows() {
        var rows = new ArrayList<Row>();
        for (int i = 1; i < lines.size(); i++) {
            List<String> cells =
                    lines.get(i).stream().map(cell -> cell.text().strip()).toList();
            if (cells.stream().anyMatch(cell -> !cell.isEmpty())) rows.add(new Row(i + 1, cells));
        }
        return rows;
    }

    @Override
    public byte[] filled(int column, Map<Integer, String> texts) throws UnreadableDocument {
        var out = new StringBuilder(text.length() + texts.size() * 16);
        int copied = 0;
        for (int i = 0; i < lines.size(); i++) {
            String filling = texts.get(i + 1);
            if (filling == null) continue;
            List<Cell> cells = lines.get(i);
            Cell cell = cells.get(Math.min(column, cells.size() - 1));
            boolean there = column < cells.size();
            out.append(text, copied, there ? cell.from() : cell.to());
            // A row that ends early gets the cells between as well.
            for (int missing = cells.size(); missing <= column; missing++) out.append(separator);
            out.append(written(filling));
            copied = cell.to();
        }
        return encoded(out.append(text, copied, text.length()).toString());
    }

    /**
     * The file with one more column at the end.
     *
     * @param text what is in it in each row in which anything does
     */
    byte[] withColumn(String name, String filling) throws UnreadableDocument {
        var out = new StringBuilder();
        int copied = 0;
        for (int i = 0; i < lines.size(); i++) {
            List<Cell> cells = lines.get(i);
            if (i > 0 && cells.stream().allMatch(cell -> cell.text().isBlank())) continue;
            int end = cells.getLast().to();
            out.append(text, copied, end);
            for (int missing = cells.size(); missing <= columns().size(); missing++) out.append(separator);
            out.append(written(i == 0 ? name : filling));
            copied = end;
        }
        return encoded(out.append(text, copied, text.length()).toString());
    }

    private String written(String filling) {
        return CsvFile.written(filling, separator);
    }

    private byte[] encoded(String whole) throws UnreadableDocument {
        if (!charset.newEncoder().canEncode(whole))
            throw new UnreadableDocument(
                    "The file is written in Latin-1, which has not all symbols of the identifiers",
                    "the same file in UTF-8");
        return whole.getBytes(charset);
    }
}
