package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.LineOrder;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.RecordController.LineRequest;
import org.youngtally.service.api.RecordController.RecordAnswer;
import org.youngtally.service.body.Takes;

/** Changes of records that are kept: what they hold, their number, where they stand, and their end. */
@RestController
@RequestMapping(Api.V1 + "/records/{record}")
class RecordChangeController {
    private static final String VERSION =
            "The ETag of the version that the change was made on; another version is not changed";

    private final Ledger ledger;

    RecordChangeController(Ledger ledger) {
        this.ledger = ledger;
    }

    /** @param word of the change, and its parts, in the text of the request */
    private ResponseEntity<RecordAnswer> change(
            long record,
            Unit unit,
            RecordChange change,
            String match,
            String key,
            Caller caller,
            String word,
            String... parts) {
        Optional<Integer> expects = Requests.expected(match, null);
        var act = new Act.ChangeRecord(
                record,
                unit.key(),
                change,
                expects,
                Requests.mark(
                        caller.name(),
                        key,
                        RequestText.of("RECORD")
                                .part(record)
                                .part(unit.key())
                                .part(word)
                                .part(expects)
                                .part(RequestText.list(List.of(parts)))));
        // What was done before is answered, whatever its request said.
        if (change instanceof RecordChange.Edit && match == null && !(ledger.decide(act) instanceof Decision.Repeated))
            throw Requests.versionNeeded();
        RecordAnswer answer = RecordAnswer.of(Records.perform(ledger, act, caller));
        return ResponseEntity.ok().eTag("\"" + answer.record().version() + "\"").body(answer);
    }

    /** A place in which a record stands; the only one where there is no other. */
    private static Unit unit(KeptRecord record, String text, Caller caller) {
        return RecordSeries.unit(
                caller.snapshot(), text == null && record.units().size() == 1 ? record.home() : text);
    }

    /**
     * @param unit the unit to change; default: its only unit
     * @param fields all fields in the unit: an absent one is emptied
     * @param lines all of them in order; default: unchanged
     */
    record EditRequest(
            @Nullable String unit,
            @Nullable Map<String, String> fields,
            @Nullable List<LineRequest> lines) {}

    @Takes(Takes.A_LIST)
    @PutMapping
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "editRecord",
            summary =
                    "Change the fields of a record; its number stays. A field that is the same in all units is changed in all of them")
    ResponseEntity<RecordAnswer> edit(
            @PathVariable long record,
            @RequestBody EditRequest request,
            @Parameter(description = VERSION) @RequestHeader(name = HttpHeaders.IF_MATCH, required = false)
                    String match,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit unit = unit(before, request.unit(), caller);
        SortedMap<String, String> fields = Requests.fields(request.fields(), null);
        // What the service fills need not be sent along.
        before.in(unit.key()).ifPresent(standing -> filled(before, caller).stream()
                .filter(standing.values()::containsKey)
                .forEach(name -> fields.putIfAbsent(name, standing.values().get(name))));
        Records.needToChange(caller, before, unit.key(), fields);
        Optional<List<LineOrder.Wanted>> lines =
                Optional.ofNullable(request.lines()).map(RecordController::lines);
        return change(
                record,
                unit,
                new RecordChange.Edit(fields, lines),
                match,
                key,
                caller,
                "Edit",
                RequestText.map(fields),
                RequestText.optional(lines.map(all -> RequestText.list(all, RecordController::written))));
    }

    private static Collection<String> filled(KeptRecord record, Caller caller) {
        return RecordSeries.placing(caller.snapshot()).filled(RecordSeries.kind(caller.snapshot(), record.kind()));
    }

    /**
     * @param unit whose rules find the new number
     * @param reason why
     * @param typed the number as somebody typed it
     */
    record RenumberingRequest(
            @Nullable String unit,
            @Nullable String reason,
            @Nullable String typed) {}

    @PostMapping("/renumberings")
    @Needs(value = Right.VOID, at = At.REQUEST)
    @Operation(
            operationId = "renumberRecord",
            summary =
                    "Renumber a record: it gets the number of a new record with its fields; the old number becomes void, with the reason, and still finds the record")
    ResponseEntity<RecordAnswer> renumber(
            @PathVariable long record,
            @RequestBody RenumberingRequest request,
            @Parameter(description = VERSION) @RequestHeader(name = HttpHeaders.IF_MATCH, required = false)
                    String match,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit unit = unit(before, request.unit(), caller);
        Records.needInAll(caller, Right.VOID, before);
        Map<String, String> values =
                before.in(unit.key()).map(KeptRecord.UnitValues::values).orElse(before.values());
        SeriesAssignment.Assigned placed = RecordSeries.of(
                caller.snapshot(), RecordSeries.kind(caller.snapshot(), before.kind()), unit, values, values);
        caller.need(Right.ALLOCATE, RecordSeries.where(placed));
        Optional<String> reason = Requests.note("reason", request.reason());
        Optional<String> typed =
                Optional.ofNullable(request.typed()).map(String::strip).filter(text -> !text.isEmpty());
        return change(
                record,
                unit,
                new RecordChange.Renumber(reason, typed, placed.route().series()),
                match,
                key,
                caller,
                "Renumber",
                RequestText.optional(reason),
                RequestText.optional(typed));
    }

    /**
     * @param unit one in which it stands
     * @param reason the reason; optional where the number is returned
     */
    record DeletionRequest(@Nullable String unit, @Nullable String reason) {}

    @PostMapping("/deletions")
    @Needs(value = Right.VOID, at = At.REQUEST)
    @Operation(
            operationId = "deleteRecord",
            summary =
                    "Delete a record in all units: its number becomes void, with the reason, or is returned where its kind and series say so. Its history stays")
    ResponseEntity<RecordAnswer> delete(
            @PathVariable long record,
            @RequestBody DeletionRequest request,
            @Parameter(description = VERSION) @RequestHeader(name = HttpHeaders.IF_MATCH, required = false)
                    String match,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit unit = request.unit() == null
                ? RecordSeries.unit(caller.snapshot(), before.home())
                : unit(before, request.unit(), caller);
        Records.needInAll(caller, Right.VOID, before);
        Optional<String> reason = Requests.note("reason", request.reason());
        return change(
                record,
                unit,
                new RecordChange.Delete(reason),
                match,
                key,
                caller,
                "Delete",
                RequestText.optional(reason));
    }

    /**
     * @param unit to share it with
     * @param fields what it holds there, as far as that is not what it holds elsewhere
     */
    record SharingRequest(String unit, @Nullable Map<String, String> fields) {}

    @PostMapping("/units")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "shareRecord",
            summary =
                    "Share a record with another unit, with the same identifier; fields that are the same in all units must not differ")
    ResponseEntity<RecordAnswer> share(
            @PathVariable long record,
            @RequestBody SharingRequest request,
            @Parameter(description = VERSION) @RequestHeader(name = HttpHeaders.IF_MATCH, required = false)
                    String match,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit unit = RecordSeries.unit(caller.snapshot(), request.unit());
        caller.need(Right.ALLOCATE, Records.in(before, unit.key()));
        SortedMap<String, String> fields = Requests.fields(request.fields(), null);
        return change(
                record,
                unit,
                new RecordChange.TakeOver(fields),
                match,
                key,
                caller,
                "TakeOver",
                RequestText.map(fields));
    }

    /** @param unit one in which it stands */
    record FixingRequest(@Nullable String unit) {}

    @PostMapping("/fixings")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "fixRecord",
            summary =
                    "Freeze the lines of a document: they keep their numbers from now on, and a removed line is not renumbered over")
    ResponseEntity<RecordAnswer> fix(
            @PathVariable long record,
            @RequestBody FixingRequest request,
            @Parameter(description = VERSION) @RequestHeader(name = HttpHeaders.IF_MATCH, required = false)
                    String match,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit unit = unit(before, request.unit(), caller);
        caller.need(Right.ALLOCATE, Records.in(before, unit.key()));
        return change(record, unit, new RecordChange.Fix(), match, key, caller, "Fix");
    }
}
