package org.youngtally.bench;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** The service in a process of its own, as it is run for real. */
record ServiceProcess(Process process, int port, HttpClient http, double readySeconds, String token)
        implements AutoCloseable {
    /** By data folder: the first password is shown at the first start alone. */
    private static final Map<Path, String> TOKENS = new ConcurrentHashMap<>();

    private static final String SHOWN = "its password ";
    private static final long PATIENCE_SECONDS = 300;

    static ServiceProcess start(Path jar, Path data, String... options) throws IOException, InterruptedException {
        int port;
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        long start = System.nanoTime();
        var command = new ArrayList<>(Starts.service(jar, data.resolveSibling("service.jsa")));
        command.addAll(List.of(
                "-XX:+UseParallelGC",
                "-jar",
                jar.toString(),
                "serve",
                "--port",
                Integer.toString(port),
                "--data",
                data.toString()));
        command.addAll(List.of(options));
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(data.resolveSibling(data.getFileName() + ".log").toFile())
                .start();
        Path log = data.resolveSibling(data.getFileName() + ".log");
        var service = new ServiceProcess(process, port, HttpClient.newHttpClient(), 0, "");
        while (!service.answers()) {
            if (!process.isAlive() || System.nanoTime() - start > PATIENCE_SECONDS * 1_000_000_000L)
                throw new IOException("the service did not start: "
                        + Files.readString(data.resolveSibling(data.getFileName() + ".log")));
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
        }
        double ready = (System.nanoTime() - start) / 1e9;
        while (!Files.readString(log).contains("is ready on")) LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
        if (!TOKENS.containsKey(data)) TOKENS.put(data, service.tokenFor(Files.readString(log)));
        return new ServiceProcess(process, port, service.http, ready, TOKENS.get(data));
    }

    private boolean answers() throws InterruptedException {
        try {
            return get("/api/v1/health").contains("\"running\":true");
        } catch (IOException e) {
            return false;
        }
    }

    /** Signs in with the first password, as the log shows it, and issues a token. */
    private String tokenFor(String log) throws IOException, InterruptedException {
        int at = log.lastIndexOf(SHOWN) + SHOWN.length();
        String credentials = "{\"account\":\"administrator\",\"password\":\""
                + log.substring(at, log.indexOf('\n', at)).strip() + "\"}";
        HttpResponse<String> session = http.send(
                HttpRequest.newBuilder(uri("/api/v1/session"))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(credentials))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        String cookie = session.headers()
                .firstValue("Set-Cookie")
                .orElseThrow(() -> new IOException(session.body()))
                .replaceFirst(";.*", "");
        String secret = session.body().replaceFirst(".*\"secret\":\"", "").replaceFirst("\".*", "");
        return http.send(
                        HttpRequest.newBuilder(uri("/api/v1/accounts/administrator/tokens"))
                                .header("Content-Type", "application/json")
                                .header("Cookie", cookie)
                                .header("X-CSRF-TOKEN", secret)
                                .POST(HttpRequest.BodyPublishers.ofString("{\"name\":\"bench\"}"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body()
                .replaceFirst(".*\"token\":\"", "")
                .replaceFirst("\".*", "");
    }

    String get(String path) throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(uri(path));
        // Before there is a token, the service is asked as by a stranger.
        if (!token.isEmpty()) request.header("Authorization", "Bearer " + token);
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString()).body();
    }

    String post(String path, String body) throws IOException, InterruptedException {
        HttpResponse<String> response = http.send(
                HttpRequest.newBuilder(uri(path))
                        .header("Content-Type", "application/json")
                        .header("Authorization", "Bearer " + token)
                        .POST(HttpRequest.BodyPublishers.ofString(body))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        if (response.statusCode() >= 300) throw new IOException(response.body());
        return response.body();
    }

    private URI uri(String path) {
        return URI.create("http://127.0.0.1:" + port + path);
    }

    @Override
    public void close() throws InterruptedException {
        process.destroy();
        process.waitFor();
    }
}
