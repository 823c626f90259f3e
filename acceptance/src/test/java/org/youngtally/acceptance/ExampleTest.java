package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.util.ArrayList;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The examples in the description of the interface are requests that it understands. */
class ExampleTest {
    @Test
    void everyExampleIsUnderstood() throws Exception {
        var wrong = new ArrayList<String>();
        try (Service service = Service.demo()) {
            JsonNode document = service.get("/api/openapi.json").json();
            for (AccessTable.Described operation : AccessTable.described(document)) {
                JsonNode example = document.at("/paths/" + operation.path().replace("/", "~1") + "/"
                        + operation.method().toLowerCase(Locale.ROOT)
                        + "/requestBody/content/application~1json/example");
                if (example.isMissingNode()) continue;
                AccessTable.Rule rule = AccessTable.rule(operation.operation());
                // What is defined has the key by which the address names it.
                String key = example.path("key").asString("invoice-works");
                String path = new AccessTable.Rule(
                                rule.right(),
                                rule.who(),
                                rule.path().replace("{series}", key).replace("{codebook}", key),
                                "")
                        .path("works", "hanna");
                Service.Answer answer = service.send(service.request("/api/v1" + path)
                        .header("Content-Type", "application/json")
                        .header("If-Match", "*")
                        .method(operation.method(), HttpRequest.BodyPublishers.ofString(example.toString())));
                if (answer.status() == 400 || answer.status() == 415 || answer.status() >= 500)
                    wrong.add(operation.operation() + ": " + answer.response().body());
            }
        }
        assertThat(wrong).isEmpty();
    }
}
