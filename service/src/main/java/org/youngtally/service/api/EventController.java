package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Effect;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Callers;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Tells whoever listens that something has changed, several times a second at the most: it names the series, and the
 * listener asks for what it shows.
 */
@RestController
@RequestMapping(Api.V1 + "/events")
class EventController implements DisposableBean {
    private static final long PAUSE_MILLIS = 150;
    private static final long BEAT_MILLIS = 20_000;
    private static final long LOOK_MILLIS = 1_000;
    /** Streams of one account. */
    private static final int MOST_OF_ONE = 200;

    /**
     * @param head the newest entry
     * @param series those it concerns, with the others since the last event
     */
    record Change(long head, Set<String> series) {}

    /** @param stands whether the account is still let in as it was when it began to listen */
    private record Listening(String account, BooleanSupplier stands) {}

    private final Map<SseEmitter, Listening> listeners = new ConcurrentHashMap<>();

    private volatile boolean ending;

    private final Ledger ledger;
    private final Callers callers;
    private final ScheduledExecutorService sender = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().daemon().name("events").factory());
    private final Object lock = new Object();
    private Set<String> changed = new TreeSet<>();
    private long head;
    private long sent;

    EventController(Ledger ledger, Callers callers) {
        this.ledger = ledger;
        this.callers = callers;
        ledger.onEntries(this::note);
        sender.scheduleWithFixedDelay(this::send, PAUSE_MILLIS, PAUSE_MILLIS, TimeUnit.MILLISECONDS);
        sender.scheduleWithFixedDelay(this::dismiss, LOOK_MILLIS, LOOK_MILLIS, TimeUnit.MILLISECONDS);
        sender.scheduleWithFixedDelay(
                () -> broadcast(caller -> SseEmitter.event().comment("beat")),
                BEAT_MILLIS,
                BEAT_MILLIS,
                TimeUnit.MILLISECONDS);
    }

    @GetMapping(produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listen",
            summary = "Server-sent events: one named change whenever the ledger has new entries")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.TEXT_EVENT_STREAM_VALUE,
                            schema = @Schema(implementation = Change.class)))
    SseEmitter listen(Caller caller, @Parameter(hidden = true) HttpServletRequest request) throws IOException {
        long listening = listeners.values().stream()
                .filter(other -> other.account().equals(caller.name()))
                .count();
        if (listening >= MOST_OF_ONE)
            throw new Problem(
                            Type.SHARE_TAKEN,
                            "The account ‘" + caller.name() + "’ listens with " + listening
                                    + " streams; that is its share.")
                    .with("retryAfter", BEAT_MILLIS / 1_000);
        var listener = new SseEmitter(0L);
        listener.onCompletion(() -> listeners.remove(listener));
        listener.onError(e -> listeners.remove(listener));
        listener.send(SseEmitter.event().comment("listening"));
        if (ending) listener.complete();
        listeners.put(listener, new Listening(caller.name(), callers.stands(request)));
        return listener;
    }

    private void note(List<Entry> entries) {
        if (listeners.isEmpty()) return;
        synchronized (lock) {
            for (Entry entry : entries) {
                head = entry.seq();
                entry.request().flatMap(Entry.Request::series).ifPresent(changed::add);
                for (Effect effect : entry.effects())
                    if (effect instanceof Effect.Defined defined)
                        changed.add(defined.series().key());
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
        broadcast(caller -> SseEmitter.event()
                .name("change")
                .data(
                        new Change(
                                change.head(),
                                change.series().stream()
                                        .filter(caller::reads)
                                        .collect(Collectors.toCollection(TreeSet::new))),
                        MediaType.APPLICATION_JSON));
    }

    /** Those who signed out, or whose token or grant was revoked, hear nothing more. */
    private void dismiss() {
        listeners.forEach((listener, listening) -> {
            if (!listening.stands().getAsBoolean()) listener.complete();
        });
    }

    /** To each what it may hear; one whose account may read nothing any more hears nothing more. */
    private void broadcast(Function<Caller, SseEmitter.SseEventBuilder> event) {
        LedgerSnapshot snapshot = ledger.snapshot();
        for (SseEmitter listener : listeners.keySet()) {
            try {
                Listening listening = listeners.get(listener);
                if (listening == null) continue;
                var caller = new Caller(snapshot.accounts().get(listening.account()), snapshot, Optional.empty());
                if (listening.stands().getAsBoolean() && caller.maySomewhere(Right.READ))
                    listener.send(event.apply(caller).build());
                else listener.complete();
            } catch (IOException | IllegalStateException e) {
                // The listener has gone; that is how one hears of it.
                listeners.remove(listener);
            }
        }
    }

    /** The service begins to end: it waits for every request that is under way, and these would never end. */
    @EventListener(ContextClosedEvent.class)
    void end() {
        ending = true;
        listeners.keySet().forEach(SseEmitter::complete);
    }

    @Override
    public void destroy() {
        sender.shutdownNow();
    }
}
