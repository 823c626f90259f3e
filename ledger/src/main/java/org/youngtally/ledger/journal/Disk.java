package org.youngtally.ledger.journal;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Optional;

/**
 * The folder in which a journal keeps its segments: the few things it asks of a disk, so that a test can be a bad one.
 */
public interface Disk {

    /** The names of all files, in no order. */
    List<String> names() throws IOException;

    InputStream read(String name) throws IOException;

    /** How many bytes a file has. */
    long size(String name) throws IOException;

    /** Whether a file is kept compressed; it is read as if it were not. */
    default boolean isPacked(String name) throws IOException {
        return false;
    }

    /**
     * Compresses a file that nothing is appended to any more. A process or a machine that ends meanwhile leaves it as
     * it was, or compressed.
     */
    default void pack(String name) throws IOException {}

    /** Opens a file to append to; it is made if it is not there, and its name is on disk when this returns. */
    AppendFile append(String name) throws IOException;

    /** Takes a file away; that is on disk when this returns. */
    void remove(String name) throws IOException;

    /**
     * Writes a byte beside the journal and forces it.
     *
     * @throws IOException where the disk takes nothing
     */
    void tryWriting() throws IOException;

    /** Looks after what is left to do on the disk, between two writes; quickly, and without failing. */
    default void tend() {}

    /** A file that grows at its end. It stays open where a thread is interrupted that is at work in it. */
    interface AppendFile extends AutoCloseable {
        long size() throws IOException;

        void append(byte[] bytes) throws IOException;

        /** Returns when everything appended is on disk. */
        void force() throws IOException;

        /**
         * Whether its name has come to stand for something else since it was opened, by somebody's hand.
         *
         * @return what has become of it, to be read behind its name; absent where all is well
         */
        default Optional<String> replaced() {
            return Optional.empty();
        }

        /**
         * Whether it is longer or shorter than it was left.
         *
         * @param size how many bytes it must have
         */
        default Optional<String> resized(long size) {
            return Optional.empty();
        }

        /** Cuts the file; that is on disk when this returns. */
        void truncate(long size) throws IOException;

        @Override
        void close() throws IOException;
    }
}
