package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** The real process is killed under load, again and again. */
class KillTest {
    private static final int KILLS = Integer.getInteger("kills", 2);
    private static final int CALLERS = 8;
    private static final int ANSWERS_BEFORE_A_KILL = 150;

    @TempDir
    private Path data;

    @Test
    void everyNumberThatWasAnsweredSurvivesKillMinusNine() throws Exception {
        Map<String, String> answered = new ConcurrentHashMap<>();
        Queue<String> doubles = new ConcurrentLinkedQueue<>();
        for (int round = 0; round < KILLS; round++) {
            Service service = Service.process(data);
            if (round == 0)
                assertThat(service.apply(
                                        "series: [{key: n, pattern: 'N-{count 7}', ranges: [{first: 1, last: 9999999, opens: 2026-01-01}]}]")
                                .status())
                        .isEqualTo(200);
            else assertThat(service.said()).anyMatch(line -> line.contains("the service was not stopped in order"));
            loadThenKill(service, round, answered, doubles);
        }
        assertThat(doubles).isEmpty();
        assertThat(answered.size()).isGreaterThanOrEqualTo(KILLS * ANSWERS_BEFORE_A_KILL);
        try (Service service = Service.serve(data)) {
            for (Map.Entry<String, String> each : answered.entrySet()) {
                JsonNode found =
                        service.get("/api/v1/identifiers?text=" + each.getKey()).json();
                assertThat(found).as(each.getKey()).hasSize(1);
                assertThat(found.get(0).get("reference").asString()).isEqualTo(each.getValue());
            }
            JsonNode audit = service.post("/api/v1/audits", "{}").json();
            assertThat(audit.get("findings")).isEmpty();
            assertThat(audit.get("positions").asLong()).isGreaterThanOrEqualTo(answered.size());
            // A request that was cut off is repeated with its key: it is done now, or was done then, and once in either
            // case.
            JsonNode repeated = service.post(
                            "/api/v1/series/n/allocations", "{\"reference\":\"0/0/0\"}", "Idempotency-Key", "0/0/0")
                    .json();
            assertThat(answered.get(repeated.get("first").asString())).isEqualTo("0/0/0");
        }
    }

    private static void loadThenKill(Service service, int round, Map<String, String> answered, Queue<String> doubles)
            throws Exception {
        var enough = new CountDownLatch(ANSWERS_BEFORE_A_KILL);
        List<Thread> callers = IntStream.range(0, CALLERS)
                .mapToObj(caller -> Thread.ofVirtual().start(() -> {
                    try {
                        for (int i = 0; ; i++) {
                            String reference = round + "/" + caller + "/" + i;
                            Service.Answer answer = service.post(
                                    "/api/v1/series/n/allocations",
                                    "{\"reference\":\"" + reference + "\"}",
                                    "Idempotency-Key",
                                    reference);
                            assertThat(answer.status()).isEqualTo(201);
                            String first = answer.text("first");
                            if (answered.put(first, reference) != null) doubles.add(first);
                            enough.countDown();
                        }
                    } catch (IOException killed) {
                        // The connection ends with the process, in the middle of a request; its number was not
                        // answered.
                        enough.countDown();
                    }
                }))
                .toList();
        enough.await();
        service.kill();
        for (Thread caller : callers) caller.join();
    }
}
