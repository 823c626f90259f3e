package org.youngtally.documents.table;

import org.youngtally.documents.UnreadableDocument;

/**
 * How large a table may be. It is counted while a file is read, before anything is made of it: a small file can name a
 * cell far away, or hold millions of empty lines.
 */
final class TableBounds {
    static final int MOST_COLUMNS = 1_000;
    static final int MOST_LINES = 1_100_000;
    /** What is left out between two cells counts as well. */
    static final long MOST_CELLS = 5_000_000;
    /** As in a workbook. */
    static final int LONGEST_CELL = 32_767;

    /** Of a table that is read row by row. */
    private static final int MOST_STREAMED_LINES = 6_000_000;

    private final int mostLines;
    private final long mostCells;
    private int lines;
    private long cells;

    private TableBounds(int mostLines, long mostCells) {
        this.mostLines = mostLines;
        this.mostCells = mostCells;
    }

    /** Of a table that is held in memory. */
    static TableBounds inMemory() {
        return new TableBounds(MOST_LINES, MOST_CELLS);
    }

    /** Of a table of which one line is held in memory. */
    static TableBounds streamed() {
        return new TableBounds(MOST_STREAMED_LINES, Long.MAX_VALUE);
    }

    /** A cell is in a column, counted from 0. */
    static void column(int column, int line) throws UnreadableDocument {
        if (column >= MOST_COLUMNS)
            throw new UnreadableDocument(
                    "Line %,d has a cell in column %,d".formatted(line, column + 1L),
                    "up to %,d columns".formatted(MOST_COLUMNS));
    }

    /** A cell holds so many symbols. */
    static void cell(long length, int line) throws UnreadableDocument {
        if (length > LONGEST_CELL)
            throw new UnreadableDocument(
                    "A cell of line %,d has more than %,d symbols".formatted(line, LONGEST_CELL),
                    "cells of up to %,d symbols".formatted(LONGEST_CELL));
    }

    /** A line ends, which has so many cells up to its last. */
    void line(int width) throws UnreadableDocument {
        lines++;
        cells += width;
        if (lines > mostLines)
            throw new UnreadableDocument(
                    "The file has more than %,d lines".formatted(mostLines),
                    "up to %,d lines, empty ones among them".formatted(mostLines));
        if (cells > mostCells)
            throw new UnreadableDocument(
                    "The file has more than %,d cells".formatted(mostCells),
                    "up to %,d cells, empty ones included".formatted(mostCells));
    }
}
