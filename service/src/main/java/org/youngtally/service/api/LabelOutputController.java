package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.labels.LabelPdf;
import org.youngtally.printers.Printer;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.printers.PrinterException;
import org.youngtally.printers.PrinterStatus;
import org.youngtally.printers.PrinterStatus.MediaSize;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.LabelController.LabelFault;
import org.youngtally.service.api.LabelJobs.LabelJobView;
import org.youngtally.service.printing.LabelFile;
import org.youngtally.service.printing.Printers;
import org.youngtally.service.printing.Printing;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Sends labels of jobs: to printers, or as a file for whoever prints them. */
@RestController
@RequestMapping(Api.V1)
class LabelOutputController {
    private static final Logger LOG = LoggerFactory.getLogger(LabelOutputController.class);

    private final HeavyWork work;
    private final LabelJobs jobs;
    private final LabelFile file;
    private final Printers printers;
    private final Printing printing;

    LabelOutputController(HeavyWork work, LabelJobs jobs, LabelFile file, Printers printers, Printing printing) {
        this.work = work;
        this.jobs = jobs;
        this.file = file;
        this.printers = printers;
        this.printing = printing;
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
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller,
            @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        JobLabels labels = jobs.at(job, Right.ALLOCATE, caller);
        RequestMark mark =
                Requests.mark(caller.name(), key, RequestText.of("SEND LABELS").part(job));
        Optional<Long> earlier = jobs.done(mark);
        List<Places> places = earlier.map(entry -> jobs.changed(job, entry, LabelState.SENT))
                .orElseGet(() -> LabelFile.waiting(labels, LabelPreparation.MOST_DRAWN));
        try (TemporaryFile to = TemporaryFile.create()) {
            if (!places.isEmpty()) work.run(Sort.TABLE, caller.name(), () -> draw(labels, places, to));
            // Whatever waits by now that was not drawn is not sent; and what does not wait any more refuses all.
            if (earlier.isEmpty()) jobs.perform(labels, new LabelStep.Send(places), mark, caller);
            response.setContentType(MediaType.APPLICATION_PDF_VALUE);
            response.setHeader(
                    "Content-Disposition", RecordFileController.disposition("attachment", "labels-" + job + ".pdf"));
            to.send(response);
        }
    }

    private Void draw(JobLabels labels, List<Places> places, TemporaryFile to) {
        try {
            file.write(labels, places, to.path());
            return null;
        } catch (LabelFile.Unprintable e) {
            LOG.debug("a label could not be drawn", e);
            throw LabelController.faulty(
                    List.of(LabelFault.of(e.label().place(), e.label().content().identifier(), e.fault(), null)));
        } catch (LabelPdf.TooLarge e) {
            LOG.debug("labels were too large", e);
            throw LabelController.tooMuch();
        }
    }

    /**
     * A printer.
     *
     * @param address as ipp: or ipps:
     * @param name that it has for people; absent where it does not answer
     * @param state idle, processing or stopped; absent where it does not answer
     * @param accepts whether it accepts jobs
     * @param reasons for its state, as RFC 8011 writes them
     * @param media the sizes that it prints on, for people
     * @param problem why nothing is known of it
     * @param simulated whether it is the simulated printer of the demo
     */
    record PrinterView(
            String address,
            @Nullable String name,
            @Nullable String state,
            boolean accepts,
            List<String> reasons,
            List<String> media,
            @Nullable String problem,
            boolean simulated) {
        static PrinterView of(PrinterAddress address, boolean simulated) {
            try {
                PrinterStatus status = new Printer(address).status();
                return new PrinterView(
                        address.toString(),
                        status.name(),
                        status.state().name().toLowerCase(Locale.ROOT),
                        status.accepts(),
                        status.reasons(),
                        status.sizes().stream().map(MediaSize::toString).toList(),
                        null,
                        simulated);
            } catch (PrinterException e) {
                LOG.debug("a printer was asked how it is", e);
                return new PrinterView(
                        address.toString(), null, null, false, List.of(), List.of(), e.getMessage(), simulated);
            }
        }
    }

    @GetMapping("/printers")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listPrinters",
            summary = "The printers that labels may be sent to, and how it is with each: they are asked now")
    List<PrinterView> printers() {
        try (ExecutorService asking = Executors.newVirtualThreadPerTaskExecutor()) {
            return printers.addresses().stream()
                    .map(address -> asking.submit(() -> PrinterView.of(address, isSimulated(address))))
                    .toList()
                    .stream()
                    .map(LabelOutputController::answer)
                    .toList();
        }
    }

    private boolean isSimulated(PrinterAddress address) {
        return printers.simulated()
                .filter(printer -> printer.address().equals(address))
                .isPresent();
    }

    private static PrinterView answer(Future<PrinterView> asked) {
        try {
            return asked.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("the service ends", e);
        } catch (ExecutionException e) {
            throw new IllegalStateException(e.getCause());
        }
    }

    /**
     * Where labels are printed.
     *
     * @param printer its address; default: the printer that the job names
     */
    record PrintingRequest(@Nullable String printer) {}

    @PostMapping("/label-jobs/{job}/printing")
    @ResponseStatus(HttpStatus.ACCEPTED)
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "beginPrinting",
            summary =
                    "Print the labels that wait. Each is sent once, and the ledger knows that it is sent before it leaves; show the job to see what the printer says")
    LabelJobView begin(@PathVariable long job, @RequestBody PrintingRequest request, Caller caller) {
        JobLabels labels = jobs.at(job, Right.ALLOCATE, caller);
        String address = Optional.ofNullable(request.printer())
                .or(labels.job()::printer)
                .orElseThrow(() -> new Problem(Type.UNKNOWN_PRINTER, "Label job " + job + " names no printer.")
                        .field("printer", "the address of a printer"));
        PrinterAddress printer = LabelPrinters.find(printers, address);
        boolean waits = !labels.waiting().isEmpty();
        if (printing.isUnderWay(job) || waits && !printing.begin(job, printer, caller.name()))
            throw new Problem(Type.PRINTER_BUSY, "Label job " + job + " is printed already.")
                    .field("job", "show it, or stop it");
        if (!waits)
            throw new Problem(Type.LABEL_STATE, "Label job " + job + " has no labels that wait.")
                    .field("job", "reprint labels, or print a new job");
        return jobs.view(job, Right.ALLOCATE, caller);
    }

    @DeleteMapping("/label-jobs/{job}/printing")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "stopPrinting",
            summary =
                    "Stop printing: the printer is told to end the job. What was on its way becomes unconfirmed, what waits goes on waiting")
    LabelJobView stop(@PathVariable long job, Caller caller) {
        jobs.at(job, Right.ALLOCATE, caller);
        if (!printing.stop(job))
            throw new Problem(Type.PRINTER_BUSY, "Label job " + job + " is not printed now.")
                    .field("job", "a job that is printed");
        return jobs.view(job, Right.ALLOCATE, caller);
    }
}
