package org.youngtally.service;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.service.access.FirstAccount;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "new-password",
        description = "Set a new password for an account when nobody can sign in, while the service is stopped.",
        mixinStandardHelpOptions = true)
final class PasswordCommand implements Callable<Integer> {
    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description = "The data folder (YOUNGTALLY_DATA; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_DATA:-youngtally-data}")
    private Path data;

    @Parameters(paramLabel = "ACCOUNT", description = "The name of the account.", defaultValue = "administrator")
    private String account;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (!Files.isDirectory(data.resolve("journal")))
            throw new IOException("--data: " + data + " holds no journal. Name the data folder of the service.");
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            spec.commandLine()
                    .getOut()
                    .println("The new password of ‘" + account + "’ is " + FirstAccount.renew(ledger, account));
        }
        return 0;
    }
}
