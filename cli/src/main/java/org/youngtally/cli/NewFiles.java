package org.youngtally.cli;

import java.io.IOException;
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
