package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
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
import org.youngtally.core.act.PositionState;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

@RestController
@RequestMapping(Api.V1)
class LedgerController {
    private static final int MOST_ENTRIES = 1_000;
    private static final int MOST_REFERENCED = 100;

    private final Ledger ledger;
    private final HeavyWork work;
    private final IssuedIdentifiers identifiers;

    LedgerController(Ledger ledger, HeavyWork work, IssuedIdentifiers identifiers) {
        this.ledger = ledger;
        this.work = work;
        this.identifiers = identifiers;
    }

    /**
     * @param round the round of a repeating mark, from 1
     * @param state issued, held, used, returned, pre-existing, or void with the kind behind it
     * @param block the block it is of, by the entry that made it
     * @param until when it lapses, while it is held
     * @param ahead whether it was typed or recorded ahead of the counter
     * @param kind the kind of record that it was allocated for, if known
     * @param unit the unit that it was allocated for, if known
     * @param record the record that it is the number of, or was
     * @param changed the act that made its state what it is; absent where it is as it was given
     * @param preexisting the table that it comes from, if it was recorded from one
     * @param labels those that bear it, up to 20, if it was allocated for labels
     * @param retired the act that gave its place anew under another identifier; nobody has this one any more
     */
    record IdentifierView(
            String identifier,
            String namespace,
            String series,
            String title,
            RangeSpan range,
            String lane,
            long position,
            @Nullable Long round,
            LocalDate date,
            @Nullable Map<String, String> fields,
            String state,
            @Nullable Long block,
            @Nullable Instant until,
            boolean ahead,
            long seq,
            Instant at,
            String by,
            @Nullable String reference,
            @Nullable String kind,
            @Nullable String unit,
            @Nullable Long record,
            @Nullable ChangeView changed,
            @Nullable PreexistingView preexisting,
            @Nullable List<BearingLabel> labels,
            @Nullable ChangeView retired) {}

    /**
     * A label that bears a number.
     *
     * @param job the entry that began its job
     * @param place in the job, from 1
     * @param layout of the job
     * @param number of the label among those of the job, from 1
     * @param copyNumber of the copy, from 1
     * @param state waiting, sent, printed, unconfirmed, spoiled or cancelled
     * @param reprint whether it was printed before
     */
    record BearingLabel(
            long job, long place, String layout, long number, int copyNumber, String state, boolean reprint) {}

    /**
     * Where a number from before comes from.
     *
     * @param file the name of the table
     * @param line of the file, from 1
     * @param plan the entry that began the plan by which it was recorded
     */
    record PreexistingView(String file, long line, long plan) {}

    /**
     * @param act what was done
     * @param note why
     */
    record ChangeView(
            long seq,
            Instant at,
            String by,
            String act,
            @Nullable String note) {
        static ChangeView of(EntryQueries.Row entry) {
            return new ChangeView(
                    entry.seq(),
                    entry.at(),
                    entry.by(),
                    entry.kind().word(),
                    entry.note().orElse(null));
        }
    }

    record RangeSpan(int id, long first, long last, long step, LocalDate opens) {}

    @GetMapping("/identifiers")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "findIdentifier",
            summary = "What an identifier was issued for; case does not matter. One for each namespace that has it")
    List<IdentifierView> find(
            @Parameter(description = "The identifier") @RequestParam(required = false) String text,
            @Parameter(description = "Instead of an identifier: the reference that numbers were allocated for")
                    @RequestParam(required = false)
                    String reference,
            Caller caller) {
        if (text == null && reference == null)
            throw new Problem(Type.MALFORMED, "The parameter ‘text’ is missing.")
                    .field("text", "an identifier; or a reference as the parameter ‘reference’ instead");
        if (text != null && reference != null)
            throw new Problem(Type.MALFORMED, "Both an identifier and a reference were sent.")
                    .field("reference", "none together with text");
        List<IdentifierView> found = ledger
                .read(dsl -> text == null
                        ? referenced(new EntryQueries(dsl), new IdentifierQueries(dsl), reference)
                        : new IdentifierQueries(dsl).find(text))
                .stream()
                .flatMap(each -> identifiers.shown(each, caller).stream())
                .toList();
        if (found.isEmpty() && text == null)
            throw new Problem(
                            Type.UNKNOWN_IDENTIFIER,
                            "No number was allocated for ‘" + reference + "’"
                                    + (caller.readsAll() ? "." : " in a series that ‘" + caller.name() + "’ may read."))
                    .field("reference", "a reference that numbers were allocated for");
        if (found.isEmpty())
            throw new Problem(
                            Type.UNKNOWN_IDENTIFIER,
                            "‘" + text + "’ was never issued"
                                    + (caller.readsAll() ? "." : " by a series that ‘" + caller.name() + "’ may read."))
                    .field("text", "an identifier that a series issued");
        return found;
    }

    /** The numbers that were taken under a reference, the first hundred of them. */
    private static List<IdentifierQueries.Found> referenced(
            EntryQueries entries, IdentifierQueries identifiers, String reference) {
        return entries.referenced(reference, MOST_REFERENCED).stream()
                .flatMap(row -> entries.texts(row).stream()
                        .flatMap(text -> identifiers.find(text).stream())
                        .filter(each -> each.entry().seq() == row.seq()))
                .limit(MOST_REFERENCED)
                .toList();
    }

    /**
     * An act of the ledger.
     *
     * @param act what was done: define, allocate, block, hold, type, confirm, release, lapse, return, void, use, split,
     *     close, reopen, remove, access, save, change, renumber, share, delete, fill, continue, plan, record,
     *     close-gaps, carry-out or abandon
     * @param state the state of the numbers afterwards, for an act on issued numbers
     * @param note the reason, or for whom
     * @param fields the codes and texts of the fields
     * @param kind the kind of record that the numbers are for
     * @param unit its unit
     * @param defined what was defined, changed or removed: codebooks and series by their keys, anything else with its
     *     type
     * @param first the first identifier
     */
    record EntryView(
            long seq,
            Instant at,
            String by,
            String act,
            @Nullable String series,
            @Nullable LocalDate date,
            @Nullable Map<String, String> fields,
            @Nullable Long quantity,
            @Nullable String reference,
            @Nullable String key,
            @Nullable String first,
            @Nullable String last,
            @Nullable String state,
            @Nullable String note,
            @Nullable String kind,
            @Nullable String unit,
            @Nullable List<String> defined) {}

    @GetMapping("/entries")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listEntries",
            summary = "The ledger's entries from new to old, page by page; the Link header leads to the next page")
    ResponseEntity<List<EntryView>> entries(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            @Parameter(description = "Only those before this entry") @RequestParam(required = false) Long before,
            @Parameter(description = "At most this many") @RequestParam(defaultValue = "50") int limit,
            Caller caller) {
        if (limit < 1 || limit > MOST_ENTRIES)
            throw new Problem(Type.MALFORMED, "A page of " + limit + " entries cannot be shown.")
                    .field("limit", "1 to " + MOST_ENTRIES);
        Optional<Collection<String>> wanted = Requests.readable(caller, series);
        List<EntryView> page = ledger.read(dsl -> {
            var queries = new EntryQueries(dsl);
            return queries.page(wanted, before == null ? Long.MAX_VALUE : before, limit + 1).stream()
                    .map(row -> view(row, queries, caller, series == null ? caller::reads : series::equals))
                    .toList();
        });
        if (page.size() <= limit) return ResponseEntity.ok(page);
        List<EntryView> shown = page.subList(0, limit);
        String next = UriComponentsBuilder.fromPath(Api.V1 + "/entries")
                .queryParamIfPresent("series", Optional.ofNullable(series))
                .queryParam("before", shown.getLast().seq())
                .queryParam("limit", limit)
                .build()
                .encode()
                .toUriString();
        return ResponseEntity.ok()
                .header("Link", "<" + next + ">; rel=\"next\"")
                .body(shown);
    }

    private static EntryView view(EntryQueries.Row row, EntryQueries queries, Caller caller, Predicate<String> among) {
        List<String> ends = queries.ends(row, among);
        boolean defines =
                row.kind() == Entry.Kind.DEFINE || row.kind() == Entry.Kind.REMOVE || row.kind() == Entry.Kind.ACCESS;
        // Who may read some series hears of what was defined with them no more than that.
        List<String> defined = !defines
                ? null
                : queries.defined(row.seq()).stream()
                        .filter(key -> caller.readsAll() || caller.reads(key))
                        .toList();
        return new EntryView(
                row.seq(),
                row.at(),
                row.by(),
                row.kind().word(),
                row.series().orElse(null),
                row.particulars().map(Particulars::date).orElse(null),
                fields(row.particulars()),
                row.quantity() == 0 ? null : row.quantity(),
                row.reference().orElse(null),
                row.key().orElse(null),
                ends.isEmpty() ? null : ends.getFirst(),
                ends.isEmpty() ? null : ends.getLast(),
                row.state().map(PositionState::word).orElse(null),
                row.note().orElse(null),
                row.purpose().kind().orElse(null),
                row.purpose().unit().orElse(null),
                defined);
    }

    static Map<String, String> fields(Optional<Particulars> particulars) {
        return particulars
                .map(Particulars::fields)
                .filter(fields -> !fields.isEmpty())
                .orElse(null);
    }

    /**
     * @param series the series whose positions are checked; default: all
     * @param head a head that an earlier audit ended with, as SEQUENCE:HASH
     */
    record AuditRequest(@Nullable String series, @Nullable String head) {}

    /**
     * @param gapFree whether nothing at all was found
     * @param positions how many positions lie below the counters
     * @param ahead how many positions are ahead of the counters
     * @param states how many positions there are in each state; together those below and ahead of the counters
     * @param head what to keep, to prove later that nothing was rewritten
     * @param explained what is neither plainly issued nor a gap, lane by lane, and why; the closed periods
     */
    record AuditView(
            boolean gapFree,
            long entries,
            long lanes,
            long positions,
            long ahead,
            Map<String, Long> states,
            String head,
            List<String> explained,
            List<String> findings,
            long more) {}

    @PostMapping("/audits")
    @Needs(value = Right.AUDIT, at = At.REQUEST)
    @Operation(
            operationId = "audit",
            summary =
                    "Check every journal line and every position: whether the ledger is gap-free and unchanged, or what is wrong")
    AuditView audit(@RequestBody(required = false) AuditRequest request, Caller caller) {
        AuditRequest asked = request == null ? new AuditRequest(null, null) : request;
        caller.need(
                Right.AUDIT,
                asked.series() == null
                        ? Where.EVERYWHERE
                        : Where.series(Requests.series(caller, asked.series()).key()));
        Head head = head(asked.head());
        AuditReport report =
                work.run(Sort.AUDIT, caller.name(), () -> Audit.of(ledger, Optional.ofNullable(asked.series()), head));
        return new AuditView(
                report.passed(),
                report.entries(),
                report.lanes(),
                report.positions(),
                report.ahead(),
                states(report),
                report.head().toString(),
                report.explained(),
                report.findings(),
                report.more());
    }

    private static Map<String, Long> states(AuditReport report) {
        var states = new LinkedHashMap<String, Long>();
        report.states().forEach((state, quantity) -> states.put(state.word(), quantity));
        return states;
    }

    private static Head head(String text) {
        if (text == null) return Head.EMPTY;
        try {
            return Head.parse(text);
        } catch (IllegalArgumentException e) {
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a head.")
                    .field("head", "SEQUENCE:HASH, as an earlier audit printed it");
        }
    }

    /** The answer of an endpoint that does nothing. */
    record Nothing(String answer) {}

    @GetMapping("/noop")
    @SignedIn
    @Operation(operationId = "doNothing", summary = "Does nothing; for measuring the cost of a request")
    Nothing noop() {
        return new Nothing("nothing");
    }
}
