package org.youngtally.acceptance;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.youngtally.cli.Main;
import org.youngtally.cli.Surroundings;

/**
 * Runs the commands: those of the client within this process, where they take a hundredth of the time, those of the
 * service as processes of their own.
 */
final class CommandLine {
    record Result(int exit, String out, String err) {}

    private CommandLine() {}

    /** Runs the client on a service. */
    static Result run(Path folder, Service service, String... arguments) throws Exception {
        return as(service.token(), folder, service, arguments);
    }

    /** The same as whoever has a token; empty for nobody. */
    static Result as(String token, Path folder, Service service, String... arguments) throws Exception {
        var all = new ArrayList<>(List.of(arguments));
        // What is worked out on this machine takes no service.
        boolean local = all.subList(0, Math.min(2, all.size())).equals(List.of("table", "guess"));
        if (!local && !all.contains("--service")) all.addAll(List.of("--service", service.address()));
        return client(
                Map.of(
                        "YOUNGTALLY_TOKEN",
                        token,
                        "XDG_CONFIG_HOME",
                        folder.toString(),
                        "XDG_STATE_HOME",
                        folder.toString()),
                "",
                all);
    }

    /**
     * Runs the client. What it keeps is kept in the environment's own folders or nowhere: copies of the demo are one
     * ledger, and a receipt of one would stop another.
     *
     * @param typed what it reads from standard input
     */
    static Result client(Map<String, String> environment, String typed, List<String> arguments) throws IOException {
        if (environment.containsKey("XDG_STATE_HOME")) return clientIn(environment, typed, arguments);
        Path state = Files.createTempDirectory("state");
        try {
            var all = new HashMap<>(environment);
            all.put("XDG_STATE_HOME", state.toString());
            return clientIn(all, typed, arguments);
        } finally {
            Folders.delete(state);
        }
    }

    private static Result clientIn(Map<String, String> environment, String typed, List<String> arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        int exit = Main.run(
                new Surroundings(environment, new ByteArrayInputStream(typed.getBytes(StandardCharsets.UTF_8))),
                new PrintWriter(out),
                new PrintWriter(err),
                arguments.toArray(String[]::new));
        return new Result(exit, out.toString(), err.toString());
    }

    /** Runs a command of the service on its data folder, within this process. */
    static Result onData(List<String> arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        int exit = ServiceProgram.run(out, err, arguments);
        return new Result(exit, out.toString(), err.toString());
    }

    /**
     * Runs the jar of a module as a process.
     *
     * @param folder for what it prints to standard error
     */
    static Result process(Path folder, String module, List<String> arguments) throws Exception {
        var command = new ArrayList<>(List.of(
                Service.JAVA.toString(),
                "-XX:TieredStopAtLevel=1",
                "-jar",
                Service.jar(module).toString()));
        command.addAll(arguments);
        Path err = Files.createTempFile(folder, "err", ".txt");
        Process process =
                new ProcessBuilder(command).redirectError(err.toFile()).start();
        process.getOutputStream().close();
        String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Result(process.waitFor(), out, Files.readString(err));
    }
}
