package org.youngtally.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

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
