package org.youngtally.service.backup;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.backup.Backup;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalSync;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "backup",
        description = "Back up a data folder, also while the service runs; the backup is opened and audited.",
        mixinStandardHelpOptions = true)
public final class BackupCommand implements Callable<Integer> {
    @Parameters(
            index = "0",
            paramLabel = "FOLDER",
            description = "The folder for backups, on another disk; each backup gets a folder of its own in it.")
    private Path folder;

    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description = "The data folder (YOUNGTALLY_DATA; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_DATA:-youngtally-data}")
    private Path data;

    @Option(
            names = "--passphrase-file",
            paramLabel = "FILE",
            description =
                    "A file whose first line is the passphrase that seals the secret of the data folder (YOUNGTALLY_PASSPHRASE_FILE).",
            defaultValue = "${env:YOUNGTALLY_PASSPHRASE_FILE}")
    private String passphraseFile;

    @Option(
            names = "--without-secret",
            description = "Leave the secret out. Without it scattered series cannot go on after a restore.")
    private boolean withoutSecret;

    @Option(
            names = "--with-tables",
            description = "Keep the tables too, which are made from the journal otherwise: a restore is faster.")
    private boolean withTables;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        boolean named = passphraseFile != null && !passphraseFile.isEmpty();
        if (named == withoutSecret)
            throw new ParameterException(
                    spec.commandLine(),
                    "Name the file of a passphrase with --passphrase-file; or use --without-secret, and keep the file "
                            + data.resolve("secret") + " safe yourself.");
        Disk journal = LedgerOptions.in(data).journal();
        Backup.Made made = new Backup(data, journal, head(journal))
                .into(
                        folder,
                        named ? Optional.of(BackupPlan.Passphrase.in(Path.of(passphraseFile))) : Optional.empty(),
                        Instant.now(),
                        false,
                        withTables ? Backup.Tables.KEPT : Backup.Tables.IN_MEMORY);
        PrintWriter out = spec.commandLine().getOut();
        out.println("backup  " + made.place());
        out.println("head    " + made.about().head());
        out.println("files   " + made.about().files()
                + (made.about().damaged() > 0
                        ? ", of which " + made.about().damaged() + " are not what was kept"
                        : ""));
        out.println("secret  " + (made.about().secret() ? "under the passphrase" : "not in it"));
        out.println("audit   gap-free: %,d positions, %,d entries"
                .formatted(made.audit().positions(), made.audit().entries()));
        return made.about().damaged() > 0 ? 1 : 0;
    }

    /**
     * The newest whole entry. The service may be about to force it, so it is forced here as well; what was taken away
     * again since was never answered, and is not in the backup either.
     */
    private Head head(Disk journal) throws IOException {
        if (!Files.isDirectory(data.resolve("journal")))
            throw new IOException("--data: " + data + " holds no journal. Name the data folder of the service.");
        try {
            Head head = JournalSync.head(journal);
            var segments = JournalSync.segments(journal);
            if (!segments.isEmpty())
                try (FileChannel file = FileChannel.open(
                        data.resolve("journal").resolve(segments.getLast()), StandardOpenOption.READ)) {
                    file.force(true);
                }
            if (!Journal.headAt(journal, head.seq()).equals(Optional.of(head)))
                throw new IOException("the journal changed while it was read; run the command again");
            return head;
        } catch (JournalBroken e) {
            throw new IOException(
                    "the journal in " + data.resolve("journal") + " cannot be trusted: " + e.getMessage(), e);
        }
    }
}
