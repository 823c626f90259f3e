package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.CommandLine.Result;

/** Jobs of labels: each number on its labels and on no others, and what becomes of every label. */
class LabelJobTest {
    private static final String DEFINITIONS = """
            series:
              - { key: pipe, pattern: 'P-{count 5}', ranges: [{ first: 1, last: 99999, opens: 2020-01-01 }] }
              - { key: few, pattern: 'F-{count 2}', ranges: [{ first: 1, last: 20, opens: 2020-01-01 }] }
              - { key: jam, pattern: 'J-{count 4}', ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
            layouts:
              - key: pipe-label
                width: 62
                height: 29
                items:
                  - { text: "{identifier} {field stop}", left: 3, top: 3, width: 36, height: 6 }
                  - { text: "{reprint}", left: 3, top: 12, width: 36, height: 6 }
                  - { code: data-matrix, content: "{identifier}", left: 40, top: 3, width: 20, height: 20 }
            """;

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply(DEFINITIONS).status()).isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static Result print(String series, int quantity, String... more) throws Exception {
        return run(Stream.concat(
                        Stream.of(
                                "label",
                                "print",
                                "pipe-label",
                                "--series",
                                series,
                                "--field",
                                "stop=Gamba",
                                "--quantity",
                                String.valueOf(quantity)),
                        Stream.of(more))
                .toArray(String[]::new));
    }

    /** A new job, of which nothing was sent yet. */
    private static long job(String series, int quantity, String... more) throws Exception {
        Result printed = print(series, quantity, more);
        assertThat(printed.err()).isEmpty();
        return Long.parseLong(printed.out().replaceFirst("(?s)label job ([0-9]+):.*", "$1"));
    }

    private static Result change(String verb, long job, String... more) throws Exception {
        return run(Stream.concat(Stream.of("label", verb, String.valueOf(job)), Stream.of(more))
                .toArray(String[]::new));
    }

    private static Path file(String name) {
        return folder.resolve(name);
    }

    private static long sent(String series, int quantity, String name) throws Exception {
        long job = job(series, quantity);
        assertThat(change("send", job, "--output", file(name).toString()).exit())
                .isZero();
        return job;
    }

    private static List<String> lines(String name) throws Exception {
        try (PDDocument document = Loader.loadPDF(file(name).toFile())) {
            return new PDFTextStripper().getText(document).lines().toList();
        }
    }

    private static String state(String identifier) throws Exception {
        return service.get("/api/v1/identifiers?text=" + identifier)
                .json()
                .at("/0/state")
                .asString();
    }

    private static String first(long job) throws Exception {
        return service.get("/api/v1/label-jobs/" + job)
                .json()
                .at("/summary/first")
                .asString();
    }

    @Test
    void everyLabelIsInTheFileAndItsNumberInTheLedger() throws Exception {
        Result printed =
                print("pipe", 3, "--copies", "2", "--output", file("all.pdf").toString());
        assertThat(printed.out()).contains("1-6     sent");
        List<String> identifiers = lines("all.pdf").stream()
                .filter(line -> line.startsWith("P-"))
                .map(line -> line.replace(" Gamba", ""))
                .toList();
        assertThat(identifiers).hasSize(6);
        for (String identifier : identifiers) assertThat(state(identifier)).isEqualTo("issued");
    }

    @Test
    void theSameRequestIsTheSameJobAndTheSameFile() throws Exception {
        Result once =
                print("pipe", 2, "--key", "again", "--output", file("one.pdf").toString());
        Result twice =
                print("pipe", 2, "--key", "again", "--output", file("two.pdf").toString());
        assertThat(twice.out()).isEqualTo(once.out());
        assertThat(file("two.pdf")).hasSameBinaryContentAs(file("one.pdf"));
    }

    @Test
    void labelsAreHandedOutOnce() throws Exception {
        long job = sent("pipe", 2, "once.pdf");
        Result second = change("send", job, "--output", file("twice.pdf").toString());
        assertThat(second.exit()).isEqualTo(1);
        assertThat(second.err()).contains("Label job " + job + " has no labels to send.");
        assertThat(file("twice.pdf")).doesNotExist();
    }

    @Test
    void anOutputThatExistsIsRefusedBeforeAnythingIsAllocated() throws Exception {
        Files.writeString(file("there.pdf"), "mine");
        long before = service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
        assertThat(print("pipe", 2, "--output", file("there.pdf").toString()).exit())
                .isEqualTo(2);
        assertThat(service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong())
                .isEqualTo(before);
    }

    @Test
    void aReprintBearsItsNumberAndSaysSo() throws Exception {
        long job = sent("pipe", 3, "first.pdf");
        assertThat(change("reprint", job, "--places", "2", "--reason", "torn").out())
                .contains("2       spoiled", "4       waiting (reprint)");
        change("send", job, "--output", file("reprint.pdf").toString());
        assertThat(lines("reprint.pdf")).contains("reprint").hasSize(2);
    }

    @Test
    void aSpoiledLabelIsReplacedByANewNumberAndTheAuditSaysWhy() throws Exception {
        long job = sent("pipe", 3, "spoiled.pdf");
        String identifier = first(job);
        assertThat(change("spoil", job, "--identifier", identifier, "--reason", "smeared")
                        .out())
                .contains("1       spoiled  " + identifier, "4       waiting");
        assertThat(state(identifier)).isEqualTo("void (voided)");
        assertThat(run("audit").out()).contains(identifier, "label job " + job + ": smeared");
    }

    @Test
    void aReasonMayBeLong() throws Exception {
        long job = sent("pipe", 1, "long.pdf");
        assertThat(change("spoil", job, "--places", "1", "--reason", "x".repeat(500))
                        .exit())
                .isZero();
    }

    @Test
    void aScanTellsWhatBecameOfTheLabel() throws Exception {
        long job = sent("pipe", 1, "scanned.pdf");
        String identifier = first(job);
        change("spoil", job, "--places", "1", "--reason", "smeared");
        assertThat(run("label", "scan", identifier).out())
                .contains(identifier + "  void (voided)", "label 1 of job " + job + " (pipe-label): spoiled");
    }

    @Test
    void numbersOfCancelledLabelsAreIssuedNext() throws Exception {
        long job = job("few", 2);
        String identifier = first(job);
        assertThat(change("cancel", job).out()).contains("1-2     cancelled");
        assertThat(first(job("few", 2))).isEqualTo(identifier);
    }

    @Test
    void aNumberOnALabelIsNotReturnedByItself() throws Exception {
        long job = job("pipe", 1);
        Result returned = run("return", "pipe", first(job));
        assertThat(returned.exit()).isEqualTo(1);
        assertThat(returned.err()).contains("is on a label of job " + job, "cancel or spoil the label in its job");
    }

    @Test
    void moreThanTheRangeHasIsRefusedAndNothingIsAllocated() throws Exception {
        long before = service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
        assertThat(print("few", 21).exit()).isEqualTo(1);
        assertThat(service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong())
                .isEqualTo(before);
    }

    @Test
    void everyLabelOfAJobIsInItsData() throws Exception {
        long job = job("pipe", 2, "--copies", "2");
        String identifier = first(job);
        assertThat(service.get("/api/v1/label-jobs/" + job + "/data").response().body())
                .startsWith("place,identifier,number,copy,state,date,stop\r\n1," + identifier + ",1,1,waiting,")
                .contains(",Gamba\r\n2," + identifier + ",1,2,waiting,");
    }

    @Test
    void aBlockOfManyIsPrintedAndCancelled() throws Exception {
        long job = job("pipe", 2_000);
        assertThat(run("label", "list", "--limit", "1").out()).contains("2,000 waiting");
        assertThat(change("cancel", job).out()).contains("1-2000  cancelled");
        assertThat(run("audit").out()).contains("label job " + job + ": 2,000 returned");
    }

    @Test
    void anUnknownJobIsRefused() throws Exception {
        Result shown = run("label", "show", "1");
        assertThat(shown.exit()).isEqualTo(1);
        assertThat(shown.err()).contains("Entry 1 began no job of labels.");
    }

    @Test
    void aJamIsSettledInTheConsoleFromTheJobToTheReprint() throws Exception {
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", service.password());
            browser.open("/labels");
            browser.choose("Layout", "pipe-label, 62 × 29 mm");
            browser.choose("Numbers of", "jam");
            browser.type("Quantity", "12");
            browser.type("stop", "Gamba");
            browser.sees("J-0012");
            browser.press("Print 12 labels");
            browser.sees("12 labels wait");
            browser.press("Send as PDF");
            browser.sees("Save labels-");
            browser.choose("What", "Confirm");
            browser.type("Places", "1-7");
            browser.press("Confirm");
            browser.sees("7 printed");
            browser.choose("What", "Spoil");
            browser.type("Places", "8");
            browser.type("Reason", "the roll jammed");
            browser.press("Spoil");
            browser.sees("J-0013");
            browser.choose("What", "Reprint");
            browser.type("Places", "9-12");
            browser.press("Reprint");
            browser.sees("5 spoiled");
            browser.sees("5 waiting");
        }
        assertThat(state("J-0008")).isEqualTo("void (voided)");
    }
}
