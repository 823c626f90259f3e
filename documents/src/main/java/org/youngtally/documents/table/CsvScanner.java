package org.youngtally.documents.table;

import java.io.IOException;
import java.io.Reader;
import java.util.Arrays;
import org.youngtally.documents.UnreadableDocument;

/**
 * Text with separators, by RFC 4180, line by line: semicolons and tabs separate as well as commas, and a line ends with
 * CR, LF or both. It holds one line in memory, and tells where each cell stands.
 */
final class CsvScanner {
    private static final int BUFFER = 1 << 16;
    private static final int NOTHING = -1;

    private final Reader reader;
    private final char separator;
    private final TableBounds bounds;
    private final char[] buffer = new char[BUFFER];
    private int filled;
    private int next;
    /** How many symbols were read before the buffer. */
    private long before;

    private int line;
    private int cells;
    private String[] texts = new String[16];
    private long[] from = new long[16];
    private long[] to = new long[16];
    private final StringBuilder cell = new StringBuilder();

    CsvScanner(Reader reader, TableBounds bounds) throws IOException {
        this.reader = reader;
        this.bounds = bounds;
        fill();
        this.separator = separator(buffer, filled);
        if (filled > 0 && buffer[0] == '\uFEFF') next = 1;
    }

    /** The one that separates most in the first line. */
    private static char separator(char[] text, int length) {
        char[] known = {',', ';', '\t'};
        int[] counts = new int[known.length];
        for (int i = 0; i < length && text[i] != '\n' && text[i] != '\r'; i++)
            for (int j = 0; j < known.length; j++) if (text[i] == known[j]) counts[j]++;
        int best = 0;
        for (int j = 1; j < known.length; j++) if (counts[j] > counts[best]) best = j;
        return known[best];
    }

    private boolean fill() throws IOException {
        before += filled;
        next = 0;
        filled = 0;
        int count = reader.read(buffer, 0, BUFFER);
        if (count <= 0) return false;
        filled = count;
        return true;
    }

    private int peek() throws IOException {
        return next < filled || fill() ? buffer[next] : NOTHING;
    }

    char separator() {
        return separator;
    }

    /** The line that was read last, from 1: of the table, where a line of text within quotes is none of its own. */
    int line() {
        return line;
    }

    int cells() {
        return cells;
    }

    /** A cell as it is meant, without its quotes. */
    String text(int cell) {
        return texts[cell];
    }

    /** Where a cell begins, quotes among it, in symbols from the beginning of the file. */
    long from(int cell) {
        return from[cell];
    }

    /** Where a cell ends: behind its last symbol. */
    long to(int cell) {
        return to[cell];
    }

    /** Reads the next line; false where there is none. */
    boolean read() throws IOException, UnreadableDocument {
        if (peek() == NOTHING) return false;
        line++;
        cells = 0;
        while (true) {
            cell();
            int end = peek();
            if (end == NOTHING) break;
            next++;
            if (end == separator) continue;
            if (end == '\r' && peek() == '\n') next++;
            break;
        }
        bounds.line(cells);
        return true;
    }

    private void cell() throws IOException, UnreadableDocument {
        TableBounds.column(cells, line);
        if (cells == texts.length) {
            texts = Arrays.copyOf(texts, 2 * cells);
            from = Arrays.copyOf(from, 2 * cells);
            to = Arrays.copyOf(to, 2 * cells);
        }
        from[cells] = before + next;
        cell.setLength(0);
        boolean quoted = peek() == '"';
        if (quoted) quoted();
        plain();
        to[cells] = before + next;
        texts[cells++] = value(quoted);
    }

    private void quoted() throws IOException, UnreadableDocument {
        cell.append(buffer[next++]);
        while (true) {
            int symbol = peek();
            if (symbol == NOTHING)
                throw new UnreadableDocument(
                        "A quotation mark of line " + line + " is never closed",
                        "a second quotation mark after the text");
            cell.append((char) symbol);
            next++;
            if (symbol != '"') TableBounds.cell(cell.length(), line);
            else if (peek() == '"') cell.append(buffer[next++]);
            else return;
        }
    }

    /** Up to the end of the cell, a stretch of the buffer at a time. */
    private void plain() throws IOException, UnreadableDocument {
        while (peek() != NOTHING) {
            int start = next;
            while (next < filled && !ends(buffer[next])) next++;
            cell.append(buffer, start, next - start);
            TableBounds.cell(cell.length(), line);
            if (next < filled) return;
        }
    }

    private boolean ends(char symbol) {
        return symbol == separator || symbol == '\n' || symbol == '\r';
    }

    private String value(boolean quoted) {
        String raw = cell.toString();
        if (!quoted && (raw.isEmpty() || raw.charAt(raw.length() - 1) != '"')) return raw;
        String written = raw.strip();
        if (written.length() < 2 || !written.startsWith("\"") || !written.endsWith("\"")) return raw;
        return written.substring(1, written.length() - 1).replace("\"\"", "\"");
    }
}
