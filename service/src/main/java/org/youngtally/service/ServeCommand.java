package org.youngtally.service;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.Status;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.service.access.FirstAccount;
import org.youngtally.service.backup.BackupOptions;
import org.youngtally.service.backup.BackupPlan;
import org.youngtally.service.demo.DemoCommand;
import org.youngtally.service.printing.Printers;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.ParentCommand;
import picocli.CommandLine.Spec;

@Command(name = "serve", description = "Run the service on a data folder.", mixinStandardHelpOptions = true)
final class ServeCommand implements Callable<Integer> {
    @Mixin
    private ServiceOptions options;

    @Mixin
    private BackupOptions safety;

    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description = "The data folder (YOUNGTALLY_DATA; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_DATA:-youngtally-data}")
    private Path data;

    @Spec
    private CommandSpec spec;

    @ParentCommand
    private Main main;

    @Option(
            names = "--behind-proxy",
            description =
                    "A proxy in front of the service ends TLS: cookies are restricted to HTTPS, and plain HTTP from other machines is allowed.")
    private boolean behindProxy;

    @Option(
            names = "--first-account",
            paramLabel = "NAME",
            description =
                    "The name of the first administrator, at the first start on a folder (YOUNGTALLY_FIRST_ACCOUNT; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_FIRST_ACCOUNT:-administrator}")
    private String firstAccount;

    @Option(
            names = "--printer",
            paramLabel = "ADDRESS",
            description =
                    "A printer that labels may be sent to, such as ipp://192.0.2.7/ipp/print; the option may be repeated. The service prints at no other address.")
    private List<String> printers = List.of();

    private List<PrinterAddress> addresses() {
        return printers.stream().map(this::address).distinct().toList();
    }

    private PrinterAddress address(String text) {
        try {
            return PrinterAddress.of(text);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--printer: ‘" + text + "’ " + e.getMessage() + ". Enter one such as ipp://192.0.2.7/ipp/print.",
                    e);
        }
    }

    @Override
    public Integer call() throws IOException {
        DefinitionName.fault("--first-account", firstAccount).ifPresent(fault -> {
            throw new ParameterException(
                    spec.commandLine(), "--first-account: " + fault.problem() + "; " + fault.accepted());
        });
        if (Files.exists(data.resolve(DemoCommand.CLOCK))
                && !InetAddress.getByName(options.address()).isLoopbackAddress())
            throw new IOException("--data: " + data
                    + " is a folder of the demo, whose passwords are public. Serve it on 127.0.0.1 only.");
        LedgerOptions ledger = LedgerOptions.in(data).withZone(options.zone()).withCopy(safety.copy());
        BackupPlan plan = safety.plan();
        plan.passphrase();
        if (safety.endsCopy()) Ledger.endCopy(ledger, safety.copyLost());
        RunningService service = RunningService.start(
                ledger,
                options.address(),
                options.port(),
                behindProxy,
                new Printers(addresses(), Optional.empty()),
                plan,
                () -> {});
        main.started(service);
        PrintWriter out = spec.commandLine().getOut();
        service.ledger().status().opening().forEach(out::println);
        Status status = service.ledger().status();
        if (!status.running())
            spec.commandLine()
                    .getErr()
                    .println("No numbers are allocated: "
                            + (status.stopped().isEmpty() ? status.paused() : status.stopped()));
        FirstAccount.make(service.ledger(), firstAccount)
                .ifPresent(password -> out.println("The first account is ‘" + firstAccount + "’, its password "
                        + password + "\nIt is shown only once. Sign in and change it, or write it down."));
        out.println("Young Tally is ready on " + service.address() + ", data in "
                + data.toAbsolutePath().normalize());
        return 0;
    }
}
