package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.Layout;
import org.youngtally.labels.Drawer;
import org.youngtally.labels.LabelPdf;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.LabelController.LabelFault;
import org.youngtally.service.api.LabelController.LabelRequest;
import org.youngtally.service.api.LabelJobs.LabelJobSummary;
import org.youngtally.service.api.LabelJobs.LabelJobView;
import org.youngtally.service.api.LabelPreparation.Prepared;
import org.youngtally.service.label.PrintedLabels;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Jobs of labels: printed, looked at, and what becomes of each label. */
@RestController
@RequestMapping(Api.V1)
class LabelJobController {
    private static final Logger LOG = LoggerFactory.getLogger(LabelJobController.class);

    private static final String CSV = "text/csv";
    private static final String KEY =
            "An idempotency key for this request; repeating the request with it returns the same answer";
    private static final long MOST_BYTES = 400_000_000;
    private static final int MOST_JOBS = 200;
    private static final int MOST_LABELS = 1_000;
    /** So many are read at once for a file. */
    private static final int CHUNK = 1_000;

    private final Ledger ledger;
    private final HeavyWork work;
    private final LabelPreparation preparation;
    private final LabelJobs jobs;

    LabelJobController(Ledger ledger, HeavyWork work, LabelPreparation preparation, LabelJobs jobs) {
        this.ledger = ledger;
        this.work = work;
        this.preparation = preparation;
        this.jobs = jobs;
    }

    @PostMapping("/label-jobs")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "printLabels",
            summary =
                    "Print labels: allocates their numbers in one act and keeps the job; its labels wait until they are sent. One label that cannot be printed refuses all. 201 when allocated now, 200 when the same request had done it before")
    ResponseEntity<LabelJobView> print(
            @RequestBody LabelRequest request,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        if (request.definition() != null)
            throw new Problem(Type.MALFORMED, "A layout that is not applied is not printed by.")
                    .field("definition", "apply it, and name it as layout");
        RequestMark mark = Requests.mark(
                caller.name(),
                key,
                "LABELS " + request.layout(),
                request.series(),
                request.kind(),
                request.unit(),
                request.quantity(),
                request.copies(),
                request.date(),
                Requests.fields(request.fields(), null));
        Optional<Long> earlier = jobs.done(mark);
        if (earlier.isPresent()) return ResponseEntity.ok(jobs.view(jobs.at(earlier.get(), Right.ALLOCATE, caller)));
        Prepared prepared = work.run(Sort.TABLE, caller.name(), () -> checked(request, caller));
        return switch (Requests.perform(ledger, prepared.print(mark), caller.name())) {
            case Outcome.Labelled labelled ->
                ResponseEntity.status(labelled.repeated() ? HttpStatus.OK : HttpStatus.CREATED)
                        .body(jobs.view(jobs.at(labelled.job(), Right.ALLOCATE, caller)));
            case Outcome.Refused<Answer.Labels> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    /** Every label is drawn once before a number is allocated. */
    private Prepared checked(LabelRequest request, Caller caller) {
        Prepared prepared = preparation.of(request, Right.ALLOCATE, caller);
        List<LabelFault> faults = LabelController.faults(prepared);
        if (!faults.isEmpty()) throw LabelController.faulty(faults);
        return prepared;
    }

    @GetMapping("/label-jobs")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "listLabelJobs", summary = "Jobs of labels, the newest first")
    List<LabelJobSummary> list(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            @Parameter(description = "Only those begun by an entry with a lower number")
                    @RequestParam(defaultValue = "9223372036854775807")
                    long before,
            @Parameter(description = "How many, up to 200") @RequestParam(defaultValue = "50") int most,
            Caller caller) {
        if (most < 1 || most > MOST_JOBS)
            throw new Problem(Type.MALFORMED, most + " jobs cannot be listed.").field("most", "1 to " + MOST_JOBS);
        List<String> wanted = Requests.readable(caller, series)
                .map(List::copyOf)
                .orElseGet(() -> List.copyOf(caller.snapshot().series().keySet()));
        return jobs.page(wanted, before, most);
    }

    @GetMapping("/label-jobs/{job}")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "showLabelJob",
            summary = "One job of labels: which labels are in which state, and what was done with them")
    LabelJobView show(@PathVariable long job, Caller caller) {
        return jobs.view(jobs.at(job, Right.READ, caller));
    }

    /**
     * One label of a job.
     *
     * @param place in the job, from 1
     * @param identifier on it
     * @param number of the label among those of the job, from 1
     * @param copyNumber of the copy, from 1
     * @param state waiting, sent, printed, unconfirmed, spoiled or cancelled
     * @param original the place of the label in whose stead it is printed, if it is
     */
    record PrintedLabel(
            long place,
            String identifier,
            long number,
            int copyNumber,
            String state,
            @Nullable Long original) {
        static PrintedLabel of(PrintedLabels.Label label) {
            return new PrintedLabel(
                    label.place() + 1,
                    label.content().identifier(),
                    label.content().number(),
                    label.content().copy(),
                    label.state().word(),
                    label.original() == label.place() ? null : label.original() + 1);
        }
    }

    @GetMapping("/label-jobs/{job}/labels")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "listLabels", summary = "The labels of a job one by one")
    List<PrintedLabel> labels(
            @PathVariable long job,
            @Parameter(description = "The place of the first, from 1") @RequestParam(defaultValue = "1") long from,
            @Parameter(description = "How many, up to 1,000") @RequestParam(defaultValue = "100") int most,
            Caller caller) {
        if (from < 1 || most < 1 || most > MOST_LABELS)
            throw new Problem(Type.MALFORMED, most + " labels from place " + from + " cannot be listed.")
                    .field(from < 1 ? "from" : "most", from < 1 ? "1 or more" : "1 to " + MOST_LABELS);
        JobLabels labels = jobs.at(job, Right.READ, caller);
        if (from > labels.size()) return List.of();
        return jobs.labels(labels, from - 1, from - 2 + most).stream()
                .map(PrintedLabel::of)
                .toList();
    }

    @GetMapping(path = "/label-jobs/{job}/data", produces = CSV)
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "labelJobData",
            summary = "The data of every label of a job as CSV (RFC 4180), with a column for each field",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content = @Content(mediaType = CSV, schema = @Schema(type = "string"))))
    void data(@PathVariable long job, Caller caller, @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        JobLabels labels = jobs.at(job, Right.READ, caller);
        response.setContentType(CSV + ";charset=UTF-8");
        response.setHeader(
                "Content-Disposition", RecordFileController.disposition("attachment", "labels-" + job + ".csv"));
        try (Writer out =
                        new BufferedWriter(new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
                var csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            var fields = new TreeSet<>(labels.job().fields().keySet());
            var header = new ArrayList<>(List.of("place", "identifier", "number", "copy", "state", "date"));
            header.addAll(fields);
            csv.printRecord(header);
            for (long from = 0; from < labels.size(); from += CHUNK)
                for (PrintedLabels.Label label : jobs.labels(labels, from, from + CHUNK - 1)) {
                    csv.print(label.place() + 1);
                    csv.print(label.content().identifier());
                    csv.print(label.content().number());
                    csv.print(label.content().copy());
                    csv.print(label.state().word());
                    csv.print(label.content().date());
                    for (String field : fields)
                        csv.print(label.content().fields().get(field));
                    csv.println();
                }
        }
    }

    @PostMapping(path = "/label-jobs/{job}/outputs", produces = MediaType.APPLICATION_PDF_VALUE)
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "sendLabels",
            summary =
                    "Hand out the labels that wait as a PDF, up to 20,000 at a time. That they are sent is in the ledger before the first byte leaves; none is handed out twice, but to the same request with its key",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content =
                                    @Content(
                                            mediaType = MediaType.APPLICATION_PDF_VALUE,
                                            schema = @Schema(type = "string", format = "binary"))))
    void send(
            @PathVariable long job,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller,
            @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        JobLabels labels = jobs.at(job, Right.ALLOCATE, caller);
        RequestMark mark = Requests.mark(caller.name(), key, "SEND LABELS", job);
        Optional<Long> earlier = jobs.done(mark);
        List<Places> places =
                earlier.map(entry -> jobs.changed(job, entry, LabelState.SENT)).orElseGet(() -> waiting(labels));
        try (TemporaryFile file = TemporaryFile.create()) {
            if (!places.isEmpty()) work.run(Sort.TABLE, caller.name(), () -> draw(labels, places, file));
            // Whatever waits by now that was not drawn is not sent; and what does not wait any more refuses all.
            if (earlier.isEmpty()) jobs.perform(labels, new LabelStep.Send(places), mark, caller);
            response.setContentType(MediaType.APPLICATION_PDF_VALUE);
            response.setHeader(
                    "Content-Disposition", RecordFileController.disposition("attachment", "labels-" + job + ".pdf"));
            file.send(response);
        }
    }

    /** As many as are drawn at once, and as one act is about. */
    private static List<Places> waiting(JobLabels labels) {
        return labels.waiting(LabelPreparation.MOST_DRAWN, Decider.MOST_SETTLED).stream()
                .map(each -> new Places(each.from(), each.to()))
                .toList();
    }

    /** The same labels are the same file, whenever it is made. */
    private Void draw(JobLabels labels, List<Places> places, TemporaryFile to) {
        Layout layout = LabelPreparation.checked(
                ledger.read(dsl -> new LabelQueries(dsl)
                                .layout(labels.job().layout(), labels.job().version()))
                        .orElseThrow()
                        .draft(),
                Optional.empty());
        Instant made = ledger.read(dsl -> new EntryQueries(dsl).at(labels.seq()))
                .orElseThrow()
                .at();
        var drawer = new Drawer(layout);
        try (var pdf = new LabelPdf(layout, made, MOST_BYTES);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(to.path()))) {
            for (Places each : places)
                for (long from = each.from(); from <= each.to(); from += CHUNK)
                    for (PrintedLabels.Label label : jobs.labels(labels, from, Math.min(each.to(), from + CHUNK - 1))) {
                        Drawer.Drawn drawn = drawer.of(label.content());
                        if (!drawn.faults().isEmpty())
                            throw LabelController.faulty(List.of(LabelFault.of(
                                    label.place(),
                                    label.content().identifier(),
                                    drawn.faults().getFirst(),
                                    null)));
                        pdf.add(drawn.drawing());
                    }
            pdf.write(out);
            return null;
        } catch (LabelPdf.TooLarge e) {
            LOG.debug("labels were too large", e);
            throw LabelController.tooMuch();
        } catch (IOException e) {
            throw new UncheckedIOException("the labels could not be written to a temporary file", e);
        }
    }

    /**
     * Which labels of a job.
     *
     * @param places those at these places, such as 5 or 121-140, from 1 and in their order
     * @param identifiers or all that bear one of these and with which it can be done
     * @param reason why; required where labels are spoiled
     * @param replace of spoiled labels, whether each is printed again, with a new number where its own becomes void;
     *     default: true
     */
    record LabelChoice(
            @Nullable List<String> places,
            @Nullable List<String> identifiers,
            @Nullable String reason,
            @Nullable Boolean replace) {}

    @PostMapping("/label-jobs/{job}/confirmations")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(operationId = "confirmLabels", summary = "State that labels which were sent are printed")
    LabelJobView confirm(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.CONFIRM, choice, key, caller);
    }

    @PostMapping("/label-jobs/{job}/reprints")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "reprintLabels",
            summary =
                    "Print labels again with the same numbers; what was sent or unconfirmed is spoiled by it. They wait until they are sent")
    LabelJobView reprint(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.REPRINT, choice, key, caller);
    }

    @PostMapping("/label-jobs/{job}/spoilages")
    @Needs(value = Right.VOID, at = At.REQUEST)
    @Operation(
            operationId = "spoilLabels",
            summary =
                    "State that labels are spoiled: a number that no other label bears becomes void. Each is printed again, unless it is not to be replaced")
    LabelJobView spoil(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.SPOIL, choice, key, caller);
    }

    @PostMapping("/label-jobs/{job}/cancellations")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "cancelLabels",
            summary =
                    "Cancel labels that were never sent, all of them if none is named: their numbers are returned, or void where the series allows no returns")
    LabelJobView cancel(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = KEY) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.CANCEL, choice, key, caller);
    }

    private enum Deed {
        CONFIRM(Right.ALLOCATE),
        REPRINT(Right.ALLOCATE),
        SPOIL(Right.VOID),
        CANCEL(Right.ALLOCATE);

        private final Right right;

        Deed(Right right) {
            this.right = right;
        }

        /** Whether it can be done with a label that is found by its number. */
        private boolean fits(LabelState state) {
            return switch (this) {
                case CONFIRM -> state == LabelState.SENT || state == LabelState.UNCONFIRMED;
                case REPRINT, SPOIL -> state.isOut();
                case CANCEL -> state == LabelState.WAITING;
            };
        }
    }

    private LabelJobView change(long job, Deed deed, LabelChoice choice, String key, Caller caller) {
        JobLabels labels = jobs.at(job, deed.right, caller);
        boolean replace = choice.replace() == null || choice.replace();
        if (deed == Deed.SPOIL && replace) caller.need(Right.ALLOCATE, LabelJobs.where(labels.job()));
        Optional<String> reason = Requests.note("reason", choice.reason());
        RequestMark mark = Requests.mark(
                caller.name(), key, deed + " LABELS", job, choice.places(), choice.identifiers(), reason, replace);
        if (jobs.done(mark).isEmpty()) {
            List<Places> places = places(labels, deed, choice);
            LabelStep step =
                    switch (deed) {
                        case CONFIRM -> new LabelStep.Confirm(places);
                        case REPRINT -> new LabelStep.Reprint(places, reason);
                        case SPOIL -> new LabelStep.Spoil(places, reason, replace);
                        case CANCEL -> new LabelStep.Cancel(places, reason);
                    };
            jobs.perform(labels, step, mark, caller);
        }
        return jobs.view(jobs.at(job, deed.right, caller));
    }

    private List<Places> places(JobLabels labels, Deed deed, LabelChoice choice) {
        boolean named = choice.places() != null && !choice.places().isEmpty();
        boolean numbered = choice.identifiers() != null && !choice.identifiers().isEmpty();
        if (named && numbered || deed != Deed.CANCEL && !named && !numbered)
            throw new Problem(
                            Type.MALFORMED,
                            named ? "Places and identifiers are named, and one is wanted." : "No labels are named.")
                    .field("places", "places such as 5 or 121-140; or identifiers");
        if (named)
            return choice.places().stream().map(LabelJobController::places).toList();
        if (!numbered) return List.of();
        if (choice.identifiers().size() > MOST_LABELS
                || choice.identifiers().stream().anyMatch(Objects::isNull))
            throw new Problem(
                            Type.MALFORMED,
                            choice.identifiers().size() > MOST_LABELS
                                    ? "%,d identifiers are named."
                                            .formatted(choice.identifiers().size())
                                    : "An identifier is null.")
                    .field("identifiers", "1 to %,d identifiers".formatted(MOST_LABELS));
        var places = new TreeSet<Long>();
        for (String identifier : choice.identifiers()) {
            List<Long> found = jobs.bearing(labels, identifier).stream()
                    .filter(place -> deed.fits(labels.state(place)))
                    .toList();
            if (found.isEmpty())
                throw new Problem(
                                Type.LABEL_STATE,
                                "Label job " + labels.seq() + " has no label of ‘" + identifier
                                        + "’ with which this can be done.")
                        .field("identifiers", "identifiers of labels that are in the right state");
            places.addAll(found);
        }
        return runs(places);
    }

    /** Places that follow on each other as one. */
    private static List<Places> runs(Iterable<Long> places) {
        var runs = new ArrayList<Places>();
        for (long place : places) {
            boolean goesOn = !runs.isEmpty() && runs.getLast().to() + 1 == place;
            if (goesOn) runs.set(runs.size() - 1, new Places(runs.getLast().from(), place));
            else runs.add(new Places(place, place));
        }
        return runs;
    }

    private static Places places(String text) {
        if (text == null || !text.matches("[0-9]{1,15}(-[0-9]{1,15})?"))
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a place, nor a run of places.")
                    .field("places", "such as 5 or 121-140, from 1");
        long[] ends = Arrays.stream(text.split("-")).mapToLong(Long::parseLong).toArray();
        return new Places(ends[0] - 1, ends[ends.length - 1] - 1);
    }
}
