package org.youngtally.bench.drill;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;

/** Callers that take numbers without a pause, and repeat with the same key whatever they are not told. */
final class Callers implements AutoCloseable {
    private static final int CALLERS = 8;
    /** A start is not to be slowed down by who waits for it. */
    private static final long WITHOUT_CONNECTION = TimeUnit.MILLISECONDS.toNanos(250);

    private static final long BETWEEN_TRIES = TimeUnit.MILLISECONDS.toNanos(20);

    private final Instance service;
    private final List<Thread> threads = new ArrayList<>();
    private final Map<String, String> answered = new ConcurrentHashMap<>();
    private final Map<String, AtomicLong> heard = new ConcurrentHashMap<>();
    private final Set<String> forgotten = ConcurrentHashMap.newKeySet();
    private final Semaphore gate = new Semaphore(CALLERS, true);
    private volatile boolean ending;
    private volatile long lastNumber = System.nanoTime();

    Callers(Instance service) {
        this.service = service;
        for (int caller = 0; caller < CALLERS; caller++) {
            String name = "caller-" + caller + "-";
            threads.add(Thread.ofVirtual().start(() -> {
                for (int i = 0; !ending; i++) {
                    gate.acquireUninterruptibly();
                    try {
                        take(name + i);
                    } finally {
                        gate.release();
                    }
                }
            }));
        }
    }

    /** Nobody asks any more once this returns; what was under way is answered. */
    void pause() throws InterruptedException {
        gate.acquire(CALLERS);
    }

    void goOn() {
        gate.release(CALLERS);
    }

    private void take(String key) {
        // One that was under way when the drill ended is asked for once more, and then left.
        for (boolean last = false; !last; last = ending) {
            try {
                HttpResponse<String> answer = service.post("/series/drill/allocations", "{}", key);
                if (answer.statusCode() < 300) {
                    hear(Integer.toString(answer.statusCode()));
                    answered.put(key, Text.of(answer.body(), "identifiers"));
                    lastNumber = System.nanoTime();
                    return;
                }
                hear(answer.statusCode() + " " + Text.of(answer.body(), "type").replaceFirst(".*/", ""));
            } catch (IOException e) {
                hear("no connection");
                LockSupport.parkNanos(WITHOUT_CONNECTION);
            } catch (InterruptedException e) {
                return;
            }
            LockSupport.parkNanos(BETWEEN_TRIES);
        }
    }

    private void hear(String what) {
        heard.computeIfAbsent(what, first -> new AtomicLong()).incrementAndGet();
    }

    /** How often each answer was heard. */
    Map<String, Long> heard() {
        var counts = new TreeMap<String, Long>();
        heard.forEach((what, count) -> counts.put(what, count.get()));
        return counts;
    }

    /** The ledger does not know the requests that were answered up to now. */
    void forget() {
        forgotten.addAll(answered.keySet());
    }

    boolean hasForgotten() {
        return !forgotten.isEmpty();
    }

    boolean isForgotten(String key) {
        return forgotten.contains(key);
    }

    /** What was answered, by the key of the request. */
    Map<String, String> answered() {
        return Map.copyOf(answered);
    }

    /** Waits until a number was given since this call. @return how long it took, in seconds */
    double awaitNumber() throws IOException, InterruptedException {
        long now = System.nanoTime();
        return Instance.awaitTrue("a number is allocated", () -> lastNumber > now);
    }

    @Override
    public void close() throws InterruptedException {
        ending = true;
        for (Thread thread : threads) thread.join();
    }
}
