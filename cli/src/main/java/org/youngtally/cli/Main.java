package org.youngtally.cli;

import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.function.Supplier;
import org.youngtally.core.text.NearestName;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ParameterException;

/** The command-line client. It speaks to the service over HTTP and nothing else. */
@Command(
        name = "youngtally",
        description = "Allocates identifiers from number series: no duplicates, and no gap without an explanation.",
        mixinStandardHelpOptions = true,
        versionProvider = Main.Version.class,
        synopsisSubcommandLabel = "COMMAND",
        footer = {
            "",
            "Commands that run on the data folder: serve, demo, backup, restore BACKUP, rebuild, new-password.",
            "Exit: 0 done, 1 refused, 2 wrong usage, 3 service not reachable."
        })
public final class Main {
    static final int DONE = 0;
    static final int REFUSED = 1;
    static final int WRONG_USAGE = 2;
    static final int NOT_REACHABLE = 3;

    private static final Map<String, Supplier<Object>> COMMANDS = commands();

    private Main() {}

    public static void main(String[] args) {
        System.exit(commandLine(args).execute(args));
    }

    /**
     * Runs a command within this process.
     *
     * @return what its process would exit with
     */
    public static int run(Surroundings surroundings, PrintWriter out, PrintWriter err, String... args) {
        Surroundings.set(surroundings);
        try {
            return commandLine(args).setOut(out).setErr(err).execute(args);
        } finally {
            Surroundings.reset();
            out.flush();
            err.flush();
        }
    }

    private static Map<String, Supplier<Object>> commands() {
        var commands = new LinkedHashMap<String, Supplier<Object>>();
        commands.put("allocate", AllocateCommand::new);
        commands.put("hold", HoldCommand::new);
        commands.put("clock", ClockCommand::new);
        commands.put("confirm", ConfirmCommand::new);
        commands.put("release", ReleaseCommand::new);
        commands.put("return", ReturnCommand::new);
        commands.put("void", VoidCommand::new);
        commands.put("block", BlockCommand::new);
        commands.put("holds", HoldsCommand::new);
        commands.put("voids", VoidsCommand::new);
        commands.put("find", FindCommand::new);
        commands.put("record", RecordCommand::new);
        commands.put("file", FileCommand::new);
        commands.put("fill", FillCommand::new);
        commands.put("table", TableCommand::new);
        commands.put("number", NumberCommand::new);
        commands.put("label", LabelCommand::new);
        commands.put("audit", AuditCommand::new);
        commands.put("apply", ApplyCommand::new);
        commands.put("export", ExportCommand::new);
        commands.put("schema", SchemaCommand::new);
        commands.put("series", SeriesCommand::new);
        commands.put("codebook", CodebookCommand::new);
        commands.put("calendar", CalendarCommand::new);
        commands.put("period", PeriodCommand::new);
        commands.put("unit", UnitCommand::new);
        commands.put("kind", KindCommand::new);
        commands.put("routes", RoutesCommand::new);
        commands.put("account", AccountCommand::new);
        commands.put("token", TokenCommand::new);
        commands.put("sign-in", SignInCommand::new);
        commands.put("sign-out", SignOutCommand::new);
        commands.put("starter", StarterCommand::new);
        commands.put("entry", EntryCommand::new);
        commands.put("status", StatusCommand::new);
        commands.put("restore", RestoreCommand::new);
        commands.put("doubt", DoubtCommand::new);
        commands.put("check", CheckCommand::new);
        commands.put("completion", Completion::new);
        return commands;
    }

    /**
     * Reading the options of every command takes half of a call's time, so that a command that is named is read alone.
     */
    static CommandLine commandLine(String... args) {
        var line = new CommandLine(new Main());
        String wanted =
                args.length > 0 && !args[0].equals("completion") && COMMANDS.containsKey(args[0]) ? args[0] : "";
        COMMANDS.forEach((name, command) -> {
            if (wanted.isEmpty() || name.equals(wanted)) line.addSubcommand(name, command.get());
        });
        line.setExecutionStrategy(Main::understood);
        line.setParameterExceptionHandler((e, given) -> {
            CommandLine command = e.getCommandLine();
            String synopsis = command.getHelp().synopsis(0).strip();
            command.getErr()
                    .println("Usage: " + synopsis.lines().findFirst().orElse("") + "\nHelp: "
                            + command.getCommandSpec().qualifiedName() + " --help\n" + wrong(e));
            return WRONG_USAGE;
        });
        return line.setExecutionExceptionHandler((e, command, parsed) -> {
            if (e instanceof Refused refused) {
                refused.print(command.getErr());
                return REFUSED;
            }
            command.getErr().println(e.getMessage());
            return e instanceof NotReachable ? NOT_REACHABLE : e instanceof ParameterException ? WRONG_USAGE : REFUSED;
        });
    }

    /** Runs what was asked for; a word that is no command is wrong even where help is asked for. */
    private static int understood(CommandLine.ParseResult asked) {
        for (CommandLine.ParseResult part = asked; part != null; part = part.subcommand())
            if (!part.unmatched().isEmpty())
                throw new CommandLine.UnmatchedArgumentException(
                        part.commandSpec().commandLine(), part.unmatched());
        return new CommandLine.RunLast().execute(asked);
    }

    private static String wrong(ParameterException e) {
        CommandLine command = e.getCommandLine();
        if (!(e instanceof CommandLine.UnmatchedArgumentException unmatched)
                || command.getSubcommands().isEmpty()
                || unmatched.getUnmatched().getFirst().startsWith("-")) return e.getMessage();
        String word = unmatched.getUnmatched().getFirst();
        Set<String> known = command.getCommandSpec().parent() == null
                ? COMMANDS.keySet()
                : command.getSubcommands().keySet();
        return "Unknown command ‘" + word + "’."
                + NearestName.to(word, known)
                        .map(near -> " Did you mean ‘" + near + "’?")
                        .orElse("");
    }

    static final class Version implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            String version = Main.class.getPackage().getImplementationVersion();
            return new String[] {"Young Tally " + (version == null ? "(not packaged)" : version)};
        }
    }

    @Command(
            name = "completion",
            description = "Print the completion script for bash and zsh: source <(youngtally completion)",
            mixinStandardHelpOptions = true)
    static final class Completion implements Callable<Integer> {
        @CommandLine.Spec
        private CommandLine.Model.CommandSpec spec;

        @Override
        public Integer call() {
            spec.commandLine()
                    .getOut()
                    .print(AutoComplete.bash("youngtally", spec.root().commandLine()));
            spec.commandLine().getOut().flush();
            return DONE;
        }
    }
}
