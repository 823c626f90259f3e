package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ParameterException;

/** The command-line client. It speaks to the service over HTTP and nothing else. */
@Command(name = "youngtally", description = "Numbers without gaps and without doubles.", mixinStandardHelpOptions = true, versionProvider = Main.Version.class, synopsisSubcommandLabel = "COMMAND",
        subcommands = {AllocateCommand.class, BlockCommand.class, FindCommand.class, AuditCommand.class, ApplyCommand.class, SeriesCommand.class, EntryCommand.class, StatusCommand.class, Main.Completion.class},
        footer = {"", "The commands that own the data: serve, demo, rebuild.", "Exit: 0 done, 1 refused, 2 wrong usage, 3 service not reachable."})
public final class Main {
    static final int DONE = 0;
    static final int REFUSED = 1;
    static final int WRONG_USAGE = 2;
    static final int NOT_REACHABLE = 3;

    private Main() {}

    public static void main(String[] args) {
        System.exit(commandLine().execute(args));
    }

    static CommandLine commandLine() {
        return new CommandLine(new Main()).setExecutionExceptionHandler((e, command, parsed) -> {
            if (e instanceof Refused refused) {
                refused.print(command.getErr());
                return REFUSED;
            }
            command.getErr().println(e.getMessage());
            return e instanceof NotReachable ? NOT_REACHABLE : e instanceof ParameterException ? WRONG_USAGE : REFUSED;
        });
    }

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = Main.class.getPackage().getImplementationVersion();
            return new String[] {"Young Tally " + (version == null ? "(not packaged)" : version)};
        }
    }

    @Command(name = "completion", description = "Print the completion script for bash and zsh: source <(youngtally completion)", mixinStandardHelpOptions = true)
    static final class Completion implements Callable<Integer> {
        @CommandLine.Spec
        private CommandLine.Model.CommandSpec spec;

        @Override
        public Integer call() {
            spec.commandLine().getOut().print(AutoComplete.bash("youngtally", spec.root().commandLine()));
            spec.commandLine().getOut().flush();
            return DONE;
        }
    }
}
