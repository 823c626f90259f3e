package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import tools.jackson.databind.JsonNode;

/** Records in the console, as clerks write, share and change them. */
class RecordConsoleTest {
    private static Service service;
    private static Browser browser;

    @TempDir
    private Path folder;

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

    @BeforeEach
    void wide() {
        browser.size(1280, 800);
    }

    /** Keeps a record, beside what is in the browser. */
    private static JsonNode kept(String body) throws Exception {
        return service.post("/api/v1/records", body).json().get("record");
    }

    private static String customer(String name) throws Exception {
        return kept("{\"kind\":\"customer\",\"unit\":\"works\",\"fields\":{\"name\":\"" + name
                        + "\",\"class\":\"parish\"}}")
                .get("identifier")
                .asString();
    }

    private static String given() {
        return browser.element(By.cssSelector("[data-testid=given] a")).getText();
    }

    private static void newRecord(String kind, String unit) {
        browser.open("/records/new?kind=" + kind + "&unit=" + unit);
        browser.sees("allocated on saving");
    }

    private static String expected() {
        return browser.element(By.cssSelector("[data-testid=expected] .identifier"))
                .getText();
    }

    @Test
    void recordAfterRecordIsSavedByTheKeyboardAlone() throws Exception {
        newRecord("customer", "works");
        browser.script("arguments[0].focus()", browser.field("Name"));
        browser.key("Chapel of St Bega");
        browser.key(Keys.TAB);
        browser.key("p");
        browser.key(Keys.TAB);
        browser.key("Low Fell");
        browser.key(Keys.TAB);
        browser.key(Keys.TAB);
        browser.key("Ines");
        browser.key(Keys.ENTER);
        browser.sees("Chapel of St Bega");
        String first = given();
        assertThat(browser.active().getDomAttribute("id"))
                .as("the first field that does not stay stands ready")
                .isEqualTo("new-name");
        assertThat(browser.field("Name").getDomProperty("value")).isEmpty();
        assertThat(browser.field("Town").getDomProperty("value"))
                .as("what is sticky stays")
                .isEqualTo("Low Fell");
        assertThat(browser.field("Who looks after them").getDomProperty("value"))
                .isEqualTo("Ines");
        browser.key("Chapel of St Cuthman");
        browser.key(Keys.ENTER);
        browser.sees("Chapel of St Cuthman");
        assertThat(Integer.parseInt(given().substring(1))).isEqualTo(Integer.parseInt(first.substring(1)) + 1);
        JsonNode record = service.get("/api/v1/records?text=cuthman").json().get(0);
        assertThat(record.get("units").get(0).get("fields").get("town").asString())
                .isEqualTo("Low Fell");
    }

    @Test
    void whoeverWasFasterHasTheNumberAndTheOtherIsTold() throws Exception {
        newRecord("invoice", "works");
        browser.type("Customer *", "K10520");
        String expected = expected();
        // In one go, so that the page cannot hear of the other one before its own is sent.
        String theirs = (String) browser.script("""
                const other = new XMLHttpRequest();
                other.open('POST', '/api/v1/records', false);
                other.setRequestHeader('Authorization', arguments[0]);
                other.setRequestHeader('Content-Type', 'application/json');
                other.send('{"kind":"invoice","unit":"works","fields":{"customer":"K10521"}}');
                document.querySelector('form button[type=submit]').click();
                return JSON.parse(other.responseText).record.identifier;
                """, Service.bearer(service.token()));
        assertThat(theirs).isEqualTo(expected);
        browser.sees(expected + ", which somebody else allocated first.");
        assertThat(Integer.parseInt(given().split("-")[1])).isEqualTo(Integer.parseInt(theirs.split("-")[1]) + 1);
        assertThat(service.get("/api/v1/records?text=" + given())
                        .json()
                        .get(0)
                        .get("units")
                        .get(0)
                        .get("fields")
                        .get("customer")
                        .asString())
                .isEqualTo("K10520");
    }

    /**
     * The page asks everything anew once it hears the service again; what goes wrong with that costs nothing that
     * stands on it.
     */
    @Test
    void aServiceThatIsAwayForAMomentCostsNothingThatWasTyped() throws Exception {
        newRecord("customer", "works");
        browser.type("Name", "Chapel of St Kew");
        browser.script(
                "window.through = window.fetch; window.lost = []; window.fetch = path => { window.lost.push(path); return Promise.reject(new TypeError('away')); }");
        browser.script("dispatchEvent(new Event('pagehide')); dispatchEvent(new Event('pageshow'))");
        browser.holds(
                "['/kinds', '/units'].every(path => window.lost.filter(each => each.split('?')[0].endsWith(path)).length > 1) && window.lost.some(each => each.endsWith('/session'))");
        browser.sees("The service cannot be reached");
        assertThat(browser.field("Name").getDomProperty("value")).isEqualTo("Chapel of St Kew");
        browser.press("Save and next");
        browser.sees("What was sent may or may not have been done.");
        browser.script("window.fetch = window.through");
        browser.press("Save and next");
        browser.sees("Saved");
        assertThat(service.get("/api/v1/records?text=kew").json()).hasSize(1);
    }

    @Test
    void aTypedNumberIsCheckedWhileItIsTyped() throws Exception {
        newRecord("customer", "works");
        browser.type("Name", "Old card");
        browser.type("Number (optional)", "K10520");
        browser.sees("‘K10520’ was already issued.");
        browser.type("Number (optional)", "K1052");
        browser.sees("‘K1052’ is not a number of ‘customer’");
        browser.type("Number (optional)", "K88001");
        browser.sees("Not issued yet.");
        browser.press("Save and next");
        browser.sees("Old card");
        assertThat(given()).isEqualTo("K88001");
    }

    @Test
    void aMissingFieldIsToldAtItsPlaceAndNothingIsLost() throws Exception {
        newRecord("invoice", "care");
        browser.type("Salesperson", "Tobin");
        browser.press("Save and next");
        browser.sees("The field ‘customer’ of ‘invoice’ is missing.");
        assertThat(browser.field("Customer *").getDomAttribute("aria-invalid")).isEqualTo("true");
        assertThat(browser.field("Salesperson").getDomProperty("value")).isEqualTo("Tobin");
    }

    @Test
    void aCustomerOfAnotherUnitIsFoundByItsNameAndSharedUnlessItDiffers() throws Exception {
        String number = customer("Priory of the marsh");
        newRecord("customer", "care");
        browser.type("Name", "Priory of the m");
        browser.sees("Possible duplicates");
        browser.sees(number);
        browser.choose("Class", "Concert hall (hall)");
        browser.press("Share with Tuning and care");
        browser.sees(number + " has ‘parish’ as its ‘class’ in ‘works’, and ‘hall’ here");
        browser.choose("Class", "Parish (parish)");
        browser.press("Share with Tuning and care");
        browser.sees("Shared with Tuning and care, with its number");
        assertThat(given()).isEqualTo(number);
        assertThat(service.get("/api/v1/records?text=" + number)
                        .json()
                        .get(0)
                        .get("units")
                        .findValuesAsString("unit"))
                .containsExactly("works", "care");
    }

    @Test
    void aKnownThingIsShownInsteadOfASecondOne() throws Exception {
        newRecord("host", "works");
        browser.type("Hardware address", "00:00:5E:00:53:02");
        browser.sees("This record already exists");
        browser.sees("lark-002");
        browser.press("Save and next");
        browser.element(By.cssSelector("[data-testid=given]"));
        assertThat(given()).isEqualTo("lark-002");
    }

    private static WebElement line(int place) {
        return browser.element(By.cssSelector("[data-testid=lines] > li:nth-child(" + place + ")"));
    }

    private static void write(int place, String... values) {
        List<WebElement> inputs = line(place).findElements(By.tagName("input"));
        for (int i = 0; i < values.length; i++) inputs.get(i).sendKeys(values[i]);
    }

    @Test
    void linesAreAddedMovedAndTakenOutAndKeepTheirOrder() throws Exception {
        newRecord("invoice", "care");
        browser.type("Customer *", "K10521");
        for (int i = 1; i <= 3; i++) {
            browser.press("Add a line");
            line(i);
            write(i, List.of("Tuning", "Leather", "Travel").get(i - 1), String.valueOf(i), "10");
        }
        browser.element(By.cssSelector("[aria-label='Remove line 2']")).click();
        browser.element(By.cssSelector("[aria-label='Move line 2 up']")).click();
        browser.press("Save and next");
        String number = given();
        JsonNode record = service.get("/api/v1/records?text=" + number).json().get(0);
        assertThat(record.get("lines").findValuesAsString("text")).containsExactly("Travel", "Tuning");
        browser.element(By.linkText(number)).click();
        browser.sees("Fields in Tuning and care");
        browser.press("Freeze lines");
        browser.sees("each line keeps its number");
        browser.element(By.cssSelector("[aria-label='Remove line 2']")).click();
        browser.press("Save");
        browser.sees("Saved. Its number is " + number + ", as before.");
        browser.press("Add a line");
        assertThat(line(2).getText())
                .as("the number of the hole is not used again")
                .contains("3");
        write(2, "Felt", "1", "9");
        browser.press("Save");
        browser.sees("line 3, price: nothing → 9");
        assertThat(service.get("/api/v1/records?text=" + number)
                        .json()
                        .get(0)
                        .get("lines")
                        .findValuesAsString("number"))
                .containsExactly("1", "3");
    }

    @Test
    void twoPeopleEditOneRecordAndNothingTypedIsLost() throws Exception {
        String number = customer("Guildhall of Ember");
        long id = service.get("/api/v1/records?text=" + number)
                .json()
                .get(0)
                .get("record")
                .asLong();
        browser.open("/records/" + id);
        browser.sees("Guildhall of Ember");
        browser.type("Town", "Ember");
        assertThat(service.put(
                                "/api/v1/records/" + id,
                                "{\"fields\":{\"name\":\"Guildhall of Ember\",\"class\":\"hall\"}}",
                                "If-Match",
                                "\"1\"")
                        .status())
                .isEqualTo(200);
        browser.sees("Edit conflict: somebody else changed this record");
        assertThat(browser.element(By.cssSelector("[data-testid=conflict] tbody"))
                        .getText())
                .contains("Class", "parish", "hall", "unchanged");
        assertThat(browser.field("Town").getDomProperty("value")).isEqualTo("Ember");
        browser.press("Merge");
        browser.press("Save");
        browser.sees("Saved. Its number is " + number + ", as before.");
        JsonNode fields = service.get("/api/v1/records/" + id)
                .json()
                .get("record")
                .get("units")
                .get(0)
                .get("fields");
        assertThat(List.of(fields.get("class").asString(), fields.get("town").asString()))
                .containsExactly("hall", "Ember");
        assertThat(service.put("/api/v1/records/" + id, "{\"fields\":{\"name\":\"x\"}}", "If-Match", "\"1\"")
                        .text("type"))
                .isEqualTo("/problems/version-moved");
    }

    @Test
    void anotherNumberIsOfferedWhenThePartsOfItChangeAndTheOldOneStillLeadsThere() throws Exception {
        JsonNode component = kept(
                "{\"kind\":\"component\",\"unit\":\"works\",\"fields\":{\"name\":\"Flue of the choir\",\"group\":\"Pipes\",\"kind\":\"Flue pipe\"}}");
        String old = component.get("identifier").asString();
        browser.open("/records/" + component.get("record").asLong());
        browser.sees("Fields in");
        browser.choose("Kind", "Reed pipe (RE)");
        browser.press("Save");
        browser.sees("The number was made of earlier values of the record.");
        browser.type("Reason", "it is a reed");
        browser.press("Renumber");
        String now = browser.element(By.cssSelector("[data-testid=renumbered] .identifier"))
                .getText();
        assertThat(now).startsWith("PI-RE-");
        browser.open("/records");
        browser.type("Name, tax number, or current or earlier identifier", old);
        browser.sees(now);
        browser.press(now);
        browser.sees("it is a reed");
        assertThat(browser.element(By.cssSelector("[data-testid=history]")).getText())
                .contains(old, now, "renumbered");
    }

    @Test
    void aTableIsFilledInTheBrowser() throws Exception {
        Path table = Files.writeString(
                folder.resolve("components.csv"), "number,name,group,kind\n,Case,CA,CO\n,Case,CA,SH\n");
        browser.open("/records/table");
        browser.choose("Kind", "Component");
        browser.choose("Unit", "Organ works");
        browser.field("Table, .csv or .xlsx").sendKeys(table.toString());
        browser.press("Fill it");
        browser.sees("2 filled, 0 had a number already.");
        browser.press("Get components.csv");
        assertThat(browser.downloaded("components.csv"))
                .matches("number,name,group,kind\nCA-CO-[0-9]{4},Case,CA,CO\nCA-SH-[0-9]{4},Case,CA,SH\n");
        Files.writeString(table, "number,name,group,kind\n,Case,CA,XX\n");
        browser.press("Fill it");
        browser.sees("components.csv has changed since it was chosen. Nothing was sent.");
        browser.field("Table, .csv or .xlsx")
                .sendKeys(Files.copy(table, folder.resolve("again.csv")).toString());
        browser.press("Fill it");
        browser.sees("Line 2: ‘XX’ is not a choice of the field ‘kind’");
    }

    @Test
    void aRecordsFilesAreAttachedAndDeletingSaysWhatBecomesOfTheNumber() throws Exception {
        String number = customer("House by the weir");
        long id = service.get("/api/v1/records?text=" + number)
                .json()
                .get(0)
                .get("record")
                .asLong();
        Path letter = Files.writeString(folder.resolve("letter.txt"), "dear sirs");
        browser.open("/records/" + id);
        browser.field("Attach a file").sendKeys(letter.toString());
        browser.sees(number + ".txt");
        browser.sees("Its number becomes void, with the reason.");
        browser.press("Delete " + number);
        browser.sees("reason");
        browser.script("arguments[0].focus()", browser.element(By.cssSelector("[aria-labelledby=delete] input")));
        browser.key("written twice");
        browser.key(Keys.ENTER);
        browser.sees("deleted; number void (voided)");
        browser.sees("“written twice”");
    }
}
