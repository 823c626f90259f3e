package org.youngtally.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * How long it takes from nothing to an answer: the service, one call of the client, and beside them a bare virtual
 * machine that makes one request.
 */
final class Starts {
    private static final int TIMES = 7;

    /** Where a figure goes: what it is, a format, its values. */
    interface Report {
        void figure(String what, String format, Object... values);
    }

    private final Path service;
    private final Path data;
    private final Report report;

    Starts(Path service, Path data, Report report) {
        this.service = service;
        this.data = data;
        this.report = report;
    }

    /** The start of a command line that shares class data between runs, as {@code ./youngtally} does. */
    static List<String> sharing(Path archive) {
        return List.of(
                ProcessHandle.current().info().command().orElse("java"),
                "-XX:+AutoCreateSharedArchive",
                "-XX:SharedArchiveFile=" + archive,
                "-Xlog:cds=off",
                "-Xlog:aot=off");
    }

    void measure() throws IOException, InterruptedException {
        var ready = new ArrayList<Double>();
        for (int i = 0; i < TIMES; i++) {
            try (ServiceProcess running = ServiceProcess.start(service, data)) {
                ready.add(running.readySeconds());
                if (i == TIMES - 1) call("http://127.0.0.1:" + running.port(), running.token());
            }
        }
        ready.sort(null);
        report.figure("service ready from start, median of " + TIMES, "%.2f s", ready.get(TIMES / 2));
    }

    private void call(String address, String token) throws IOException, InterruptedException {
        Path cli;
        try (var jars =
                Files.newDirectoryStream(service.resolve("../../../cli/target").normalize(), "youngtally-cli-*.jar")) {
            cli = jars.iterator().next();
        }
        var client = new ArrayList<>(sharing(data.resolveSibling("cli.jsa")));
        client.addAll(List.of(
                "-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-jar", cli.toString(), "status", "--service", address));
        List<String> bare = List.of(
                client.getFirst(),
                "-cp",
                System.getProperty("java.class.path"),
                OneRequest.class.getName(),
                address + "/api/v1/status",
                token);
        double[] clientTimes = new double[TIMES];
        double[] bareTimes = new double[TIMES];
        // The first run makes the shared archive, and counts for nothing.
        seconds(client, token);
        for (int i = 0; i < TIMES; i++) {
            clientTimes[i] = seconds(client, token);
            bareTimes[i] = seconds(bare, token);
        }
        Arrays.sort(clientTimes);
        Arrays.sort(bareTimes);
        report.figure(
                "one call of the client, median of " + TIMES,
                "%.2f s (%.2f × a bare virtual machine that makes one request)",
                clientTimes[TIMES / 2],
                clientTimes[TIMES / 2] / bareTimes[TIMES / 2]);
    }

    private static double seconds(List<String> command, String token) throws IOException, InterruptedException {
        long start = System.nanoTime();
        var builder = new ProcessBuilder(command);
        builder.environment().put("YOUNGTALLY_TOKEN", token);
        int exit = builder.redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start()
                .waitFor();
        if (exit != 0) throw new IOException(command + " ended with " + exit);
        return (System.nanoTime() - start) / 1e9;
    }
}
