package org.youngtally.printers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import com.hp.jipp.encoding.IppOutputStream;
import com.hp.jipp.encoding.IppPacket;
import com.hp.jipp.model.Status;
import com.hp.jipp.model.Types;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.printers.PrinterException.Reason;
import org.youngtally.printers.SimulatedPrinter.Trouble;

/** Printing at the simulated printer, whatever goes wrong. */
class PrinterTest {
    @TempDir
    private Path folder;

    private SimulatedPrinter simulated;
    private Printer printer;

    @BeforeEach
    void start() throws IOException {
        simulated = SimulatedPrinter.start(0, 1);
        printer = new Printer(simulated.address());
    }

    @AfterEach
    void end() {
        simulated.close();
    }

    private static final JobTicket TICKET = Pages.ticket(60, 30);

    private Path pages(int pages) throws IOException {
        return Pages.of(folder, pages, 60, 30);
    }

    private void assertOutput(int job, int pages) throws IOException {
        try (PDDocument output = Loader.loadPDF(simulated.output(job).orElseThrow())) {
            assertThat(output.getNumberOfPages()).isEqualTo(pages);
        }
    }

    @Test
    void whatIsPrintedIsKept() throws Exception {
        printer.check(TICKET);
        int job = printer.print(TICKET, pages(3));
        assertThat(Pages.await(printer, job, JobStatus::isOver).pages()).isEqualTo(3);
        assertOutput(job, 3);
        assertThat(simulated.jobs())
                .containsExactly(new SimulatedPrinter.Job(job, "label job 12", "ruben", 3, 3, "completed"));
    }

    @Test
    void aJamSaysHowManyPagesCameOutAndEndsWhenItIsClear() throws Exception {
        simulated.set(Trouble.JAM, 2);
        int job = printer.print(TICKET, pages(5));
        JobStatus jammed = Pages.await(printer, job, status -> status.state() == JobStatus.State.STOPPED);
        assertThat(jammed).isEqualTo(new JobStatus(JobStatus.State.STOPPED, 2, List.of("media-jam-error")));
        assertOutput(job, 2);
        simulated.set(Trouble.NONE, 0);
        assertThat(Pages.await(printer, job, JobStatus::isOver).pages()).isEqualTo(5);
    }

    @Test
    void aJobThatIsCancelledEndsWithThePagesThatCameOut() throws Exception {
        simulated.set(Trouble.JAM, 2);
        int job = printer.print(TICKET, pages(5));
        Pages.await(printer, job, status -> status.state() == JobStatus.State.STOPPED);
        printer.cancel(job);
        JobStatus over = printer.job(job);
        assertThat(over.state()).isEqualTo(JobStatus.State.ENDED);
        assertThat(over.pages()).isEqualTo(2);
    }

    @Test
    void whoRefusesSaysWhy() throws Exception {
        simulated.set(Trouble.REFUSE, 0);
        assertThatThrownBy(() -> printer.print(TICKET, pages(1)))
                .hasMessage("refuses: the cover is open (server-error-not-accepting-jobs)")
                .extracting("reason")
                .isEqualTo(Reason.REFUSED);
    }

    @Test
    void whoDoesNotAcceptJobsIsNotAskedToPrint() {
        simulated.set(Trouble.REFUSE, 0);
        assertThatThrownBy(() -> printer.check(TICKET)).hasMessage("does not accept jobs now");
    }

    @Test
    void whoVanishesIsUnreachableAndKnowsNothingAfterwards() throws Exception {
        simulated.set(Trouble.VANISH, 2);
        int job = printer.print(TICKET, pages(4));
        PrinterException gone =
                catchThrowableOfType(PrinterException.class, () -> Pages.await(printer, job, status -> false));
        assertThat(gone).hasMessage("broke the connection");
        assertThat(gone.reason()).isEqualTo(Reason.UNREACHABLE);
        simulated.set(Trouble.NONE, 0);
        assertThatThrownBy(() -> printer.job(job)).extracting("reason").isEqualTo(Reason.UNKNOWN_JOB);
        assertOutput(job, 2);
    }

    @Test
    void nonsenseIsToldFromAnAnswer() {
        simulated.set(Trouble.NONSENSE, 0);
        assertThatThrownBy(printer::status)
                .hasMessage("answers what is no answer of a printer")
                .extracting("reason")
                .isEqualTo(Reason.NONSENSE);
    }

    @Test
    void mediaThatThePrinterDoesNotHaveIsNamedWithThoseItHas() {
        assertThatThrownBy(() -> printer.check(Pages.ticket(400, 30)))
                .hasMessage("has no media of 400 × 30 mm, but 10–300 × 10–450 mm");
    }

    @Test
    void whatIsNoPdfIsRefused() throws Exception {
        Path file = Files.writeString(folder.resolve("text.pdf"), "no PDF");
        assertThatThrownBy(() -> printer.print(TICKET, file)).hasMessageContaining("the document is no PDF");
    }

    @Test
    void nobodyListens() {
        simulated.close();
        assertThatThrownBy(printer::status)
                .hasMessage("cannot be reached")
                .extracting("reason")
                .isEqualTo(Reason.UNREACHABLE);
    }

    /** Whatever comes back, it ends in one exception, and soon. */
    @Test
    void answersOfAnyBytesAreNonsense() throws Exception {
        var random = new Random(20260302);
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            byte[] answer = new byte[random.nextInt(200)];
            random.nextBytes(answer);
            // Some begin as an answer does: version 2.0, successful.
            byte[] begin = {2, 0, 0, 0, 0, 0, 3, -23, 1};
            if (random.nextBoolean()) System.arraycopy(begin, 0, answer, 0, Math.min(answer.length, begin.length));
            exchange.getRequestBody().readAllBytes();
            exchange.sendResponseHeaders(200, answer.length == 0 ? -1 : answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        server.start();
        try {
            var odd = new Printer(
                    PrinterAddress.of("ipp://127.0.0.1:" + server.getAddress().getPort()));
            for (int i = 0; i < 300; i++) assertThatThrownBy(odd::status).isInstanceOf(PrinterException.class);
        } finally {
            server.stop(0);
        }
    }

    /** What a printer says ends at terminals. */
    @Test
    void whatAPrinterSaysIsOneLineOfLetters() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            var answer = new ByteArrayOutputStream();
            new IppOutputStream(answer)
                    .write(IppPacket.response(Status.serverErrorDeviceError)
                            .putOperationAttributes(
                                    Types.statusMessage.of("\u001b[2Jout\r\nof paper\u202e " + "x".repeat(500)))
                            .build());
            exchange.sendResponseHeaders(200, answer.size());
            answer.writeTo(exchange.getResponseBody());
            exchange.close();
        });
        server.start();
        try {
            var odd = new Printer(
                    PrinterAddress.of("ipp://127.0.0.1:" + server.getAddress().getPort()));
            assertThatThrownBy(odd::status)
                    .hasMessageMatching("refuses: \\[2Jout of paper +x{80,90}… \\(server-error-device-error\\)");
        } finally {
            server.stop(0);
        }
    }

    @Test
    void anAnswerWithoutAnEndIsNotReadToIt() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            exchange.sendResponseHeaders(200, 0);
            try (var out = exchange.getResponseBody()) {
                for (int i = 0; i < 1_000; i++) out.write(new byte[100_000]);
            }
        });
        server.start();
        try {
            var odd = new Printer(
                    PrinterAddress.of("ipp://127.0.0.1:" + server.getAddress().getPort()));
            assertThatThrownBy(odd::status).hasMessage("answers more than a printer has to say");
        } finally {
            server.stop(0);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "http://192.0.2.7/ipp, does not begin with ipp:// or ipps://",
        "192.0.2.7, does not begin with ipp:// or ipps://",
        "ipp:///labels, names no host",
        "ipp://me@192.0.2.7/, 'has more than a host, a port and a path'",
        "ipp://192.0.2.7/?a=b, 'has more than a host, a port and a path'",
        "ipp://[192, 'is not an address: Expected closing bracket for IPv6 address'"
    })
    void anAddressThatIsNoneSaysWhatIsWrong(String text, String problem) {
        assertThatThrownBy(() -> PrinterAddress.of(text)).hasMessage(problem);
    }

    @ParameterizedTest
    @CsvSource({
        "ipp://192.0.2.7, http://192.0.2.7:631/",
        "ipps://printer.example/labels, https://printer.example:631/labels",
        "ipp://[2001:db8::7]:8631/ipp/print, http://[2001:db8::7]:8631/ipp/print"
    })
    void requestsAreSentByHttp(String text, String http) {
        assertThat(PrinterAddress.of(text).http()).hasToString(http);
    }
}
