package org.youngtally.ledger.journal;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.stream.Stream;

/** A real folder. */
public record FolderDisk(Path folder) implements Disk {
    private static final int READ_BUFFER = 1 << 18;

    @Override
    public List<String> names() throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).toList();
        }
    }

    @Override
    public InputStream read(String name) throws IOException {
        return new BufferedInputStream(Files.newInputStream(folder.resolve(name)), READ_BUFFER);
    }

    @Override
    public AppendFile append(String name) throws IOException {
        Files.createDirectories(folder);
        Path file = folder.resolve(name);
        FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        channel.position(channel.size());
        forceFolder();
        return new RealFile(channel);
    }

    @Override
    public void remove(String name) throws IOException {
        Files.delete(folder.resolve(name));
        forceFolder();
    }

    /** A new name is only safe once its folder is, and a new folder once its parent is. */
    private void forceFolder() throws IOException {
        force(folder);
        force(folder.toAbsolutePath().getParent());
    }

    /** Returns when the names in a folder are on disk. Windows keeps names safe by itself, and cannot open a folder. */
    public static void force(Path folder) throws IOException {
        if (System.getProperty("os.name").startsWith("Windows")) return;
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        }
    }

    private record RealFile(FileChannel channel) implements AppendFile {
        @Override
        public long size() throws IOException {
            return channel.size();
        }

        @Override
        public void append(ByteBuffer bytes) throws IOException {
            while (bytes.hasRemaining()) channel.write(bytes);
        }

        @Override
        public void force() throws IOException {
            channel.force(false);
        }

        @Override
        public void truncate(long size) throws IOException {
            channel.truncate(size);
            channel.position(size);
            channel.force(true);
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }
}
