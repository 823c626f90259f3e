package org.youngtally.ledger.backup;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.sql.SQLException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.ledger.CheckedCopy;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalSync;
import org.youngtally.ledger.journal.OwnerOnly;
import org.youngtally.ledger.journal.Sha256;
import org.youngtally.ledger.journal.WholeFile;
import org.youngtally.ledger.secret.Secrets;

/**
 * Makes a backup of a data folder while numbers go on being allocated: the journal up to one head, the files of
 * records, and the secret under a passphrase. The tables are left out, since the journal makes them anew. A backup is
 * called so once tables were made of it in a place of their own and the audit found nothing.
 */
public final class Backup {
    private static final Logger LOG = LoggerFactory.getLogger(Backup.class);
    private static final String UNFINISHED = ".unfinished";
    private static final int PIECE = 1 << 20;
    private static final String LAST = "last-backup";
    static final String SECRET = "secret.pgp";
    static final String FILES = "files";
    static final String TABLES = "tables";

    private final Path data;
    private final Disk journal;
    private final Head head;

    /**
     * @param data the data folder
     * @param journal its journal
     * @param head up to which it is on disk
     */
    public Backup(Path data, Disk journal, Head head) {
        this.data = data;
        this.journal = journal;
        this.head = head;
    }

    /** Where the tables are made by which a backup is audited. */
    public enum Tables {
        /** Beside it, for the time being: they take disk, and little memory. */
        BESIDE,
        /** In it, so that a restore need not make them. */
        KEPT,
        /** In the memory of a process that does nothing else, unless they are too large for it. */
        IN_MEMORY
    }

    /** @param place the folder that was made */
    public record Made(Path place, BackupAbout about, AuditReport audit) {}

    /**
     * @param folder in which the backup gets a folder of its own
     * @param passphrase absent to leave the secret out
     * @param scheduled whether it may be deleted again by the schedule
     * @param tables where to make those by which it is audited
     */
    public Made into(Path folder, Optional<char[]> passphrase, Instant now, boolean scheduled, Tables tables)
            throws IOException {
        if (head.seq() == 0) throw new IOException("the ledger is empty: there is nothing to back up");
        if (folder.toAbsolutePath().normalize().startsWith(data.toAbsolutePath().normalize()))
            throw new IOException(folder + " is inside the data folder: a backup there is lost with it");
        Files.createDirectories(folder);
        Path kept = folder.toAbsolutePath().normalize();
        Instant at = now.truncatedTo(ChronoUnit.SECONDS);
        String name = at.toString().replace(":", "") + "-entry-" + head.seq();
        Path place = kept.resolve(name);
        if (Files.exists(place)) throw new IOException(place + " exists already");
        Path unfinished = kept.resolve(name + UNFINISHED);
        try {
            delete(unfinished);
            OwnerOnly.makeFolder(unfinished);
            var copied = new FolderDisk(unfinished.resolve("journal"));
            JournalSync.copyUpTo(journal, copied, head);
            KeptFiles files = copyFiles(data.resolve(FILES), unfinished.resolve(FILES));
            boolean sealed = passphrase.isPresent();
            if (sealed) seal(unfinished, passphrase.get());
            AuditReport audit = audited(unfinished, copied, tables);
            var about = new BackupAbout(
                    Journal.headAt(copied, 1).orElseThrow().hash().substring(0, 16),
                    head,
                    at,
                    files.all(),
                    files.damaged(),
                    sealed,
                    scheduled);
            about.keep(unfinished);
            Files.move(unfinished, place, StandardCopyOption.ATOMIC_MOVE);
            FolderDisk.force(kept);
            note(place);
            return new Made(place, about, audit);
        } catch (IOException | RuntimeException e) {
            try {
                delete(unfinished);
            } catch (IOException left) {
                e.addSuppressed(left);
            }
            throw e;
        }
    }

    /** Beside the data, so that the service can tell of it, whoever made it. */
    private void note(Path place) {
        try {
            WholeFile.write(data.resolve(LAST), place + "\n");
        } catch (IOException e) {
            LOG.warn("the backup {} is good, and could not be noted in {}", place, data, e);
        }
    }

    /** The newest backup of a data folder that is where it was made; absent where there is none. */
    public static Optional<Path> last(Path data) throws IOException {
        Path note = data.resolve(LAST);
        if (!Files.exists(note)) return Optional.empty();
        return Optional.of(Path.of(Files.readString(note).strip()))
                .filter(place -> Files.isRegularFile(place.resolve(BackupAbout.NAME)));
    }

    private void seal(Path unfinished, char[] passphrase) throws IOException {
        Optional<byte[]> secret = Secrets.in(data).bytes();
        if (secret.isEmpty()) throw new IOException("the data folder has no secret yet: allocate a number first");
        write(unfinished.resolve(SECRET), SealedSecret.seal(secret.get(), passphrase));
        if (!MessageDigest.isEqual(
                SealedSecret.open(Files.readAllBytes(unfinished.resolve(SECRET)), passphrase), secret.get()))
            throw new IOException("the secret does not open again as it was sealed");
    }

    private static void write(Path file, byte[] bytes) throws IOException {
        try (FileChannel to = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            ByteBuffer left = ByteBuffer.wrap(bytes);
            while (left.hasRemaining()) to.write(left);
            to.force(true);
        }
    }

    /**
     * Files of records.
     *
     * @param damaged how many of them are not what was kept
     */
    record KeptFiles(long all, long damaged) {}

    static KeptFiles copyFiles(Path from, Path to) throws IOException {
        OwnerOnly.makeFolder(to);
        if (!Files.isDirectory(from)) return new KeptFiles(0, 0);
        long damaged = 0;
        List<Path> files;
        try (Stream<Path> all = Files.list(from)) {
            files = all.filter(file -> file.getFileName().toString().matches("[0-9a-f]{64}"))
                    .sorted()
                    .toList();
        }
        for (Path file : files) {
            MessageDigest digest = Sha256.fresh();
            try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest);
                    FileChannel out = FileChannel.open(
                            to.resolve(file.getFileName()), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
                for (byte[] piece = in.readNBytes(PIECE); piece.length > 0; piece = in.readNBytes(PIECE)) {
                    ByteBuffer left = ByteBuffer.wrap(piece);
                    while (left.hasRemaining()) out.write(left);
                }
                out.force(true);
            }
            if (!HexFormat.of()
                    .formatHex(digest.digest())
                    .equals(file.getFileName().toString())) {
                LOG.error("the file {} is not what was kept", file);
                damaged++;
            }
        }
        FolderDisk.force(to);
        return new KeptFiles(files.size(), damaged);
    }

    /** Tables are made of it with the secret of the data folder, and are audited. */
    private AuditReport audited(Path unfinished, Disk copied, Tables where) throws IOException {
        Path tables = unfinished.resolve(TABLES);
        try {
            AuditReport audit = where == Tables.IN_MEMORY && CheckedCopy.fitsInMemory(copied)
                    ? CheckedCopy.audit(copied, head, Secrets.in(data))
                    : CheckedCopy.audit(copied, head, tables, Secrets.in(data));
            if (!audit.passed())
                throw new IOException(
                        "the backup is not good: the audit of it says " + String.join("; ", audit.findings()));
            return audit;
        } catch (SQLException | JournalBroken e) {
            throw new IOException("the backup is not good: it does not open: " + e.getMessage(), e);
        } finally {
            if (where != Tables.KEPT) delete(tables);
        }
    }

    static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) return;
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
        }
    }

    /** The backups in a folder, the newest first. */
    public static List<Path> in(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return List.of();
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(each -> Files.isRegularFile(each.resolve(BackupAbout.NAME))
                            && !each.getFileName().toString().endsWith(UNFINISHED))
                    .sorted(Comparator.reverseOrder())
                    .toList();
        }
    }

    /**
     * Deletes what the schedule made earlier, all but the newest. Backups that somebody asked for stay.
     *
     * @param keep how many to keep, 1 or more
     */
    public static List<Path> tidy(Path folder, String ledger, int keep) throws IOException {
        var scheduled = new ArrayList<Path>();
        for (Path backup : in(folder)) {
            BackupAbout about = BackupAbout.in(backup);
            if (about.scheduled() && about.ledger().equals(ledger)) scheduled.add(backup);
        }
        List<Path> old = scheduled.size() <= keep ? List.of() : List.copyOf(scheduled.subList(keep, scheduled.size()));
        for (Path backup : old) {
            // What says that it is a backup goes first, so that half of one is never taken for one.
            Files.deleteIfExists(backup.resolve(BackupAbout.NAME));
            delete(backup);
        }
        return old;
    }
}
