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
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** The service in a process of its own, as it is run for real. */
record ServiceProcess(Process process, int port, HttpClient http, double readySeconds) implements AutoCloseable {
    private static final long PATIENCE_SECONDS = 300;

    static ServiceProcess start(Path jar, Path data) throws IOException, InterruptedException {
        int port;
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        long start = System.nanoTime();
        var command = new ArrayList<>(Starts.sharing(data.resolveSibling("service.jsa")));
        command.addAll(List.of("-XX:+UseParallelGC", "-jar", jar.toString(), "serve", "--port", Integer.toString(port), "--data", data.toString()));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(data.resolveSibling(data.getFileName() + ".log").toFile()).start();
        var service = new ServiceProcess(process, port, HttpClient.newHttpClient(), 0);
        while (!service.answers()) {
            if (!process.isAlive() || System.nanoTime() - start > PATIENCE_SECONDS * 1_000_000_000L) throw new IOException("the service did not start: " + Files.readString(data.resolveSibling(data.getFileName() + ".log")));
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(5));
        }
        return new ServiceProcess(process, port, service.http, (System.nanoTime() - start) / 1e9);
    }

    private boolean answers() throws InterruptedException {
        try {
            return get("/api/v1/status").contains("\"running\":true");
        } catch (IOException e) {
            return false;
        }
    }

    String get(String path) throws IOException, InterruptedException {
        return http.send(HttpRequest.newBuilder(uri(path)).build(), HttpResponse.BodyHandlers.ofString()).body();
    }

    String post(String path, String body) throws IOException, InterruptedException {
        HttpResponse<String> response = http.send(HttpRequest.newBuilder(uri(path)).header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString(body)).build(), HttpResponse.BodyHandlers.ofString());
        if (response.statusCode() >= 300) throw new IOException(response.body());
        return response.body();
    }

    private URI uri(String path) { return URI.create("http://127.0.0.1:" + port + path); }

    @Override
    public void close() throws InterruptedException {
        process.destroy();
        process.waitFor();
    }
}
