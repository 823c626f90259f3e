package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.UriComponentsBuilder;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.LifeQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;

/** What is under way or ended: open holds, blocks, voids. */
@RestController
@RequestMapping(Api.V1)
class LifeController {
    private static final int MOST_HOLDS = 10_000;
    private static final int MOST_VOIDS = 1_000;

    private final Ledger ledger;

    LifeController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * A number that is held.
     *
     * @param age since when it was, as an ISO 8601 duration
     */
    record HoldView(
            String identifier,
            String series,
            LocalDate date,
            @Nullable String reference,
            String by,
            Instant at,
            Instant until,
            Duration age,
            long seq) {}

    @GetMapping("/holds")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "listHolds", summary = "The numbers that are held, the oldest first")
    List<HoldView> holds(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            Caller caller) {
        Optional<Collection<String>> wanted = Requests.readable(caller, series);
        return holds(wanted);
    }

    private List<HoldView> holds(Optional<? extends Collection<String>> wanted) {
        Instant now = ledger.now();
        return ledger.read(dsl -> new LifeQueries(dsl).holds(wanted, MOST_HOLDS)).stream()
                .map(hold -> new HoldView(
                        hold.identifier(),
                        hold.series(),
                        hold.entry().particulars().orElseThrow().date(),
                        hold.entry().reference().orElse(null),
                        hold.entry().by(),
                        hold.entry().at(),
                        hold.until(),
                        Duration.between(hold.entry().at(), now),
                        hold.entry().seq()))
                .toList();
    }

    /**
     * @param olderThan release what has been held for longer than this, as an ISO 8601 duration
     * @param series only of this one
     */
    record ClearingRequest(String olderThan, @Nullable String series, String reason) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/holds/clearings")
    @Needs(value = Right.HOLD, at = At.REQUEST)
    @Operation(operationId = "clearHolds", summary = "Release old holds, one act for each series")
    List<Settlement> clear(@RequestBody ClearingRequest request, Caller caller) {
        String actor = caller.name();
        Duration age = Requests.duration("olderThan", request.olderThan())
                .orElseThrow(() -> new Problem(Problem.Type.MALFORMED, "The age of the holds is missing.")
                        .field("olderThan", "an ISO 8601 duration such as P1D"));
        Optional<String> reason = Requests.note("reason", request.reason());
        if (reason.isEmpty())
            throw new Problem(Problem.Type.REASON_MISSING, "A reason is required.")
                    .field("reason", "a reason that an auditor will understand");
        var bySeries = new LinkedHashMap<String, List<String>>();
        // Those that may be ended are cleared; a series that is named must be one of them.
        if (request.series() != null)
            caller.need(
                    Right.HOLD,
                    Where.series(Requests.series(caller, request.series()).key()));
        for (HoldView hold : holds(Optional.ofNullable(request.series()).map(List::of)))
            if (hold.age().compareTo(age) > 0 && caller.may(Right.HOLD, Where.series(hold.series())))
                bySeries.computeIfAbsent(hold.series(), added -> new ArrayList<>())
                        .add(hold.identifier());
        var cleared = new ArrayList<Settlement>();
        bySeries.forEach((series, all) -> portions(all)
                .forEach(texts -> cleared.add(Requests.settled(
                        ledger,
                        new Act.Settle(
                                series,
                                new Selection.Identifiers(texts),
                                Act.Deed.RELEASE,
                                reason,
                                Requests.mark(
                                        actor,
                                        null,
                                        RequestText.of("CLEAR")
                                                .part(series)
                                                .part(RequestText.list(texts))
                                                .part(reason))),
                        actor))));
        return cleared;
    }

    /** So many at a time as one act settles. */
    private static List<List<String>> portions(List<String> all) {
        var portions = new ArrayList<List<String>>();
        for (int from = 0; from < all.size(); from += Decider.MOST_SETTLED)
            portions.add(all.subList(from, Math.min(from + Decider.MOST_SETTLED, all.size())));
        return portions;
    }

    /**
     * A block and the states of its numbers.
     *
     * @param block by what it is called: the entry that made it
     * @param parent the block it was a part of
     * @param holder who uses it
     * @param quantity how many numbers it had at first
     * @param left how many were not reported yet
     * @param states how many of those it still has are in each state
     */
    record BlockView(
            long block,
            @Nullable Long parent,
            String series,
            @Nullable String holder,
            @Nullable String reference,
            String by,
            Instant at,
            String first,
            String last,
            long quantity,
            long left,
            Map<String, Long> states) {}

    @GetMapping("/blocks")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listBlocks",
            summary = "All blocks, sorted by how many numbers were not reported yet, most first")
    List<BlockView> blocks(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            Caller caller) {
        Optional<Collection<String>> wanted = Requests.readable(caller, series);
        return ledger.read(dsl -> new LifeQueries(dsl).blocks(wanted)).stream()
                .map(LifeController::view)
                .toList();
    }

    private static BlockView view(LifeQueries.Block block) {
        var states = new LinkedHashMap<String, Long>();
        block.states()
                .forEach((state, quantity) ->
                        states.put(state == PositionState.ISSUED ? "left" : state.word(), quantity));
        return new BlockView(
                block.seq(),
                block.parent().orElse(null),
                block.series(),
                block.entry().note().orElse(null),
                block.entry().reference().orElse(null),
                block.entry().by(),
                block.entry().at(),
                block.first(),
                block.last(),
                block.quantity(),
                block.left(),
                states);
    }

    /**
     * Numbers that became void.
     *
     * @param kind voided, lapsed, released, unused, closed or gap-closed
     * @param act what was done
     * @param reason why
     */
    record VoidView(
            String series,
            String first,
            String last,
            long quantity,
            String kind,
            String act,
            @Nullable String reason,
            String by,
            Instant at,
            long seq) {
        static VoidView of(LifeQueries.Voided voided) {
            return new VoidView(
                    voided.series(),
                    voided.first(),
                    voided.last(),
                    voided.quantity(),
                    voided.state().word(),
                    voided.entry().kind().word(),
                    voided.entry().note().orElse(null),
                    voided.entry().by(),
                    voided.entry().at(),
                    voided.entry().seq());
        }
    }

    @GetMapping("/voids")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listVoids",
            summary =
                    "Numbers that became void after they were issued, the newest first, with the reasons; the Link header leads to the next page")
    ResponseEntity<List<VoidView>> voids(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            @Parameter(description = "Only those voided by an entry before this one") @RequestParam(required = false)
                    Long before,
            @Parameter(description = "At most this many") @RequestParam(defaultValue = "200") int limit,
            Caller caller) {
        if (limit < 1 || limit > MOST_VOIDS)
            throw new Problem(Problem.Type.MALFORMED, "A page of " + limit + " voids cannot be shown.")
                    .field("limit", "1 to " + MOST_VOIDS);
        Optional<Collection<String>> wanted = Requests.readable(caller, series);
        List<VoidView> page = ledger
                .read(dsl -> new LifeQueries(dsl).voids(wanted, before == null ? Long.MAX_VALUE : before, limit))
                .stream()
                .map(VoidView::of)
                .toList();
        if (page.size() < limit) return ResponseEntity.ok(page);
        String next = UriComponentsBuilder.fromPath(Api.V1 + "/voids")
                .queryParamIfPresent("series", Optional.ofNullable(series))
                .queryParam("before", page.getLast().seq())
                .queryParam("limit", limit)
                .build()
                .encode()
                .toUriString();
        return ResponseEntity.ok()
                .header("Link", "<" + next + ">; rel=\"next\"")
                .body(page);
    }
}
