package org.youngtally.printers;

import com.hp.jipp.encoding.IppInputStream;
import com.hp.jipp.encoding.IppOutputStream;
import com.hp.jipp.encoding.IppPacket;
import com.hp.jipp.encoding.Tag;
import com.hp.jipp.model.JobState;
import com.hp.jipp.model.MediaCol;
import com.hp.jipp.model.MediaSizeSupported;
import com.hp.jipp.model.Operation;
import com.hp.jipp.model.PrinterState;
import com.hp.jipp.model.Status;
import com.hp.jipp.model.Types;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.net.ConnectException;
import java.net.http.HttpClient;
import java.net.http.HttpConnectTimeoutException;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Collectors;
import javax.net.ssl.SSLException;
import org.youngtally.printers.PrinterException.Reason;
import org.youngtally.printers.PrinterStatus.MediaSize;

/** A printer that is spoken to over IPP (RFC 8010, RFC 8011). It uses only operations that every printer has. */
public final class Printer {
    public static final String PDF = "application/pdf";

    private static final Duration CONNECTING = Duration.ofSeconds(5);
    private static final Duration ANSWERING = Duration.ofSeconds(10);
    /** A document is sent with the request, over a slow network perhaps. */
    private static final Duration PRINTING = Duration.ofMinutes(2);
    /** The bytes that an answer has at the most. */
    private static final int MOST_BYTES = 1 << 20;

    /** What is asked about a job. */
    private static final List<Operation> JOBS = List.of(Operation.getJobAttributes, Operation.cancelJob);

    /** So many texts in a row are listened to, and so many letters of each. */
    private static final int MOST_TEXTS = 20;

    private static final int MOST_LETTERS = 100;

    private static final int OK = 200;
    private static final int FIRST_ERROR = 0x0400;

    private static final HttpClient HTTP = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .followRedirects(HttpClient.Redirect.NEVER)
            .connectTimeout(CONNECTING)
            .build();

    private final PrinterAddress address;

    public Printer(PrinterAddress address) {
        this.address = address;
    }

    public PrinterStatus status() throws PrinterException {
        IppPacket answer = ask(IppPacket.getPrinterAttributes(
                        address.uri(),
                        Types.printerName,
                        Types.printerState,
                        Types.printerStateReasons,
                        Types.printerIsAcceptingJobs,
                        Types.documentFormatSupported,
                        Types.mediaSizeSupported)
                .build());
        PrinterState state = answer.getValue(Tag.printerAttributes, Types.printerState);
        Boolean accepts = answer.getValue(Tag.printerAttributes, Types.printerIsAcceptingJobs);
        if (state == null || accepts == null) throw new PrinterException(Reason.NONSENSE, "does not say how it is");
        return new PrinterStatus(
                Optional.ofNullable(answer.getString(Tag.printerAttributes, Types.printerName))
                        .map(Printer::readable)
                        .orElse(address.toString()),
                state(state),
                reasons(answer.getStrings(Tag.printerAttributes, Types.printerStateReasons)),
                accepts,
                readable(answer.getStrings(Tag.printerAttributes, Types.documentFormatSupported)),
                sizes(answer.getValues(Tag.printerAttributes, Types.mediaSizeSupported)));
    }

    private static PrinterStatus.State state(PrinterState state) {
        if (state.equals(PrinterState.stopped)) return PrinterStatus.State.STOPPED;
        return state.equals(PrinterState.processing) ? PrinterStatus.State.PROCESSING : PrinterStatus.State.IDLE;
    }

    private static List<MediaSize> sizes(List<MediaSizeSupported> supported) {
        var sizes = new ArrayList<MediaSize>();
        for (MediaSizeSupported each : supported)
            if (each.getXDimension() != null && each.getYDimension() != null)
                sizes.add(new MediaSize(
                        each.getXDimension().getStart(),
                        each.getXDimension().getEndInclusive(),
                        each.getYDimension().getStart(),
                        each.getYDimension().getEndInclusive()));
        return sizes;
    }

    /** Of none, printers say {@code none}. */
    private static List<String> reasons(List<String> all) {
        return readable(all).stream().filter(reason -> !reason.equals("none")).toList();
    }

    private static List<String> readable(List<String> said) {
        return said.stream().limit(MOST_TEXTS).map(Printer::readable).toList();
    }

    /** What a printer says is shown at terminals, and kept: a line of letters, and not too long. */
    private static String readable(String said) {
        String line = said.replaceAll("[\\p{Cntrl}\\p{Cf}]+", " ").strip();
        return line.codePointCount(0, line.length()) <= MOST_LETTERS
                ? line
                : line.substring(0, line.offsetByCodePoints(0, MOST_LETTERS)) + "…";
    }

    /** Asks whether it would print a document; nothing of it is sent. */
    public void check(JobTicket ticket) throws PrinterException {
        PrinterStatus status = status();
        if (!status.accepts()) throw new PrinterException(Reason.REFUSED, "does not accept jobs now");
        if (!status.formats().contains(PDF))
            throw new PrinterException(
                    Reason.REFUSED, "does not print PDF, but " + String.join(", ", status.formats()));
        boolean fits = status.sizes().isEmpty()
                || status.sizes().stream().anyMatch(size -> size.holds(ticket.width(), ticket.height()));
        if (!fits)
            throw new PrinterException(
                    Reason.REFUSED,
                    "has no media of " + JobTicket.millimetres(ticket.width()) + " × "
                            + JobTicket.millimetres(ticket.height()) + " mm, but "
                            + status.sizes().stream().map(MediaSize::toString).collect(Collectors.joining(", ")));
        ask(about(IppPacket.validateJob(address.uri()), ticket).build());
    }

    /**
     * @param document a PDF file
     * @return by what the printer knows the job
     */
    public int print(JobTicket ticket, Path document) throws PrinterException {
        IppPacket answer =
                ask(about(IppPacket.printJob(address.uri()), ticket).build(), Optional.of(document), PRINTING);
        Integer job = answer.getValue(Tag.jobAttributes, Types.jobId);
        if (job == null) throw new PrinterException(Reason.NONSENSE, "does not say which job it is");
        return job;
    }

    private static IppPacket.Builder about(IppPacket.Builder request, JobTicket ticket) {
        var media = new MediaCol();
        media.setMediaSize(new MediaCol.MediaSize(ticket.width(), ticket.height()));
        return request.putOperationAttributes(
                        Types.requestingUserName.of(ticket.user()),
                        Types.jobName.of(ticket.name()),
                        Types.ippAttributeFidelity.of(false),
                        Types.documentFormat.of(PDF))
                .putJobAttributes(Types.mediaCol.of(media), Types.sides.of("one-sided"), Types.printScaling.of("none"));
    }

    /** @param job by what the printer knows it */
    public JobStatus job(int job) throws PrinterException {
        IppPacket answer = ask(IppPacket.getJobAttributes(
                        address.uri(), job, Types.jobState, Types.jobStateReasons, Types.jobImpressionsCompleted)
                .build());
        JobState state = answer.getValue(Tag.jobAttributes, Types.jobState);
        if (state == null) throw new PrinterException(Reason.NONSENSE, "does not say how it is with the job");
        Integer pages = answer.getValue(Tag.jobAttributes, Types.jobImpressionsCompleted);
        var reasons = new ArrayList<>(reasons(answer.getStrings(Tag.jobAttributes, Types.jobStateReasons)));
        JobStatus.State now = state(state);
        // Why a printer stopped, it says of itself.
        if (now == JobStatus.State.STOPPED) reasons.addAll(status().reasons());
        return new JobStatus(now, pages == null ? 0 : Math.max(0, pages), reasons);
    }

    private static JobStatus.State state(JobState state) {
        if (state.equals(JobState.completed)) return JobStatus.State.COMPLETED;
        if (state.equals(JobState.canceled) || state.equals(JobState.aborted)) return JobStatus.State.ENDED;
        if (state.equals(JobState.processingStopped)) return JobStatus.State.STOPPED;
        return state.equals(JobState.processing) ? JobStatus.State.PROCESSING : JobStatus.State.PENDING;
    }

    /** Asks it to end a job. What is on its way may still come out. */
    public void cancel(int job) throws PrinterException {
        ask(IppPacket.cancelJob(address.uri(), job).build());
    }

    private IppPacket ask(IppPacket request) throws PrinterException {
        return ask(request, Optional.empty(), ANSWERING);
    }

    private IppPacket ask(IppPacket request, Optional<Path> document, Duration patience) throws PrinterException {
        IppPacket answer = parse(send(request, document, patience));
        Status status = answer.getStatus();
        if (status.equals(Status.clientErrorNotFound) || status.equals(Status.clientErrorGone))
            throw new PrinterException(
                    JOBS.contains(request.getOperation()) ? Reason.UNKNOWN_JOB : Reason.REFUSED,
                    "does not know what it was asked about");
        if (status.getCode() >= FIRST_ERROR)
            throw new PrinterException(
                    Reason.REFUSED,
                    "refuses: "
                            + Optional.ofNullable(answer.getString(Tag.operationAttributes, Types.statusMessage))
                                    .map(said -> readable(said) + " (" + status.getName() + ")")
                                    .orElse(status.getName()));
        return answer;
    }

    private byte[] send(IppPacket request, Optional<Path> document, Duration patience) throws PrinterException {
        var answer = new ByteArrayOutputStream();
        CompletableFuture<HttpResponse<Void>> sent = HTTP.sendAsync(
                HttpRequest.newBuilder(address.http())
                        .header("Content-Type", "application/ipp")
                        .POST(body(request, document))
                        .build(),
                BodyHandlers.ofByteArrayConsumer(part -> part.ifPresent(bytes -> add(bytes, answer))));
        try {
            HttpResponse<Void> response = sent.get(patience.toMillis(), TimeUnit.MILLISECONDS);
            if (response.statusCode() != OK)
                throw new PrinterException(
                        Reason.NONSENSE, "answers " + response.statusCode() + ", and not as a printer");
            return answer.toByteArray();
        } catch (TimeoutException e) {
            sent.cancel(true);
            throw new PrinterException(
                    Reason.UNREACHABLE, "does not answer within " + patience.toSeconds() + " seconds", e);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof TooMuch)
                throw new PrinterException(Reason.NONSENSE, "answers more than a printer has to say", e);
            throw new PrinterException(Reason.UNREACHABLE, away(e.getCause()), e.getCause());
        } catch (InterruptedException e) {
            sent.cancel(true);
            Thread.currentThread().interrupt();
            throw new PrinterException(Reason.UNREACHABLE, "is not waited for any more", e);
        }
    }

    private static String away(Throwable cause) {
        return switch (cause) {
            case ConnectException none -> "cannot be reached";
            case HttpConnectTimeoutException none -> "cannot be reached";
            case SSLException bad -> "does not speak TLS as it should: " + bad.getMessage();
            default -> "broke the connection";
        };
    }

    private static BodyPublisher body(IppPacket request, Optional<Path> document) {
        try {
            var head = new ByteArrayOutputStream();
            new IppOutputStream(head).write(request);
            BodyPublisher first = BodyPublishers.ofByteArray(head.toByteArray());
            return document.isEmpty() ? first : BodyPublishers.concat(first, BodyPublishers.ofFile(document.get()));
        } catch (FileNotFoundException e) {
            throw new IllegalArgumentException("there is no document at " + document, e);
        }
    }

    /** The answer would be longer than any that means something. */
    private static final class TooMuch extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    private static void add(byte[] bytes, ByteArrayOutputStream to) {
        if (to.size() + bytes.length > MOST_BYTES) throw new TooMuch();
        to.writeBytes(bytes);
    }

    private static IppPacket parse(byte[] answer) throws PrinterException {
        try {
            return new IppInputStream(new ByteArrayInputStream(answer)).readPacket();
        } catch (IOException | RuntimeException | StackOverflowError e) {
            // What is no packet, the library finds out in the middle of it, one way or another.
            throw new PrinterException(Reason.NONSENSE, "answers what is no answer of a printer", e);
        }
    }
}
