package org.youngtally.service.restore;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.backup.Restore;
import org.youngtally.ledger.journal.Head;
import org.youngtally.service.backup.BackupPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "restore",
        description = {
            "Make a data folder of a backup, or prove that the ledger of a data folder is the newest.",
            "Until that is proved, the service allocates no numbers from the folder: ‘restore show’, ‘restore state’ and ‘restore resume’ settle it while the service runs."
        },
        mixinStandardHelpOptions = true)
public final class RestoreCommand implements Callable<Integer> {
    @Parameters(
            index = "0",
            arity = "0..1",
            paramLabel = "BACKUP",
            description = "The folder of a backup. Without it, the data folder is there already.")
    private Path backup;

    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description = "The data folder; with a backup, a new one (YOUNGTALLY_DATA).",
            defaultValue = "${env:YOUNGTALLY_DATA}")
    private String data;

    @Option(
            names = "--passphrase-file",
            paramLabel = "FILE",
            description =
                    "A file whose first line is the passphrase of the backup's secret (YOUNGTALLY_PASSPHRASE_FILE).",
            defaultValue = "${env:YOUNGTALLY_PASSPHRASE_FILE}")
    private String passphraseFile;

    @Option(
            names = "--journal-copy",
            paramLabel = "FOLDER",
            description =
                    "Catch up from this journal copy. If it was written under the policy stop, that is the proof.")
    private Path journalCopy;

    @Option(
            names = "--head",
            paramLabel = "SEQUENCE:HASH",
            description =
                    "The newest head that was kept elsewhere: from an audit, the page of a closed period, or a monitoring system. If the ledger has it, that is the proof.")
    private String head;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (data == null || data.isEmpty())
            throw new ParameterException(spec.commandLine(), "--data: name the data folder.");
        var proof = new Restore.Proof(
                Optional.ofNullable(journalCopy), Optional.ofNullable(head).map(this::head));
        if (backup == null && proof.equals(Restore.Proof.NONE))
            throw new ParameterException(
                    spec.commandLine(), "Name a backup; or, for a folder that is there, --journal-copy or --head.");
        LedgerOptions options = LedgerOptions.in(Path.of(data));
        Restore.Done done =
                backup == null ? Restore.prove(options, proof) : Restore.run(backup, options, passphrase(), proof);
        PrintWriter out = spec.commandLine().getOut();
        done.told().forEach(out::println);
        out.println("head " + done.audit().head());
        if (!done.audit().passed()) return 1;
        out.println(
                done.proved()
                        ? "The ledger is the newest: the service allocates numbers from " + options.data() + "."
                        : "It is not known whether this ledger is the newest: the service allocates no numbers from "
                                + options.data()
                                + ". Use --journal-copy or --head, or start the service and use ‘restore show’.");
        return 0;
    }

    private Optional<char[]> passphrase() throws IOException {
        return passphraseFile == null || passphraseFile.isEmpty()
                ? Optional.empty()
                : Optional.of(BackupPlan.Passphrase.in(Path.of(passphraseFile)));
    }

    private Head head(String text) {
        try {
            return Head.parse(text);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), "--head: ‘" + text + "’: " + e.getMessage() + ".", e);
        }
    }
}
