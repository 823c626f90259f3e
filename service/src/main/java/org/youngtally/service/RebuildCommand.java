package org.youngtally.service;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

@Command(
        name = "rebuild",
        description = "Rebuild the tables from the journal while the service is stopped.",
        mixinStandardHelpOptions = true)
final class RebuildCommand implements Callable<Integer> {
    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description = "The data folder (YOUNGTALLY_DATA; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_DATA:-youngtally-data}")
    private Path data;

    @Option(
            names = "--up-to",
            paramLabel = "ENTRY",
            description =
                    "The last entry of the journal in a copy that was made while the service ran. What later entries did is unknown in the copy; never use this for the folder that numbers are allocated from.")
    private Long upTo;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (!Files.isDirectory(data.resolve("journal"))) {
            spec.commandLine()
                    .getErr()
                    .println("--data: " + data + " holds no journal. Name the data folder of the service.");
            return 1;
        }
        Ledger.rebuild(LedgerOptions.in(data), Optional.ofNullable(upTo))
                .forEach(spec.commandLine().getOut()::println);
        return 0;
    }
}
