package org.youngtally.attack;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ConcurrentSkipListSet;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * Many thousand requests that are wrong in one way or another. As many as {@code -Dattack.requests} says, from the seed
 * {@code -Dattack.seed}; a failure names both.
 */
class MalformedRequestTest {
    private static final int REQUESTS = Integer.getInteger("attack.requests", 4_000);
    private static final long SEED = Long.getLong("attack.seed", Long.getLong("proof.seed", 0));
    private static final int AT_ONCE = 4;
    /** What takes longer among many others is looked at alone. */
    private static final long SLOW_NANOS = 2_000_000_000L;

    private static final long MOST_AUDITS = 20;
    /** A stranger, a clerk and the administrator. */
    private static final List<String> ACCOUNTS = List.of("", "ines", "hanna");

    private static Victim victim;
    private static final ConcurrentLinkedQueue<String> failures = new ConcurrentLinkedQueue<>();
    private static final ConcurrentLinkedQueue<byte[]> slow = new ConcurrentLinkedQueue<>();
    private static final ConcurrentLinkedQueue<String> others = new ConcurrentLinkedQueue<>();
    private static final Set<String> undescribed = new ConcurrentSkipListSet<>();
    private static final AtomicLong sent = new AtomicLong();
    private static final AtomicLong taken = new AtomicLong();
    private static long entries;

    @BeforeAll
    static void attack() throws Exception {
        victim = Victim.demo();
        JsonNode description = victim.get("/api/openapi.json");
        long before = victim.head();
        try (var threads = Executors.newFixedThreadPool(AT_ONCE)) {
            var all = new ArrayList<Callable<Void>>();
            for (int i = 0; i < AT_ONCE; i++) {
                var requests = new Malformed(description, SEED + i);
                all.add(() -> {
                    send(requests);
                    return null;
                });
            }
            for (var one : threads.invokeAll(all)) one.get();
        }
        entries = victim.head() - before;
    }

    private static void send(Malformed requests) throws Exception {
        try (var wire = new Wire(victim.port())) {
            for (int i = 0; i < REQUESTS / AT_ONCE; i++) {
                Malformed.Request request = requests.next(ACCOUNTS);
                String text = new String(request.bytes(), StandardCharsets.ISO_8859_1)
                        .replace("{port}", String.valueOf(victim.port()));
                byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
                Wire.Answer answer = wire.send(bytes);
                sent.incrementAndGet();
                boolean busy = answer.status() == 503 && answer.body().contains("/problems/busy");
                if (answer.status() >= 500 && !busy)
                    failures.add(answer.status() + " " + answer.body() + " to " + request);
                if (answer.nanos() > SLOW_NANOS) slow.add(bytes);
                if (answer.status() >= 400
                        && !answer.body().isEmpty()
                        && !answer.type().startsWith("application/problem+json"))
                    others.add(answer.status() + " " + answer.type() + " to " + request);
                if (request.changes() && answer.status() < 300) taken.incrementAndGet();
                if (answer.status() < 300 && !requests.describes(request, answer.status()))
                    undescribed.add(request.operation() + " is answered with " + answer.status());
            }
        }
    }

    @AfterAll
    static void stop() throws Exception {
        victim.close();
    }

    @Test
    void asManyWereSentAsWereAskedFor() {
        assertThat(sent.get()).isGreaterThanOrEqualTo(REQUESTS / AT_ONCE * AT_ONCE);
    }

    @Test
    void noneIsTakenForAFaultOfTheService() {
        assertThat(failures).as("seed " + SEED).isEmpty();
    }

    @Test
    void whatIsDoneIsAnsweredAsIsDescribed() {
        assertThat(undescribed).isEmpty();
    }

    /** What took long beside all the others takes no longer than some audits when it is sent alone. */
    @Test
    void noneTakesLong() throws Exception {
        long audit = fastest(() -> {
            long begin = System.nanoTime();
            victim.post("hanna", "/api/v1/audits", "{}");
            return System.nanoTime() - begin;
        });
        for (byte[] request : slow) {
            long alone = fastest(() -> {
                try (var wire = new Wire(victim.port())) {
                    return wire.send(request).nanos();
                }
            });
            assertThat(alone)
                    .as("seed " + SEED + ": " + new String(request, StandardCharsets.ISO_8859_1))
                    .isLessThan(MOST_AUDITS * audit);
        }
    }

    private static long fastest(Callable<Long> timed) throws Exception {
        return Math.min(timed.call(), Math.min(timed.call(), timed.call()));
    }

    @Test
    void whatIsRefusedIsRefusedWithAProblem() {
        assertThat(others).as("seed " + SEED).isEmpty();
    }

    @Test
    void noneThatIsRefusedIsInTheLedger() {
        assertThat(entries).as("entries, against requests that were taken").isLessThanOrEqualTo(taken.get());
    }

    @Test
    void theServiceGoesOn() throws Exception {
        assertThat(victim.send(victim.request("", "/api/v1/health").GET().build())
                        .statusCode())
                .isEqualTo(200);
    }

    @Test
    void theAuditPasses() throws Exception {
        assertThat(victim.post("hanna", "/api/v1/audits", "{}").body()).contains("\"gapFree\":true");
    }
}
