package org.youngtally.printers;

import com.hp.jipp.encoding.IntOrIntRange;
import com.hp.jipp.encoding.IppInputStream;
import com.hp.jipp.encoding.IppOutputStream;
import com.hp.jipp.encoding.IppPacket;
import com.hp.jipp.encoding.Tag;
import com.hp.jipp.model.JobState;
import com.hp.jipp.model.MediaSizeSupported;
import com.hp.jipp.model.Operation;
import com.hp.jipp.model.PrinterState;
import com.hp.jipp.model.Status;
import com.hp.jipp.model.Types;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/** What the simulated printer answers to requests (RFC 8011, 4.2). */
final class SimulatedAnswers {
    private static final int MOST_BYTES = 100_000_000;
    /** The media that it holds: labels and sheets of any usual size, in hundredths of a millimetre. */
    private static final MediaSizeSupported MEDIA =
            new MediaSizeSupported(new IntOrIntRange(1_000, 30_000), new IntOrIntRange(1_000, 45_000));

    private final SimulatedPrinter printer;

    SimulatedAnswers(SimulatedPrinter printer) {
        this.printer = printer;
    }

    byte[] to(InputStream body) throws IOException {
        var in = new IppInputStream(body);
        IppPacket request = in.readPacket();
        byte[] document = in.readNBytes(MOST_BYTES);
        if (printer.talksNonsense()) return "Out of order.".getBytes(StandardCharsets.US_ASCII);
        IppPacket answer =
                answer(request, document).setRequestId(request.getRequestId()).build();
        var out = new ByteArrayOutputStream();
        new IppOutputStream(out).write(answer);
        return out.toByteArray();
    }

    private IppPacket.Builder answer(IppPacket request, byte[] document) {
        Operation operation = request.getOperation();
        if (operation.equals(Operation.getPrinterAttributes)) return status();
        if (operation.equals(Operation.validateJob)) return accepting().orElseGet(() -> said(Status.successfulOk));
        if (operation.equals(Operation.printJob)) return accepting().orElseGet(() -> print(request, document));
        if (operation.equals(Operation.getJobAttributes))
            return printer.job(id(request))
                    .map(SimulatedAnswers::job)
                    .orElseGet(() -> said(Status.clientErrorNotFound));
        if (operation.equals(Operation.cancelJob))
            return said(printer.cancel(id(request)) ? Status.successfulOk : Status.clientErrorNotPossible);
        return said(Status.serverErrorOperationNotSupported);
    }

    private static int id(IppPacket request) {
        Integer id = request.getValue(Tag.operationAttributes, Types.jobId);
        return id == null ? 0 : id;
    }

    private static IppPacket.Builder said(Status status) {
        return IppPacket.response(status);
    }

    private Optional<IppPacket.Builder> accepting() {
        return printer.accepts()
                ? Optional.empty()
                : Optional.of(said(Status.serverErrorNotAcceptingJobs)
                        .putOperationAttributes(Types.statusMessage.of("the cover is open")));
    }

    private IppPacket.Builder status() {
        boolean jammed = printer.isJammed();
        PrinterState busy = printer.isBusy() ? PrinterState.processing : PrinterState.idle;
        return said(Status.successfulOk)
                .putPrinterAttributes(
                        Types.printerName.of(SimulatedPrinter.NAME),
                        Types.printerState.of(jammed ? PrinterState.stopped : busy),
                        Types.printerStateReasons.of(jammed ? "media-jam-error" : "none"),
                        Types.printerIsAcceptingJobs.of(printer.accepts()),
                        Types.documentFormatSupported.of(Printer.PDF),
                        Types.mediaSizeSupported.of(List.of(MEDIA)));
    }

    private IppPacket.Builder print(IppPacket request, byte[] document) {
        try {
            return job(printer.begin(
                    text(request.getString(Tag.operationAttributes, Types.jobName)),
                    text(request.getString(Tag.operationAttributes, Types.requestingUserName)),
                    document));
        } catch (IOException e) {
            return said(Status.clientErrorDocumentFormatError)
                    .putOperationAttributes(Types.statusMessage.of("the document is no PDF"));
        }
    }

    private static String text(String said) {
        return said == null ? "" : said;
    }

    private static IppPacket.Builder job(SimulatedJob job) {
        return said(Status.successfulOk)
                .putJobAttributes(
                        Types.jobId.of(job.id()),
                        Types.jobState.of(job.state()),
                        Types.jobStateReasons.of(
                                job.state().equals(JobState.canceled) ? "job-canceled-by-user" : "none"),
                        Types.jobImpressionsCompleted.of(job.printed()));
    }
}
