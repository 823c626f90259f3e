package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.youngtally.acceptance.CommandLine.Result;

/** Labels for the rows of a table: each shows what its row says. */
class LabelTableTest {
    private static final String LABEL =
            "width: 60, height: 30, items: [{ text: '{identifier} {field stop}', left: 1, top: 1, width: 58, height: 8 }]";
    private static final String DEFINITIONS = """
            series:
              - { key: pipe, pattern: 'P-{count 5}', ranges: [{ first: 1, last: 99999, opens: 2020-01-01 }] }
              - { key: few, pattern: 'F-{count 1}', ranges: [{ first: 1, last: 3, opens: 2020-01-01 }] }
              - key: grouped
                pattern: '{field group}-{count 3}'
                fields: [{ name: group, longest: 1 }]
                restarts: [field group]
                ranges: [{ first: 1, last: 999, opens: 2020-01-01 }]
            layouts:
              - { key: plain, LABEL, ask: [{ name: stop, title: Stop of the organ }] }
              - { key: by-row, LABEL, advance: row, ask: [{ name: stop, title: Stop }] }
              - { key: by-sheet, LABEL, advance: sheet, sheet: { width: 210, height: 297, columns: 3, rows: 8 } }
            """.replace("LABEL", LABEL);

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply(DEFINITIONS).response().body()).doesNotContain("faults");
        Files.writeString(
                folder.resolve("stops.csv"), "Stop of the organ,Note,Group\nGamba,C,A\nOboe,D,A\nPosaune,E,B\n");
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static Result print(String layout, String series, String table, String... more) throws Exception {
        var arguments = new ArrayList<>(List.of(
                "label",
                "print",
                layout,
                "--series",
                series,
                "--table",
                folder.resolve(table).toString()));
        arguments.addAll(List.of(more));
        return run(arguments.toArray(String[]::new));
    }

    private static List<String> printed(String layout, String series, String table, String... more) throws Exception {
        Path file = Files.createTempDirectory(folder, "out").resolve("labels.pdf");
        var arguments = new ArrayList<>(List.of("--output", file.toString()));
        arguments.addAll(List.of(more));
        Result result = print(layout, series, table, arguments.toArray(String[]::new));
        assertThat(result.exit()).as(result.err()).isZero();
        try (PDDocument document = Loader.loadPDF(file.toFile())) {
            return new PDFTextStripper()
                    .getText(document)
                    .lines()
                    .map(String::strip)
                    .toList();
        }
    }

    private static String table(String name, String text) throws Exception {
        Files.writeString(folder.resolve(name), text);
        return name;
    }

    private static long newestEntry() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    private static List<String> stops(List<String> lines) {
        return lines.stream().map(line -> line.replaceFirst("^\\S+ ", "")).toList();
    }

    @Test
    void eachLabelShowsItsRow() throws Exception {
        assertThat(stops(printed("plain", "pipe", "stops.csv"))).containsExactly("Gamba", "Oboe", "Posaune");
    }

    @Test
    void aWorkbookIsReadAsWell() throws Exception {
        try (OutputStream out = Files.newOutputStream(folder.resolve("stops.xlsx"));
                var book = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = book.newWorksheet("stops");
            sheet.value(0, 0, "stop");
            sheet.value(1, 0, "Viola");
            sheet.value(2, 0, "Cornet");
        }
        assertThat(stops(printed("plain", "pipe", "stops.xlsx"))).containsExactly("Viola", "Cornet");
    }

    @Test
    void eachCopyShowsTheSameRow() throws Exception {
        List<String> lines = printed("plain", "pipe", "stops.csv", "--copies", "2");
        assertThat(lines.get(0)).isEqualTo(lines.get(1));
        assertThat(stops(lines)).containsExactly("Gamba", "Gamba", "Oboe", "Oboe", "Posaune", "Posaune");
    }

    @Test
    void labelsOfARowBearOneNumberWhereItAdvancesWithTheRow() throws Exception {
        List<String> lines =
                printed("by-row", "pipe", table("by-row.csv", "Stop\nGamba\nOboe\nViola\n"), "--quantity", "2");
        assertThat(stops(lines)).containsExactly("Gamba", "Gamba", "Oboe", "Oboe", "Viola", "Viola");
        assertThat(lines.get(0)).isEqualTo(lines.get(1));
        assertThat(lines.stream().distinct()).hasSize(3);
    }

    @Test
    void numbersFollowTheFieldsOfTheirRows() throws Exception {
        assertThat(printed("plain", "grouped", "stops.csv"))
                .containsExactly("A-001 Gamba", "A-002 Oboe", "B-001 Posaune");
    }

    @Test
    void aPreviewShowsTheRowsAndAllocatesNothing() throws Exception {
        long before = newestEntry();
        Result shown = run(
                "label",
                "preview",
                "plain",
                "--series",
                "grouped",
                "--table",
                folder.resolve("stops.csv").toString());
        assertThat(shown.exit()).as(shown.err()).isZero();
        assertThat(shown.out()).contains("3 labels on 3 pages");
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void aReprintShowsTheSameRow() throws Exception {
        Result first = print(
                "plain",
                "pipe",
                "stops.csv",
                "--output",
                folder.resolve("first.pdf").toString());
        String job = first.out().replaceFirst("(?s)label job ([0-9]+):.*", "$1");
        run("label", "reprint", job, "--places", "2");
        run("label", "send", job, "--output", folder.resolve("again.pdf").toString());
        try (PDDocument document = Loader.loadPDF(folder.resolve("again.pdf").toFile())) {
            assertThat(new PDFTextStripper().getText(document)).contains("Oboe").doesNotContain("Gamba");
        }
    }

    @Test
    void theDataOfAJobHasTheValuesOfItsRows() throws Exception {
        Result printed = print("plain", "pipe", "stops.csv");
        String job = printed.out().replaceFirst("(?s)label job ([0-9]+):.*", "$1");
        assertThat(service.get("/api/v1/label-jobs/" + job + "/data").response().body())
                .startsWith("place,identifier,number,copy,state,date,stop\r\n")
                .contains(",Gamba\r\n", ",Posaune\r\n");
    }

    /** No program that opens the data computes what somebody wrote, and no label has the mark by which it does not. */
    @Test
    void aFormulaIsATextInTheDataOfAJobAndIsPrintedWithoutItsMark() throws Exception {
        List<String> lines = printed("plain", "pipe", table("formulas.csv", "Stop\n=1+1\n'=2+2\n-3\n"));
        assertThat(stops(lines)).containsExactly("=1+1", "=2+2", "-3");
        String newest =
                service.get("/api/v1/label-jobs?most=1").json().at("/0/job").asString();
        assertThat(service.get("/api/v1/label-jobs/" + newest + "/data")
                        .response()
                        .body())
                .contains(",'=1+1\r\n", ",'=2+2\r\n", ",-3\r\n");
    }

    @Test
    void aTableWithoutTheColumnIsRefusedAndNothingIsAllocated() throws Exception {
        long before = newestEntry();
        Result refused = print("plain", "grouped", table("other.csv", "Group,Colour\nA,red\n"));
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .contains("(Stop of the organ) is asked for, and has no value, nor has the table such a column");
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void aTableWithNoColumnThatIsKnownIsRefused() throws Exception {
        assertThat(print("plain", "pipe", table("colours.csv", "Colour\nred\n")).err())
                .contains("No column of the table is a field of the layout or of what it numbers: Colour.", "stop");
    }

    @Test
    void aRowWithoutAValueIsNamed() throws Exception {
        long before = newestEntry();
        assertThat(print("plain", "pipe", table("blank.csv", "stop,note\nGamba,C\n,D\n"))
                        .err())
                .contains("has no value in row 2");
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void moreRowsThanTheRangeHasAreRefusedAndNothingIsAllocated() throws Exception {
        long before = newestEntry();
        assertThat(print("plain", "few", table("four.csv", "stop\na\nb\nc\nd\n"))
                        .exit())
                .isEqualTo(1);
        assertThat(newestEntry()).isEqualTo(before);
    }

    @Test
    void aValueThatTheSeriesDoesNotKnowIsNamedWithItsRow() throws Exception {
        assertThat(print("plain", "grouped", table("unknown.csv", "stop,group\nGamba,A\nOboe,ZZ\n"))
                        .err())
                .contains("Row 2: ");
    }

    @Test
    void aLayoutThatAdvancesWithTheSheetPrintsNoTables() throws Exception {
        assertThat(print("by-sheet", "pipe", "stops.csv").err())
                .contains("This layout advances with each sheet, and prints no tables.");
    }

    @Test
    void whatIsNoTableIsRefused() throws Exception {
        assertThat(print("plain", "pipe", table("empty.csv", "stop\n")).err()).contains("The table has no rows.");
        assertThat(print("plain", "pipe", table("text.doc", "stop\n")).err())
                .contains("‘text.doc’ is no table that can be read.");
    }

    /** Neither a path nor a file of something else is read as a table. */
    @Test
    void onlyATableThatWasSentIsPrintedFor() throws Exception {
        String request = "{\"layout\":\"plain\",\"series\":\"pipe\",\"table\":\"%s\"}";
        for (String name : List.of("../journal/ledger", "0".repeat(64)))
            assertThat(service.post("/api/v1/label-jobs", request.formatted(name))
                            .text("detail"))
                    .isEqualTo("Table ‘" + name + "’ not found.");
    }

    @Test
    void theSameTableIsTheSameRequest() throws Exception {
        Result once = print("plain", "pipe", "stops.csv", "--key", "table once");
        Result twice = print("plain", "pipe", "stops.csv", "--key", "table once");
        assertThat(twice.out()).isEqualTo(once.out());
        assertThat(print("plain", "pipe", table("more.csv", "stop\nViola\n"), "--key", "table once")
                        .exit())
                .isEqualTo(1);
    }

    @Test
    void theConsolePrintsForATable() throws Exception {
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", service.password());
            browser.open("/labels");
            browser.choose("Layout", "plain, 60 × 30 mm");
            browser.choose("Numbers of", "pipe");
            browser.element(By.cssSelector("input[type=file]"))
                    .sendKeys(folder.resolve("stops.csv").toString());
            browser.sees("3 rows: Stop of the organ, Note, Group");
            browser.press("Print 3 labels");
            browser.sees("3 labels wait.");
        }
    }
}
