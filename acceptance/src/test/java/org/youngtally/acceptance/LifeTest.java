package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openqa.selenium.By;

/**
 * What becomes of numbers, as the clerk, the administrator and the auditor meet it: at a terminal, over HTTP, in the
 * console.
 */
class LifeTest {
    @TempDir
    private static Path folder;

    private static Service service;
    private static Browser browser;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
        browser = new Browser(service.address());
        browser.signIn("hanna", service.password());
        assertThat(service.apply("""
                series:
                  - { key: desk, pattern: "DESK{count 3}", typed: allowed, ranges: [ { first: 1, last: 999, opens: 2026-01-01, closes: 2026-12-31, warn-days-before: 366 } ] }
                  - { key: page, pattern: "PAGE{count 3}{check luhn}", typed: required, ranges: [ { first: 1, last: 999, opens: 2026-01-01 } ] }
                  - { key: order-book, pattern: "OB{count 3}", chronological: true, ranges: [ { first: 1, last: 999, opens: 2026-01-01, closes: 2026-03-31 }, { first: 1001, last: 1999, opens: 2026-05-01 } ] }
                """.replace("OB{count 3}", "OB{count 4}")).status())
                .isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        browser.close();
        service.close();
    }

    private static CommandLine.Result youngtally(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    @Test
    void aNumberIsHeldConfirmedReleasedVoidedAndGivenBackAtATerminal() throws Exception {
        CommandLine.Result held =
                youngtally("hold", "desk", "--for", "PT1H", "--quantity", "3", "--reference", "JOB-1");
        assertThat(held.out()).isEqualTo("DESK001\nDESK002\nDESK003\n");
        assertThat(held.err()).contains("Held until 2026-03-02 1");
        assertThat(youngtally("holds", "list", "--series", "desk").out())
                .contains("DESK002")
                .contains("JOB-1");
        assertThat(youngtally("confirm", "desk", "desk001").out()).startsWith("DESK001 confirmed, entry ");
        assertThat(youngtally("release", "desk", "DESK002").out()).startsWith("DESK002 released: issued next, entry ");
        CommandLine.Result unfit = youngtally("release", "desk", "DESK001");
        assertThat(unfit.exit()).isEqualTo(1);
        assertThat(unfit.err()).contains("‘DESK001’ is issued").contains("cannot be released");
        assertThat(youngtally("void", "desk", "DESK001").err()).contains("A reason is required.");
        assertThat(youngtally("void", "desk", "DESK001", "--reason", "spoiled").out())
                .startsWith("DESK001 void, entry ");
        assertThat(youngtally("allocate", "desk", "--quantity", "2").out()).isEqualTo("DESK002\nDESK004\n");
        assertThat(youngtally("return", "desk", "DESK002", "--through", "DESK004")
                        .exit())
                .as("DESK003 is held")
                .isEqualTo(1);
        assertThat(youngtally("return", "desk", "DESK004").out()).contains("returned: issued next");
        assertThat(youngtally(
                                "holds",
                                "clear",
                                "--older-than",
                                "PT0.001S",
                                "--series",
                                "desk",
                                "--reason",
                                "the end of the day")
                        .out())
                .startsWith("DESK003 released");
        assertThat(youngtally("voids", "--series", "desk").out())
                .contains("DESK001")
                .contains("spoiled");
        assertThat(youngtally("find", "DESK001").out())
                .contains("state      void (voided)")
                .contains("entry ")
                .contains(": spoiled");
        assertThat(youngtally("confirm", "desk").exit()).as("nothing is named").isEqualTo(2);
        CommandLine.Result audit = youngtally("audit", "desk");
        assertThat(audit.exit()).isZero();
        assertThat(audit.out())
                .contains("DESK001 void (voided), voided by")
                .contains("DESK003 returned, issued again next");
    }

    @Test
    void aBlockIsReportedSplitAndGivenBackAtATerminal() throws Exception {
        CommandLine.Result taken =
                youngtally("block", "allocate", "crate-code", "--quantity", "100", "--holder", "Supplier A");
        String block = taken.err().replaceAll("(?s).*Block ([0-9]+) of Supplier A.*", "$1");
        String first = taken.out().split(" ")[0];
        assertThat(youngtally("block", "use", "crate-code", first).out()).startsWith(first + " reported as used");
        assertThat(youngtally("block", "split", block, "--quantity", "40", "--holder", "Supplier B")
                        .err())
                .contains("of Supplier B, a part of block " + block);
        assertThat(youngtally("return", "crate-code", "--entry", block).out()).contains("(59) returned: issued next");
        assertThat(youngtally("block", "list", "--series", "crate-code").out())
                .containsPattern("Supplier B .* 40 +40 +0 +0 +0 +" + block)
                .containsPattern(block + " +crate-code +Supplier A .* 100 +0 +1 +59 +0");
        assertThat(youngtally("block", "split", block, "--quantity", "1").err()).contains("has 0 numbers left");
    }

    @Test
    void aPeriodIsClosedStatedSignedAndOpenedAgain() throws Exception {
        service.post("/api/v1/series/order-book/allocations", "{\"date\":\"2026-01-10\",\"quantity\":3}");
        service.post("/api/v1/series/order-book/returns", "{\"identifiers\":[\"OB0002\"],\"reason\":\"twice\"}");
        CommandLine.Result closed =
                youngtally("period", "close", "--series", "order-book", "--from", "2026-01-01", "--to", "2026-01-31");
        String closing = closed.out().replaceAll("(?s).*entry ([0-9]+).*", "$1");
        assertThat(youngtally("allocate", "order-book", "--date", "2026-01-31").err())
                .contains("is in a closed period");
        assertThat(youngtally("period", "show", closing).out())
                .containsPattern("order-book +OB0001 +OB0003 +2 +1")
                .contains("void: OB0002, unused by")
                .contains(": twice");
        Path pdf = folder.resolve("closing.pdf");
        assertThat(youngtally("period", "show", closing, "--pdf", pdf.toString())
                        .exit())
                .isZero();
        assertThat(Files.readString(pdf, StandardCharsets.ISO_8859_1)).startsWith("%PDF-");
        assertThat(youngtally("period", "reopen", closing).err()).contains("A reason is required.");
        assertThat(youngtally("period", "reopen", closing, "--reason", "a late bill")
                        .exit())
                .isZero();
        assertThat(youngtally("allocate", "order-book", "--date", "2026-01-31").out())
                .isEqualTo("OB0004\n");
        assertThat(youngtally("period", "list").out()).contains("reopened, entry ");
    }

    @Test
    void aStarterSetIsShownTriedFilledAndAppliedInOneGo() throws Exception {
        assertThat(youngtally("starter", "list").out()).contains("new-company");
        String[] set = {
            "starter", "apply", "new-company", "--set", "unit=brass", "--set", "letters=BR", "--set", "year=2026"
        };
        assertThat(youngtally(
                                "starter",
                                "apply",
                                "new-company",
                                "--set",
                                "unit=brass",
                                "--set",
                                "letters=BR",
                                "--set",
                                "year=2026",
                                "--dry-run")
                        .out())
                .contains("new invoice-brass, version 1, starts with BR26-00001");
        assertThat(youngtally("series", "show", "invoice-brass").exit()).isEqualTo(1);
        assertThat(youngtally(
                                "starter",
                                "fill",
                                "new-company",
                                "--set",
                                "unit=brass",
                                "--set",
                                "letters=BR",
                                "--set",
                                "year=2026")
                        .out())
                .contains("key: invoice-brass")
                .doesNotContain("%");
        assertThat(youngtally(set).err()).contains("definitions applied");
        assertThat(youngtally("allocate", "invoice-brass", "--date", "2026-03-02")
                        .out())
                .isEqualTo("BR26-00001\n");
        assertThat(youngtally("allocate", "--kind", "offer", "--unit", "brass", "--date", "2026-03-02")
                        .out())
                .isEqualTo("BRO2603-001\n");
        assertThat(youngtally("starter", "apply", "new-company", "--set", "unit=brass")
                        .err())
                .contains("variables.letters");
    }

    @Test
    void whatLiesAheadIsForetold() throws Exception {
        assertThat(youngtally("series", "forecast", "invoice-works").out()).contains("until 2026-12-31");
        assertThat(youngtally("calendar").out()).containsPattern("2026-04-01 +2026-04-30 +order-book +UNCOVERED DATES");
        assertThat(youngtally("series", "list").out()).containsPattern("desk .*warning: closes on 2026-12-31");
    }

    @Test
    void aPreviewKnowsWhatWasTypedAheadAndReturned() throws Exception {
        service.apply(
                "series: [ { key: seat, pattern: \"SEAT{count 2}\", typed: allowed, ranges: [ { first: 1, last: 9, opens: 2026-01-01 } ] } ]");
        service.post("/api/v1/series/seat/allocations", "{\"quantity\":2}");
        service.post("/api/v1/series/seat/returns", "{\"identifiers\":[\"SEAT01\"]}");
        service.post("/api/v1/series/seat/allocations", "{\"typed\":\"SEAT04\"}");
        List<String> coming = List.of("SEAT01", "SEAT03", "SEAT05", "SEAT06", "SEAT07", "SEAT08", "SEAT09");
        assertThat(service.get("/api/v1/series/seat")
                        .json()
                        .get("next")
                        .valueStream()
                        .map(each -> each.asString())
                        .toList())
                .isEqualTo(coming);
        Service.Answer preview = service.post(
                "/api/v1/previews",
                "{\"series\":"
                        + service.get("/api/v1/series/seat/definition")
                                .response()
                                .body() + "}");
        assertThat(preview.json()
                        .get("next")
                        .valueStream()
                        .map(each -> each.get("identifier").asString())
                        .toList())
                .isEqualTo(coming);
        assertThat(preview.json().get("left").asLong()).isEqualTo(7);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "page/allocations; {}; 422; typed-number; typed; must be typed",
                "page/allocations; {\"typed\":\"PAGE0010\"}; 422; typed-number; typed; has an invalid check digit",
                "desk/allocations; {\"typed\":\"DESKX\"}; 422; typed-number; typed; is not a number of ‘desk’",
                "desk/allocations; {\"hold\":\"soon\"}; 400; malformed; hold; is not a duration",
                "desk/allocations; {\"hold\":\"PT0S\"}; 400; malformed; hold; Invalid hold time",
                "desk/allocations; {\"hold\":\"PT1M\",\"typed\":\"DESK900\"}; 400; malformed; hold; cannot be typed and held at once",
                "desk/voids; {\"identifiers\":[\"DESK999\"],\"reason\":\"x\"}; 404; unknown-identifier; identifiers; ‘DESK999’ was never issued",
                "desk/returns; {}; 400; malformed; identifiers; No numbers are named",
                "desk/returns; {\"entry\":1}; 404; unknown-taking; entry; has issued no numbers for entry 1",
                "desk/returns; {\"reference\":\"NOBODY\"}; 404; unknown-taking; reference; has issued no numbers for the reference",
            })
    void aBadRequestIsRefusedByFieldAndChangesNothing(
            String path, String body, int status, String type, String field, String detail) throws Exception {
        String before = service.get("/api/v1/status").text("head");
        Service.Answer answer = service.post("/api/v1/series/" + path, body);
        assertThat(answer.status()).as(answer.response().body()).isEqualTo(status);
        assertThat(List.of(answer.text("type"), answer.text("field"))).containsExactly("/problems/" + type, field);
        assertThat(answer.text("detail")).contains(detail);
        assertThat(answer.text("accepted")).isNotBlank();
        assertThat(service.get("/api/v1/status").text("head")).isEqualTo(before);
    }

    @Test
    void numbersAreHeldTypedAndSettledInTheConsole() {
        browser.open("/series/customer");
        browser.choose("How", "hold until confirmed");
        browser.type("Reference", "FAIR-7");
        browser.press("Hold the next number");
        browser.sees("Held until");
        browser.open("/life");
        browser.sees("FAIR-7");
        browser.press("Confirm");
        browser.sees("No numbers are held.");
        browser.open("/series/customer");
        browser.choose("How", "typed number");
        browser.type("Number", "K10500");
        browser.press("Allocate this number");
        browser.sees("‘K10500’ was already issued.");
        browser.type("Number", "k10600");
        browser.press("Allocate this number");
        browser.sees("K10600");
        browser.choose("Act", "void, with a reason");
        browser.type("Numbers", "K10600");
        browser.type("Reason", "a slip of the pen");
        browser.press("Record in the ledger");
        browser.sees("Voided, entry");
        browser.open("/life");
        browser.sees("a slip of the pen");
    }

    @Test
    void aStarterSetIsFilledInAndEditedInTheConsole() throws Exception {
        browser.open("/starters");
        browser.type("The key of the company", "reed");
        browser.type("The letters that its identifiers", "RE");
        browser.type("The first year", "2026");
        browser.press("Fill in");
        browser.sees("new-company-reed.yaml");
        browser.press("Show what would change");
        browser.sees("Dry run: nothing was changed.");
        browser.sees("starts with RE26-00001");
        assertThat(service.get("/api/v1/series/invoice-reed").status()).isEqualTo(404);
        browser.press("Apply");
        browser.sees("Applied.");
        assertThat(service.get("/api/v1/series/invoice-reed").status()).isEqualTo(200);
    }

    @Test
    void theCalendarAndTheStatementAreShownInTheConsole() {
        browser.open("/calendar");
        browser.sees("uncovered dates 2026-04-01 to 2026-04-30");
        assertThat(browser.element(By.cssSelector("li .bg-error")).isDisplayed())
                .isTrue();
        browser.open("/closings");
        browser.sees("namespace invoice");
        browser.element(By.xpath("//tr[td[normalize-space() = 'namespace invoice']]//a"))
                .click();
        browser.sees("Written twice for ORDER-863");
    }
}
