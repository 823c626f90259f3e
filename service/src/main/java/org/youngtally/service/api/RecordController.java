package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.UriComponentsBuilder;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.organisation.FieldValues;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.record.RecordKeys;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.series.Fields;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/** Records: found, looked at, and kept anew with their numbers. */
@RestController
@RequestMapping(Api.V1)
class RecordController {
    private static final int MOST_RECORDS = 200;

    private final Ledger ledger;

    RecordController(Ledger ledger) {
        this.ledger = ledger;
    }

    @GetMapping("/records")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "findRecords",
            summary =
                    "Records from new to old: by words of their texts, the last word may be incomplete, or by a current or earlier identifier. The Link header leads to the next page")
    ResponseEntity<List<RecordView>> find(
            @Parameter(
                            description =
                                    "Words of its texts, such as a name or a tax number; or a current or earlier identifier")
                    @RequestParam(defaultValue = "")
                    String text,
            @Parameter(description = "Only of this kind") @RequestParam(required = false) String kind,
            @Parameter(description = "Only in this unit") @RequestParam(required = false) String unit,
            @Parameter(description = "Whether deleted records are included") @RequestParam(defaultValue = "false")
                    boolean deleted,
            @Parameter(description = "Only with a lower internal number") @RequestParam(required = false) Long before,
            @Parameter(description = "At most this many") @RequestParam(defaultValue = "50") int limit,
            Caller caller) {
        if (limit < 1 || limit > MOST_RECORDS)
            throw new Problem(Type.MALFORMED, "A page of " + limit + " records cannot be shown.")
                    .field("limit", "1 to " + MOST_RECORDS);
        if (text.length() > 200)
            throw new Problem(Type.MALFORMED, "The text is " + text.length() + " symbols long.")
                    .field("text", "up to 200 symbols");
        var wanted = new RecordQueries.Wanted(
                text,
                Optional.ofNullable(kind)
                        .map(key -> RecordSeries.kind(caller.snapshot(), key).key()),
                Optional.ofNullable(unit)
                        .map(key -> RecordSeries.unit(caller.snapshot(), key).key()),
                deleted);
        Optional<? extends Collection<String>> readable = Requests.readable(caller, null);
        List<RecordView> found = ledger
                .read(dsl -> new RecordQueries(dsl)
                        .search(wanted, readable, before == null ? Long.MAX_VALUE : before, limit + 1))
                .stream()
                .map(RecordView::of)
                .toList();
        if (found.size() <= limit) return ResponseEntity.ok(found);
        List<RecordView> shown = found.subList(0, limit);
        String next = UriComponentsBuilder.fromPath(Api.V1 + "/records")
                .queryParam("text", text)
                .queryParamIfPresent("kind", wanted.kind())
                .queryParamIfPresent("unit", wanted.unit())
                .queryParam("deleted", deleted)
                .queryParam("before", shown.getLast().record())
                .queryParam("limit", limit)
                .build()
                .encode()
                .toUriString();
        return ResponseEntity.ok()
                .header("Link", "<" + next + ">; rel=\"next\"")
                .body(shown);
    }

    /**
     * The number that renumbering would allocate, for a record whose fields have changed since.
     *
     * @param series that it would come from
     */
    record NumberOnceMore(String series) {}

    /**
     * @param state what its number is: issued, or void
     * @param instead where its fields would lead to another number by now; absent while the number is made of what they
     *     hold
     */
    record RecordDetail(
            RecordView record, String state, @Nullable NumberOnceMore instead) {}

    @GetMapping("/records/{record}")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "showRecord", summary = "A record; its version is the ETag")
    ResponseEntity<RecordDetail> show(@PathVariable long record, Caller caller) {
        KeptRecord found = Records.seen(ledger, caller, record);
        Optional<IdentifierQueries.Found> number =
                ledger
                        .read(dsl ->
                                new IdentifierQueries(dsl).find(found.number().text()))
                        .stream()
                        .filter(each ->
                                each.series().key().equals(found.number().series())
                                        && each.retired().isEmpty())
                        .findFirst();
        String state =
                number.map(each -> Refusals.state(each.stretch().state())).orElse("returned");
        return ResponseEntity.ok()
                .eTag("\"" + found.version() + "\"")
                .body(new RecordDetail(
                        RecordView.of(found),
                        state,
                        found.deleted() ? null : instead(found, number, caller).orElse(null)));
    }

    private Optional<NumberOnceMore> instead(
            KeptRecord record, Optional<IdentifierQueries.Found> number, Caller caller) {
        Kind kind = RecordSeries.kind(caller.snapshot(), record.kind());
        Unit unit = RecordSeries.unit(caller.snapshot(), record.home());
        if (!(RecordSeries.placing(caller.snapshot()).place(kind, unit, record.values(), record.values())
                instanceof SeriesAssignment.Assigned placed)) return Optional.empty();
        boolean same = placed.route().series().equals(record.number().series())
                && number.flatMap(each -> written(placed, each)
                                .filter(now -> !each.particulars().fields().equals(now)))
                        .isEmpty();
        return same
                ? Optional.empty()
                : Optional.of(new NumberOnceMore(placed.route().series()));
    }

    /** What the fields of the record write into its number now; absent where they could not be given any more. */
    private Optional<Map<String, String>> written(SeriesAssignment.Assigned placed, IdentifierQueries.Found number) {
        LedgerSnapshot now = ledger.snapshot();
        return Fields.of(number.series(), now::choices).kept(placed.given());
    }

    /** @param before what it held; absent where it held nothing */
    record FieldChange(
            String unit,
            String field,
            @Nullable String before,
            @Nullable String after) {}

    /**
     * A version of a record.
     *
     * @param act save, change, renumber, share or delete
     * @param note the reason, or what else was done
     * @param changes field by field, against the version before; lines as {@code line 2, quantity}
     */
    record RecordVersion(
            int version,
            long seq,
            Instant at,
            String by,
            String act,
            String unit,
            String identifier,
            @Nullable String note,
            List<FieldChange> changes) {}

    @GetMapping("/records/{record}/versions")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "showRecordHistory",
            summary =
                    "All versions of a record from new to old: who changed what, when and why, and each identifier it had")
    List<RecordVersion> versions(@PathVariable long record, Caller caller) {
        Records.seen(ledger, caller, record);
        List<RecordQueries.Version> versions = ledger.read(dsl -> new RecordQueries(dsl).versions(record));
        var views = new ArrayList<RecordVersion>();
        for (int i = 0; i < versions.size(); i++) {
            RecordQueries.Version version = versions.get(i);
            Optional<KeptRecord> before =
                    i + 1 < versions.size() ? Optional.of(versions.get(i + 1).record()) : Optional.empty();
            views.add(new RecordVersion(
                    version.record().version(),
                    version.entry().seq(),
                    version.entry().at(),
                    version.entry().by(),
                    version.entry().kind().word(),
                    version.entry().purpose().unit().orElse(version.record().home()),
                    version.record().number().text(),
                    version.entry().note().orElse(null),
                    RecordDifferences.between(before, version.record())));
        }
        return views;
    }

    /** @param number of a line that there is; absent for a new one */
    record LineRequest(@Nullable Integer number, @Nullable Map<String, String> fields) {}

    /** A line in the text of a request. */
    static String written(LineOrder.Wanted line) {
        return RequestText.object(
                "Wanted",
                "number",
                RequestText.optional(line.number().map(String::valueOf)),
                "values",
                RequestText.map(line.values()));
    }

    static List<LineOrder.Wanted> lines(List<LineRequest> lines) {
        if (lines == null) return List.of();
        return lines.stream()
                .map(line -> {
                    if (line == null)
                        throw new Problem(Type.MALFORMED, "A line is null.")
                                .field("lines", "a list of lines, each with its fields");
                    return new LineOrder.Wanted(
                            Optional.ofNullable(line.number()), Requests.fields(line.fields(), null));
                })
                .toList();
    }

    /**
     * A new record.
     *
     * @param unit the key or the code of the unit
     * @param fields what it holds, by the names of the kind's fields
     * @param lines in order, for a kind with lines
     * @param typed the number as somebody typed it, for a series that allows it
     * @param date the business date; default: that of the record, or today in the unit
     */
    record SavingRequest(
            String kind,
            String unit,
            @Nullable Map<String, String> fields,
            @Nullable List<LineRequest> lines,
            @Nullable String typed,
            @Nullable String date) {}

    /**
     * A record, and the act that kept it.
     *
     * @param seq absent where nothing had to be done
     * @param known whether a record with the same identifying value existed; then nothing was allocated
     * @param repeated whether this is the answer to an earlier, same request
     */
    record RecordAnswer(
            RecordView record,
            @Nullable Long seq,
            @Nullable Instant at,
            @Nullable String by,
            boolean known,
            boolean repeated) {
        static RecordAnswer of(Outcome.Recorded recorded) {
            return new RecordAnswer(
                    RecordView.of(recorded.record()),
                    recorded.entry().map(entry -> entry.seq()).orElse(null),
                    recorded.entry().map(entry -> entry.at()).orElse(null),
                    recorded.entry().map(entry -> entry.by()).orElse(null),
                    recorded.known(),
                    recorded.repeated());
        }
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/records")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "saveRecord",
            summary =
                    "Save a new record and allocate its number, both or neither. 201 when it is new; 200 when the same request had saved it before, or when a record with the same identifying value exists")
    ResponseEntity<RecordAnswer> save(
            @RequestBody SavingRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        Kind kind = RecordSeries.kind(caller.snapshot(), request.kind());
        Unit unit = RecordSeries.unit(caller.snapshot(), request.unit());
        SortedMap<String, String> fields = Requests.fields(request.fields(), null);
        Optional<LocalDate> date = Requests.date(request.date());
        List<LineOrder.Wanted> lines = lines(request.lines());
        Optional<String> typed = typed(request.typed());
        Optional<KeptRecord> known = known(kind, fields, caller);
        if (known.filter(record -> !caller.reads(record.number().series())).isPresent())
            throw new Problem(
                            Type.KNOWN_ALREADY,
                            "Another record of the kind ‘" + kind.key() + "’ has these identifying values, and ‘"
                                    + caller.name() + "’ may not read it.")
                    .field(
                            "fields",
                            "other values for "
                                    + String.join(", ", kind.keeping().knownBy())
                                    + "; or ask an account that may read the record");
        String series = known.map(record -> record.number().series()).orElseGet(() -> {
            SeriesAssignment.Assigned placed = RecordSeries.of(caller.snapshot(), kind, unit, fields, Map.of());
            caller.need(Right.ALLOCATE, RecordSeries.where(placed));
            return placed.route().series();
        });
        caller.need(Right.ALLOCATE, new Where(Optional.of(series), Optional.of(kind.key()), Optional.of(unit.key())));
        var act = new Act.SaveRecord(
                kind.key(),
                unit.key(),
                fields,
                lines,
                typed,
                date,
                series,
                Requests.mark(
                        caller.name(),
                        key,
                        RequestText.of("SAVE")
                                .part(kind.key())
                                .part(unit.key())
                                .part(fields)
                                .part(RequestText.list(lines, RecordController::written))
                                .part(typed)
                                .part(date)));
        Outcome.Recorded recorded = Records.perform(ledger, act, caller);
        return ResponseEntity.status(recorded.known() || recorded.repeated() ? HttpStatus.OK : HttpStatus.CREATED)
                .body(RecordAnswer.of(recorded));
    }

    private static Optional<String> typed(String text) {
        return Optional.ofNullable(text).map(String::strip).filter(typed -> !typed.isEmpty());
    }

    /** The record that is known by something that is given. */
    private Optional<KeptRecord> known(Kind kind, Map<String, String> fields, Caller caller) {
        if (kind.keeping().knownBy().isEmpty()) return Optional.empty();
        var values = new FieldValues(kind, caller.snapshot()::choices);
        return ledger.read(dsl -> {
            var state = new StateQueries(dsl);
            return kind.keeping().knownBy().stream()
                    .filter(name -> !fields.getOrDefault(name, "").isBlank())
                    .flatMap(name -> values
                            .alone(
                                    kind.field(name).orElseThrow(),
                                    fields.get(name).strip())
                            .flatMap(value -> state.knownRecord(kind.key(), name, RecordKeys.key(value)))
                            .flatMap(state::record)
                            .stream())
                    .findFirst();
        });
    }

    /**
     * A field that could not be kept as it is.
     *
     * @param field its name, or typed for the number
     * @param missing whether it is only missing still
     */
    record FieldRemark(
            String field, String remark, @Nullable String accepted, boolean missing) {}

    /**
     * A record that is still being written.
     *
     * @param series that would number it; absent where no rule serves it
     * @param expected what its number will be unless somebody is faster; absent where that cannot be told yet
     * @param typing whether people may type the number: refused, allowed or required
     * @param known the record that there is already, by what it is known by
     */
    record RecordPreview(
            @Nullable String series,
            @Nullable String expected,
            @Nullable String typing,
            @Nullable RecordView known,
            List<FieldRemark> remarks) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/record-previews")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "previewRecord",
            summary =
                    "A preview of the number of a record that is being edited, and what is wrong or missing; nothing is allocated")
    RecordPreview preview(@RequestBody SavingRequest request, Caller caller) {
        Kind kind = RecordSeries.kind(caller.snapshot(), request.kind());
        Unit unit = RecordSeries.unit(caller.snapshot(), request.unit());
        SortedMap<String, String> fields = Requests.fields(request.fields(), null);
        SeriesAssignment.Begun begun = RecordSeries.placing(caller.snapshot()).begun(kind, unit, fields);
        caller.need(
                Right.ALLOCATE,
                begun.placed()
                        .map(RecordSeries::where)
                        .orElse(new Where(Optional.empty(), Optional.of(kind.key()), Optional.of(unit.key()))));
        var remarks = new ArrayList<FieldRemark>();
        for (FieldFault fault : begun.faults()) {
            Problem problem = Refusals.problem(new Refusal.FieldFaulty(kind.key(), fault));
            remarks.add(new FieldRemark(
                    fault.field(),
                    problem.getMessage(),
                    problem.accepted().orElse(null),
                    fault.kind() == FieldFault.Kind.MISSING));
        }
        RecordView known = known(kind, fields, caller)
                .filter(record -> caller.reads(record.number().series()))
                .map(RecordView::of)
                .orElse(null);
        if (begun.placed().isEmpty()) return new RecordPreview(null, null, null, known, remarks);
        SeriesAssignment.Assigned placed = begun.placed().get();
        Optional<String> expected = known != null
                ? Optional.empty()
                : expected(placed, typed(request.typed()), Requests.date(request.date()), remarks);
        return new RecordPreview(
                placed.route().series(),
                expected.orElse(null),
                caller.snapshot()
                        .series()
                        .get(placed.route().series())
                        .policy()
                        .typed()
                        .word(),
                known,
                remarks);
    }

    private Optional<String> expected(
            SeriesAssignment.Assigned placed,
            Optional<String> typed,
            Optional<LocalDate> date,
            List<FieldRemark> remarks) {
        Act.Form form = typed.<Act.Form>map(Act.Form.Typed::new).orElse(Act.Form.SINGLES);
        Optional<LocalDate> day = date.or(() ->
                placed.kind().keeping().datedBy().map(placed.values()::get).map(LocalDate::parse));
        var act = new Act.Allocate(
                placed.route().series(),
                day,
                placed.given(),
                1,
                form,
                Optional.empty(),
                RecordSeries.purpose(placed),
                Requests.unmarked());
        return switch (ledger.decide(act)) {
            case Decision.Done done ->
                done.effects().stream()
                        .filter(Effect.Issued.class::isInstance)
                        .findFirst()
                        .map(effect -> ((Effect.Issued) effect).texts().getFirst());
            case Decision.Refused refused -> {
                Problem problem = Refusals.problem(refused.refusal());
                String field = refused.refusal() instanceof Refusal.FieldFaulty faulty
                        ? faulty.fault().field()
                        : problem.field().orElse("number");
                boolean missing = refused.refusal() instanceof Refusal.FieldFaulty faulty
                                && faulty.fault().kind() == FieldFault.Kind.MISSING
                        || refused.refusal() instanceof Refusal.TypedNotAllowed none && none.required();
                if (remarks.stream().noneMatch(remark -> remark.field().equals(field)))
                    remarks.add(new FieldRemark(
                            field, problem.getMessage(), problem.accepted().orElse(null), missing));
                yield Optional.empty();
            }
            case Decision.Repeated repeated -> throw new IllegalStateException("a look has no key");
            case Decision.Known known -> throw new IllegalStateException("numbers alone are looked at");
        };
    }
}
