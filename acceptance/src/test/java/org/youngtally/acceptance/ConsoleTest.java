package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.InstanceOfAssertFactories.LIST;

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
import org.openqa.selenium.Keys;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** The console in headless Chromium. */
class ConsoleTest {
    private static Service service;
    private static Browser browser;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
        browser = new Browser(service.address());
        browser.signIn("hanna", service.password());
    }

    @AfterAll
    static void stop() throws Exception {
        browser.close();
        service.close();
    }

    @Test
    void aSeriesIsDefinedPreviewedAndTakenFromUntilItShowsInTheLedger() throws Exception {
        browser.open("/series");
        browser.press("New series");
        browser.type("Key", "crate");
        browser.type("Title", "Transport crates");
        browser.type("Pattern", "C{date yyMM}-{count 4}");
        browser.field("each month").click();
        browser.type("Last", "99999");
        browser.sees("99999 is wider than the count, which has 4 digits");
        browser.type("Last", "9999");
        browser.sees("C2603-0010");
        browser.seesNoLonger("wider than the count");
        browser.press("Define the series");
        browser.sees("Next on 2026-03-02 — 9,999 left");
        assertThat(browser.path()).isEqualTo("/series/crate");
        browser.type("Reference", "CRATE-JOB");
        browser.press("Allocate the next number");
        browser.sees("Allocated for CRATE-JOB");
        assertThat(browser.element(By.cssSelector("[data-testid=taken]")).getText())
                .contains("C2603-0001");
        browser.sees("Next on 2026-03-02 — 9,998 left");
        assertThat(browser.element(By.xpath("//table//td[normalize-space() = 'CRATE-JOB']/.."))
                        .getText())
                .contains("C2603-0001")
                .contains("hanna");
        assertThat(browser.field("Reference").getDomProperty("value"))
                .as("the form is ready for the next")
                .isEmpty();
        assertThat(service.get("/api/v1/identifiers?text=C2603-0001")
                        .json()
                        .get(0)
                        .get("reference")
                        .asString())
                .isEqualTo("CRATE-JOB");
    }

    @Test
    void aRefusalIsToldAndTakesNothing() throws Exception {
        String before = service.get("/api/v1/status").text("head");
        browser.open("/series/cast");
        browser.sees("CAST-005");
        browser.type("Quantity", "6");
        browser.press("Allocate 6 numbers");
        browser.sees(
                "‘cast’ has 5 numbers left for 2026-03-02, 6 were requested. Nothing was allocated. The next range opens on 2026-06-01.");
        assertThat(service.get("/api/v1/status").text("head")).isEqualTo(before);
    }

    @Test
    void aDefinitionThatWouldClashIsShownWithBothWays() {
        browser.open("/series/invoice-care/edit");
        browser.type("Pattern", "LC{date MM}-{count 4}");
        browser.sees("is fixed at ‘LC{date yy}-{count 4}’ after the first number was issued");
        browser.open("/new");
        browser.type("Key", "clash");
        browser.type("Pattern", "lw26-{count 5}");
        browser.type("Namespace", "invoice");
        browser.type("Last", "20");
        browser.sees("would arise in two ways in the namespace ‘invoice’");
        assertThat(browser.element(By.cssSelector("[data-testid=clash]")).getText())
                .contains("LW26-00001")
                .contains("invoice-works")
                .contains("clash");
    }

    @Test
    void aPatternIsPutTogetherFromPartsAndASlipRemarked() {
        browser.open("/new");
        browser.type("Key", "built");
        browser.type("Pattern", "B2026-");
        browser.press("+ Letters and digits");
        browser.press("+ Check symbol");
        browser.type("Last", "999");
        browser.sees("B2026-2223F");
        assertThat(browser.field("Pattern").getDomProperty("value")).isEqualTo("B2026-{count 4 safe}{check mod37-36}");
        browser.sees("looks like the current year as fixed text");
        browser.press("+ Count");
        browser.sees("a second count");
        browser.sees("a pattern has exactly one");
    }

    @Test
    void aScannedIdentifierIsVerifiedAndItsLikelySlipShown() {
        browser.open("/check");
        browser.field("Scheme").sendKeys("damm");
        browser.type("Identifier", "3819");
        browser.press("Verify it");
        browser.sees("Valid, if two neighbours were swapped");
        browser.sees("3189");
        browser.type("Identifier", "318-");
        browser.press("Add the check digit");
        browser.sees("3189");
        browser.type("Identifier", "31B9");
        browser.press("Verify it");
        browser.sees("‘B’ cannot be read");
    }

    @Test
    void whatOthersTakeAppearsByItself() throws Exception {
        browser.open("/");
        browser.sees("Series at a glance");
        service.post("/api/v1/series/customer/allocations", "{\"reference\":\"SEEN-LIVE\"}");
        browser.sees("SEEN-LIVE");
    }

    /** A browser keeps six connections to one service; a page that is left must give back the one it listened on. */
    @Test
    void manyPagesOneAfterTheOtherDoNotUseUpTheConnections() {
        for (int i = 0; i < 8; i++) {
            browser.open(i % 2 == 0 ? "/series/customer" : "/series/visit");
            browser.element(By.xpath("//section[@aria-labelledby = 'ledger']//td"));
        }
    }

    @Test
    void numbersAreTakenByKeyboardAlone() throws Exception {
        browser.open("/series/part");
        browser.sees("Allocate");
        browser.field("Reference").click();
        browser.key("ORGAN-19" + Keys.ENTER);
        browser.sees("Allocated for ORGAN-19");
        browser.key("ORGAN-20" + Keys.ENTER);
        browser.sees("Allocated for ORGAN-20");
        assertThat(service.get("/api/v1/entries?series=part&limit=2")
                        .json()
                        .valueStream()
                        .map(entry -> entry.get("reference").asString()))
                .containsExactly("ORGAN-20", "ORGAN-19");
    }

    @Test
    void thePagesNeedNoMouse() {
        browser.open("/");
        browser.sees("Series at a glance");
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Skip to content");
        browser.key(Keys.TAB);
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Records");
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Tables");
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Documents");
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Labels");
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Series");
        browser.key(Keys.ENTER);
        browser.sees("New series");
        assertThat(browser.path()).isEqualTo("/series");
    }

    @Test
    void twoPeopleEditingOneDefinitionLoseNothing() throws Exception {
        browser.open("/series/visit/edit");
        browser.type("Title", "Visits, as typed here");
        var definition =
                (ObjectNode) service.get("/api/v1/series/visit/definition").json();
        ((ObjectNode) definition
                        .put("title", "Visits, as changed elsewhere")
                        .get("ranges")
                        .get(0))
                .put("warnWhenLeft", 7);
        assertThat(service.put("/api/v1/series/visit/definition", definition.toString(), "If-Match", "\"1\"")
                        .status())
                .isEqualTo(200);
        browser.press("Save the change");
        browser.sees("hanna changed this series");
        browser.sees("Visits, as changed elsewhere");
        assertThat(browser.field("Title").getDomProperty("value")).isEqualTo("Visits, as typed here");
        browser.press("Merge");
        browser.seesNoLonger("while you were editing it");
        browser.press("Save the change");
        browser.sees("Next on");
        JsonNode both = service.get("/api/v1/series/visit/definition").json();
        assertThat(List.of(
                        both.get("title").asString(),
                        both.get("ranges").get(0).get("warnWhenLeft").asString()))
                .containsExactly("Visits, as typed here", "7");
    }

    @ParameterizedTest
    @CsvSource({"1280, 800, day", "390, 844, night"})
    void pagesFitAndAreReadable(int width, int height, String look) throws Exception {
        String axe = Files.readString(Path.of("../console/node_modules/axe-core/axe.min.js"));
        browser.size(width, height);
        try {
            for (String page : List.of(
                    "/",
                    "/series",
                    "/series/invoice-works",
                    "/series/cast/edit",
                    "/new",
                    "/life",
                    "/calendar",
                    "/closings",
                    "/closings/85",
                    "/routes",
                    "/accounts",
                    "/accounts/tobin",
                    "/account",
                    "/starters",
                    "/codebooks",
                    "/codebooks/component",
                    "/series/component",
                    "/series/component/edit",
                    "/check",
                    "/nowhere")) {
                browser.open(page);
                browser.script("localStorage.setItem('look', arguments[0])", look);
                browser.open(page);
                browser.element(By.cssSelector(page.equals("/nowhere") ? "main a" : "h1"));
                assertThat(((Number) browser.script("return document.documentElement.scrollWidth - innerWidth"))
                                .intValue())
                        .as(page + " does not scroll sideways")
                        .isLessThanOrEqualTo(0);
                browser.script(axe);
                assertThat(
                                browser.scriptAsync(
                                        "axe.run({runOnly: ['wcag2a', 'wcag2aa']}).then(found => arguments[0](found.violations.map(each => each.id + ': ' + each.nodes.map(node => node.html + ' ' + node.failureSummary).join(' | '))))"))
                        .asInstanceOf(LIST)
                        .as(page)
                        .isEmpty();
            }
        } finally {
            browser.script("localStorage.removeItem('look')");
            browser.size(1280, 800);
        }
    }

    @Test
    void anEmptyAndAFailingServiceSaySo(@TempDir Path data) throws Exception {
        try (Service empty = Service.process(data);
                Browser own = new Browser(empty.address())) {
            own.signIn("administrator", empty.password());
            own.sees("No series are defined.");
            empty.kill();
            own.sees("The service cannot be reached");
        }
    }

    @Test
    void aCodebookIsMadeGrownAndRetiredFrom() throws Exception {
        browser.open("/codebooks");
        browser.type("Key", "timber");
        browser.type("Title", "Timbers");
        browser.type("First choice", "Oak");
        browser.type("Its code", "OA");
        browser.press("Define the codebook");
        browser.sees("Not used by a series yet.");
        browser.type("Name", "Pine");
        browser.type("Code", "PI");
        browser.press("Add the choice");
        browser.sees("Added: PI, Pine.");
        browser.field("Within").sendKeys("Oak");
        browser.type("Name", "Quartered");
        browser.type("Code", "Q");
        browser.press("Add the choice");
        browser.sees("Added: Q, Quartered.");
        browser.type("Name", "Plain");
        browser.type("Code", "q");
        browser.press("Add the choice");
        browser.sees("‘q’ already belongs to another choice of the same level");
        assertThat(browser.field("Name").getDomProperty("value"))
                .as("what was typed stays")
                .isEqualTo("Plain");
        browser.element(By.cssSelector("[aria-label='Retire Pine']")).click();
        browser.sees("Pine is retired.");
        assertThat(service.get("/api/v1/codebooks/timber")
                        .json()
                        .get("choices")
                        .get(1)
                        .get("retired")
                        .asBoolean())
                .isTrue();
    }

    @Test
    void aSeriesWithFieldsIsDefinedAndTakenFromByChoosing() {
        browser.open("/new");
        browser.type("Key", "assembly");
        browser.type("Pattern", "{field group}-{field kind}-{count 3}");
        browser.type("Last", "999");
        browser.sees("{field group} occurs in the pattern, and is not defined");
        browser.press("Add a field");
        browser.element(By.id("field-0-name")).sendKeys("group");
        browser.sees("is not chosen; name the codebook with its choices");
        browser.element(By.id("field-0-codebook")).sendKeys("Components");
        browser.press("Add a field");
        browser.element(By.id("field-1-name")).sendKeys("kind");
        browser.element(By.id("field-1-kind")).sendKeys("a choice within");
        browser.element(By.id("field-1-within")).sendKeys("group");
        browser.field("with each group").click();
        browser.sees("WC-PA-001");
        browser.element(By.xpath("//section[@aria-labelledby='preview']//label[contains(., 'group')]//select"))
                .sendKeys("Case");
        browser.sees("CA-CO-001");
        browser.press("Define the series");
        browser.sees("The next identifiers depend on group, kind.");
        browser.field("group").sendKeys("Action");
        browser.field("kind").sendKeys("Roller");
        browser.sees("AC-RO-001");
        browser.press("Allocate the next number");
        browser.sees("Allocated, entry");
        assertThat(browser.element(By.cssSelector("[data-testid=taken]")).getText())
                .contains("AC-RO-001");
        browser.sees("AC-RO-002");
    }

    @Test
    void checkSymbolsAreMarkedAndSkipsAndOrdersAreSet() {
        browser.open("/series/bank-reference/edit");
        assertThat(browser.element(By.cssSelector("[data-testid=coming] .check-symbol"))
                        .getText())
                .isEqualTo("58");
        browser.open("/new");
        browser.type("Key", "lucky");
        browser.type("Pattern", "L{count 2}");
        browser.type("Last", "99");
        browser.sees("L10");
        browser.element(By.xpath("//summary[contains(., 'skipped values')]")).click();
        browser.type("Skipped values", "2-4, x");
        browser.sees("‘x’ is neither a value nor a row of them");
        browser.type("Skipped values", "2-4");
        browser.type("Skip counts that contain", "6");
        browser.sees("L14");
        browser.seesNoLonger("L06");
        assertThat(browser.element(By.cssSelector("[data-testid=coming]")).getText())
                .contains("L01", "L05", "L07", "L14")
                .doesNotContain("L02", "L04");
        browser.field("Order of values").sendKeys("scattered");
        browser.sees("left:");
        browser.press("Define the series");
        browser.sees("scattered");
    }
}
