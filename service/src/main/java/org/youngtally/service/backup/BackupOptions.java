package org.youngtally.service.backup;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.util.Optional;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.copy.CopyPolicy;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Where the service keeps backups and a copy of the journal. */
public final class BackupOptions {
    @Option(
            names = "--journal-copy",
            paramLabel = "FOLDER",
            description =
                    "Keep a copy of the journal in this folder, on another disk if possible; each number is in both before it is answered (YOUNGTALLY_JOURNAL_COPY).",
            defaultValue = "${env:YOUNGTALLY_JOURNAL_COPY}")
    private String journalCopy;

    @Option(
            names = "--journal-copy-policy",
            paramLabel = "POLICY",
            description =
                    "While the copy cannot be written: stop (no numbers are allocated) or go-on (numbers are allocated, and everybody is warned) (YOUNGTALLY_JOURNAL_COPY_POLICY; default ${DEFAULT-VALUE}). Only under stop does the copy prove after a restore that nothing is missing.",
            defaultValue = "${env:YOUNGTALLY_JOURNAL_COPY_POLICY:-stop}")
    private String policy;

    @Option(
            names = "--end-journal-copy",
            description = "End the copy of the journal: note beside it that it no longer has every number.")
    private boolean endCopy;

    @Option(
            names = "--journal-copy-lost",
            description =
                    "With --end-journal-copy: the disk of the copy is lost for good, and nothing can be noted there.")
    private boolean copyLost;

    @Option(
            names = "--backups",
            paramLabel = "FOLDER",
            description =
                    "The folder for backups that the API or the schedule makes (YOUNGTALLY_BACKUPS; default: none are made).",
            defaultValue = "${env:YOUNGTALLY_BACKUPS}")
    private String backups;

    @Option(
            names = "--backup-every",
            paramLabel = "DURATION",
            description =
                    "Make a backup this often, as an ISO 8601 duration such as P1D or PT6H (YOUNGTALLY_BACKUP_EVERY; default: only on request).",
            defaultValue = "${env:YOUNGTALLY_BACKUP_EVERY}")
    private String every;

    @Option(
            names = "--backup-keep",
            paramLabel = "QUANTITY",
            description =
                    "How many scheduled backups are kept; older ones are deleted (YOUNGTALLY_BACKUP_KEEP; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_BACKUP_KEEP:-7}")
    private int keep;

    @Option(
            names = "--passphrase-file",
            paramLabel = "FILE",
            description =
                    "A file whose first line is the passphrase under which backups hold the secret of the data folder (YOUNGTALLY_PASSPHRASE_FILE; default: backups do not hold it).",
            defaultValue = "${env:YOUNGTALLY_PASSPHRASE_FILE}")
    private String passphraseFile;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    private static Optional<Path> path(String text) {
        return text == null || text.isEmpty() ? Optional.empty() : Optional.of(Path.of(text));
    }

    public Optional<CopyPlace> copy() {
        CopyPolicy known = CopyPolicy.of(policy)
                .orElseThrow(() -> new ParameterException(
                        spec.commandLine(),
                        "--journal-copy-policy: ‘" + policy + "’ is not a policy. Enter stop or go-on."));
        if (endCopy && path(journalCopy).isPresent())
            throw new ParameterException(
                    spec.commandLine(), "--end-journal-copy and --journal-copy: use one of them. End a copy first.");
        if (copyLost && !endCopy)
            throw new ParameterException(spec.commandLine(), "--journal-copy-lost is used with --end-journal-copy.");
        return path(journalCopy).map(folder -> new CopyPlace(folder, known));
    }

    public boolean endsCopy() {
        return endCopy;
    }

    public boolean copyLost() {
        return copyLost;
    }

    public BackupPlan plan() {
        Optional<Path> folder = path(backups);
        Optional<Duration> interval =
                Optional.ofNullable(every).filter(text -> !text.isEmpty()).map(this::interval);
        if (interval.isPresent() && folder.isEmpty())
            throw new ParameterException(
                    spec.commandLine(), "--backup-every: name the folder for the backups with --backups.");
        if (keep < 1)
            throw new ParameterException(
                    spec.commandLine(), "--backup-keep: " + keep + " backups cannot be kept. Enter 1 or more.");
        return new BackupPlan(folder, interval, keep, path(passphraseFile));
    }

    private Duration interval(String text) {
        try {
            Duration parsed = Duration.parse(text);
            if (parsed.compareTo(Duration.ofMinutes(1)) >= 0) return parsed;
        } catch (DateTimeException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--backup-every: ‘" + text + "’ is not a duration. Enter one such as P1D or PT6H.",
                    e);
        }
        throw new ParameterException(
                spec.commandLine(), "--backup-every: ‘" + text + "’ is too short. Enter a minute (PT1M) or more.");
    }
}
