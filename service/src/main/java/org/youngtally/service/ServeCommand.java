package org.youngtally.service;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.youngtally.ledger.LedgerOptions;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(name = "serve", description = "Run the service on a data folder.", mixinStandardHelpOptions = true)
final class ServeCommand implements Callable<Integer> {
    @Mixin
    private ServiceOptions options;

    @Option(names = "--data", paramLabel = "FOLDER", description = "The data folder (YOUNGTALLY_DATA; default ${DEFAULT-VALUE}).", defaultValue = "${env:YOUNGTALLY_DATA:-youngtally-data}")
    private Path data;

    @Override
    public Integer call() throws IOException {
        RunningService service = RunningService.start(LedgerOptions.in(data).withZone(options.zone()), options.address(), options.port());
        service.ledger().status().opening().forEach(System.out::println);
        if (!service.ledger().status().running()) System.err.println("No numbers are given: " + service.ledger().status().stopped());
        System.out.println("Young Tally is ready on " + service.address() + ", data in " + data.toAbsolutePath().normalize());
        return 0;
    }
}
