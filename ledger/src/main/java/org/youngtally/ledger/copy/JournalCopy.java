package org.youngtally.ledger.copy;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.OwnerOnly;

/**
 * The copy of a journal in its folder: the lock by which one process writes it, and the note beside it. The folder has
 * the journal's files in {@code journal}, the note in {@code about}.
 */
public final class JournalCopy implements AutoCloseable {
    private final CopyPlace place;
    private final TwinDisk disk;
    private final Optional<CopyNote> found;
    private final FileChannel lockFile;
    private final FileLock lock;
    private boolean proved;

    private JournalCopy(CopyPlace place, TwinDisk disk, Optional<CopyNote> found, FileChannel lockFile, FileLock lock) {
        this.place = place;
        this.disk = disk;
        this.found = found;
        this.lockFile = lockFile;
        this.lock = lock;
    }

    /** The files of a journal that are kept in a folder. */
    public static Disk disk(Path folder) {
        return new FolderDisk(folder.resolve("journal"));
    }

    /**
     * Opens a copy to be written beside a journal.
     *
     * @param noted what the data folder says of its copy; absent where it had none
     * @throws IOException where it cannot be opened, unless numbers are to be allocated without it and the copy is
     *     known to say so
     */
    public static JournalCopy open(Disk main, CopyPlace place, Optional<CopyPlace> noted) throws IOException {
        if (noted.isPresent() && !noted.get().folder().equals(place.folder()))
            throw new IOException("--journal-copy: the journal of this folder is copied to "
                    + noted.get().folder() + ", not to " + place.folder()
                    + ". Name that folder, or end that copy first with --end-journal-copy");
        var twin = new TwinDisk(main, disk(place.folder()), place.folder().toString(), place.policy());
        FileChannel channel = null;
        try {
            OwnerOnly.makeFolder(place.folder());
            OwnerOnly.close(place.folder());
            channel = FileChannel.open(
                    place.folder().resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            FileLock lock = locked(channel, place);
            Optional<CopyNote> note = CopyNote.in(place.folder());
            twin.copy().tryWriting();
            return new JournalCopy(place, twin, note, channel, lock);
        } catch (FileSystemException e) {
            if (channel != null) channel.close();
            if (place.policy() != CopyPolicy.GO_ON || !noted.equals(Optional.of(place)))
                throw new IOException(
                        "--journal-copy: " + place.folder() + " cannot be written: " + reason(e)
                                + (place.policy() == CopyPolicy.STOP
                                        ? ". Mount the disk again; if it is lost for good, start with --end-journal-copy --journal-copy-lost"
                                        : ". Its note still says that it has every number, and would be believed after a restore. Mount the disk again, or start with --end-journal-copy"),
                        e);
            twin.startsWithout(e);
            return new JournalCopy(place, twin, Optional.empty(), null, null);
        } catch (IOException | RuntimeException e) {
            if (channel != null) channel.close();
            throw e;
        }
    }

    private static FileLock locked(FileChannel channel, CopyPlace place) throws IOException {
        try {
            FileLock lock = channel.tryLock();
            if (lock != null) return lock;
        } catch (OverlappingFileLockException e) {
            throw inUse(place, e);
        }
        throw inUse(place, null);
    }

    private static IOException inUse(CopyPlace place, Exception cause) {
        return new IOException("--journal-copy: another process is writing to " + place.folder(), cause);
    }

    private static String reason(FileSystemException e) {
        return e.getReason() == null ? e.toString() : e.getReason();
    }

    public TwinDisk disk() {
        return disk;
    }

    public CopyPlace place() {
        return place;
    }

    /** Whether there was nothing of a copy before. */
    public boolean isNew() {
        return found.isEmpty();
    }

    /** Whether it has had every number that was answered, up to now. */
    public boolean proves() {
        return found.filter(CopyNote::proves).isPresent();
    }

    /** It was whole at the start, and the journal has all of it. */
    public void found() {
        proved = true;
    }

    /** Whether it proved at the start that the ledger is the newest. */
    public boolean hasProved() {
        return proved;
    }

    /** Notes by which policy it is written from now on, once it has all that the journal has. */
    public void note(Head head) throws IOException {
        if (disk.warning().isPresent()) return;
        if (found.flatMap(CopyNote::policy).equals(Optional.of(place.policy()))) return;
        new CopyNote(Optional.of(place.policy()), head.seq() + 1).keep(place.folder());
    }

    /**
     * Notes that a copy is not written any more.
     *
     * @param since the first entry that it may lack
     */
    public static void end(Path folder, long since) throws IOException {
        if (!Files.isDirectory(folder)) throw new IOException(folder + " is not there");
        new CopyNote(Optional.empty(), since).keep(folder);
    }

    @Override
    public void close() throws IOException {
        if (lock == null) return;
        lock.release();
        lockFile.close();
    }
}
