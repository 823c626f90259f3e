package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.youngtally.acceptance.CommandLine.Result;

/** Labels before they are printed, and what is on one afterwards. */
class LabelPreviewTest {
    private static final String DEFINITIONS = """
            series:
              - { key: pipe, pattern: 'P-{count 4}', ranges: [{ first: 1, last: 30, opens: 2020-01-01 }] }
              - { key: crate, pattern: '09521234{count 9}{check gs1}', ranges: [{ first: 1, last: 999999999, opens: 2020-01-01 }] }
            """;
    private static final String LAYOUT = """
            layouts:
              - key: NAME
                width: 62
                height: 29
                ask: [{ name: stop, title: Stop }]
                items:
                  - { text: "{identifier} {field stop}", left: 3, top: 3, width: WIDTH, height: 6 }
                  - { code: data-matrix, content: "{identifier}", left: 40, top: 3, width: 20, height: 20 }
            """;

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply(DEFINITIONS + layout("pipe-label", "36")).status())
                .isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static String layout(String name, String width) {
        return LAYOUT.replace("NAME", name).replace("WIDTH", width);
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    /** A preview of labels of pipes for the stop Gamba. */
    private static Result preview(String... more) throws Exception {
        return run(Stream.concat(
                        Stream.of("label", "preview", "pipe-label", "--series", "pipe", "--field", "stop=Gamba"),
                        Stream.of(more))
                .toArray(String[]::new));
    }

    private static long entries() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    @Test
    void aPreviewTellsTheNumbersAndAllocatesNone() throws Exception {
        long before = entries();
        Result preview = preview("--quantity", "3");
        assertThat(preview.out()).contains("pipe-label: 3 labels on 3 pages", "  3  P-0003");
        assertThat(entries()).isEqualTo(before);
    }

    @Test
    void everyLabelIsInThePdfMarkedAsExpected() throws Exception {
        Path pdf = folder.resolve("labels.pdf");
        Result preview = preview("--quantity", "3", "--copies", "2", "--output", pdf.toString());
        assertThat(preview.exit()).isZero();
        try (PDDocument document = Loader.loadPDF(pdf.toFile())) {
            assertThat(document.getNumberOfPages()).isEqualTo(6);
            assertThat(new PDFTextStripper().getText(document).lines())
                    .containsSubsequence("P-0001 Gamba", "P-0001 Gamba", "P-0002 Gamba", "P-0003 Gamba")
                    .contains("expected");
        }
    }

    @Test
    void oneLabelIsWrittenAsAPicture() throws Exception {
        for (String ending : new String[] {"svg", "png"}) {
            Path file = folder.resolve("label." + ending);
            Result preview = preview("--quantity", "2", "--label", "2", "--output", file.toString());
            assertThat(preview.exit()).as(ending).isZero();
            assertThat(Files.size(file)).as(ending).isPositive();
        }
        assertThat(Files.readString(folder.resolve("label.svg"))).contains("aria-label=\"P-0002 Gamba\"");
        assertThat(ImageIO.read(folder.resolve("label.png").toFile()).getWidth())
                .isEqualTo(732);
    }

    @Test
    void aTextThatDoesNotFitIsToldAndNoFileIsWritten() throws Exception {
        Path file = folder.resolve("narrow.yaml");
        Files.writeString(file, layout("narrow", "12"));
        Path pdf = folder.resolve("narrow.pdf");
        Result preview = run(
                "label",
                "preview",
                "--layout-file",
                file.toString(),
                "--series",
                "pipe",
                "--field",
                "stop=Gamba",
                "--output",
                pdf.toString());
        assertThat(preview.exit()).isEqualTo(1);
        assertThat(preview.out())
                .contains("label 1 (P-0001) cannot be printed: items[1].width ‘P-0001 Gamba’ is 21.", "make it wider");
        assertThat(pdf).doesNotExist();
    }

    @Test
    void aFieldThatIsAskedForIsNeeded() throws Exception {
        Result preview = run("label", "preview", "pipe-label", "--series", "pipe");
        assertThat(preview.exit()).isEqualTo(1);
        assertThat(preview.out()).contains("fields.stop (Stop) is asked for, and has no value");
    }

    @Test
    void moreThanTheRangeHasIsRefused() throws Exception {
        Result preview = preview("--quantity", "31");
        assertThat(preview.exit()).isEqualTo(1);
        assertThat(preview.err()).contains("pipe").contains("31");
    }

    @Test
    void noMoreThanTwentyThousandLabelsAreDrawn() throws Exception {
        String sheets = layout("sheets", "59")
                .replace(
                        "    ask:",
                        "    advance: sheet\n    sheet: { width: 210, height: 297, columns: 3, rows: 10 }\n    ask:");
        assertThat(service.apply(sheets).status()).isEqualTo(200);
        Result preview = run(
                "label",
                "preview",
                "sheets",
                "--series",
                "crate",
                "--quantity",
                "667",
                "--field",
                "stop=Gamba",
                "--output",
                folder.resolve("many.pdf").toString());
        assertThat(preview.exit()).isEqualTo(1);
        assertThat(preview.err()).contains("More than 20,000 labels are not drawn at once.", "up to 20,000 labels");
    }

    @Test
    void aFaultyLayoutIsToldAtItsLine() throws Exception {
        Path file = folder.resolve("beyond.yaml");
        Files.writeString(file, layout("beyond", "60"));
        Result applied = run("apply", file.toString());
        assertThat(applied.exit()).isEqualTo(1);
        assertThat(applied.err() + applied.out())
                .contains("beyond.yaml:7")
                .contains("its right edge is at 63 mm, and the label ends at 62");
    }

    @Test
    void aLayoutComesBackAsItWasApplied() throws Exception {
        String text = "# For crates.\n" + layout("kept", "36");
        assertThat(service.apply(text).status()).isEqualTo(200);
        assertThat(service.get("/api/v1/definitions").response().body()).contains("# For crates.");
    }

    @Test
    void aScanFindsWhatWasIssuedInEveryForm() throws Exception {
        run("allocate", "crate", "--quantity", "2");
        for (String form : new String[] {
            "(00)095212340000000013",
            "]C100095212340000000013",
            "00095212340000000013",
            "https://id.larkmoor.example/00/095212340000000013",
            "095212340000000013"
        }) {
            Result scan = run("label", "scan", form);
            assertThat(scan.exit()).as(form).isZero();
            assertThat(scan.out()).as(form).contains("095212340000000013  issued  crate");
        }
    }

    @Test
    void aScanWithAWrongCheckDigitSaysWhatWasMeant() throws Exception {
        run("allocate", "crate", "--quantity", "3");
        Result scan = run("label", "scan", "(00)095212340000000014");
        assertThat(scan.exit()).isEqualTo(1);
        assertThat(scan.out())
                .contains("the check digit of ‘095212340000000014’ is wrong; for 09521234000000001 it is 3")
                .contains("perhaps meant (wrong symbol at place 18):\n095212340000000013");
    }

    @Test
    void labelsAreSeenInTheConsoleAndAScannerEndsWithEnter() throws Exception {
        run("allocate", "crate");
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", service.password());
            browser.open("/labels");
            browser.choose("Layout", "pipe-label, 62 × 29 mm");
            browser.choose("Numbers of", "pipe");
            browser.sees("(Stop) is asked for, and has no value");
            browser.type("Quantity", "30");
            browser.type("Stop", "Gamba");
            browser.sees("30 labels on 30 pages");
            browser.holds("document.querySelectorAll('img[alt$=expected]').length === 12");
            browser.press("Later");
            browser.sees("P-0024");
            browser.open("/");
            browser.type("Scanned or typed text", "(00)095212340000000013");
            browser.key(Keys.ENTER);
            browser.sees("(00) SSCC");
            assertThat(browser.element(By.cssSelector("[data-testid=scan]")).getText())
                    .contains("095212340000000013\nissued\ncrate");
        }
    }

    @Test
    void aLayoutIsWrittenBesideItsPictureAndApplied() throws Exception {
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", service.password());
            browser.open("/labels/layouts/new");
            browser.choose("Numbers of", "pipe");
            browser.type("Definition", layout("written", "60"));
            browser.sees("Line 7:");
            browser.sees("its right edge is at 63 mm, and the label ends at 62");
            browser.type("Definition", layout("written", "12"));
            browser.type("Stop", "Gamba");
            browser.sees("Line 7, label 1 cannot be printed:");
            browser.type("Definition", layout("written", "36"));
            browser.seesNoLonger("cannot be printed");
            browser.press("Apply");
            browser.sees("Applied: written new");
        }
        assertThat(service.get("/api/v1/layouts/written")
                        .json()
                        .at("/layout/version")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    void aRefusalCountsTheItemsFromOne() throws Exception {
        Service.Answer answer = service.post(
                "/api/v1/label-preview-files",
                "{\"layout\":\"pipe-label\",\"series\":\"pipe\",\"fields\":{\"stop\":\"a stop that is far too long\"}}");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text("detail")).contains("cannot be printed: items[1].width ‘P-0001 a stop");
    }

    @Test
    void anUnknownLayoutIsRefusedWithTheNearest() throws Exception {
        Service.Answer answer =
                service.post("/api/v1/label-preview-files", "{\"layout\":\"pipe-lable\",\"series\":\"pipe\"}");
        assertThat(answer.status()).isEqualTo(404);
        assertThat(answer.text("detail")).contains("Did you mean ‘pipe-label’?");
    }
}
