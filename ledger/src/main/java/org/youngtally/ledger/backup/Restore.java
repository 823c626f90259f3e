package org.youngtally.ledger.backup;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.PossibleRollback;
import org.youngtally.ledger.Status;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.copy.CopyNote;
import org.youngtally.ledger.copy.JournalCopy;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalSync;
import org.youngtally.ledger.journal.OwnerOnly;
import org.youngtally.ledger.receipt.Receipt;
import org.youngtally.ledger.secret.Secrets;

/**
 * Makes a data folder of a backup, and proves that the ledger of a data folder is the newest. Until that is proved, or
 * stated, the folder allocates no numbers.
 */
public final class Restore {
    private static final String UNFINISHED = ".restoring";

    private Restore() {}

    /**
     * By what it is to be proved that a ledger is the newest.
     *
     * @param copy the folder of a journal copy
     * @param head that was kept elsewhere
     */
    public record Proof(Optional<Path> copy, Optional<Head> head) {
        public static final Proof NONE = new Proof(Optional.empty(), Optional.empty());
    }

    /**
     * @param told what was done, for people
     * @param proved whether it is known that the ledger is the newest
     */
    public record Done(List<String> told, boolean proved, AuditReport audit) {
        public Done {
            told = List.copyOf(told);
        }
    }

    /**
     * @param options of the data folder to make, which must not be there or must be empty
     * @param passphrase of the secret; absent where the backup has none
     */
    public static Done run(Path backup, LedgerOptions options, Optional<char[]> passphrase, Proof proof)
            throws IOException {
        BackupAbout about = BackupAbout.in(backup);
        Path data = options.data();
        if (Files.exists(data) && !isEmpty(data))
            throw new IOException("--data: " + data
                    + " is not empty. Name a folder that is not there yet; what is there may be newer than the backup");
        if (about.secret() && passphrase.isEmpty())
            throw new IOException(
                    "the secret of this backup is sealed: name the file of its passphrase with --passphrase-file");
        Path unfinished = data.resolveSibling(data.getFileName() + UNFINISHED);
        Backup.delete(unfinished);
        var told = new ArrayList<String>();
        try {
            if (data.getParent() != null) Files.createDirectories(data.getParent());
            OwnerOnly.makeFolder(unfinished);
            new PossibleRollback(
                            "it was restored from the backup of " + about.at() + ", which ends at entry "
                                    + about.head().seq(),
                            about.head().seq(),
                            Optional.empty())
                    .keep(unfinished);
            copy(backup, unfinished, about);
            if (about.secret())
                Secrets.keep(
                        unfinished,
                        SealedSecret.open(Files.readAllBytes(backup.resolve(Backup.SECRET)), passphrase.get()));
            else
                told.add("the backup has no secret: put the file ‘secret’ of the former folder into " + data
                        + ", or scattered series cannot go on, and receipts of earlier entries are not recognised");
            Backup.KeptFiles files = Backup.copyFiles(backup.resolve(Backup.FILES), unfinished.resolve(Backup.FILES));
            if (files.damaged() > 0) told.add(files.damaged() + " files of records are not what was kept");
            tables(backup.resolve(Backup.TABLES), unfinished.resolve(Backup.TABLES));
            // Nobody else writes to a folder that is made here: a start need not wait to see it.
            Files.createFile(unfinished.resolve("lock"));
            Files.deleteIfExists(data);
            Files.move(unfinished, data, StandardCopyOption.ATOMIC_MOVE);
            FolderDisk.force(data.getParent());
        } catch (IOException | RuntimeException e) {
            try {
                Backup.delete(unfinished);
            } catch (IOException left) {
                e.addSuppressed(left);
            }
            throw e;
        }
        told.addFirst("restored " + about.head().seq() + " entries and " + about.files() + " files from the backup of "
                + about.at());
        return prove(options, proof, told);
    }

    /** Those of a backup that has them; a start holds them against the journal. */
    private static void tables(Path from, Path to) throws IOException {
        if (!Files.isDirectory(from)) return;
        OwnerOnly.makeFolder(to);
        try (Stream<Path> files = Files.list(from)) {
            for (Path file : files.filter(Files::isRegularFile).toList())
                Files.copy(file, to.resolve(file.getFileName()));
        }
    }

    private static boolean isEmpty(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return false;
        try (Stream<Path> files = Files.list(folder)) {
            return files.findAny().isEmpty();
        }
    }

    private static void copy(Path backup, Path to, BackupAbout about) throws IOException {
        var from = new FolderDisk(backup.resolve("journal"));
        try {
            Head head = JournalSync.head(from);
            if (!head.equals(about.head()))
                throw new IOException(
                        backup + " is damaged: its journal ends at " + head + ", and it says " + about.head());
            JournalSync.copyUpTo(from, new FolderDisk(to.resolve("journal")), head);
        } catch (JournalBroken e) {
            throw new IOException(backup + " is damaged: " + e.getMessage(), e);
        }
    }

    /** Proves that the ledger of a data folder is the newest, if it is. */
    public static Done prove(LedgerOptions options, Proof proof) throws IOException {
        return prove(Ledger.withNotedCopy(options), proof, new ArrayList<>());
    }

    private static Done prove(LedgerOptions options, Proof proof, List<String> told) throws IOException {
        boolean proved = false;
        if (proof.copy().isPresent()) proved = catchUp(options, proof.copy().get(), told);
        try (Ledger ledger = Ledger.open(options)) {
            Status status = ledger.status();
            if (!status.stopped().isEmpty()) throw new IOException(status.stopped());
            told.addAll(status.opening());
            AuditReport audit = Audit.of(ledger, Optional.empty(), Head.EMPTY);
            if (!audit.passed()) {
                told.add("the audit found what is wrong: " + String.join("; ", audit.findings()));
                return new Done(told, false, audit);
            }
            if (proof.head().isPresent()) {
                Head head = proof.head().get();
                if (!ledger.reaches(head))
                    throw new IOException("--head: the ledger ends at " + status.head() + " and does not have " + head
                            + ": it is not the newest");
                told.add("the ledger has the entry " + head + " that was kept elsewhere");
                proved = true;
            }
            if (ledger.rollback().isEmpty()) return new Done(told, true, audit);
            if (proved) {
                Optional<Receipt> lacking = ledger.proved();
                if (lacking.isPresent()) {
                    told.add("a receipt of entry " + lacking.get().entry()
                            + " was shown, which the ledger does not have: it is not the newest");
                    proved = false;
                }
            }
            return new Done(told, proved, audit);
        }
    }

    /** @return whether the copy proves that the ledger is the newest now */
    private static boolean catchUp(LedgerOptions options, Path folder, List<String> told) throws IOException {
        Optional<CopyNote> note = CopyNote.in(folder);
        if (note.isEmpty()) throw new IOException("--journal-copy: " + folder + " is no journal copy: it has no note");
        try {
            JournalSync sync = Ledger.catchUp(options, JournalCopy.disk(folder));
            long missing = sync.main().seq() - sync.copy().seq();
            if (missing > 0) {
                told.add("the journal copy in " + folder + " ends at entry "
                        + sync.copy().seq() + ", before the journal: it proves nothing");
                return false;
            }
            told.add(sync.recovered() + (sync.recovered() == 1 ? " entry was" : " entries were")
                    + " copied from the journal copy in " + folder + ", which ends at entry "
                    + sync.copy().seq());
        } catch (JournalBroken e) {
            throw new IOException("--journal-copy: " + e.getMessage(), e);
        }
        if (note.get().proves()) {
            told.add("the copy was written under the policy ‘stop’: it has every number that was answered");
            return true;
        }
        told.add(
                "the copy was not written under the policy ‘stop’ throughout: numbers may have been allocated that it does not have");
        return false;
    }
}
