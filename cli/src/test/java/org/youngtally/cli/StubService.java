package org.youngtally.cli;

import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.stream.Stream;
import picocli.CommandLine;

/** A service that answers as it was told, one answer after the other, and keeps what it was asked. */
final class StubService implements AutoCloseable {
    /** What a command was asked to do, and said. */
    record Result(int exit, String out, String err) {}

    record Asked(String method, String path, String key, String body) {
        JsonObject json() {
            return JsonParser.parseString(body).getAsJsonObject();
        }
    }

    private record Answer(int status, Map<String, String> headers, String body) {}

    private final HttpServer server;
    private final Queue<Answer> answers = new ArrayDeque<>();
    private final List<Asked> asked = new ArrayList<>();

    StubService() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::answer);
        server.start();
    }

    private synchronized void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            asked.add(new Asked(
                    exchange.getRequestMethod(),
                    exchange.getRequestURI().toString().replaceFirst("^/api/v1", ""),
                    exchange.getRequestHeaders().getFirst("Idempotency-Key"),
                    new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8)));
            Answer answer = answers.isEmpty() ? new Answer(500, Map.of(), "nothing more was expected") : answers.poll();
            answer.headers().forEach(exchange.getResponseHeaders()::add);
            byte[] body = answer.body().getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(answer.status(), body.length == 0 ? -1 : body.length);
            exchange.getResponseBody().write(body);
        }
    }

    synchronized StubService answering(int status, String body) {
        return answering(status, Map.of(), body);
    }

    synchronized StubService answering(int status, Map<String, String> headers, String body) {
        answers.add(new Answer(status, headers, body));
        return this;
    }

    synchronized List<Asked> asked() {
        return List.copyOf(asked);
    }

    String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    /** Runs a command against it, in this process. */
    Result run(String... arguments) {
        return at(address(), arguments);
    }

    static Result at(String address, String... arguments) {
        String[] all = Stream.concat(Stream.of(arguments), Stream.of("--service", address))
                .toArray(String[]::new);
        var out = new StringWriter();
        var err = new StringWriter();
        CommandLine line = Main.commandLine(all).setOut(new PrintWriter(out)).setErr(new PrintWriter(err));
        int exit = line.execute(all);
        line.getOut().flush();
        line.getErr().flush();
        return new Result(exit, out.toString(), err.toString());
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
