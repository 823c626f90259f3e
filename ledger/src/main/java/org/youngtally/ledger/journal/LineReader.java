package org.youngtally.ledger.journal;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;

/** Reads a segment line by line and says where each ends. */
final class LineReader implements AutoCloseable {
    private final InputStream in;
    private final byte[] buffer = new byte[1 << 16];
    private byte[] rest = new byte[0];
    private int at;
    private int filled;
    private long start;
    private long offset;
    private int number;

    LineReader(InputStream in) {
        this.in = in;
    }

    /**
     * Begins at a line somewhere in a segment; lines are counted from there.
     *
     * @param at in bytes
     */
    static LineReader from(InputStream in, long at) throws IOException {
        try {
            in.skipNBytes(at);
        } catch (IOException e) {
            in.close();
            throw e;
        }
        var lines = new LineReader(in);
        lines.offset = at;
        return lines;
    }

    /** The bytes up to the next line feed, without it; null at the end, where bytes without a line feed are no line. */
    byte[] next() throws IOException {
        var spilled = new ByteArrayOutputStream(0);
        while (true) {
            for (int i = at; i < filled; i++) {
                if (buffer[i] != '\n') continue;
                byte[] line = join(spilled, i);
                start = offset;
                offset += line.length + 1L;
                number++;
                at = i + 1;
                return line;
            }
            spilled.write(buffer, at, filled - at);
            at = 0;
            filled = in.read(buffer);
            if (filled < 0) {
                filled = 0;
                rest = spilled.toByteArray();
                return null;
            }
        }
    }

    private byte[] join(ByteArrayOutputStream spilled, int end) {
        if (spilled.size() == 0) return Arrays.copyOfRange(buffer, at, end);
        spilled.write(buffer, at, end - at);
        return spilled.toByteArray();
    }

    /** Where the line that was read last began, in bytes from the start. */
    long start() {
        return start;
    }

    /** Where the line that was read last ended, its line feed included, in bytes from the start. */
    long offset() {
        return offset;
    }

    /** Which line of the segment was read last, from 1. */
    int number() {
        return number;
    }

    /** After the last line: what stands behind it without a line feed. */
    byte[] rest() {
        return rest;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
