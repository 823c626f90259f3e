package org.youngtally.documents.table;

import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Reader;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import org.youngtally.documents.UnreadableDocument;

/** Copies a text file symbol by symbol, and puts other text in the place of some of it. */
final class TextCopy implements AutoCloseable {
    private final Reader from;
    private final OutputStream to;
    private final Charset copied;
    private final Charset written;
    private final char[] buffer = new char[1 << 15];
    private long at;

    /**
     * @param copied by which what stays is read and written, byte for byte
     * @param written by which new text is written
     */
    TextCopy(Reader from, OutputStream to, Charset copied, Charset written) {
        this.from = from;
        this.to = to;
        this.copied = copied;
        this.written = written;
    }

    /** Copies up to a symbol, counted from the beginning of the file. */
    void copyTo(long symbol) throws IOException {
        while (at < symbol) {
            int count = from.read(buffer, 0, (int) Math.min(buffer.length, symbol - at));
            if (count < 0) throw new EOFException("the file became shorter while it was read");
            write(count);
        }
    }

    /** Leaves out what stands up to a symbol. */
    void skipTo(long symbol) throws IOException {
        while (at < symbol) {
            long count = from.skip(symbol - at);
            if (count <= 0) throw new EOFException("the file became shorter while it was read");
            at += count;
        }
    }

    void copyRest() throws IOException {
        for (int count = from.read(buffer); count >= 0; count = from.read(buffer)) write(count);
    }

    private void write(int count) throws IOException {
        at += count;
        to.write(new String(buffer, 0, count).getBytes(copied));
    }

    @Override
    public void close() throws IOException {
        from.close();
    }

    void put(String text) throws IOException, UnreadableDocument {
        try {
            var bytes = written.newEncoder().encode(CharBuffer.wrap(text));
            to.write(bytes.array(), bytes.arrayOffset(), bytes.limit());
        } catch (CharacterCodingException e) {
            throw new UnreadableDocument(
                    "The file is written in " + written.name() + ", which cannot hold ‘" + text + "’",
                    "the same file in UTF-8",
                    e);
        }
    }
}
