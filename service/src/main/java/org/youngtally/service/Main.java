package org.youngtally.service;

import java.io.PrintWriter;
import java.util.Locale;
import java.util.function.Consumer;
import org.slf4j.bridge.SLF4JBridgeHandler;
import org.youngtally.service.backup.BackupCommand;
import org.youngtally.service.demo.DemoCommand;
import org.youngtally.service.restore.RestoreCommand;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The commands that run on the data folder. */
@Command(
        name = "youngtally",
        description = "The commands that run on the data folder.",
        subcommands = {
            ServeCommand.class,
            DemoCommand.class,
            RebuildCommand.class,
            BackupCommand.class,
            RestoreCommand.class,
            PasswordCommand.class
        })
public final class Main {
    private final Consumer<RunningService> started;

    private Main(Consumer<RunningService> started) {
        this.started = started;
    }

    public static void main(String[] args) {
        int exit = run(
                new PrintWriter(System.out, true), new PrintWriter(System.err, true), RunningService::ownProcess, args);
        if (exit != 0) System.exit(exit);
    }

    /**
     * Runs a command within this process. A service that it starts goes on until it is closed.
     *
     * @param started is given the service that was started, if one was
     * @return what its process would exit with
     */
    public static int run(PrintWriter out, PrintWriter err, Consumer<RunningService> started, String... args) {
        // Figures and words are English, whatever the machine speaks.
        Locale.setDefault(Locale.ENGLISH);
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        System.setProperty("org.springframework.boot.logging.LoggingSystem", "none");
        SLF4JBridgeHandler.removeHandlersForRootLogger();
        SLF4JBridgeHandler.install();
        return new CommandLine(new Main(started))
                .setOut(out)
                .setErr(err)
                .setExecutionExceptionHandler((e, command, parsed) -> {
                    command.getErr().println(e.getMessage() == null ? e.toString() : e.getMessage());
                    return 1;
                })
                .execute(args);
    }

    /** For the commands that start a service. */
    public void started(RunningService service) {
        started.accept(service);
    }
}
