package org.youngtally.cli;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Set;
import java.util.UUID;

/** Files that are written anew, and never over others. */
final class NewFiles {
    private NewFiles() {}

    /** @throws IOException that says what is in the way, in words; nothing is left of the file then */
    static void write(Path file, byte[] bytes) throws IOException {
        try {
            Files.write(file, bytes, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE, StandardOpenOption.DSYNC);
        } catch (FileAlreadyExistsException e) {
            throw new IOException("File " + file + " already exists. It was not changed.", e);
        } catch (IOException e) {
            Files.deleteIfExists(file);
            throw new IOException("The file " + file + " cannot be written (" + e.getMessage() + ").", e);
        }
    }

    /** That a file could not be written, and not that the service could not be reached. */
    static final class NotWritten extends IOException {
        private static final long serialVersionUID = 1L;

        NotWritten(String message, IOException cause) {
            super(message, cause);
        }
    }

    /** The same of a file of any size. */
    static void write(Path file, InputStream from) throws IOException {
        try (OutputStream out = Files.newOutputStream(
                file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE, StandardOpenOption.DSYNC)) {
            var buffer = new byte[1 << 16];
            for (int count = from.read(buffer); count >= 0; count = from.read(buffer)) {
                try {
                    out.write(buffer, 0, count);
                } catch (IOException e) {
                    throw new NotWritten("The file " + file + " cannot be written (" + e.getMessage() + ").", e);
                }
            }
        } catch (FileAlreadyExistsException e) {
            throw new NotWritten("File " + file + " already exists. It was not changed.", e);
        } catch (IOException e) {
            Files.deleteIfExists(file);
            throw e;
        }
    }

    /** Writes the content of a file. */
    interface Writer {
        void to(OutputStream out) throws IOException;
    }

    /** What a file is to be, on the disk in its folder under another name. */
    static Path fresh(Path file, Writer writer) throws IOException {
        Path real = Files.exists(file) ? file.toRealPath() : file.toAbsolutePath();
        Path fresh = Files.createTempFile(real.getParent(), "." + real.getFileName() + "-", ".new");
        try (FileChannel channel = FileChannel.open(fresh, StandardOpenOption.WRITE);
                OutputStream out = new BufferedOutputStream(Channels.newOutputStream(channel), 1 << 16)) {
            writer.to(out);
            out.flush();
            channel.force(true);
            // What is made for a while is for its owner alone; a file that stays has the rights of others.
            PosixFileAttributeView rights = Files.getFileAttributeView(fresh, PosixFileAttributeView.class);
            if (rights != null) rights.setPermissions(permissions(real));
            return fresh;
        } catch (IOException e) {
            Files.deleteIfExists(fresh);
            throw new IOException("The file " + file + " cannot be written (" + e.getMessage() + ").", e);
        }
    }

    private static Set<PosixFilePermission> permissions(Path file) throws IOException {
        if (Files.exists(file)) return Files.getPosixFilePermissions(file);
        Path probe = file.resolveSibling("." + file.getFileName() + "-" + UUID.randomUUID());
        try {
            return Files.getPosixFilePermissions(Files.createFile(probe));
        } finally {
            Files.deleteIfExists(probe);
        }
    }

    /**
     * Puts what a file is to be in its place: it is as it was, or as it is to be; never half.
     *
     * @param over whether it may take the place of another; else one that is there already has to be the same
     */
    static void into(Path fresh, Path file, boolean over) throws IOException {
        if (over) {
            Path real = Files.exists(file) ? file.toRealPath() : file;
            Files.move(fresh, real, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            return;
        }
        try {
            link(fresh, file);
        } catch (FileAlreadyExistsException e) {
            if (Files.mismatch(file, fresh) != -1)
                throw new IOException("File " + file + " already exists. It was not changed.", e);
        }
        Files.deleteIfExists(fresh);
    }

    private static void link(Path fresh, Path file) throws IOException {
        try {
            Files.createLink(file, fresh);
        } catch (FileAlreadyExistsException e) {
            throw e;
        } catch (UnsupportedOperationException | FileSystemException e) {
            // Not every file system has links.
            Files.copy(fresh, file);
        }
    }

    /** A file beside another, with something behind its name. */
    static Path beside(Path file, String behind, String ending) {
        String name = file.getFileName().toString();
        int dot = name.lastIndexOf('.');
        return file.resolveSibling((dot < 0 ? name : name.substring(0, dot))
                + behind
                + (ending != null ? ending : dot < 0 ? "" : name.substring(dot)));
    }

    /** The size of a file that is to be read. */
    static long size(Path file) throws IOException {
        try {
            if (Files.isDirectory(file)) throw new IOException(file + " is a folder. Name a file.");
            return Files.size(file);
        } catch (NoSuchFileException e) {
            throw new IOException("File " + file + " not found.", e);
        }
    }

    static byte[] read(Path file) throws IOException {
        try {
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new IOException("File " + file + " not found.", e);
        } catch (IOException e) {
            throw new IOException("The file " + file + " cannot be read (" + e.getMessage() + ").", e);
        }
    }
}
