package org.youngtally.acceptance;

import java.io.BufferedReader;
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
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The service in a process of its own, as it is run for real. */
final class Service implements AutoCloseable {
    static final Path JAVA = Path.of(System.getProperty("java.home"), "bin", "java");
    static final JsonMapper JSON = JsonMapper.shared();
    private static final Pattern ADDRESS = Pattern.compile("http://127\\.0\\.0\\.1:([0-9]+)");

    private final Process process;
    private final List<String> said = new ArrayList<>();
    private final HttpClient http = HttpClient.newHttpClient();
    private final int port;

    private Service(Process process, String readyWord) throws IOException {
        this.process = process;
        int found = 0;
        var output = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        for (String line = output.readLine(); line != null; line = output.readLine()) {
            said.add(line);
            Matcher address = ADDRESS.matcher(line);
            if (found == 0 && address.find()) found = Integer.parseInt(address.group(1));
            if (line.contains(readyWord)) break;
        }
        this.port = found;
        Thread.ofVirtual().start(() -> keep(output));
        if (port == 0) throw new IOException("the service did not start: " + said);
    }

    private void keep(BufferedReader output) {
        try {
            for (String line = output.readLine(); line != null; line = output.readLine()) {
                synchronized (said) {
                    said.add(line);
                }
            }
        } catch (IOException e) {
            // The stream is closed when the process ends, which is when there is nothing more to keep.
            synchronized (said) {
                said.add("(ended)");
            }
        }
    }

    static Service serve(Path data, String... options) throws IOException {
        var arguments = new ArrayList<>(List.of("serve", "--port", "0", "--data", data.toString(), "--zone", "UTC"));
        arguments.addAll(List.of(options));
        return new Service(start(arguments), "is ready on");
    }

    static Service demo() throws IOException { return new Service(start(List.of("demo", "--port", "0", "--zone", "UTC")), "Control-C ends it"); }

    private static Process start(List<String> arguments) throws IOException {
        var command = new ArrayList<>(List.of(JAVA.toString(), "-XX:+UseSerialGC", "-XX:TieredStopAtLevel=1", "-jar", jar("service").toString()));
        command.addAll(arguments);
        return new ProcessBuilder(command).redirectErrorStream(true).start();
    }

    static Path jar(String module) { return Path.of("..", module, "target", "youngtally-" + module + "-0.1.0.jar").toAbsolutePath().normalize(); }

    int port() { return port; }

    String address() { return "http://127.0.0.1:" + port; }

    List<String> said() {
        synchronized (said) {
            return List.copyOf(said);
        }
    }

    /** An answer: its status, headers and body. */
    record Answer(int status, HttpResponse<String> response) {
        JsonNode json() { return JSON.readTree(response.body()); }

        String text(String name) { return json().get(name).asString(); }
    }

    Answer get(String path) throws IOException { return send(request(path).GET()); }

    Answer post(String path, String body, String... headers) throws IOException {
        HttpRequest.Builder request = request(path).header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString(body));
        return send(headers.length == 0 ? request : request.headers(headers));
    }

    Answer put(String path, String body, String... headers) throws IOException {
        return send(request(path).header("Content-Type", "application/json").headers(headers).PUT(HttpRequest.BodyPublishers.ofString(body)));
    }

    /** Defines series from the text of a YAML file. */
    Answer apply(String yaml) throws IOException { return post("/api/v1/definitions", JSON.writeValueAsString(Map.of("files", List.of(Map.of("name", "test.yaml", "text", yaml))))); }

    HttpRequest.Builder request(String path) { return HttpRequest.newBuilder(URI.create(address() + path)); }

    Answer send(HttpRequest.Builder request) throws IOException {
        try {
            HttpResponse<String> response = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            return new Answer(response.statusCode(), response);
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
    }

    /** Ends the process at once, as a crash would. */
    void kill() throws InterruptedException {
        process.destroyForcibly();
        process.waitFor();
    }

    @Override
    public void close() throws InterruptedException {
        process.destroy();
        process.waitFor();
    }
}
