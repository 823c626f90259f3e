package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.LedgerState;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;

/** Says what became of numbers that were given. */
@RestController
@RequestMapping(Api.V1)
class SettlingController {

    private final Ledger ledger;

    SettlingController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * Which numbers an act is about: identifiers one by one, first and last of a run, an entry, or a reference.
     *
     * @param identifiers upper and lower case are alike
     * @param entry the entry that allocated them: those whose state allows it; of a block, those not reported yet
     * @param reason why; a number is not voided without one
     */
    record SettleRequest(
            @Nullable List<String> identifiers,
            @Nullable String first,
            @Nullable String last,
            @Nullable Long entry,
            @Nullable String reference,
            @Nullable String reason) {
        private Selection selection() {
            var given = new ArrayList<Selection>();
            if (identifiers != null) given.add(new Selection.Identifiers(identifiers));
            if (first != null || last != null)
                given.add(new Selection.Through(first == null ? last : first, last == null ? first : last));
            if (entry != null) given.add(new Selection.Taken(entry));
            if (reference != null) given.add(new Selection.Reference(reference));
            if (given.size() != 1)
                throw new Problem(
                                Problem.Type.MALFORMED,
                                given.isEmpty()
                                        ? "No numbers are named."
                                        : "The numbers are named in more than one way.")
                        .field("identifiers", "a list of identifiers; or first and last; or an entry; or a reference");
            if (identifiers != null && (identifiers.isEmpty() || identifiers.size() > Decider.MOST_SETTLED))
                throw new Problem(
                                Problem.Type.MALFORMED,
                                identifiers.size() + " identifiers are too many for one request.")
                        .field(
                                "identifiers",
                                "1 to " + Decider.MOST_SETTLED
                                        + "; name a run by its first and last, or send several requests");
            return given.getFirst();
        }
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/confirmations")
    @Needs(value = Right.HOLD, at = At.SERIES)
    @Operation(operationId = "confirm", summary = "Confirm held numbers: they are issued")
    Settlement confirm(
            @PathVariable String series,
            @RequestBody SettleRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return settle(Act.Deed.CONFIRM, Right.HOLD, series, request, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/releases")
    @Needs(value = Right.HOLD, at = At.SERIES)
    @Operation(
            operationId = "release",
            summary =
                    "Release held numbers: they are issued next, or become void where the series allows gaps or is chronological")
    Settlement release(
            @PathVariable String series,
            @RequestBody SettleRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return settle(Act.Deed.RELEASE, Right.HOLD, series, request, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/returns")
    @Needs(value = Right.VOID, at = At.SERIES)
    @Operation(
            operationId = "giveBack",
            summary =
                    "Return issued numbers that are not in use: they are issued next, or become void where the series allows gaps or is chronological, or the period is closed")
    Settlement giveBack(
            @PathVariable String series,
            @RequestBody SettleRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return settle(Act.Deed.RETURN, Right.VOID, series, request, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/voids")
    @Needs(value = Right.VOID, at = At.SERIES)
    @Operation(operationId = "voidNumbers", summary = "Void numbers, with a reason: they are never issued again")
    Settlement voidNumbers(
            @PathVariable String series,
            @RequestBody SettleRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return settle(Act.Deed.VOID, Right.VOID, series, request, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/uses")
    @Needs(value = Right.ALLOCATE, at = At.SERIES)
    @Operation(operationId = "reportUse", summary = "Report numbers of a block as used")
    Settlement reportUse(
            @PathVariable String series,
            @RequestBody SettleRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return settle(Act.Deed.USE, Right.ALLOCATE, series, request, key, caller);
    }

    private Settlement settle(
            Act.Deed deed, Right right, String series, SettleRequest request, String key, Caller caller) {
        String actor = caller.name();
        Optional<String> reason = Requests.note("reason", request.reason());
        Selection selection = request.selection();
        SettlingRights.need(ledger, caller, right, series, selection);
        return Requests.settled(
                ledger,
                new Act.Settle(
                        series,
                        selection,
                        deed,
                        reason,
                        Requests.mark(
                                actor,
                                key,
                                RequestText.of(word(deed))
                                        .part(series)
                                        .part(written(selection))
                                        .part(reason))),
                actor);
    }

    private static String word(Act.Deed deed) {
        return switch (deed) {
            case CONFIRM -> "CONFIRM";
            case RELEASE -> "RELEASE";
            case RETURN -> "RETURN";
            case VOID -> "VOID";
            case USE -> "USE";
        };
    }

    /** In the text of a request. */
    private static String written(Selection selection) {
        return switch (selection) {
            case Selection.Identifiers identifiers ->
                RequestText.object("Identifiers", "texts", RequestText.list(identifiers.texts()));
            case Selection.Through through ->
                RequestText.object("Through", "first", through.first(), "last", through.last());
            case Selection.Taken taken -> RequestText.object("Taken", "seq", String.valueOf(taken.seq()));
            case Selection.Reference reference -> RequestText.object("Reference", "reference", reference.reference());
        };
    }

    /**
     * @param quantity how many of the block's numbers that were not reported yet, from its first on
     * @param holder who uses them
     */
    record PartRequest(@Nullable Long quantity, @Nullable String holder) {}

    @PostMapping("/blocks/{block}/parts")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "splitBlock",
            summary = "Split a part of a block off as a block of its own, named by the new entry")
    Settlement split(
            @PathVariable long block,
            @RequestBody PartRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        String actor = caller.name();
        String series = ledger.read(dsl -> new StateQueries(dsl).block(block))
                .map(LedgerState.Taken::series)
                .orElseThrow(() -> Refusals.problem(new Refusal.UnknownTaking("", "block " + block)));
        SettlingRights.need(ledger, caller, Right.ALLOCATE, series, new Selection.Taken(block));
        if (request.quantity() == null)
            throw new Problem(Problem.Type.MALFORMED, "The quantity of the part is missing.")
                    .field("quantity", "how many numbers, 1 or more");
        Optional<String> holder = Requests.note("holder", request.holder());
        return Requests.settled(
                ledger,
                new Act.Split(
                        block,
                        request.quantity(),
                        holder,
                        Requests.mark(
                                actor,
                                key,
                                RequestText.of("SPLIT")
                                        .part(block)
                                        .part(request.quantity())
                                        .part(holder))),
                actor);
    }
}
