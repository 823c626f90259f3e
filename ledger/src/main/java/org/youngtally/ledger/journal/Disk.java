package org.youngtally.ledger.journal;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.List;

/**
 * The folder in which a journal keeps its segments: the few things it asks of a disk, so that a test can be a bad one.
 */
public interface Disk {

    /** The names of all files, in no order. */
    List<String> names() throws IOException;

    InputStream read(String name) throws IOException;

    /** Opens a file to append to; it is made if it is not there, and its name is on disk when this returns. */
    AppendFile append(String name) throws IOException;

    /** Takes a file away; that is on disk when this returns. */
    void remove(String name) throws IOException;

    /** A file that grows at its end. */
    interface AppendFile extends AutoCloseable {
        long size() throws IOException;

        void append(ByteBuffer bytes) throws IOException;

        /** Returns when everything appended is on disk. */
        void force() throws IOException;

        /** Cuts the file; that is on disk when this returns. */
        void truncate(long size) throws IOException;

        @Override
        void close() throws IOException;
    }
}
