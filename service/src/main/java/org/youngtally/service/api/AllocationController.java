package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.Taking;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;

@RestController
@RequestMapping(Api.V1)
class AllocationController {
    private final Ledger ledger;

    AllocationController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * What is wanted.
     *
     * @param quantity how many; default: 1
     * @param date the business date; default: today
     * @param fields the fields of the series: the full name or code of a choice, or a text
     * @param unit the key or code of the unit
     * @param reference what the numbers are for, unique in the series
     * @param hold set them aside for this time only, until they are confirmed: an ISO 8601 duration such as PT15M
     * @param typed the number as somebody typed it, for a series that allows it
     */
    record AllocationRequest(
            @Nullable Long quantity,
            @Nullable String date,
            @Nullable Map<String, String> fields,
            @Nullable String unit,
            @Nullable String reference,
            @Nullable String hold,
            @Nullable String typed) {}

    /**
     * The same for a block.
     *
     * @param holder who uses it
     */
    record BlockRequest(
            @Nullable Long quantity,
            @Nullable String date,
            @Nullable Map<String, String> fields,
            @Nullable String unit,
            @Nullable String reference,
            @Nullable String holder) {}

    /**
     * Allocated numbers.
     *
     * @param seq the entry of the ledger
     * @param fields the codes and texts of the fields of the series; absent without fields
     * @param identifiers all of them in order; absent for a block, and where some were returned since
     * @param until when they lapse, if they are held
     * @param withdrawn how many of them were returned, have lapsed or are void since
     * @param repeated whether this is the answer to an earlier, same request
     */
    record Allocation(
            long seq,
            Instant at,
            String by,
            String series,
            LocalDate date,
            @Nullable Map<String, String> fields,
            long quantity,
            @Nullable String reference,
            @Nullable List<String> identifiers,
            String first,
            String last,
            @Nullable Instant until,
            @Nullable Long withdrawn,
            boolean repeated) {
        static Allocation of(Taking taking, boolean repeated) {
            return new Allocation(
                    taking.seq(),
                    taking.at(),
                    taking.by(),
                    taking.series(),
                    taking.particulars().date(),
                    taking.particulars().fields().isEmpty()
                            ? null
                            : taking.particulars().fields(),
                    taking.quantity(),
                    taking.reference().orElse(null),
                    taking.identifiers().isEmpty() ? null : taking.identifiers(),
                    taking.first(),
                    taking.last(),
                    taking.until().orElse(null),
                    taking.withdrawn() == 0 ? null : taking.withdrawn(),
                    repeated);
        }
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/allocations")
    @Needs(
            value = {Right.ALLOCATE, Right.HOLD},
            at = At.SERIES)
    @Operation(
            operationId = "allocate",
            summary =
                    "Allocate the next numbers, each on its own. 201 when allocated now, 200 when the same request had allocated them before")
    ResponseEntity<Allocation> allocate(
            @PathVariable String series,
            @RequestBody(required = false) AllocationRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        AllocationRequest asked =
                request == null ? new AllocationRequest(null, null, null, null, null, null, null) : request;
        Act.Form form = form(asked.hold(), asked.typed());
        return take(
                form,
                series,
                asked.quantity() == null ? 1 : asked.quantity(),
                asked.date(),
                asked.fields(),
                asked.unit(),
                asked.reference(),
                key,
                caller);
    }

    @PostMapping("/series/{series}/blocks")
    @Needs(value = Right.ALLOCATE, at = At.SERIES)
    @Operation(
            operationId = "takeBlock",
            summary =
                    "Allocate many numbers as one block, to be used elsewhere; the answer names the first and the last")
    ResponseEntity<Allocation> block(
            @PathVariable String series,
            @RequestBody BlockRequest asked,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        if (asked.quantity() == null)
            throw new Problem(Problem.Type.MALFORMED, "The quantity of the block is missing.")
                    .field("quantity", "how many numbers, 1 or more");
        return take(
                new Act.Form.Block(Requests.note("holder", asked.holder())),
                series,
                asked.quantity(),
                asked.date(),
                asked.fields(),
                asked.unit(),
                asked.reference(),
                key,
                caller);
    }

    private ResponseEntity<Allocation> take(
            Act.Form form,
            String key,
            long quantity,
            String day,
            Map<String, String> given,
            String unitText,
            String name,
            String token,
            Caller caller) {
        Series series = Requests.series(caller, key);
        SortedMap<String, String> asked = Requests.fields(given, unitText);
        Optional<Unit> unit = unitText == null
                ? caller.onlyUnit(right(form), Where.series(key))
                        .map(caller.snapshot().organisation().units()::get)
                : caller.snapshot().organisation().unit(unitText);
        caller.need(right(form), new Where(Optional.of(key), Optional.empty(), unit.map(Unit::key)));
        // A unit that the pattern does not write is kept with the act all the same.
        var fields = new TreeMap<>(asked);
        if (unit.isPresent() && series.field(Particulars.UNIT).isEmpty()) fields.remove(Particulars.UNIT);
        Optional<LocalDate> date = Requests.date(day);
        Optional<String> reference = Requests.name("reference", name);
        return take(
                new Act.Allocate(
                        key,
                        date,
                        fields,
                        quantity,
                        form,
                        reference,
                        new Purpose(Optional.empty(), unit.map(Unit::key)),
                        Requests.mark(
                                caller.name(),
                                token,
                                RequestText.of(word(form))
                                        .part(key)
                                        .part(date)
                                        .part(quantity)
                                        .part(reference)
                                        .part(asked))),
                caller);
    }

    private ResponseEntity<Allocation> take(Act.Allocate act, Caller caller) {
        return switch (Requests.perform(ledger, act, caller.name())) {
            case Outcome.Taken taken ->
                ResponseEntity.status(taken.repeated() ? HttpStatus.OK : HttpStatus.CREATED)
                        .body(Allocation.of(taken.taking(), taken.repeated()));
            case Outcome.Refused<Answer.Numbers> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    private static Right right(Act.Form form) {
        return form instanceof Act.Form.Held ? Right.HOLD : Right.ALLOCATE;
    }

    /**
     * What is wanted for a record.
     *
     * @param unit the key or the code of the unit that the record is of
     * @param fields what the record holds, by the names of the kind's fields
     * @param quantity how many; default: 1
     * @param date the business date; default: today in the unit
     * @param reference what the numbers are for, unique in the series
     * @param hold set them aside for this time only: an ISO 8601 duration such as PT15M
     * @param typed the number as somebody typed it, for a series that allows it
     */
    record RecordRequest(
            String unit,
            @Nullable Map<String, String> fields,
            @Nullable Long quantity,
            @Nullable String date,
            @Nullable String reference,
            @Nullable String hold,
            @Nullable String typed) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/kinds/{kind}/allocations")
    @Needs(
            value = {Right.ALLOCATE, Right.HOLD},
            at = At.REQUEST)
    @Operation(
            operationId = "allocateForRecord",
            summary =
                    "Allocate the number of a record from the series that the routes find for its kind, unit and fields. 201 when allocated now, 200 when the same request had allocated it before")
    ResponseEntity<Allocation> allocateForRecord(
            @PathVariable String kind,
            @RequestBody RecordRequest asked,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        Act.Form form = form(asked.hold(), asked.typed());
        SeriesAssignment.Assigned found = RecordSeries.of(caller.snapshot(), kind, asked.unit(), asked.fields());
        caller.need(right(form), RecordSeries.where(found));
        Optional<LocalDate> date = Requests.date(asked.date());
        Optional<String> reference = Requests.name("reference", asked.reference());
        long quantity = asked.quantity() == null ? 1 : asked.quantity();
        RequestMark mark = Requests.mark(
                caller.name(),
                key,
                RequestText.of(word(form))
                        .part("KIND " + kind + " " + asked.unit())
                        .part(date)
                        .part(quantity)
                        .part(reference)
                        .part(Requests.fields(asked.fields(), null)));
        return take(
                new Act.Allocate(
                        found.route().series(),
                        date,
                        found.given(),
                        quantity,
                        form,
                        reference,
                        RecordSeries.purpose(found),
                        mark),
                caller);
    }

    private static Act.Form form(String time, String typed) {
        Optional<Duration> hold = Requests.duration("hold", time);
        if (hold.isPresent() && typed != null)
            throw new Problem(Problem.Type.MALFORMED, "A number cannot be typed and held at once.")
                    .field("hold", "only one of hold and typed");
        return typed != null
                ? new Act.Form.Typed(typed)
                : hold.<Act.Form>map(Act.Form.Held::new).orElse(Act.Form.SINGLES);
    }

    /** The form in words that stay, for the digest of a request: its keys outlive a new release. */
    private static String word(Act.Form form) {
        return switch (form) {
            case Act.Form.Singles singles -> "SINGLES";
            case Act.Form.Block block ->
                block.holder().map(holder -> "BLOCK " + holder).orElse("BLOCK");
            case Act.Form.Held held -> "HELD " + held.time();
            case Act.Form.Typed typed -> "TYPED " + typed.text();
        };
    }
}
