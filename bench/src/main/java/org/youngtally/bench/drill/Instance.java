package org.youngtally.bench.drill;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A service in a process of its own, on a data folder and a port that stay the same over its starts. */
final class Instance implements AutoCloseable {
    private static final String SHOWN = "its password ";
    private static final String RECEIPT = "Ledger-Receipt";
    private static final Duration PATIENCE = Duration.ofSeconds(40);

    private final Path jar;
    private final Path data;
    private final Path log;
    private final int port;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(2)).build();
    private Process process;
    private List<String> options = List.of();
    private String token = "";

    /** @param log where the output of each start goes */
    Instance(Path jar, Path data, Path log) throws IOException {
        this.jar = jar;
        this.data = data;
        this.log = log;
        try (var socket = new ServerSocket(0)) {
            this.port = socket.getLocalPort();
        }
    }

    Path data() {
        return data;
    }

    /** What the next starts are told besides the folder. */
    void options(List<String> given) {
        options = List.copyOf(given);
    }

    /** Runs a command on the data folder. @return what it says */
    String command(String... words) throws IOException, InterruptedException {
        var line = new ArrayList<String>(
                List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-jar", jar.toString()));
        line.addAll(List.of(words));
        Process command = new ProcessBuilder(line).redirectErrorStream(true).start();
        String told = new String(command.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (command.waitFor() != 0) throw new IOException(String.join(" ", words) + ": " + told.strip());
        return told;
    }

    /** Starts it and waits until it says that it is ready. */
    void start(Map<String, String> environment) throws IOException, InterruptedException {
        launch(environment);
        awaitTrue("ready", () -> said().contains("is ready on") || !process.isAlive());
        if (!process.isAlive()) throw new IOException("the service did not start: " + said());
        if (said().contains(SHOWN)) token = firstToken();
    }

    /** Starts it, and expects that it is refused. @return what it says */
    String startRefused() throws IOException, InterruptedException {
        launch(Map.of());
        if (!process.waitFor(PATIENCE.toSeconds(), TimeUnit.SECONDS)) {
            kill();
            throw new IOException("a second process was let in: " + said());
        }
        return said().strip();
    }

    private void launch(Map<String, String> environment) throws IOException {
        var line = new ArrayList<String>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "-jar",
                jar.toString(),
                "serve",
                "--zone",
                "UTC",
                "--port",
                Integer.toString(port),
                "--data",
                data.toString()));
        line.addAll(options);
        var builder = new ProcessBuilder(line);
        builder.environment().putAll(environment);
        process = builder.redirectErrorStream(true).redirectOutput(log.toFile()).start();
    }

    long pid() {
        return process.pid();
    }

    /** What this start has said so far. */
    String said() throws IOException {
        return Files.readString(log);
    }

    /** What this start has said behind some words; empty where it has not said them. */
    String told(String words) throws IOException {
        return said().lines()
                .filter(line -> line.startsWith(words))
                .findFirst()
                .map(line -> line.substring(words.length()))
                .orElse("");
    }

    private String firstToken() throws IOException, InterruptedException {
        int at = said().lastIndexOf(SHOWN) + SHOWN.length();
        String password = said().substring(at, said().indexOf('\n', at)).strip();
        HttpResponse<String> session = http.send(
                request("/session")
                        .POST(HttpRequest.BodyPublishers.ofString(
                                "{\"account\":\"administrator\",\"password\":\"" + password + "\"}"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        HttpRequest issue = request("/accounts/administrator/tokens")
                .header(
                        "Cookie",
                        session.headers().firstValue("Set-Cookie").orElseThrow().replaceFirst(";.*", ""))
                .header("X-CSRF-TOKEN", Text.of(session.body(), "secret"))
                .POST(HttpRequest.BodyPublishers.ofString("{\"name\":\"drill\"}"))
                .build();
        return Text.of(http.send(issue, HttpResponse.BodyHandlers.ofString()).body(), "token");
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/v1" + path))
                .timeout(Duration.ofSeconds(30))
                .header("Content-Type", "application/json");
    }

    HttpResponse<String> get(String path) throws IOException, InterruptedException {
        return http.send(
                request(path).header("Authorization", "Bearer " + token).GET().build(),
                HttpResponse.BodyHandlers.ofString());
    }

    /** The receipt that comes with an answer. */
    String receipt() throws IOException, InterruptedException {
        return get("/status").headers().firstValue(RECEIPT).orElseThrow();
    }

    /** Shows a receipt. */
    void show(String receipt) throws IOException, InterruptedException {
        http.send(
                request("/status")
                        .header("Authorization", "Bearer " + token)
                        .header(RECEIPT, receipt)
                        .GET()
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    HttpResponse<String> post(String path, String body, String key) throws IOException, InterruptedException {
        HttpRequest.Builder request = request(path)
                .header("Authorization", "Bearer " + token)
                .POST(HttpRequest.BodyPublishers.ofString(body));
        if (!key.isEmpty()) request.header("Idempotency-Key", key);
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    /** Whether it says that it gives numbers. */
    boolean isReady() throws InterruptedException {
        try {
            return get("/health").statusCode() == 200;
        } catch (IOException e) {
            return false;
        }
    }

    /** Something that comes about by itself. */
    interface Condition {
        boolean isSo() throws IOException, InterruptedException;
    }

    /** @return how long it took, in seconds */
    static double awaitTrue(String what, Condition condition) throws IOException, InterruptedException {
        long began = System.nanoTime();
        while (!condition.isSo()) {
            if (System.nanoTime() - began > PATIENCE.toNanos())
                throw new IOException("it took more than " + PATIENCE.toSeconds() + " s: " + what);
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(10));
        }
        return (System.nanoTime() - began) / 1e9;
    }

    void kill() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    /** Asks it to end. @return its exit code */
    int stop() throws InterruptedException {
        process.destroy();
        return process.waitFor();
    }

    @Override
    public void close() throws InterruptedException {
        if (process != null && process.isAlive()) kill();
    }

    static void run(List<String> command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes());
        if (process.waitFor() != 0) throw new IOException(String.join(" ", command) + ": " + said.strip());
    }
}
