package org.youngtally.ledger.journal;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.zip.Deflater;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/** A segment and its compressed form beside it (gzip, RFC 1952), of which a process that died may have left both. */
record PackedFile(Path plain, Path packed) {
    private static final int PIECE = 1 << 16;
    private static final String UNFINISHED = ".part";
    /** Of the last field of the format: how long the unpacked file is, modulo 2^32, the lowest byte first. */
    private static final int LENGTH_BYTES = 4;

    static PackedFile of(Path plain) {
        return new PackedFile(plain, plain.resolveSibling(plain.getFileName() + Segment.PACKED));
    }

    boolean isPacked() {
        return !Files.exists(plain) && Files.exists(packed);
    }

    InputStream read() throws IOException {
        return read(packed);
    }

    private static InputStream read(Path file) throws IOException {
        InputStream in = Files.newInputStream(file);
        try {
            return new BufferedInputStream(new GZIPInputStream(in, PIECE), PIECE);
        } catch (IOException e) {
            in.close();
            throw e;
        }
    }

    /** How long the unpacked file is, in bytes; of one shorter than 4 GB. */
    long size() throws IOException {
        try (var file = new RandomAccessFile(packed.toFile(), "r")) {
            file.seek(Math.max(0, file.length() - LENGTH_BYTES));
            return Integer.toUnsignedLong(Integer.reverseBytes(file.readInt()));
        }
    }

    /** Puts the compressed form in the place of the other, once it is on disk and was read back. */
    void pack() throws IOException {
        deleteUnfinished();
        replace(plain, packed, false);
    }

    /** What a process left that died while it did this. */
    private void deleteUnfinished() throws IOException {
        try (DirectoryStream<Path> left =
                Files.newDirectoryStream(plain.toAbsolutePath().getParent(), plain.getFileName() + "*" + UNFINISHED)) {
            for (Path each : left) Files.deleteIfExists(each);
        }
    }

    /** Puts the plain form back. */
    void unpack() throws IOException {
        replace(packed, plain, true);
    }

    private void replace(Path from, Path to, boolean unpacks) throws IOException {
        Path folder = plain.toAbsolutePath().getParent();
        // Of a name of its own: whoever else may do the same by mistake does not write into it.
        Path fresh = Files.createTempFile(folder, plain.getFileName().toString(), UNFINISHED);
        try {
            try (InputStream in = unpacks ? read() : Files.newInputStream(from);
                    FileChannel channel = FileChannel.open(fresh, StandardOpenOption.WRITE);
                    OutputStream out = unpacks
                            ? Channels.newOutputStream(channel)
                            : new QuickGzip(Channels.newOutputStream(channel))) {
                in.transferTo(out);
                out.flush();
                if (out instanceof GZIPOutputStream gzip) gzip.finish();
                channel.force(true);
            }
            if (!unpacks) compare(fresh);
            Files.move(fresh, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            FolderDisk.force(folder);
            Files.delete(from);
            FolderDisk.force(folder);
        } finally {
            Files.deleteIfExists(fresh);
        }
    }

    private void compare(Path fresh) throws IOException {
        try (InputStream written = read(fresh);
                InputStream meant = Files.newInputStream(plain)) {
            byte[] expected = meant.readNBytes(PIECE);
            while (expected.length > 0) {
                if (!Arrays.equals(expected, written.readNBytes(expected.length)))
                    throw new IOException(fresh + " does not read back as it was written");
                expected = meant.readNBytes(PIECE);
            }
            if (written.read() >= 0) throw new IOException(fresh + " is longer than what was written");
        }
    }

    /** At the quickest level: hashes are most of what is left, and no level makes them smaller. */
    private static final class QuickGzip extends GZIPOutputStream {
        QuickGzip(OutputStream out) throws IOException {
            super(out, PIECE);
            def.setLevel(Deflater.BEST_SPEED);
        }
    }
}
