package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
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
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.documents.table.Formulas;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.LabelController.LabelFault;
import org.youngtally.service.api.LabelController.LabelRequest;
import org.youngtally.service.api.LabelJobs.LabelJobSummary;
import org.youngtally.service.api.LabelJobs.LabelJobView;
import org.youngtally.service.api.LabelPreparation.Prepared;
import org.youngtally.service.body.Takes;
import org.youngtally.service.label.FieldRows;
import org.youngtally.service.label.PrintedLabels;
import org.youngtally.service.printing.LabelFile;
import org.youngtally.service.printing.Printers;
import org.youngtally.service.printing.Printing;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Jobs of labels: printed, and looked at. */
@RestController
@RequestMapping(Api.V1)
class LabelJobController {
    private static final String CSV = "text/csv";
    private static final int MOST_JOBS = 200;
    private static final int MOST_LABELS = 1_000;
    /** So many are read at once for a file. */
    private static final int CHUNK = 1_000;

    private final Ledger ledger;
    private final HeavyWork work;
    private final LabelPreparation preparation;
    private final LabelJobs jobs;
    private final LabelFile file;
    private final Printers printers;
    private final Printing printing;

    LabelJobController(
            Ledger ledger,
            HeavyWork work,
            LabelPreparation preparation,
            LabelJobs jobs,
            LabelFile file,
            Printers printers,
            Printing printing) {
        this.ledger = ledger;
        this.work = work;
        this.preparation = preparation;
        this.jobs = jobs;
        this.file = file;
        this.printers = printers;
        this.printing = printing;
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/label-jobs")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "printLabels",
            summary =
                    "Print labels: allocates their numbers in one act and keeps the job; its labels wait until they are sent. One label that cannot be printed refuses all. 201 when allocated now, 200 when the same request had done it before")
    ResponseEntity<LabelJobView> print(
            @RequestBody LabelRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        if (request.definition() != null)
            throw new Problem(Type.MALFORMED, "A layout that is not applied is not printed by.")
                    .field("definition", "apply it, and name it as layout");
        RequestMark mark = Requests.mark(
                caller.name(),
                key,
                RequestText.of("LABELS " + request.layout()
                                + (request.printer() == null ? "" : " TO " + request.printer())
                                + (request.table() == null ? "" : " FOR " + request.table()))
                        .part(request.series())
                        .part(request.kind())
                        .part(request.unit())
                        .part(String.valueOf(request.quantity()))
                        .part(String.valueOf(request.copies()))
                        .part(request.date())
                        .part(Requests.fields(request.fields(), null)));
        Optional<Long> earlier = jobs.done(mark);
        if (earlier.isPresent()) {
            // The first request may have been cut off before the printer heard of it.
            if (jobs.isUntouched(earlier.get()))
                Optional.ofNullable(request.printer())
                        .flatMap(printers::find)
                        .ifPresent(address -> printing.begin(earlier.get(), address, caller.name()));
            return ResponseEntity.ok(jobs.view(earlier.get(), Right.ALLOCATE, caller));
        }
        Optional<PrinterAddress> printer =
                Optional.ofNullable(request.printer()).map(address -> LabelPrinters.find(printers, address));
        Prepared prepared = work.run(Sort.TABLE, caller.name(), () -> checked(request, caller));
        printer.ifPresent(address -> LabelPrinters.check(address, prepared.run().layout(), caller.name()));
        return switch (Requests.perform(ledger, prepared.print(mark, printer), caller.name())) {
            case Outcome.Labelled labelled -> {
                if (!labelled.repeated())
                    printer.ifPresent(address -> printing.begin(labelled.job(), address, caller.name()));
                yield ResponseEntity.status(labelled.repeated() ? HttpStatus.OK : HttpStatus.CREATED)
                        .body(jobs.view(labelled.job(), Right.ALLOCATE, caller));
            }
            case Outcome.Refused<Answer.Labels> refused -> throw prepared.problem(refused.refusal());
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
        return jobs.view(job, Right.READ, caller);
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
        return file.read(labels, file.rows(labels), from - 1, from - 2 + most).stream()
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
            Optional<FieldRows> rows = file.rows(labels);
            rows.ifPresent(each -> fields.addAll(each.columns().keySet()));
            var header = new ArrayList<>(List.of("place", "identifier", "number", "copy", "state", "date"));
            header.addAll(fields);
            csv.printRecord(header.stream().map(Formulas::harmless));
            for (long from = 0; from < labels.size(); from += CHUNK)
                for (PrintedLabels.Label label : file.read(labels, rows, from, from + CHUNK - 1)) {
                    csv.print(label.place() + 1);
                    csv.print(Formulas.harmless(label.content().identifier()));
                    csv.print(label.content().number());
                    csv.print(label.content().copy());
                    csv.print(label.state().word());
                    csv.print(label.content().date());
                    for (String field : fields)
                        csv.print(Formulas.harmless(label.content().fields().getOrDefault(field, "")));
                    csv.println();
                }
        }
    }
}
