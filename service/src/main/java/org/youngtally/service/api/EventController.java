package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter.DataWithMediaType;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.youngtally.core.act.Effect;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.journal.Entry;

/**
 * Tells whoever listens that something has changed, several times a second at the most: it names the series, and the listener asks
 * for what it shows.
 */
@RestController
@RequestMapping(Api.V1 + "/events")
class EventController implements DisposableBean {
    private static final long PAUSE_MILLIS = 150;
    private static final long BEAT_MILLIS = 20_000;

    /** @param head the newest entry @param series those it concerns, with the others since the last event */
    record Change(long head, Set<String> series) {}

    private final Set<SseEmitter> listeners = ConcurrentHashMap.newKeySet();
    private final ScheduledExecutorService sender = Executors.newSingleThreadScheduledExecutor(Thread.ofPlatform().daemon().name("events").factory());
    private final Object lock = new Object();
    private Set<String> changed = new TreeSet<>();
    private long head;
    private long sent;

    EventController(Ledger ledger) {
        ledger.onCommit(this::note);
        sender.scheduleWithFixedDelay(this::send, PAUSE_MILLIS, PAUSE_MILLIS, TimeUnit.MILLISECONDS);
        sender.scheduleWithFixedDelay(() -> broadcast(SseEmitter.event().comment("beat")), BEAT_MILLIS, BEAT_MILLIS, TimeUnit.MILLISECONDS);
    }

    @GetMapping(produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    @Operation(operationId = "listen", summary = "Server-sent events: one named change whenever the ledger has new entries")
    @ApiResponse(responseCode = "200", content = @Content(mediaType = MediaType.TEXT_EVENT_STREAM_VALUE, schema = @Schema(implementation = Change.class)))
    SseEmitter listen() throws IOException {
        var listener = new SseEmitter(0L);
        listener.onCompletion(() -> listeners.remove(listener));
        listener.onError(e -> listeners.remove(listener));
        listener.send(SseEmitter.event().comment("listening"));
        listeners.add(listener);
        return listener;
    }

    private void note(List<Entry> entries) {
        if (listeners.isEmpty()) return;
        synchronized (lock) {
            for (Entry entry : entries) {
                head = entry.seq();
                entry.request().flatMap(Entry.Request::series).ifPresent(changed::add);
                for (Effect effect : entry.effects()) if (effect instanceof Effect.Defined defined) changed.add(defined.series().key());
            }
        }
    }

    private void send() {
        Change change;
        synchronized (lock) {
            if (head == sent) return;
            sent = head;
            change = new Change(head, changed);
            changed = new TreeSet<>();
        }
        broadcast(SseEmitter.event().name("change").data(change, MediaType.APPLICATION_JSON));
    }

    private void broadcast(SseEmitter.SseEventBuilder event) {
        Set<DataWithMediaType> built = event.build();
        for (SseEmitter listener : listeners) {
            try {
                listener.send(built);
            } catch (IOException | IllegalStateException e) {
                // The listener has gone; that is how one hears of it.
                listeners.remove(listener);
            }
        }
    }

    @Override
    public void destroy() {
        sender.shutdownNow();
        listeners.forEach(SseEmitter::complete);
    }
}
