package org.youngtally.acceptance;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.StringWriter;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The service, which tests speak to over the network: within this process, or in a process of its own where it is
 * killed, or where the process is the matter.
 */
final class Service implements AutoCloseable {
    static final Path JAVA = Path.of(System.getProperty("java.home"), "bin", "java");
    static final JsonMapper JSON = JsonMapper.shared();
    private static final Pattern ADDRESS = Pattern.compile("(https?)://(?:127\\.0\\.0\\.1|0\\.0\\.0\\.0):([0-9]+)");

    /** By data folder, for services that are started again. */
    private static final Map<Path, String> TOKENS = new ConcurrentHashMap<>();

    /** Absent where it runs within this process. */
    private final Optional<Process> process;

    private final AutoCloseable end;
    private final List<String> said;
    private final HttpClient http;
    private final int port;
    private final String scheme;
    private String token = "";
    private String password = "";

    /**
     * Within this process.
     *
     * @param afterwards what is done once it has ended
     */
    private Service(List<String> arguments, AutoCloseable afterwards) throws IOException {
        var written = new StringWriter();
        this.process = Optional.empty();
        AutoCloseable started = ServiceProgram.start(written, arguments);
        this.end = () -> {
            started.close();
            afterwards.close();
        };
        this.http = HttpClient.newHttpClient();
        this.said = written.toString().lines().toList();
        Matcher address = ADDRESS.matcher(written.toString());
        if (!address.find()) throw new IOException("the service named no address: " + said);
        this.scheme = address.group(1);
        this.port = Integer.parseInt(address.group(2));
    }

    private Service(Process process, String readyWord, HttpClient http) throws IOException {
        this.http = http;
        this.process = Optional.of(process);
        this.said = new ArrayList<>();
        this.end = () -> {
            process.destroy();
            process.waitFor();
        };
        int found = 0;
        String spoken = "http";
        var output = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        for (String line = output.readLine(); line != null; line = output.readLine()) {
            said.add(line);
            Matcher address = ADDRESS.matcher(line);
            if (found == 0 && address.find()) {
                spoken = address.group(1);
                found = Integer.parseInt(address.group(2));
            }
            if (line.contains(readyWord)) break;
        }
        this.port = found;
        this.scheme = spoken;
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
        var service = new Service(serving(data, options), () -> {});
        service.recognise(data);
        return service;
    }

    /** In a process of its own, which can be killed. */
    static Service process(Path data, String... options) throws IOException {
        var service = new Service(start(serving(data, options)), "is ready on", HttpClient.newHttpClient());
        service.recognise(data);
        return service;
    }

    private static List<String> serving(Path data, String... options) {
        var arguments = new ArrayList<>(List.of("serve", "--port", "0", "--data", data.toString(), "--zone", "UTC"));
        arguments.addAll(List.of(options));
        return arguments;
    }

    /**
     * By TLS and on every address of the machine, with a key store; its password is {@code changeit}.
     *
     * @param http trusts its certificate
     */
    static Service serveSecurely(Path data, Path keys, HttpClient http) throws IOException {
        ProcessBuilder builder =
                builder(List.of("serve", "--port", "0", "--address", "0.0.0.0", "--data", data.toString()));
        builder.environment().put("SERVER_SSL_KEY_STORE", keys.toString());
        builder.environment().put("SERVER_SSL_KEY_STORE_PASSWORD", "changeit");
        var service = new Service(builder.start(), "is ready on", http);
        service.recognise(data);
        return service;
    }

    /** The first administrator's password is shown at the first start alone; the tests go on with a token. */
    private void recognise(Path data) throws IOException {
        Optional<String> shown =
                said().stream().filter(line -> line.contains("its password ")).findFirst();
        if (shown.isPresent()) {
            password = shown.get().replaceFirst(".*its password ", "");
            TOKENS.put(data, tokenOf(shown.get().replaceAll(".*‘|’.*", ""), password));
        }
        token = TOKENS.getOrDefault(data, "");
    }

    /** Signs in as somebody and issues a token for them. */
    String tokenOf(String account, String itsPassword) throws IOException {
        HttpResponse<String> session = send(HttpRequest.newBuilder(URI.create(address() + "/api/v1/session"))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(
                                JSON.writeValueAsString(Map.of("account", account, "password", itsPassword)))))
                .response();
        String cookie = session.headers().firstValue("Set-Cookie").orElseThrow().replaceFirst(";.*", "");
        return send(HttpRequest.newBuilder(URI.create(address() + "/api/v1/accounts/" + account + "/tokens"))
                        .header("Content-Type", "application/json")
                        .header("Cookie", cookie)
                        .header(
                                "X-CSRF-TOKEN",
                                JSON.readTree(session.body()).get("secret").asString())
                        .POST(HttpRequest.BodyPublishers.ofString("{\"name\":\"tests\"}")))
                .text("token");
    }

    /** The demo on a folder of its own. */
    static Service demo() throws Exception {
        Path data = DemoFolder.copied();
        return demo(data, () -> Folders.delete(data));
    }

    /** The demo on a folder that stays. */
    static Service demo(Path data) throws Exception {
        return demo(data, () -> {});
    }

    private static Service demo(Path data, AutoCloseable afterwards) throws IOException {
        var service =
                new Service(List.of("demo", "--port", "0", "--zone", "UTC", "--data", data.toString()), afterwards);
        service.token = demoToken("hanna");
        service.password = demoPassword("hanna");
        return service;
    }

    static String demoToken(String account) {
        return "tally-demo-" + account;
    }

    static String demoPassword(String account) {
        return "larkmoor-" + account;
    }

    private static Process start(List<String> arguments) throws IOException {
        return builder(arguments).start();
    }

    private static ProcessBuilder builder(List<String> arguments) {
        var command = new ArrayList<>(List.of(
                JAVA.toString(),
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                // A machine of another language: the answers are English all the same.
                "-Duser.language=de",
                "-Duser.country=AT",
                "-jar",
                jar("service").toString()));
        command.addAll(arguments);
        return new ProcessBuilder(command).redirectErrorStream(true);
    }

    static Path jar(String module) {
        return Path.of("..", module, "target", "youngtally-" + module + "-0.1.0.jar")
                .toAbsolutePath()
                .normalize();
    }

    int port() {
        return port;
    }

    String address() {
        return scheme + "://127.0.0.1:" + port;
    }

    /** Of the first administrator. */
    String token() {
        return token;
    }

    /** Of the first administrator, where this start has shown it. */
    String password() {
        return password;
    }

    static String bearer(String shown) {
        return "Bearer " + shown;
    }

    List<String> said() {
        synchronized (said) {
            return List.copyOf(said);
        }
    }

    /** An answer: its status, headers and body. */
    record Answer(int status, HttpResponse<String> response) {
        JsonNode json() {
            return JSON.readTree(response.body());
        }

        String text(String name) {
            return json().get(name).asString();
        }
    }

    Answer get(String path) throws IOException {
        return send(request(path).GET());
    }

    Answer post(String path, String body, String... headers) throws IOException {
        HttpRequest.Builder request = request(path)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body));
        set(request, headers);
        return send(request);
    }

    private static void set(HttpRequest.Builder request, String... headers) {
        for (int i = 0; i < headers.length; i += 2) request.setHeader(headers[i], headers[i + 1]);
    }

    Answer put(String path, String body, String... headers) throws IOException {
        HttpRequest.Builder request =
                request(path).header("Content-Type", "application/json").PUT(HttpRequest.BodyPublishers.ofString(body));
        set(request, headers);
        return send(request);
    }

    /** Defines series from the text of a YAML file. */
    Answer apply(String yaml) throws IOException {
        return post(
                "/api/v1/definitions",
                JSON.writeValueAsString(Map.of("files", List.of(Map.of("name", "test.yaml", "text", yaml)))));
    }

    /** A request of the first administrator. */
    HttpRequest.Builder request(String path) {
        return stranger(path).header("Authorization", bearer(token));
    }

    /** A request of nobody. */
    HttpRequest.Builder stranger(String path) {
        return HttpRequest.newBuilder(URI.create(address() + path));
    }

    Answer send(HttpRequest.Builder request) throws IOException {
        try {
            HttpRequest sent = request.build();
            HttpResponse<String> response = http.send(sent, HttpResponse.BodyHandlers.ofString());
            new BothRoads(http).compare(sent, response);
            return new Answer(response.statusCode(), response);
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
    }

    /** After its end. */
    int exitCode() {
        return process.orElseThrow().exitValue();
    }

    /** Waits until something is so. */
    void await(Callable<Boolean> condition) throws Exception {
        Awaiting.until(condition, () -> "what the service said: " + said());
    }

    /** Opens a stream of events. */
    InputStream listen() throws IOException, InterruptedException {
        return http.send(request("/api/v1/events").GET().build(), HttpResponse.BodyHandlers.ofInputStream())
                .body();
    }

    /** What a start says that is refused. */
    static List<String> refused(Path data) throws IOException, InterruptedException {
        Process process = start(List.of("serve", "--port", "0", "--data", data.toString(), "--zone", "UTC"));
        List<String> said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
                .lines()
                .toList();
        if (process.waitFor() != 1) throw new IOException("the start was not refused: " + said);
        return said;
    }

    /** Ends the process at once, as a crash would. */
    void kill() throws InterruptedException {
        process.orElseThrow().destroyForcibly().waitFor();
    }

    @Override
    public void close() throws Exception {
        end.close();
    }
}
