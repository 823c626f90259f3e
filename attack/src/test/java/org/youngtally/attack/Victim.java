package org.youngtally.attack;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The demo in a process of its own, as it is run for real but for a smaller heap; of another build where
 * {@code -Dattack.jar} names one.
 */
final class Victim implements AutoCloseable {
    static final JsonMapper JSON = JsonMapper.shared();
    private static final Pattern ADDRESS = Pattern.compile("http://127\\.0\\.0\\.1:([0-9]+)");
    private static final String READY = "Stop it with Control-C";

    private final Process process;
    private final HttpClient http = HttpClient.newHttpClient();
    private final int port;

    private Victim(Process process) throws Exception {
        this.process = process;
        var said = new ArrayList<String>();
        var ready = new CompletableFuture<Integer>();
        Thread.ofVirtual().start(() -> listen(said, ready));
        try {
            port = ready.get(2, TimeUnit.MINUTES);
        } catch (Exception e) {
            process.destroyForcibly();
            throw new IOException("the service did not start: " + said, e);
        }
    }

    private void listen(List<String> said, CompletableFuture<Integer> ready) {
        int found = 0;
        try (var output = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = output.readLine(); line != null; line = output.readLine()) {
                said.add(line);
                Matcher address = ADDRESS.matcher(line);
                if (found == 0 && address.find()) found = Integer.parseInt(address.group(1));
                if (line.contains(READY)) ready.complete(found);
            }
            ready.completeExceptionally(new IOException("it has ended"));
        } catch (IOException e) {
            ready.completeExceptionally(e);
        }
    }

    static Victim demo() throws Exception {
        Path jar = Path.of(System.getProperty("attack.jar", "../service/target/youngtally-service-0.1.0.jar"))
                .toAbsolutePath()
                .normalize();
        return new Victim(new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:+UseParallelGC",
                        "-XX:+ExitOnOutOfMemoryError",
                        "-Xmx1g",
                        "-jar",
                        jar.toString(),
                        "demo",
                        "--port",
                        "0",
                        "--zone",
                        "UTC")
                .redirectErrorStream(true)
                .start());
    }

    int port() {
        return port;
    }

    boolean runs() {
        return process.isAlive();
    }

    static String token(String account) {
        return "tally-demo-" + account;
    }

    HttpRequest.Builder request(String account, String path) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path));
        return account.isEmpty() ? request : request.header("Authorization", "Bearer " + token(account));
    }

    HttpResponse<String> send(HttpRequest request) throws IOException, InterruptedException {
        return http.send(request, HttpResponse.BodyHandlers.ofString());
    }

    HttpResponse<String> post(String account, String path, String body) throws IOException, InterruptedException {
        return send(request(account, path)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build());
    }

    JsonNode get(String path) throws IOException, InterruptedException {
        return JSON.readTree(send(request("hanna", path).GET().build()).body());
    }

    /**
     * Sends a request as no client would, on a connection of its own.
     *
     * @param line method and path
     * @param more header lines, each with its end
     */
    Wire.Answer raw(String line, String more, byte[] body) throws IOException {
        var request = new ByteArrayOutputStream();
        request.writeBytes((line + " HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\n" + more + "\r\n")
                .getBytes(StandardCharsets.ISO_8859_1));
        request.writeBytes(body);
        try (var wire = new Wire(port)) {
            return wire.send(request.toByteArray());
        }
    }

    /** The number of the newest entry. */
    long head() throws IOException, InterruptedException {
        return Long.parseLong(get("/api/v1/status").get("head").asString().split(":")[0]);
    }

    @Override
    public void close() throws InterruptedException {
        process.destroy();
        if (!process.waitFor(1, TimeUnit.MINUTES)) process.destroyForcibly();
    }
}
