package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.printers.SimulatedPrinter;
import org.youngtally.printers.SimulatedPrinter.Trouble;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.printing.Printers;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** The simulated printer of the demo: what came out of it, and what goes wrong with it. */
@RestController
@RequestMapping(Api.V1 + "/simulated-printer")
class SimulatedPrinterController {
    private static final int MOST_PAGES = 1_000_000;

    private final Printers printers;

    SimulatedPrinterController(Printers printers) {
        this.printers = printers;
    }

    private SimulatedPrinter printer() {
        return printers.simulated()
                .orElseThrow(() -> new Problem(Type.UNKNOWN_PRINTER, "No simulated printer runs with this service.")
                        .field("printer", "the demo has one: youngtally demo"));
    }

    /**
     * The simulated printer.
     *
     * @param address as ipp:
     * @param trouble what goes wrong with it: none, jam, slow, refuse, vanish or nonsense
     * @param jobs that were sent to it, the newest first
     */
    record SimulatedPrinterView(String address, String trouble, List<SimulatedJobView> jobs) {
        static SimulatedPrinterView of(SimulatedPrinter printer) {
            return new SimulatedPrinterView(
                    printer.address().toString(),
                    printer.trouble().word(),
                    printer.jobs().stream().map(SimulatedJobView::of).toList());
        }
    }

    /**
     * A job at the simulated printer.
     *
     * @param number by which the printer knows it
     * @param name that it was sent with
     * @param user for whom it was sent
     * @param pages that it has
     * @param printed how many of them came out
     * @param state as RFC 8011 writes it
     */
    record SimulatedJobView(int number, String name, String user, int pages, int printed, String state) {
        static SimulatedJobView of(SimulatedPrinter.Job job) {
            return new SimulatedJobView(job.id(), job.name(), job.user(), job.pages(), job.printed(), job.state());
        }
    }

    /**
     * What goes wrong with the simulated printer from now on; what went wrong before is over.
     *
     * @param trouble none, jam, slow, refuse, vanish or nonsense
     * @param behind how many pages come out before; default: 0
     */
    record TroubleRequest(String trouble, @Nullable Integer behind) {}

    @GetMapping
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "showSimulatedPrinter", summary = "The simulated printer of the demo, and its jobs")
    SimulatedPrinterView show() {
        return SimulatedPrinterView.of(printer());
    }

    @PutMapping
    @Needs(value = Right.ALLOCATE, at = At.SOMEWHERE)
    @Operation(
            operationId = "troubleSimulatedPrinter",
            summary = "Tell the simulated printer of the demo what goes wrong with it")
    SimulatedPrinterView trouble(@RequestBody TroubleRequest request) {
        Trouble trouble = Arrays.stream(Trouble.values())
                .filter(each -> each.word().equals(request.trouble()))
                .findFirst()
                .orElseThrow(
                        () -> new Problem(Type.MALFORMED, "‘" + request.trouble() + "’ is no trouble of a printer.")
                                .field(
                                        "trouble",
                                        Arrays.stream(Trouble.values())
                                                .map(Trouble::word)
                                                .collect(Collectors.joining(", "))));
        int behind = request.behind() == null ? 0 : request.behind();
        if (behind < 0 || behind > MOST_PAGES)
            throw new Problem(Type.MALFORMED, behind + " pages cannot come out before.")
                    .field("behind", "0 to %,d".formatted(MOST_PAGES));
        SimulatedPrinter printer = printer();
        printer.set(trouble, behind);
        return SimulatedPrinterView.of(printer);
    }

    @GetMapping(path = "/jobs/{number}", produces = MediaType.APPLICATION_PDF_VALUE)
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "simulatedOutput",
            summary = "The pages of a job that came out of the simulated printer",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content =
                                    @Content(
                                            mediaType = MediaType.APPLICATION_PDF_VALUE,
                                            schema = @Schema(type = "string", format = "binary"))))
    ResponseEntity<byte[]> output(@PathVariable int number) {
        byte[] pages = printer().output(number).orElseThrow(() -> new Problem(
                        Type.UNKNOWN_PRINTER, "No page of job " + number + " came out of the simulated printer.")
                .field("number", "a job of which pages were printed"));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header("Content-Disposition", RecordFileController.disposition("inline", "printed-" + number + ".pdf"))
                .body(pages);
    }
}
