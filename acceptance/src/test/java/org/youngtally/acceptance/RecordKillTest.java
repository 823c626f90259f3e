package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Many callers save records at once, in two units that share a series, and the process is killed in the middle. */
class RecordKillTest {
    private static final int CALLERS = Integer.getInteger("record.callers", 60);
    private static final int EACH = 5;
    private static final int ANSWERS_BEFORE_THE_KILL = CALLERS * EACH * 35 / 100;
    private static final int PAGE = 200;
    private static final String DEFINED = """
            units: [{ key: group }, { key: works, below: group }, { key: care, below: group }]
            kinds: [{ key: customer, fields: [{ name: number }, { name: name, required: true }] }]
            routes: [{ kind: customer, unit: group, series: customer }]
            series: [{ key: customer, pattern: 'K{count 5}', ranges: [{ first: 1, last: 99999, opens: 2026-01-01 }] }]
            """;

    @TempDir
    private Path data;

    /** The identifier that was answered for each name. */
    private final Map<String, String> answered = new ConcurrentHashMap<>();

    @Test
    void eachRecordHasItsNumberAndEachNumberItsRecordAlsoAfterAKill() throws Exception {
        Service first = Service.process(data);
        assertThat(first.apply(DEFINED).status()).isEqualTo(200);
        var enough = new CountDownLatch(ANSWERS_BEFORE_THE_KILL);
        List<Thread> callers = saveAll(first, enough);
        enough.await();
        first.kill();
        for (Thread caller : callers) caller.join();
        Map<String, String> beforeTheKill = Map.copyOf(answered);
        assertThat(beforeTheKill).hasSizeGreaterThanOrEqualTo(ANSWERS_BEFORE_THE_KILL);

        try (Service second = Service.serve(data)) {
            assertThat(second.said()).anyMatch(line -> line.contains("the service was not stopped in order"));
            // Everybody begins again, with the keys that they had.
            for (Thread caller : saveAll(second, new CountDownLatch(0))) caller.join();
            assertThat(answered)
                    .as("what was answered before the kill was answered again")
                    .containsAllEntriesOf(beforeTheKill)
                    .hasSize(CALLERS * EACH);
            Map<String, JsonNode> kept = records(second);
            assertThat(kept).hasSize(CALLERS * EACH);
            answered.forEach((name, identifier) -> assertThat(kept.get(identifier)
                            .get("units")
                            .get(0)
                            .get("fields")
                            .get("name")
                            .asString())
                    .as(identifier)
                    .isEqualTo(name));
            assertThat(kept.keySet())
                    .as("gap-free")
                    .containsExactlyInAnyOrderElementsOf(IntStream.rangeClosed(1, CALLERS * EACH)
                            .mapToObj("K%05d"::formatted)
                            .toList());
            for (Map.Entry<String, JsonNode> each : kept.entrySet()) {
                JsonNode number =
                        second.get("/api/v1/identifiers?text=" + each.getKey()).json();
                assertThat(number).as(each.getKey()).hasSize(1);
                assertThat(number.get(0).get("record").asLong())
                        .as("the record of " + each.getKey())
                        .isEqualTo(each.getValue().get("record").asLong());
                assertThat(number.get(0).get("unit").asString())
                        .isEqualTo(
                                each.getValue().get("units").get(0).get("unit").asString());
            }
            JsonNode audit = second.post("/api/v1/audits", "{}").json();
            assertThat(audit.get("findings")).isEmpty();
            assertThat(audit.get("positions").asLong()).isEqualTo(CALLERS * EACH);
        }
    }

    private List<Thread> saveAll(Service service, CountDownLatch enough) {
        return IntStream.range(0, CALLERS)
                .mapToObj(caller -> Thread.ofVirtual().start(() -> {
                    try {
                        for (int i = 0; i < EACH; i++) {
                            String name = "Customer " + caller + "/" + i;
                            Service.Answer answer = service.post(
                                    "/api/v1/records",
                                    "{\"kind\":\"customer\",\"unit\":\"" + (caller % 2 == 0 ? "works" : "care")
                                            + "\",\"fields\":{\"name\":\"" + name + "\"}}",
                                    "Idempotency-Key",
                                    name);
                            answered.put(
                                    name,
                                    answer.json()
                                            .get("record")
                                            .get("identifier")
                                            .asString());
                            enough.countDown();
                        }
                    } catch (IOException killed) {
                        // The connection ends with the process; what was not answered is asked again of the next one.
                        enough.countDown();
                    }
                }))
                .toList();
    }

    /** Every record that is kept, by its identifier. */
    private static Map<String, JsonNode> records(Service service) throws IOException {
        var kept = new HashMap<String, JsonNode>();
        long before = Long.MAX_VALUE;
        List<JsonNode> page;
        do {
            page = new ArrayList<>();
            for (JsonNode record : service.get("/api/v1/records?limit=" + PAGE + "&before=" + before)
                    .json()) page.add(record);
            for (JsonNode record : page)
                assertThat(kept.put(record.get("identifier").asString(), record))
                        .as("one record for " + record.get("identifier"))
                        .isNull();
            if (!page.isEmpty()) before = page.getLast().get("record").asLong();
        } while (page.size() == PAGE);
        return kept;
    }
}
