package org.youngtally.service;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "rebuild",
        description = "Make the tables anew from the journal, while the service is stopped.",
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
                    "Where the journal of a copy ends that was made while the service ran. What later entries did is not known in the copy; never say it of the folder that numbers are given from.")
    private Long upTo;

    @Override
    public Integer call() throws IOException {
        if (!Files.isDirectory(data.resolve("journal"))) {
            System.err.println("--data: " + data + " holds no journal; give the folder that the service runs on");
            return 1;
        }
        Ledger.rebuild(LedgerOptions.in(data), Optional.ofNullable(upTo)).forEach(System.out::println);
        return 0;
    }
}
