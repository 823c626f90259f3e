package org.youngtally.bench;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

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

    /**
     * The start of a command line of the service, as {@code ./youngtally} runs it: from the ahead-of-time cache that
     * the build made, where there is one.
     */
    static List<String> service(Path jar, Path archive) {
        Path cache = jar.resolve("../../../.youngtally/service.aot").normalize();
        if (!Files.exists(cache)) return sharing(archive);
        return List.of(
                ProcessHandle.current().info().command().orElse("java"),
                "-XX:AOTCache=" + cache,
                "-Xlog:cds=off",
                "-Xlog:aot=off",
                "-XX:+ExitOnOutOfMemoryError",
                "--enable-native-access=ALL-UNNAMED");
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
        double beside = empty();
        report.figure(
                "service ready from start, median of " + TIMES,
                "%.2f s (%.2f × an empty Spring Boot web application)",
                ready.get(TIMES / 2),
                ready.get(TIMES / 2) / beside);
    }

    /** @return seconds until an application answers that has nothing in it, with class data of its own */
    private double empty() throws IOException, InterruptedException {
        var times = new ArrayList<Double>();
        for (int i = 0; i <= TIMES; i++) {
            int port;
            try (var socket = new ServerSocket(0)) {
                port = socket.getLocalPort();
            }
            var command = new ArrayList<>(sharing(data.resolveSibling("empty.jsa")));
            command.addAll(List.of(
                    "-XX:+UseParallelGC",
                    "-cp",
                    System.getProperty("java.class.path"),
                    EmptyApplication.class.getName(),
                    "--server.port=" + port));
            long start = System.nanoTime();
            Process process = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            try {
                while (!answers(port)) {
                    if (!process.isAlive()) throw new IOException("the empty application ended");
                    LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
                }
                // The first run makes the shared archive, and counts for nothing.
                if (i > 0) times.add((System.nanoTime() - start) / 1e9);
            } finally {
                process.destroy();
                process.waitFor();
            }
        }
        times.sort(null);
        return times.get(TIMES / 2);
    }

    private static boolean answers(int port) {
        try (var socket = new Socket("127.0.0.1", port)) {
            socket.getOutputStream()
                    .write("GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n"
                            .getBytes(StandardCharsets.US_ASCII));
            return socket.getInputStream().read() >= 0;
        } catch (IOException e) {
            return false;
        }
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
