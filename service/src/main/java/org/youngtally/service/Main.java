package org.youngtally.service;

import java.util.Locale;
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
    private Main() {}

    public static void main(String[] args) {
        // Figures and words are English, whatever the machine speaks.
        Locale.setDefault(Locale.ENGLISH);
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
        System.setProperty("org.springframework.boot.logging.LoggingSystem", "none");
        SLF4JBridgeHandler.removeHandlersForRootLogger();
        SLF4JBridgeHandler.install();
        int exit = new CommandLine(new Main())
                .setExecutionExceptionHandler((e, command, parsed) -> {
                    command.getErr().println(e.getMessage() == null ? e.toString() : e.getMessage());
                    return 1;
                })
                .execute(args);
        if (exit != 0) System.exit(exit);
    }
}
