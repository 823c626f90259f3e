package org.youngtally.ledger.journal;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Folders and files that only their owner may read: they hold records, and what passwords were turned into. Where files
 * have no such modes, as on Windows, they are as their folder is.
 */
public final class OwnerOnly {
    private static final Set<PosixFilePermission> FOLDER = PosixFilePermissions.fromString("rwx------");
    private static final Set<PosixFilePermission> FILE = PosixFilePermissions.fromString("rw-------");

    private OwnerOnly() {}

    /** Makes a folder, and those above it as usual; one that is there stays as it is. */
    public static void makeFolder(Path folder) throws IOException {
        if (Files.isDirectory(folder)) return;
        Path parent = folder.toAbsolutePath().getParent();
        if (parent != null) Files.createDirectories(parent);
        try {
            Files.createDirectory(folder, attributes(folder, FOLDER));
        } catch (FileAlreadyExistsException e) {
            if (!Files.isDirectory(folder)) throw e;
        }
    }

    /** Makes an empty file. */
    public static void makeFile(Path file) throws IOException {
        Files.createFile(file, attributes(file, FILE));
    }

    /**
     * Closes a folder to others, with all that is in it.
     *
     * @return whether others could look into it
     */
    public static boolean close(Path folder) throws IOException {
        if (!hasModes(folder)
                || !Files.isDirectory(folder)
                || FOLDER.containsAll(Files.getPosixFilePermissions(folder))) return false;
        Files.setPosixFilePermissions(folder, FOLDER);
        List<Path> within;
        try (Stream<Path> all = Files.walk(folder)) {
            within = all.filter(each -> !Files.isSymbolicLink(each)).toList();
        }
        for (Path each : within) Files.setPosixFilePermissions(each, Files.isDirectory(each) ? FOLDER : FILE);
        return true;
    }

    private static FileAttribute<?>[] attributes(Path path, Set<PosixFilePermission> permissions) {
        return hasModes(path)
                ? new FileAttribute<?>[] {PosixFilePermissions.asFileAttribute(permissions)}
                : new FileAttribute<?>[0];
    }

    private static boolean hasModes(Path path) {
        return path.getFileSystem().supportedFileAttributeViews().contains("posix");
    }
}
