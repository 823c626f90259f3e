package org.youngtally.ledger;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.io.RandomAccessFile;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.copy.CopyPolicy;
import org.youngtally.ledger.journal.Checkpoint;
import org.youngtally.ledger.journal.CheckpointFile;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.OwnerOnly;
import org.youngtally.ledger.journal.WholeFile;

/**
 * The data folder: the lock by which one process owns it, the mark by which an unclean end is known, and what was last
 * seen in it.
 *
 * <p>The lock is a file that nothing else ever opens, for closing any other channel on a file lets go of all its locks
 * in a process. Whoever deletes it lets a second process in; so the first looks before and after each write whether the
 * folder and the lock are still those that it opened, and a start that had to make the lock anew waits until it has
 * seen that nobody writes.
 */
final class DataFolder implements AutoCloseable, DiskGuard {
    private static final Logger LOG = LoggerFactory.getLogger(DataFolder.class);
    /** The folders that this process owns: two ledgers of one process would not meet at the lock. */
    private static final Set<Path> OWNED = ConcurrentHashMap.newKeySet();
    /** The end of a journal that is compared, in bytes: more than its last hash. */
    private static final int END = 256;

    private final LedgerOptions options;
    private final Path real;
    private final FileChannel lockFile;
    private final FileLock lock;
    private final Object lockIdentity;
    private final Object folderIdentity;
    private final Room room;
    private Disk journal;
    /** The entry of a mark that the disk did not take; negative where it took it. */
    private long unmarked = -1;

    private DataFolder(LedgerOptions options, Path real, FileChannel lockFile, FileLock lock) throws IOException {
        this.options = options;
        this.journal = options.journal();
        this.real = real;
        this.lockFile = lockFile;
        this.lock = lock;
        this.lockIdentity = identity(lockPath(options));
        this.folderIdentity = identity(options.data());
        this.room = new Room(options.data(), options.room());
    }

    /** Takes the folder, or throws {@link LedgerInUse} where another process has it. */
    static DataFolder own(LedgerOptions options) throws IOException {
        if (!Files.exists(options.data())) OwnerOnly.makeFolder(options.data());
        if (!Files.isDirectory(options.data()))
            throw new IOException("the data folder " + options.data() + " is a file");
        Path real = options.data().toRealPath();
        if (!OWNED.add(real)) throw LedgerInUse.locked(options.data());
        try {
            return lock(options, real);
        } catch (IOException | RuntimeException e) {
            OWNED.remove(real);
            throw e;
        }
    }

    private static DataFolder lock(LedgerOptions options, Path real) throws IOException {
        boolean made = !Files.exists(lockPath(options));
        FileChannel channel = open(options);
        try {
            FileLock lock = channel.tryLock();
            if (lock == null) throw LedgerInUse.locked(options.data());
            if (made) waitForOthers(options);
            return new DataFolder(options, real, channel, lock);
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    private static FileChannel open(LedgerOptions options) throws IOException {
        try {
            return FileChannel.open(lockPath(options), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        } catch (FileSystemException e) {
            throw new IOException(
                    "the data folder " + options.data() + " cannot be written to: "
                            + (e.getReason() == null ? e.toString() : e.getReason()),
                    e);
        }
    }

    private static Path lockPath(LedgerOptions options) {
        return options.data().resolve("lock");
    }

    /** Beside a journal there was a lock; another process may still write without one. */
    private static void waitForOthers(LedgerOptions options) throws IOException {
        Path journal = options.data().resolve("journal");
        String before = end(journal);
        if (before.isEmpty()) return;
        LOG.info(
                "{} holds a journal and no lock; the start waits {} s to see whether another process writes to it",
                options.data(),
                options.patience().toSeconds());
        try {
            TimeUnit.NANOSECONDS.sleep(options.patience().toNanos());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("interrupted while waiting whether another process writes to " + journal);
        }
        if (!end(journal).equals(before)) throw LedgerInUse.writing(options.data());
    }

    /** How far a journal has come: its last segment, how long it is, and how it ends. Empty where there is none. */
    private static String end(Path journal) throws IOException {
        if (!Files.isDirectory(journal)) return "";
        Optional<Path> last;
        try (Stream<Path> files = Files.list(journal)) {
            last = files.filter(file -> file.toString().endsWith(".jsonl")).max(Path::compareTo);
        }
        if (last.isEmpty()) return "";
        try (var file = new RandomAccessFile(last.get().toFile(), "r")) {
            long size = file.length();
            var bytes = new byte[(int) Math.min(END, size)];
            file.seek(size - bytes.length);
            file.readFully(bytes);
            return last.get().getFileName() + " " + size + " " + new String(bytes, StandardCharsets.ISO_8859_1);
        }
    }

    /**
     * What the ledger keeps is for its owner alone, also in a folder that was there before and that others may look
     * into.
     */
    void keepToOwner() {
        for (String kept : List.of("journal", "tables", "files")) {
            Path folder = options.data().resolve(kept);
            try {
                // The tables' own engine makes folders that others may enter.
                if (folder.equals(options.tables())) OwnerOnly.makeFolder(folder);
                if (OwnerOnly.close(folder))
                    LOG.warn("others on this machine could read {}; it is for its owner alone from now on", folder);
            } catch (IOException e) {
                // A folder of somebody else, or a disk that takes nothing: the ledger can be asked all the same.
                LOG.warn("{} cannot be kept to its owner", folder, e);
            }
        }
    }

    private static Object identity(Path path) throws IOException {
        return Files.readAttributes(path, BasicFileAttributes.class).fileKey();
    }

    @Override
    public Optional<String> lost(Journal journal) {
        return replaced(journal).or(journal::resized);
    }

    @Override
    public Optional<String> replaced(Journal journal) {
        return changed(options.data(), folderIdentity, "the data folder ")
                .or(() -> changed(lockPath(options), lockIdentity, "the lock "))
                .or(journal::replaced);
    }

    private static Optional<String> changed(Path path, Object identity, String what) {
        try {
            return Objects.equals(identity(path), identity)
                    ? Optional.empty()
                    : Optional.of(what + path + " is another one than was opened");
        } catch (NoSuchFileException e) {
            return Optional.of(what + path + " is gone");
        } catch (IOException e) {
            return Optional.of(what + path + " cannot be looked at (" + e.getMessage() + ")");
        }
    }

    @Override
    public Optional<Shortage> shortage(long unsaved) {
        return room.shortage(unsaved);
    }

    @Override
    public void spendReserve() {
        room.spend();
    }

    @Override
    public Optional<Shortage> stillShort(long unsaved) throws IOException {
        Optional<Shortage> shortage = room.shortageToGoOn(unsaved);
        if (shortage.isPresent()) return shortage;
        journal.tryWriting();
        if (unmarked >= 0) mark(unmarked);
        room.keepReserve();
        return Optional.empty();
    }

    /** @param disk that the journal is written to */
    void writesTo(Disk disk) {
        journal = disk;
    }

    void keepReserve() throws IOException {
        room.keepReserve();
    }

    @Override
    public void tryWriting() throws IOException {
        journal.tryWriting();
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
     * An entry that the journal held when the folder was last taken into use, or was left, and so must hold for ever; 0
     * where that is not known.
     */
    long knownEntry() throws IOException {
        return Math.max(number(marker()), number(lastSeen()));
    }

    /** The number on the second line of a small file; 0 where there is none. */
    private static long number(Path file) throws IOException {
        List<String> lines = Files.exists(file) ? Files.readAllLines(file) : List.of();
        return lines.size() > 1 && lines.get(1).matches("[0-9]{1,18}") ? Long.parseLong(lines.get(1)) : 0;
    }

    /** From here on, an end without {@link #unmark} is unclean. */
    void mark(long entry) throws IOException {
        unmarked = entry;
        write(marker(), options.machineRun() + "\n" + entry + "\n");
        unmarked = -1;
    }

    /** As a whole or not at all, and on disk when it returns. */
    private void write(Path file, String text) throws IOException {
        WholeFile.write(file, text);
    }

    /**
     * To be called once everything is on disk, the tables included: the next start trusts them then, whatever happened
     * to the machine.
     */
    void unmark() throws IOException {
        Files.deleteIfExists(marker());
    }

    private Path copyNote() {
        return options.data().resolve("journal-copy");
    }

    /** Where the journal of this folder is copied to; absent where it is not. */
    Optional<CopyPlace> notedCopy() throws IOException {
        if (!Files.exists(copyNote())) return Optional.empty();
        List<String> lines = Files.readAllLines(copyNote());
        Optional<CopyPolicy> policy = lines.size() < 2 ? Optional.empty() : CopyPolicy.of(lines.get(1));
        return Optional.of(new CopyPlace(
                Path.of(lines.getFirst()),
                policy.orElseThrow(
                        () -> new IOException(copyNote() + " does not say where the journal is copied to"))));
    }

    void noteCopy(CopyPlace place) throws IOException {
        if (!notedCopy().equals(Optional.of(place)))
            write(copyNote(), place.folder() + "\n" + place.policy().word() + "\n");
    }

    void forgetCopy() throws IOException {
        Files.deleteIfExists(copyNote());
    }

    /** The checkpoints of the journal. */
    CheckpointFile checkpoints() {
        return new CheckpointFile(options.data().resolve("checkpoints"));
    }

    /** Up to where a journal that is not proved at once was proved before; absent where all of it is to be proved. */
    Optional<Checkpoint> provedBefore() {
        try {
            if (Journal.size(journal) <= options.sizes().provedAtOnce()) return Optional.empty();
            return checkpoints().newest();
        } catch (IOException e) {
            LOG.warn("the checkpoints cannot be read, so the journal is proved as a whole", e);
            return Optional.empty();
        }
    }

    @Override
    public void proved(Checkpoint upTo) {
        try {
            if (!checkpoints().newest().equals(Optional.of(upTo))) checkpoints().add(upTo);
        } catch (IOException e) {
            LOG.warn("no checkpoint could be noted; the next start proves more of the journal", e);
        }
    }

    /** A journal that does not have the newest checkpoint begins a new chain of them. */
    void beginCheckpoints(Journal opened) {
        try {
            Optional<Head> newest = checkpoints().newest().map(Checkpoint::head);
            if (newest.isPresent()
                    && !newest.get().equals(opened.provedFrom())
                    && !newest.equals(Journal.headAt(journal, newest.get().seq())))
                checkpoints().forget();
        } catch (IOException e) {
            LOG.warn("the checkpoints cannot be read", e);
        }
    }

    private Path lastSeen() {
        return options.data().resolve("last-seen");
    }

    @Override
    public void saw(Instant now, long entry) throws IOException {
        write(lastSeen(), now + "\n" + entry + "\n");
    }

    /** When the ledger was last known to run, by a clock that was believed; absent where that is not known. */
    Optional<Instant> lastSeenAt() throws IOException {
        List<String> lines = Files.exists(lastSeen()) ? Files.readAllLines(lastSeen()) : List.of();
        try {
            return lines.isEmpty() ? Optional.empty() : Optional.of(Instant.parse(lines.getFirst()));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    /** What shows that there was a ledger here, besides its journal and the tables. */
    List<String> traces() throws IOException {
        var traces = new ArrayList<String>();
        if (knownEntry() > 0) traces.add("entries up to " + knownEntry() + " were written");
        for (String folder : List.of("files", "tables")) {
            Path each = options.data().resolve(folder);
            if (!Files.isDirectory(each)) continue;
            try (Stream<Path> files = Files.list(each)) {
                if (files.anyMatch(file ->
                        folder.equals("files") || file.getFileName().toString().startsWith("aside-")))
                    traces.add("there are files in " + each);
            }
        }
        return traces;
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
        try {
            lock.release();
            lockFile.close();
        } finally {
            OWNED.remove(real);
        }
    }
}
