package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.CommandLine.Result;
import org.youngtally.printers.SimulatedPrinter;
import org.youngtally.printers.SimulatedPrinter.Trouble;
import tools.jackson.databind.JsonNode;

/** Labels at a printer: each comes out once, and the ledger says what became of it. */
class LabelPrintingTest {
    private static final String DEFINITIONS = """
            series:
              - { key: pipe, pattern: 'P-{count 6}', ranges: [{ first: 1, last: 999999, opens: 2020-01-01 }] }
            layouts:
              - { key: roll, width: 62, height: 29, items: [
                  { text: "{identifier}", left: 3, top: 3, width: 36, height: 6 },
                  { text: "{reprint}", left: 3, top: 12, width: 36, height: 6 }] }
              - { key: poster, width: 310, height: 400, items: [
                  { text: "{identifier}", left: 3, top: 3, width: 36, height: 6 }] }
            """;

    @TempDir
    private static Path folder;

    private static SimulatedPrinter printer;
    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        printer = SimulatedPrinter.start(0, 1);
        service = Service.serve(
                folder.resolve("data"), "--printer", printer.address().toString());
        assertThat(service.apply(DEFINITIONS).status()).isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
        printer.close();
    }

    @AfterEach
    void noTrouble() {
        printer.set(Trouble.NONE, 0);
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static Result print(String layout, int quantity, String address, String... more) throws Exception {
        var arguments = new ArrayList<>(List.of(
                "label",
                "print",
                layout,
                "--series",
                "pipe",
                "--quantity",
                String.valueOf(quantity),
                "--printer",
                address));
        arguments.addAll(List.of(more));
        return run(arguments.toArray(String[]::new));
    }

    private static Result print(int quantity) throws Exception {
        return print("roll", quantity, printer.address().toString());
    }

    private static long job(Result printed) {
        return Long.parseLong(printed.out().replaceFirst("(?s)label job ([0-9]+):.*", "$1"));
    }

    private static JsonNode shown(long job) throws Exception {
        return service.get("/api/v1/label-jobs/" + job).json();
    }

    private static void awaitEnd(long job) throws Exception {
        service.await(() -> {
            String state = shown(job).at("/printing/state").asString("done");
            return state.equals("done") || state.equals("failed");
        });
    }

    private static long newestEntry() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    private static Result send(long job) throws Exception {
        return run(
                "label",
                "send",
                String.valueOf(job),
                "--printer",
                printer.address().toString());
    }

    @Test
    void whatThePrinterPrintsIsPrinted() throws Exception {
        Result printed = print(230);
        assertThat(printed.exit()).as(printed.err()).isZero();
        assertThat(printed.out()).contains("1-230   printed");
        String first = shown(job(printed)).at("/summary/first").asString();
        List<String> pages = PrintedPages.lines(printer, "P-");
        assertThat(pages).doesNotHaveDuplicates();
        assertThat(pages.subList(pages.indexOf(first), pages.size())).hasSize(230);
    }

    @Test
    void afterAJamTheJobSaysWhichLabelsCameOut() throws Exception {
        printer.set(Trouble.JAM, 120);
        Result jammed = print(250);
        assertThat(jammed.exit()).isEqualTo(1);
        assertThat(jammed.out()).contains("1-120    printed", "121-200  sent", "201-250  waiting");
        assertThat(jammed.err()).contains("stopped: media jam", "youngtally label stop " + job(jammed));
        printer.set(Trouble.NONE, 0);
        awaitEnd(job(jammed));
        assertThat(run("label", "show", String.valueOf(job(jammed))).out()).contains("1-250   printed");
    }

    @Test
    void whatIsReprintedAfterAStopBearsTheSameNumbers() throws Exception {
        printer.set(Trouble.JAM, 3);
        long job = job(print(6));
        assertThat(run("label", "stop", String.valueOf(job)).exit()).isZero();
        awaitEnd(job);
        assertThat(run("label", "show", String.valueOf(job)).out()).contains("4-6     unconfirmed");
        run("label", "reprint", String.valueOf(job), "--places", "4-6", "--reason", "the roll jammed");
        assertThat(send(job).out()).contains("4-6     spoiled", "7-9     printed (reprint)");
        String first = shown(job).at("/summary/first").asString();
        List<String> pages = PrintedPages.lines(printer, "P-");
        assertThat(pages.subList(pages.indexOf(first), pages.size()))
                .doesNotHaveDuplicates()
                .hasSize(6);
    }

    @Test
    void whatIsWithAPrinterThatVanishesIsUnconfirmed() throws Exception {
        printer.set(Trouble.VANISH, 2);
        Result gone = print(5);
        assertThat(gone.exit()).isEqualTo(1);
        assertThat(gone.out()).contains("unconfirmed").doesNotContain("waiting");
        assertThat(gone.err()).contains("broke the connection.", "confirm, reprint or spoil what is unconfirmed");
        assertThat(run("label", "show", String.valueOf(job(gone))).out()).contains("broke the connection");
    }

    @Test
    void aPrinterThatRefusesIsToldBeforeAnythingIsAllocated() throws Exception {
        printer.set(Trouble.REFUSE, 0);
        long before = newestEntry();
        Result refused = print(5);
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .contains("Printer ‘" + printer.address() + "’ does not accept jobs now. Nothing was allocated.");
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void aPrinterThatRefusesLaterLeavesTheLabelsWaiting() throws Exception {
        long job = job(run("label", "print", "roll", "--series", "pipe"));
        printer.set(Trouble.REFUSE, 0);
        Result refused = send(job);
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.out()).contains("1       waiting");
        assertThat(refused.err()).contains("does not accept jobs now.");
        printer.set(Trouble.NONE, 0);
        assertThat(send(job).out()).contains("1       printed");
    }

    @Test
    void aPrinterThatTalksNonsenseIsToldBeforeAnythingIsAllocated() throws Exception {
        printer.set(Trouble.NONSENSE, 0);
        long before = newestEntry();
        assertThat(print(5).err()).contains("answers what is no answer of a printer. Nothing was allocated.");
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void labelsThatArePrintedTwiceAtOnceComeOutOnce() throws Exception {
        printer.set(Trouble.JAM, 0);
        long job = job(print(4));
        Result second = send(job);
        assertThat(second.exit()).isEqualTo(1);
        assertThat(second.err()).contains("Label job " + job + " is printed already.");
        printer.set(Trouble.NONE, 0);
        awaitEnd(job);
        assertThat(PrintedPages.lines(printer, "P-")).doesNotHaveDuplicates();
    }

    @Test
    void jobsOfOnePrinterArePrintedOneAfterAnother() throws Exception {
        printer.set(Trouble.JAM, 1);
        long first = job(print(3));
        String body =
                "{\"layout\":\"roll\",\"series\":\"pipe\",\"quantity\":2,\"printer\":\"" + printer.address() + "\"}";
        long second = service.post("/api/v1/label-jobs", body)
                .json()
                .at("/summary/job")
                .asLong();
        assertThat(shown(second).at("/printing/state").asString()).isEqualTo("queued");
        assertThat(shown(second).at("/summary/states/waiting").asInt()).isEqualTo(2);
        printer.set(Trouble.NONE, 0);
        awaitEnd(first);
        awaitEnd(second);
        assertThat(shown(second).at("/summary/states/printed").asInt()).isEqualTo(2);
    }

    @Test
    void aQueuedJobIsStoppedAtOnce() throws Exception {
        printer.set(Trouble.JAM, 1);
        long first = job(print(3));
        long second = job(run("label", "print", "roll", "--series", "pipe"));
        String body = "{\"printer\":\"" + printer.address() + "\"}";
        service.post("/api/v1/label-jobs/" + second + "/printing", body);
        run("label", "stop", String.valueOf(second));
        assertThat(shown(second).at("/printing/problem").asString()).isEqualTo("was told to stop");
        printer.set(Trouble.NONE, 0);
        awaitEnd(first);
        assertThat(shown(second).at("/summary/states/waiting").asInt()).isOne();
    }

    @Test
    void aRepeatedRequestPrintsNothingAgain() throws Exception {
        String address = printer.address().toString();
        long job = job(print("roll", 2, address, "--key", "print once"));
        assertThat(job(print("roll", 2, address, "--key", "print once"))).isEqualTo(job);
        assertThat(PrintedPages.lines(printer, "P-")).doesNotHaveDuplicates();
    }

    @Test
    void whatIsCancelledWhileOthersArePrintedStays() throws Exception {
        printer.set(Trouble.JAM, 1);
        long job = job(print(150));
        assertThat(run("label", "cancel", String.valueOf(job)).out()).contains("101-150  cancelled");
        printer.set(Trouble.NONE, 0);
        awaitEnd(job);
        assertThat(shown(job).at("/summary/states").toString()).isEqualTo("{\"printed\":100,\"cancelled\":50}");
    }

    @Test
    void theServicePrintsAtNoOtherAddress() throws Exception {
        long before = newestEntry();
        Result refused = print("roll", 1, "ipp://127.0.0.1:" + service.port() + "/api");
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err()).contains("not found", printer.address().toString());
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void labelsThatAreLargerThanTheMediaAreRefused() throws Exception {
        assertThat(print("poster", 1, printer.address().toString()).err())
                .contains("has no media of 310 × 400 mm, but 10–300 × 10–450 mm. Nothing was allocated.");
    }

    @Test
    void aPrinterAndAFileAreNotNamedTogether() throws Exception {
        Result both = print("roll", 1, printer.address().toString(), "--output", "labels.pdf");
        assertThat(both.exit()).isEqualTo(2);
        assertThat(both.err()).contains("--printer and --output are named, and one is wanted.");
    }

    @Test
    void printersAreListedWithTheirState() throws Exception {
        printer.set(Trouble.REFUSE, 0);
        assertThat(run("label", "printers").out())
                .contains(printer.address() + "  Label printer (simulated)  idle, accepts no jobs");
    }

    @Test
    void theLedgerSaysWhereLabelsWereSent() throws Exception {
        long job = job(print(1));
        assertThat(run("label", "show", String.valueOf(job)).out()).contains("sent", "to " + printer.address());
    }

    @Test
    void aServiceWithoutASimulatedPrinterShowsNone() throws Exception {
        assertThat(service.get("/api/v1/simulated-printer").text("detail"))
                .isEqualTo("No simulated printer runs with this service.");
    }
}
