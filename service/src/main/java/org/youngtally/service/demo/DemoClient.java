package org.youngtally.service.demo;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.web.client.RestClient;
import tools.jackson.databind.JsonNode;

/** Calls the service as any program would. */
final class DemoClient {
    private final RestClient http;

    DemoClient(String address) {
        this.http = RestClient.create(address + "/api/v1");
    }

    private static String shown(String by) {
        return "Bearer " + DemoAccounts.token(by);
    }

    JsonNode apply(String by, String name, String text) {
        return post(by, "/definitions", Map.of("files", List.of(Map.of("name", name, "text", text))), Optional.empty());
    }

    JsonNode allocate(
            String by,
            String series,
            long quantity,
            String date,
            Optional<String> reference,
            Map<String, String> fields,
            String key) {
        var request = new LinkedHashMap<String, Object>();
        request.put("quantity", quantity);
        request.put("date", date);
        var given = new LinkedHashMap<>(fields);
        String unit = given.remove("unit");
        if (unit != null) request.put("unit", unit);
        if (!given.isEmpty()) request.put("fields", given);
        reference.ifPresent(name -> request.put("reference", name));
        return post(by, "/series/" + series + "/allocations", request, Optional.of(key));
    }

    JsonNode act(DemoFiles.Deed deed, String key) {
        return send(
                deed.put() ? HttpMethod.PUT : HttpMethod.POST, deed.by(), deed.path(), deed.body(), Optional.of(key));
    }

    JsonNode find(String by, String identifier) {
        return http.get()
                .uri("/identifiers?text={text}", identifier)
                .header(HttpHeaders.AUTHORIZATION, shown(by))
                .retrieve()
                .body(JsonNode.class);
    }

    JsonNode audit(String by) {
        return post(by, "/audits", Map.of(), Optional.empty());
    }

    private JsonNode post(String by, String path, Object body, Optional<String> key) {
        return send(HttpMethod.POST, by, path, body, key);
    }

    private JsonNode send(HttpMethod method, String by, String path, Object body, Optional<String> key) {
        var request = http.method(method)
                .uri(path)
                .contentType(MediaType.APPLICATION_JSON)
                .header(HttpHeaders.AUTHORIZATION, shown(by));
        key.ifPresent(value -> request.header("Idempotency-Key", value));
        // The demo's story is the only one who writes, so that whichever version there is is the one it knows.
        if (method == HttpMethod.PUT) request.header(HttpHeaders.IF_MATCH, "*");
        return request.body(body).retrieve().body(JsonNode.class);
    }
}
