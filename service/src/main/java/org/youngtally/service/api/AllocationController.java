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
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.act.Act;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.Taking;
import org.youngtally.service.web.Problem;

@RestController
@RequestMapping(Api.V1 + "/series/{series}")
class AllocationController {
    private final Ledger ledger;

    AllocationController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * What is wanted.
     *
     * @param quantity how many; 1 where it is left out
     * @param date the business date; today where it is left out
     * @param fields what the record gives for the fields of the series: the full name or code of a choice, or a text
     * @param unit the code of the unit, for a series that takes one
     * @param reference what the numbers are for, unique in the series
     * @param hold set them aside for this time only, until they are confirmed: an ISO 8601 duration such as PT15M
     * @param typed the number as somebody typed it, for a series that allows it
     */
    record AllocationRequest(@Nullable Long quantity, @Nullable String date, @Nullable Map<String, String> fields, @Nullable String unit, @Nullable String reference, @Nullable String hold, @Nullable String typed) {}

    /** The same for a block. @param holder who uses it */
    record BlockRequest(@Nullable Long quantity, @Nullable String date, @Nullable Map<String, String> fields, @Nullable String unit, @Nullable String reference, @Nullable String holder) {}


    /**
     * Numbers that were taken.
     *
     * @param seq the entry of the ledger
     * @param fields the codes and texts that were taken for the fields of the series; absent where it takes none
     * @param identifiers all of them in order; absent for a block, and where some were given back since
     * @param until when they lapse, if they are held
     * @param withdrawn how many of them were given back, have lapsed or are void since
     * @param repeated whether this is the answer to an earlier, same request
     */
    record Allocation(long seq, Instant at, String by, String series, LocalDate date, @Nullable Map<String, String> fields, long quantity, @Nullable String reference, @Nullable List<String> identifiers, String first, String last, @Nullable Instant until, @Nullable Long withdrawn, boolean repeated) {
        static Allocation of(Taking taking, boolean repeated) {
            return new Allocation(taking.seq(), taking.at(), taking.by(), taking.series(), taking.particulars().date(), taking.particulars().fields().isEmpty() ? null : taking.particulars().fields(), taking.quantity(), taking.reference().orElse(null), taking.identifiers().isEmpty() ? null : taking.identifiers(), taking.first(), taking.last(), taking.until().orElse(null), taking.withdrawn() == 0 ? null : taking.withdrawn(), repeated);
        }
    }

    @PostMapping("/allocations")
    @Operation(operationId = "allocate", summary = "Take the next numbers, each standing alone. 201 when taken now, 200 when the same request had taken them before")
    ResponseEntity<Allocation> allocate(@PathVariable String series, @RequestBody(required = false) AllocationRequest request, @Parameter(description = "A token for this one request; repeating the request with it gives the same answer") @RequestHeader(name = Api.KEY, required = false) String key,
            @Parameter(description = "Who acts") @RequestHeader(name = Api.ACTOR, required = false) String actor) {
        AllocationRequest asked = request == null ? new AllocationRequest(null, null, null, null, null, null, null) : request;
        Optional<Duration> hold = Requests.duration("hold", asked.hold());
        if (hold.isPresent() && asked.typed() != null) throw new Problem(Problem.Type.MALFORMED, "A number is either typed or held.").field("hold", "leave out the one or the other");
        Act.Form form = asked.typed() != null ? new Act.Form.Typed(asked.typed()) : hold.<Act.Form>map(Act.Form.Held::new).orElse(Act.Form.SINGLES);
        return take(form, series, asked.quantity() == null ? 1 : asked.quantity(), asked.date(), Requests.fields(asked.fields(), asked.unit()), asked.reference(), key, actor);
    }

    @PostMapping("/blocks")
    @Operation(operationId = "takeBlock", summary = "Take many numbers as one block, to be used elsewhere; the answer names the first and the last")
    ResponseEntity<Allocation> block(@PathVariable String series, @RequestBody BlockRequest asked, @Parameter(description = "A token for this one request; repeating the request with it gives the same answer") @RequestHeader(name = Api.KEY, required = false) String key,
            @Parameter(description = "Who acts") @RequestHeader(name = Api.ACTOR, required = false) String actor) {
        if (asked.quantity() == null) throw new Problem(Problem.Type.MALFORMED, "The block has no quantity.").field("quantity", "how many numbers the block is to have, 1 or more");
        return take(new Act.Form.Block(Requests.note("holder", asked.holder())), series, asked.quantity(), asked.date(), Requests.fields(asked.fields(), asked.unit()), asked.reference(), key, actor);
    }

    private ResponseEntity<Allocation> take(Act.Form form, String series, long quantity, String day, SortedMap<String, String> fields, String name, String key, String header) {
        String actor = Requests.actor(header);
        Optional<LocalDate> date = Requests.date(day);
        Optional<String> reference = Requests.name("reference", name);
        var act = new Act.Allocate(series, date, fields, quantity, form, reference, Requests.mark(actor, key, word(form), series, date, quantity, reference, fields));
        return switch (Requests.perform(ledger, act, actor)) {
            case Outcome.Taken taken -> ResponseEntity.status(taken.repeated() ? HttpStatus.OK : HttpStatus.CREATED).body(Allocation.of(taken.taking(), taken.repeated()));
            case Outcome.Settled settled -> throw new IllegalStateException("numbers were asked for");
            case Outcome.Defined defined -> throw new IllegalStateException("numbers were asked for, and definitions answered");
            case Outcome.Refused refused -> throw new IllegalStateException("refusals are problems by now");
        };
    }

    /** The form in words that stay, for the digest of a request: its keys outlive a new release. */
    private static String word(Act.Form form) {
        return switch (form) {
            case Act.Form.Singles singles -> "SINGLES";
            case Act.Form.Block block -> block.holder().map(holder -> "BLOCK " + holder).orElse("BLOCK");
            case Act.Form.Held held -> "HELD " + held.time();
            case Act.Form.Typed typed -> "TYPED " + typed.text();
        };
    }
}
