package org.youngtally.ledger;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.stream.Stream;
import org.youngtally.ledger.journal.FolderDisk;

/** The data folder: the lock by which one process owns it, and the mark by which an unclean end is known. */
final class DataFolder implements AutoCloseable {
    private final LedgerOptions options;
    private final FileChannel lockFile;
    private final FileLock lock;

    private DataFolder(LedgerOptions options, FileChannel lockFile, FileLock lock) {
        this.options = options;
        this.lockFile = lockFile;
        this.lock = lock;
    }

    /** Takes the folder, or throws {@link LedgerInUse} where another process has it. */
    static DataFolder own(LedgerOptions options) throws IOException {
        if (!Files.exists(options.data())) make(options.data());
        FileChannel channel =
                FileChannel.open(options.data().resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException e) {
            lock = null;
        }
        if (lock == null) {
            channel.close();
            throw new LedgerInUse(options.data());
        }
        return new DataFolder(options, channel, lock);
    }

    /** For its owner alone: the journal holds what passwords were turned into. */
    private static void make(Path folder) throws IOException {
        Path parent = folder.toAbsolutePath().getParent();
        if (parent != null) Files.createDirectories(parent);
        boolean posix = folder.getFileSystem().supportedFileAttributeViews().contains("posix");
        if (posix)
            Files.createDirectory(
                    folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        else Files.createDirectory(folder);
    }

    private Path marker() {
        return options.data().resolve("in-use");
    }

    boolean endedUncleanly() {
        return Files.exists(marker());
    }

    boolean machineMayHaveGoneDown() throws IOException {
        return MachineRun.mayHaveGoneDown(marker(), options.machineRun());
    }

    /**
     * An entry that the journal held when the folder was last taken into use, and so must hold for ever; 0 where that
     * is not known.
     */
    long knownEntry() throws IOException {
        List<String> lines = endedUncleanly() ? Files.readAllLines(marker()) : List.of();
        return lines.size() > 1 && lines.get(1).matches("[0-9]{1,18}") ? Long.parseLong(lines.get(1)) : 0;
    }

    /** From here on, an end without {@link #unmark} is unclean. */
    void mark(long entry) throws IOException {
        Files.writeString(marker(), options.machineRun() + "\n" + entry + "\n");
        try (FileChannel channel = FileChannel.open(marker(), StandardOpenOption.WRITE)) {
            channel.force(true);
        }
        FolderDisk.force(options.data());
    }

    /**
     * To be called once everything is on disk, the tables included: the next start trusts them then, whatever happened
     * to the machine.
     */
    void unmark() throws IOException {
        Files.deleteIfExists(marker());
    }

    /** Puts the files of the tables aside; those put aside before are gone. */
    void setTablesAside() throws IOException {
        if (!Files.isDirectory(options.tables())) return;
        try (Stream<Path> files = Files.list(options.tables())) {
            for (Path file : files.filter(each -> each.getFileName().toString().startsWith("tally."))
                    .toList()) {
                Files.move(
                        file,
                        options.tables().resolve("aside-" + file.getFileName()),
                        StandardCopyOption.REPLACE_EXISTING);
            }
        }
    }

    @Override
    public void close() throws IOException {
        lock.release();
        lockFile.close();
    }
}
