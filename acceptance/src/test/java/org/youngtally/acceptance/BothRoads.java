package org.youngtally.acceptance;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;

/**
 * Sends again what the service answers by its quick road, once more by that and once by the usual one: what is repeated
 * is answered alike, byte for byte.
 */
final class BothRoads {
    private static final Pattern QUICK =
            Pattern.compile("POST /api/v1/(series|kinds)/[^/]+/allocations|GET /api/v1/identifiers");
    /** With a weight it is not quite plain, which is what takes the usual road; it means the same. */
    private static final String USUAL = "application/json;q=0.9";
    /** These say when it was answered, and after which entry. */
    private static final Set<String> OF_THE_MOMENT = Set.of("date", "ledger-receipt");

    private final HttpClient http;

    BothRoads(HttpClient http) {
        this.http = http;
    }

    /** Of an answer, what does not depend on the moment. */
    private record Said(int status, Map<String, List<String>> headers, String body) {}

    /** Compares the two for a request that was answered. */
    void compare(HttpRequest request, HttpResponse<String> answer) throws IOException, InterruptedException {
        if (!isRepeatable(request, answer)) return;
        Said before = said(request);
        Said usual = said(HttpRequest.newBuilder(request, (name, value) -> !name.equalsIgnoreCase("Accept"))
                .header("Accept", USUAL)
                .build());
        // Others may have changed the ledger meanwhile, and it says something else now.
        if (!before.equals(said(request)) || before.equals(usual)) return;
        throw new AssertionError("the two roads differ for " + request + ":\n" + before + "\n" + usual);
    }

    /** Whether it is the same request when it is sent again: by its key, or because nothing was done. */
    private static boolean isRepeatable(HttpRequest request, HttpResponse<String> answer) {
        boolean kept = request.headers().firstValue("Idempotency-Key").isPresent();
        boolean refused = answer.statusCode() >= 400 && answer.statusCode() < 500;
        return QUICK.matcher(request.method() + " " + request.uri().getPath()).matches()
                && request.headers().firstValue("Accept").isEmpty()
                && (request.method().equals("GET") || kept || refused);
    }

    private Said said(HttpRequest request) throws IOException, InterruptedException {
        HttpResponse<String> response = http.send(request, HttpResponse.BodyHandlers.ofString());
        var headers = new TreeMap<>(response.headers().map());
        headers.keySet().removeAll(OF_THE_MOMENT);
        return new Said(response.statusCode(), headers, response.body());
    }
}
