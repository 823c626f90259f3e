package org.youngtally.acceptance;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;

/** Stands in front of a service, which answers; one of its answers never reaches who asked. */
final class LostAnswer implements AutoCloseable {
    private final HttpServer server;
    private final HttpClient http = HttpClient.newHttpClient();

    /** @param lost the path whose answers are lost, behind the version */
    LostAnswer(Service service, String lost) throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            try (exchange) {
                HttpResponse<byte[]> answer = asked(service, exchange);
                if (exchange.getRequestURI().getPath().equals("/api/v1" + lost)) return;
                exchange.getResponseHeaders()
                        .set(
                                "Content-Type",
                                answer.headers().firstValue("Content-Type").orElse("application/json"));
                exchange.sendResponseHeaders(
                        answer.statusCode(), answer.body().length == 0 ? -1 : answer.body().length);
                exchange.getResponseBody().write(answer.body());
            }
        });
        server.start();
    }

    private HttpResponse<byte[]> asked(Service service, HttpExchange exchange) throws IOException {
        var request = HttpRequest.newBuilder(URI.create(service.address() + exchange.getRequestURI()))
                .method(
                        exchange.getRequestMethod(),
                        BodyPublishers.ofByteArray(exchange.getRequestBody().readAllBytes()));
        for (String name : new String[] {"Authorization", "Content-Type", "Accept", "Idempotency-Key"})
            if (exchange.getRequestHeaders().getFirst(name) != null)
                request.header(name, exchange.getRequestHeaders().getFirst(name));
        try {
            return http.send(request.build(), BodyHandlers.ofByteArray());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
        http.close();
    }
}
