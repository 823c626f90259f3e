package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.acceptance.CommandLine.Result;
import tools.jackson.databind.JsonNode;

/** Tables that were there before: looked through at a terminal, over HTTP and in the console. */
class TableInspectionTest {
    private static final Path PARTS =
            Path.of("../demo/tables/parts-list.csv").toAbsolutePath().normalize();
    private static final Path CARDS =
            Path.of("../demo/tables/card-index.csv").toAbsolutePath().normalize();

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static Result inspect(String... arguments) throws Exception {
        var all = new String[arguments.length + 2];
        all[0] = "table";
        all[1] = "inspect";
        System.arraycopy(arguments, 0, all, 2, arguments.length);
        return CommandLine.run(folder, service, all);
    }

    private static Service.Answer sent(String query, byte[] bytes, String... headers) throws Exception {
        HttpRequest.Builder request = service.request("/api/v1/table-inspections?" + query)
                .header("Content-Type", "application/octet-stream")
                .POST(HttpRequest.BodyPublishers.ofByteArray(bytes));
        for (int i = 0; i < headers.length; i += 2) request.setHeader(headers[i], headers[i + 1]);
        return service.send(request);
    }

    private static JsonNode parts() throws Exception {
        return sent("name=parts.csv&series=part", Files.readAllBytes(PARTS))
                .json()
                .at("/inspections/0");
    }

    @Test
    void theRowsOfThePartsListAddUp() throws Exception {
        JsonNode found = parts();
        assertThat(found.get("column").asString()).isEqualTo("Part no");
        assertThat(found.get("read").asLong()
                        + found.get("blanks").asLong()
                        + found.get("unread").asLong())
                .isEqualTo(found.get("rows").asLong())
                .isEqualTo(64);
    }

    @Test
    void whatMayHaveBeenMeantIsTold() throws Exception {
        assertThat(inspect(PARTS.toString(), "--series", "part").out())
                .contains("P100970  → P-100970 (a separator missing, added or another)")
                .contains("P-1O0560  → P-100560 (a symbol that looks alike)")
                .contains("1.0102E+05  a figure with an exponent, made by a spreadsheet");
    }

    @Test
    void theNumbersThatAreMissingAndThoseThatOccurTwiceAreListed() throws Exception {
        assertThat(inspect(PARTS.toString(), "--series", "part", "--all").out())
                .contains("  P-100880 to P-100940  (7 numbers)")
                .contains("  P-100450  lines 14, 45; the rows differ in: Name, Group, Weight, Made on");
    }

    @Test
    void lettersDoNotSpoilTheHighest() throws Exception {
        assertThat(inspect(CARDS.toString()).out())
                .contains("QUI#        14  QUI1    QUI15          1")
                .contains("  QUI9  QUI15");
    }

    @Test
    void aKindStandsForTheSeriesOfItsRoutes() throws Exception {
        Path invoices =
                Files.writeString(folder.resolve("invoices.csv"), "number\nLW26-00001\nLC26-0001\nLW26-00003\nsoon\n");
        JsonNode found = sent("name=invoices.csv&kind=invoice", Files.readAllBytes(invoices))
                .json()
                .at("/inspections/0");
        assertThat(found.get("lanes")).hasSize(2);
        assertThat(found.at("/lanes/0/series").asString()).isEqualTo("invoice-works");
        assertThat(found.at("/lanes/0/missing").asLong()).isEqualTo(1);
    }

    @Test
    void theAnswerIsPrintedAsJsonWhereThatIsWanted() throws Exception {
        assertThat(inspect(CARDS.toString(), "--json").out()).startsWith("{\"file\":\"card-index.csv\"");
    }

    @Test
    void objectsAreReadAsRows() throws Exception {
        assertThat(sent("name=a.jsonl", "{\"card\":\"A1\"}\n{\"card\":\"A3\"}\n".getBytes(StandardCharsets.UTF_8))
                        .json()
                        .at("/inspections/0/lanes/0/missing")
                        .asLong())
                .isEqualTo(1);
    }

    @Test
    void aFileThatIsNotUtf8IsReadAndTold() throws Exception {
        assertThat(sent("name=a.csv", "Stück\nG1\n".getBytes(Charset.forName("windows-1252")))
                        .json()
                        .at("/notes/0")
                        .asString())
                .contains("Windows-1252");
    }

    @Test
    void rowsWithMoreCellsThanColumnsAreTold() throws Exception {
        assertThat(sent("name=a.csv", "a;b\n1;2\n3;4;5\n".getBytes(StandardCharsets.UTF_8))
                        .json()
                        .at("/notes/0")
                        .asString())
                .isEqualTo("1 row has more cells than the first row; the first is line 3.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "name=a.ods                    | a      | 422 | ‘a.ods’ is no table",
                "name=a.csv&column=Crad        | Card   | 422 | Column ‘Crad’ not found. Did you mean ‘Card’?",
                "name=a.csv&encoding=klingon   | Card   | 422 | ‘klingon’ is no encoding",
                "name=a.csv&series=prat        | Card   | 404 | Did you mean ‘part’?",
                "name=a.csv&kind=prat          | Card   | 404 | Did you mean ‘part’?",
                "name=a.csv&series=part&kind=part | Card | 400 | cannot be named together",
                "name=a.xlsx                   | Card   | 422 | no workbook",
                "name=a.csv                    | ''     | 422 | first line of the file is empty"
            })
    void whatCannotBeInspectedIsRefused(String query, String text, int status, String why) throws Exception {
        Service.Answer answer = sent(query, (text + "\n").getBytes(StandardCharsets.UTF_8));
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.text("detail")).contains(why);
    }

    @Test
    void whoMayNotReadTheSeriesIsRefused() throws Exception {
        assertThat(sent(
                                "name=a.csv&series=invoice-works",
                                "n\n1\n".getBytes(StandardCharsets.UTF_8),
                                "Authorization",
                                "Bearer " + Service.demoToken("ruben"))
                        .status())
                .isIn(403, 404);
    }

    @Test
    void whatIsGuessedCanBeApplied() throws Exception {
        Path guessed = folder.resolve("guessed.yaml");
        Result guess = CommandLine.client(
                Map.of(),
                "",
                List.of("table", "guess", CARDS.toString(), "--column", "Card", "--output", guessed.toString()));
        assertThat(guess.exit()).isZero();
        assertThat(CommandLine.run(folder, service, "apply", guessed.toString(), "--dry-run"))
                .satisfies(
                        applied -> assertThat(applied.exit()).as(applied.err()).isZero());
    }

    @Test
    void aFileThatIsNotThereIsToldByTheClient() throws Exception {
        assertThat(inspect("nowhere.csv").err()).contains("File nowhere.csv not found.");
    }

    @Test
    void theConsoleShowsWhereTheNumbersLie() throws Exception {
        try (var browser = new Browser(service.address())) {
            browser.signIn("hanna", service.password());
            browser.open("/tables");
            browser.sees("Inspect a table");
            browser.field("Table").sendKeys(CARDS.toString());
            browser.press("Inspect");
            browser.sees("Column Card");
            browser.sees("Sorted as text, QUI9 comes last; by value, the highest is QUI15.");
            browser.press("Inspect Length");
            browser.sees("Column Length");
        }
    }
}
