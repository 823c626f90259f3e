package org.youngtally.documents;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashSet;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.utils.SeekableInMemoryByteChannel;

/** Files that are ZIP archives with parts, by ECMA-376 part 2. */
public final class PackedFile {
    private PackedFile() {}

    /**
     * Proves that all parts together are no more than can be read, and those of XML: a small file can hold very much.
     *
     * @param called what the file is called at the beginning of a sentence
     */
    public static void bounded(byte[] bytes, long most, String called) throws IOException, UnreadableDocument {
        long size = 0;
        var buffer = new byte[1 << 16];
        var names = new HashSet<String>();
        try (ZipFile zip = zip(bytes)) {
            for (ZipArchiveEntry entry : Collections.list(zip.getEntries())) {
                if (!names.add(entry.getName()))
                    throw new UnreadableDocument(
                            called + " has the part ‘" + entry.getName() + "’ twice", "each part once");
                var limits = XmlLimits.ofPart(called);
                try (InputStream in = zip.getInputStream(entry)) {
                    for (int count = in.read(buffer); count >= 0 && size <= most; count = in.read(buffer)) {
                        size += count;
                        limits.pass(buffer, count);
                    }
                    if (size > most)
                        throw new UnreadableDocument(
                                called + " holds more than can be read",
                                "up to " + most / 1_000_000 + " MB once it is unpacked");
                }
            }
        }
    }

    /** @throws IOException where there is no such part */
    public static <T> T part(byte[] bytes, String name, PartReader<T> reader) throws IOException, UnreadableDocument {
        try (ZipFile zip = zip(bytes)) {
            ZipArchiveEntry entry = zip.getEntry(name);
            if (entry == null) throw new IOException("it has no part " + name);
            try (InputStream in = zip.getInputStream(entry)) {
                return reader.read(in);
            }
        }
    }

    /** Reads a part. */
    @FunctionalInterface
    public interface PartReader<T> {
        T read(InputStream part) throws IOException, UnreadableDocument;
    }

    /** Writes a part that is otherwise. */
    @FunctionalInterface
    public interface PartWriter {
        void write(InputStream part, OutputStream to) throws IOException, UnreadableDocument;
    }

    /** The same file with another content of one part; all others are passed on as they are packed. */
    public static byte[] with(byte[] bytes, String part, PartWriter writer) throws IOException, UnreadableDocument {
        // With a channel that it can go back in, sizes are written where every reader looks for them.
        var out = new SeekableInMemoryByteChannel();
        try (ZipFile from = zip(bytes);
                var to = new ZipArchiveOutputStream(out)) {
            for (ZipArchiveEntry entry : Collections.list(from.getEntriesInPhysicalOrder())) {
                if (!entry.getName().equals(part)) {
                    to.addRawArchiveEntry(entry, from.getRawInputStream(entry));
                    continue;
                }
                to.putArchiveEntry(new ZipArchiveEntry(part));
                try (InputStream in = from.getInputStream(entry)) {
                    writer.write(in, to);
                }
                to.closeArchiveEntry();
            }
        }
        return Arrays.copyOf(out.array(), (int) out.size());
    }

    private static ZipFile zip(byte[] bytes) throws IOException {
        return ZipFile.builder().setByteArray(bytes).get();
    }
}
