package org.youngtally.ledger.journal;

import java.io.BufferedInputStream;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedByInterruptException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;

/** A real folder. */
public record FolderDisk(Path folder) implements Disk {
    private static final int READ_BUFFER = 1 << 18;

    @Override
    public List<String> names() throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> Segment.unpackedName(file.getFileName().toString()))
                    .distinct()
                    .toList();
        }
    }

    private PackedFile segment(String name) {
        return PackedFile.of(folder.resolve(name));
    }

    @Override
    public boolean isPacked(String name) {
        return segment(name).isPacked();
    }

    @Override
    public void pack(String name) throws IOException {
        if (Files.exists(folder.resolve(name))) segment(name).pack();
    }

    @Override
    public InputStream read(String name) throws IOException {
        try {
            return new BufferedInputStream(Files.newInputStream(folder.resolve(name)), READ_BUFFER);
        } catch (NoSuchFileException e) {
            // It may be compressed at any moment.
            if (isPacked(name)) return segment(name).read();
            throw e;
        }
    }

    @Override
    public long size(String name) throws IOException {
        try {
            return Files.size(folder.resolve(name));
        } catch (NoSuchFileException e) {
            if (isPacked(name)) return segment(name).size();
            throw e;
        }
    }

    @Override
    public AppendFile append(String name) throws IOException {
        OwnerOnly.makeFolder(folder);
        Path file = folder.resolve(name);
        if (isPacked(name)) segment(name).unpack();
        if (!Files.exists(file)) OwnerOnly.makeFile(file);
        // Always at the end: what another process should have written behind the end is not overwritten.
        var end = new FileOutputStream(file.toFile(), true);
        try {
            forceFolder();
            return new RealFile(file, keyOf(file), end, new RandomAccessFile(file.toFile(), "rw"));
        } catch (IOException e) {
            end.close();
            throw e;
        }
    }

    @Override
    public void remove(String name) throws IOException {
        boolean packed = Files.deleteIfExists(segment(name).packed());
        if (packed) Files.deleteIfExists(folder.resolve(name));
        else Files.delete(folder.resolve(name));
        forceFolder();
    }

    @Override
    public void tryWriting() throws IOException {
        try (FileChannel channel = FileChannel.open(
                folder.resolveSibling("writable"), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            channel.write(ByteBuffer.wrap(new byte[] {'.'}));
            channel.force(false);
        }
    }

    /** A new name is only safe once its folder is, and a new folder once its parent is. */
    private void forceFolder() throws IOException {
        force(folder);
        force(folder.toAbsolutePath().getParent());
    }

    /** Returns when the names in a folder are on disk. Windows keeps names safe by itself, and cannot open a folder. */
    public static void force(Path folder) throws IOException {
        if (System.getProperty("os.name").startsWith("Windows")) return;
        boolean interrupted = false;
        while (true) {
            try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
                channel.force(true);
                break;
            } catch (ClosedByInterruptException e) {
                // Somebody waits for the names, whatever this thread is to do later.
                interrupted |= Thread.interrupted();
            }
        }
        if (interrupted) Thread.currentThread().interrupt();
    }

    private static Object keyOf(Path file) throws IOException {
        return Files.readAttributes(file, BasicFileAttributes.class).fileKey();
    }

    /**
     * A file opened twice, by what does not close when a thread is interrupted, as a channel does.
     *
     * @param end that always writes behind what is there
     * @param whole to measure and to cut it
     */
    private record RealFile(Path file, Object identity, FileOutputStream end, RandomAccessFile whole)
            implements AppendFile {
        @Override
        public Optional<String> replaced() {
            try {
                return Objects.equals(keyOf(file), identity)
                        ? Optional.empty()
                        : Optional.of("is another file than was opened");
            } catch (NoSuchFileException e) {
                return Optional.of("is gone");
            } catch (IOException e) {
                return Optional.of("cannot be looked at (" + e.getMessage() + ")");
            }
        }

        @Override
        public Optional<String> resized(long size) {
            try {
                long now = whole.length();
                return now == size
                        ? Optional.empty()
                        : Optional.of("holds " + now + " bytes instead of the " + size + " that were written");
            } catch (IOException e) {
                return Optional.of("cannot be looked at (" + e.getMessage() + ")");
            }
        }

        @Override
        public long size() throws IOException {
            return whole.length();
        }

        @Override
        public void append(byte[] bytes) throws IOException {
            end.write(bytes);
        }

        @Override
        public void force() throws IOException {
            end.getFD().sync();
        }

        @Override
        public void truncate(long size) throws IOException {
            whole.setLength(size);
            whole.getFD().sync();
        }

        @Override
        public void close() throws IOException {
            try (whole) {
                end.close();
            }
        }
    }
}
