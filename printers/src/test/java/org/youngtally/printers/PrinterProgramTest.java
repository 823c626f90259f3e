package org.youngtally.printers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Printing at a printer program that others wrote: that of Debian's package cups-ipp-utils. It wants a bus to announce
 * itself by, and gets one of its own, on which nobody listens.
 */
class PrinterProgramTest {
    private static final long PATIENCE = TimeUnit.MINUTES.toNanos(3);
    private static final long PAUSE = TimeUnit.MILLISECONDS.toNanos(25);
    private static final String BUS = """
            <busconfig>
              <type>session</type>
              <listen>unix:path=%s</listen>
              <auth>EXTERNAL</auth>
              <policy context="default"><allow send_destination="*"/><allow receive_sender="*"/><allow own="*"/></policy>
            </busconfig>
            """;

    @TempDir
    private static Path busFolder;

    private static Process bus;

    @TempDir
    private Path folder;

    private Process program;
    private Printer printer;

    private static Path socket() {
        return busFolder.resolve("bus");
    }

    @BeforeAll
    static void startBus() throws IOException {
        Path settings = Files.writeString(busFolder.resolve("bus.conf"), BUS.formatted(socket()));
        bus = new ProcessBuilder("dbus-daemon", "--nofork", "--config-file=" + settings)
                .redirectErrorStream(true)
                .redirectOutput(busFolder.resolve("log").toFile())
                .start();
        long end = System.nanoTime() + PATIENCE;
        while (!Files.exists(socket())) {
            if (!bus.isAlive() || System.nanoTime() > end)
                throw new IOException("the bus says: " + Files.readString(busFolder.resolve("log")));
            LockSupport.parkNanos(PAUSE);
        }
    }

    @AfterAll
    static void endBus() throws InterruptedException {
        bus.destroyForcibly().waitFor();
    }

    @BeforeEach
    void start() throws IOException {
        int port;
        try (var free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        var builder = new ProcessBuilder(
                        "ippeveprinter",
                        "-p",
                        String.valueOf(port),
                        "-r",
                        "off",
                        "-n",
                        "localhost",
                        "-k",
                        "-d",
                        folder.toString(),
                        "-f",
                        Printer.PDF,
                        "Labels")
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("log").toFile());
        builder.environment().put("DBUS_SYSTEM_BUS_ADDRESS", "unix:path=" + socket());
        program = builder.start();
        printer = new Printer(PrinterAddress.of("ipp://localhost:" + port + "/ipp/print"));
        awaitStart();
    }

    private void awaitStart() throws IOException {
        long end = System.nanoTime() + PATIENCE;
        while (true)
            try {
                printer.status();
                return;
            } catch (PrinterException e) {
                if (!program.isAlive() || System.nanoTime() > end)
                    throw new IOException("the printer program says: " + Files.readString(folder.resolve("log")), e);
                LockSupport.parkNanos(PAUSE);
            }
    }

    @AfterEach
    void end() throws InterruptedException {
        program.destroyForcibly().waitFor();
    }

    @Test
    void itSaysHowItIs() throws Exception {
        PrinterStatus status = printer.status();
        assertThat(status.name()).isEqualTo("Labels");
        assertThat(status.state()).isEqualTo(PrinterStatus.State.IDLE);
        assertThat(status.accepts()).isTrue();
        assertThat(status.formats()).contains(Printer.PDF);
        assertThat(status.sizes()).contains(new PrinterStatus.MediaSize(21_000, 21_000, 29_700, 29_700));
    }

    @Test
    void itPrintsSheets() throws Exception {
        JobTicket ticket = Pages.ticket(210, 297);
        printer.check(ticket);
        int job = printer.print(ticket, Pages.of(folder, 2, 210, 297));
        assertThat(Pages.await(printer, job, JobStatus::isOver).state()).isEqualTo(JobStatus.State.COMPLETED);
        assertThat(kept()).hasSize(1);
        try (PDDocument pdf = Loader.loadPDF(kept().getFirst().toFile())) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(2);
        }
    }

    private List<Path> kept() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(file -> file.getFileName().toString().matches("[0-9]+-.*\\.pdf"))
                    .toList();
        }
    }

    @Test
    void mediaThatItDoesNotHaveIsTold() {
        assertThatThrownBy(() -> printer.check(Pages.ticket(60, 30)))
                .hasMessageStartingWith("has no media of 60 × 30 mm, but ")
                .hasMessageContaining("210 × 297 mm");
    }

    @Test
    void aJobThatItDoesNotKnowIsTold() {
        assertThatThrownBy(() -> printer.job(4_711))
                .extracting("reason")
                .isEqualTo(PrinterException.Reason.UNKNOWN_JOB);
    }
}
