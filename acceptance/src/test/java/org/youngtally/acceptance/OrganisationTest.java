package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;
import org.youngtally.acceptance.CommandLine.Result;
import tools.jackson.databind.JsonNode;

/**
 * The people of the demo at their work: signing in, routes and gaps, what is forbidden, by the command line and in the
 * browser.
 */
class OrganisationTest {
    @TempDir
    private static Path folder;

    private static Service service;
    private static Browser browser;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
        browser = new Browser(service.address());
    }

    @AfterAll
    static void stop() throws Exception {
        browser.close();
        service.close();
    }

    private static Result as(String account, String... arguments) throws Exception {
        return CommandLine.as(Service.demoToken(account), folder, service, arguments);
    }

    @Test
    void aRecordFindsItsSeriesByItself() throws Exception {
        assertThat(as(
                                "tobin",
                                "allocate",
                                "--kind",
                                "customer",
                                "--unit",
                                "care",
                                "--field",
                                "name=Tarnside",
                                "--field",
                                "class=School")
                        .out())
                .matches("KS[0-9]{4}\n");
        assertThat(as(
                                "tobin",
                                "allocate",
                                "--kind",
                                "customer",
                                "--unit",
                                "care",
                                "--field",
                                "name=Tarnside",
                                "--field",
                                "class=Parish")
                        .out())
                .startsWith("K10");
        assertThat(as("mara", "allocate", "--kind", "part", "--unit", "works", "--field", "name=Pallet")
                        .out())
                .startsWith("P-10");
        assertThat(as("hanna", "find", "KS0001").out()).contains("customer-school");
        Result missing = as("tobin", "allocate", "--kind", "customer", "--unit", "care");
        assertThat(missing.err()).contains("The field ‘name’ of ‘customer’ is missing.");
        assertThat(as(
                                "tobin",
                                "allocate",
                                "--kind",
                                "customer",
                                "--unit",
                                "care",
                                "--field",
                                "name=O",
                                "--field",
                                "number=K1")
                        .err())
                .contains("receives the number");
        assertThat(as("tobin", "allocate", "--kind", "customr", "--unit", "care")
                        .err())
                .contains("Did you mean ‘customer’?");
        assertThat(as("tobin", "allocate", "--kind", "customer", "--unit", "caer", "--field", "name=O")
                        .err())
                .contains("Did you mean ‘care’?");
        assertThat(as("tobin", "allocate", "--kind", "customer").exit()).isEqualTo(2);
        assertThat(as("tobin", "allocate").exit()).isEqualTo(2);
        assertThat(as("tobin", "allocate", "customer", "--kind", "customer", "--unit", "care")
                        .exit())
                .isEqualTo(2);
    }

    @Test
    void theSameRequestForARecordGetsTheSameNumber() throws Exception {
        String request = "{\"unit\":\"care\",\"fields\":{\"name\":\"Abbey\",\"class\":\"school\"}}";
        Service.Answer first =
                service.post("/api/v1/kinds/customer/allocations", request, "Idempotency-Key", "record-1");
        Service.Answer again =
                service.post("/api/v1/kinds/customer/allocations", request, "Idempotency-Key", "record-1");
        assertThat(List.of(first.status(), again.status())).containsExactly(201, 200);
        assertThat(again.text("first")).isEqualTo(first.text("first"));
        assertThat(service.post(
                                "/api/v1/kinds/customer/allocations",
                                request.replace("care", "works"),
                                "Idempotency-Key",
                                "record-1")
                        .text("type"))
                .isEqualTo("/problems/key-reused");
        JsonNode found = service.get("/api/v1/identifiers?text=" + first.text("first"))
                .json()
                .get(0);
        assertThat(List.of(found.get("kind").asString(), found.get("unit").asString()))
                .containsExactly("customer", "care");
    }

    @Test
    void eachRuleTriedIsShownAndAGapIsFilledInOneStep() throws Exception {
        assertThat(as("odile", "routes", "why", "--kind", "customer", "--unit", "care", "--field", "class=school")
                        .out())
                .isEqualTo("""
                care
                  when class=school → customer-school: serves
                larkmoor
                  always → customer: not reached
                → customer-school, into the field number
                """);
        assertThat(as("odile", "routes", "why", "--kind", "customer", "--unit", "care", "--field", "class=hall")
                        .out())
                .contains("when class=school → customer-school: does not apply, the field class has another value")
                .contains("always → customer: serves");
        Result gap = as("odile", "routes", "why", "--kind", "pipe-label", "--unit", "works");
        assertThat(gap.exit()).isEqualTo(1);
        assertThat(gap.out())
                .contains("→ no series: missing route. Add one with: youngtally routes add pipe-label works SERIES");
        Result refused =
                as("hanna", "allocate", "--kind", "pipe-label", "--unit", "works", "--field", "stop=Gedackt 8");
        assertThat(refused.err())
                .contains(
                        "no series is assigned to records of the kind ‘pipe-label’ in the unit ‘works’",
                        "Tried: works (no route), then larkmoor (no route)",
                        "A route can be added by hanna.");
        assertThat(as("tobin", "routes", "add", "pipe-label", "works", "pipe-label")
                        .err())
                .contains("Missing grant: ‘define for unit works’");
        assertThat(as("hanna", "routes", "add", "pipe-label", "works", "pipe-label", "--into", "serial")
                        .err())
                .contains("pipe-label in works now uses the series pipe-label.");
        assertThat(as("hanna", "allocate", "--kind", "pipe-label", "--unit", "works", "--field", "stop=Gedackt 8")
                        .exit())
                .isZero();
        assertThat(as("hanna", "routes", "list", "--series", "pipe-label").out())
                .contains("foundry")
                .contains("works");
        assertThat(as("hanna", "routes", "add", "pipe-label", "works", "pipe-label", "--into", "serial")
                        .err())
                .contains("The route ‘pipe-label in works’ already exists");
        assertThat(as("hanna", "routes", "remove", "pipe-label", "works").exit())
                .isZero();
        assertThat(as("hanna", "routes", "remove", "pipe-label", "works").err())
                .contains("Route ‘pipe-label in works’ not found");
        assertThat(as("hanna", "entry", "list", "--limit", "1").out())
                .contains("remove")
                .contains("route pipe-label in works");
    }

    @Test
    void somebodySignsInAtATerminalAndOut() throws Exception {
        Path config = folder.resolve("config");
        Map<String, String> environment = Map.of("XDG_CONFIG_HOME", config.toString(), "YOUNGTALLY_TOKEN", "");
        Result wrong = CommandLine.client(
                environment,
                "larkmoor-tobin\n",
                List.of("sign-in", "mara", "--password-stdin", "--service", service.address()));
        assertThat(wrong.exit()).isEqualTo(1);
        assertThat(wrong.err()).contains("Wrong account or password");
        assertThat(CommandLine.client(environment, "", List.of("sign-in", "mara", "--service", service.address()))
                        .err())
                .contains("There is no terminal for the password");
        Result in = CommandLine.client(
                environment,
                "larkmoor-mara\n",
                List.of("sign-in", "mara", "--password-stdin", "--service", service.address()));
        assertThat(in.err()).contains("as mara, until 2026-04-01");
        Path kept = config.resolve("youngtally/sign-ins.json");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(kept)))
                .isEqualTo("rw-------");
        assertThat(CommandLine.client(environment, "", List.of("allocate", "drawing", "--service", service.address()))
                        .exit())
                .isZero();
        assertThat(as("hanna", "entry", "list", "--series", "drawing", "--limit", "1")
                        .out())
                .contains("mara");
        assertThat(as("hanna", "account", "show", "mara").out())
                .contains("sign-in on ")
                .contains("in force");
        assertThat(CommandLine.client(environment, "", List.of("sign-out", "--service", service.address()))
                        .err())
                .contains("mara is signed out");
        assertThat(CommandLine.client(environment, "", List.of("allocate", "drawing", "--service", service.address()))
                        .err())
                .contains("Authentication required.", "youngtally sign-in ACCOUNT");
        assertThat(as("hanna", "account", "show", "mara").out()).contains("revoked");
    }

    @Test
    void anAdministratorOpensAnAccountForAProgramAndClosesIt() throws Exception {
        assertThat(as(
                                "hanna",
                                "account",
                                "open",
                                "till",
                                "--program",
                                "--title",
                                "The till",
                                "--grant",
                                "allocate:kind=customer")
                        .err())
                .contains("till is open");
        String token = as(
                        "hanna",
                        "token",
                        "issue",
                        "the till in the shop",
                        "--account",
                        "till",
                        "--expires",
                        "2026-12-31")
                .out()
                .strip();
        assertThat(CommandLine.as(
                                token,
                                folder,
                                service,
                                "allocate",
                                "--kind",
                                "customer",
                                "--unit",
                                "works",
                                "--field",
                                "name=Till")
                        .exit())
                .isZero();
        assertThat(CommandLine.as(token, folder, service, "series", "list").err())
                .contains("Missing grant: ‘read for any series, kind or unit’");
        assertThat(as("hanna", "account", "grant", "till", "read:series=customer")
                        .exit())
                .isZero();
        assertThat(CommandLine.as(token, folder, service, "series", "list").out())
                .contains("customer")
                .doesNotContain("invoice");
        assertThat(as("hanna", "account", "revoke", "till", "read:series=customer", "allocate:kind=customer")
                        .exit())
                .isZero();
        assertThat(CommandLine.as(
                                token,
                                folder,
                                service,
                                "allocate",
                                "--kind",
                                "customer",
                                "--unit",
                                "works",
                                "--field",
                                "name=Till")
                        .err())
                .contains("Missing grant");
        assertThat(as("hanna", "account", "grant", "till", "raed").err())
                .contains("‘raed’ is not a right. Did you mean ‘read’?");
        assertThat(as("hanna", "account", "grant", "till", "read:unit=cares").err())
                .contains("No unit ‘cares’ found. Did you mean ‘care’?");
        assertThat(as("hanna", "account", "open", "till").err()).contains("Account ‘till’ already exists");
        assertThat(as("hanna", "account", "close", "till").exit()).isZero();
        assertThat(CommandLine.as(token, folder, service, "status").err()).contains("The account ‘till’ is closed.");
        assertThat(as("odile", "entry", "list", "--limit", "1").out())
                .contains("hanna  access")
                .contains("closed");
        String password = as("hanna", "account", "open", "new-clerk").out().strip();
        assertThat(password).matches("[a-z2-9]{5}(-[a-z2-9]{5}){3}");
        assertThat(service.tokenOf("new-clerk", password)).startsWith("tally-");
    }

    @Test
    void definitionsOfTheOrganisationAreAppliedExportedAndRefusedWithTheirLines() throws Exception {
        Path file = folder.resolve("branch.yaml");
        Files.writeString(file, """
                units:
                  - { key: branch, title: Branch in the north, below: care, time-zone: Europe/London }
                routes:
                  - { kind: invoice, unit: branch, series: invoice-care }
                  - { kind: customer, unit: branch, when: { class: [school, hall] }, series: customer-school }
                """);
        assertThat(as("hanna", "apply", file.toString(), "--dry-run").out())
                .contains(
                        "new unit branch",
                        "new route invoice in branch",
                        "new route customer in branch when class=school|hall");
        assertThat(as("ines", "apply", file.toString()).err()).contains("Missing grant: ‘define for unit branch’");
        assertThat(as("hanna", "apply", file.toString()).exit()).isZero();
        assertThat(as("hanna", "unit", "list").out()).contains("    branch");
        assertThat(as("hanna", "routes", "grid").out()).contains("branch").contains("customer-school? (customer)");
        assertThat(as("hanna", "export", folder.resolve("out").toString()).exit())
                .isZero();
        assertThat(Files.readString(folder.resolve("out/branch.yaml"))).isEqualTo(Files.readString(file));
        assertThat(organisation(folder.resolve("out/larkmoor.yaml")))
                .isEqualTo(organisation(Path.of("../demo/larkmoor.yaml")));
        Files.writeString(file, """
                kinds:
                  - key: job
                    fields:
                      - { name: number }
                      - { name: size, type: numbr }
                routes:
                  - { kind: customer, unit: care, when: { class: school, tax-number: "7" }, series: customer }
                """);
        Result refused = as("hanna", "apply", file.toString());
        assertThat(refused.err())
                .contains("branch.yaml:5: job: fields[2].type ‘numbr’ is not an option", "did you mean number?");
        Files.writeString(file, Files.readString(file).replace("numbr", "number"));
        assertThat(as("hanna", "apply", file.toString()).err())
                .contains(
                        "branch.yaml:7:",
                        "would be numbered by ‘customer’ and, by the route ‘customer in care when class=school’, by ‘customer-school’");
    }

    /** The units, kinds and routes of a file. */
    private static String organisation(Path file) throws Exception {
        return Files.readString(file).replaceFirst("(?s)^.*\nunits:", "").replaceFirst("(?s)\nseries:.*$", "");
    }

    private static void signedOut() throws Exception {
        browser.open("/account");
        browser.seesEither("Sign out", "Sign in to Young Tally");
        if (browser.text().contains("Sign out")) browser.press("Sign out");
        browser.sees("Sign in to Young Tally");
    }

    @Test
    void inTheConsoleOneSignsInSeesWhatOneMayAndIsToldWhatOneMayNot() throws Exception {
        signedOut();
        browser.open("/series/contract");
        browser.sees("Sign in to Young Tally");
        browser.type("Account", "tobin");
        browser.type("Password", "not-his-password");
        browser.press("Sign in");
        browser.sees("Wrong account or password.");
        browser.type("Password", Service.demoPassword("tobin"));
        browser.enter("Password");
        browser.sees("Maintenance contracts");
        browser.sees("Tobin, clerk of tuning and care");
        assertThat(browser.text())
                .doesNotContain("Accounts")
                .doesNotContain("Starter sets")
                .doesNotContain("Edit");
        browser.type("Reference", "TOWN-HALL");
        browser.press("Allocate the next number");
        browser.sees(
                "‘tobin’ may not allocate numbers at the series ‘contract’. Missing grant: ‘allocate for series contract’");
        assertThat(browser.field("Reference").getDomProperty("value")).isEqualTo("TOWN-HALL");
        browser.open("/series/invoice-works");
        browser.sees("Series ‘invoice-works’ not found among those that ‘tobin’ may see.");
        browser.open("/series");
        browser.sees("Invoices of tuning and care");
        assertThat(browser.text()).doesNotContain("invoice-works");
        signedOut();
    }

    @Test
    void anEmptyCellOfTheGridIsFilledInPlaceByTheKeyboardAlone() throws Exception {
        signedOut();
        browser.signIn("hanna", service.password());
        browser.open("/routes");
        browser.sees("missing routes");
        assertThat(browser.element(cell("Customer", "Tuning and care")).getText())
                .contains("customer-school", "when class=school", "its own", "customer", "from larkmoor");
        browser.script(
                "arguments[0].focus()",
                browser.element(By.cssSelector("[aria-label='Add a route: invoice in foundry']")));
        browser.key(Keys.ENTER);
        browser.sees("into the field");
        new Select(browser.active()).selectByVisibleText("invoice-works");
        browser.key(Keys.chord(Keys.TAB));
        browser.key(Keys.TAB);
        browser.key(Keys.TAB);
        assertThat(browser.active().getText()).isEqualTo("Save");
        browser.key(Keys.ENTER);
        browser.element(By.xpath(cellPath("Invoice", "Pipe foundry") + "[contains(., 'its own')]"));
        assertThat(browser.element(cell("Invoice", "Pipe foundry")).getText()).contains("invoice-works", "its own");
        assertThat(as("hanna", "allocate", "--kind", "invoice", "--unit", "foundry", "--field", "customer=K10000")
                        .out())
                .startsWith("LW26-");
        browser.open("/series/invoice-works");
        browser.sees("invoice in foundry and below");
        assertThat(as("hanna", "routes", "remove", "invoice", "foundry").exit()).isZero();
        signedOut();
    }

    private static By cell(String kind, String unit) {
        return By.xpath(cellPath(kind, unit));
    }

    private static String cellPath(String kind, String unit) {
        var units = new ArrayList<>(List.of("Larkmoor Organ Works", "Organ works", "Tuning and care", "Pipe foundry"));
        return "//tbody//tr[th[starts-with(normalize-space(), '" + kind + "')]]/td[" + (units.indexOf(unit) + 1) + "]";
    }

    private static final String END_SESSION =
            "return fetch('/api/v1/session').then(answer => answer.json()).then(session => fetch('/api/v1/session', { method: 'DELETE', headers: { 'X-CSRF-TOKEN': session.secret } }))";

    /** A session that ends while something is typed costs nothing of it. */
    @Test
    void whoseSessionEndsGoesOnWhereTheyWere() throws Exception {
        signedOut();
        browser.signIn("hanna", service.password());
        browser.open("/series/visit/edit");
        browser.sees("V2603/");
        browser.script(END_SESSION);
        browser.type("Title", "Visits by the tuners");
        browser.sees("The session has ended. Your entries are kept.");
        browser.type("Password", service.password());
        browser.enter("Password");
        browser.seesNoLonger("Sign in again");
        browser.seesNoLonger("cannot be reached");
        assertThat(browser.field("Title").getDomProperty("value")).isEqualTo("Visits by the tuners");
        browser.press("Save the change");
        browser.sees("Next on");
        browser.sees("Visits by the tuners");
        browser.type("Reference", "PAD-9");
        browser.script(END_SESSION);
        browser.key(Keys.ENTER);
        browser.sees("The session has ended.");
        browser.type("Password", service.password());
        browser.enter("Password");
        browser.seesNoLonger("Sign in again");
        assertThat(browser.field("Reference").getDomProperty("value")).isEqualTo("PAD-9");
        browser.press("Allocate the next number");
        browser.sees("Allocated for PAD-9");
        signedOut();
    }

    @Test
    void whoMayNotReadIsShownWhatTheyMayDo() throws Exception {
        Service.Answer opened = service.post(
                "/api/v1/accounts",
                "{\"name\":\"packer\",\"title\":\"Packer\",\"grants\":[{\"right\":\"allocate\",\"scope\":\"series crate-code\"}]}");
        signedOut();
        browser.signIn("packer", opened.text("password"));
        browser.sees("What you may do");
        browser.sees("allocate numbers for series crate-code");
        assertThat(browser.text()).doesNotContain("cannot be reached").doesNotContain("Overview");
        signedOut();
    }

    @Test
    void anAdministratorGivesAGrantInTheConsole() throws Exception {
        signedOut();
        browser.signIn("hanna", service.password());
        browser.open("/accounts/odile");
        browser.sees("read for all");
        browser.choose("Right", "hold numbers");
        browser.choose("for", "unit works");
        browser.press("Grant");
        browser.sees("hold numbers for unit works");
        browser.element(By.cssSelector("[aria-label='Revoke hold for unit works']"))
                .click();
        browser.seesNoLonger("hold numbers for unit works");
        browser.type("What it is for", "the yearly audit");
        browser.press("Issue a token");
        String token = browser.element(By.cssSelector("[data-testid=once]")).getText();
        assertThat(CommandLine.as(token, folder, service, "audit").out()).contains("gap-free");
        browser.element(By.cssSelector("[aria-label='Revoke the yearly audit']"))
                .click();
        browser.sees("revoked");
        assertThat(CommandLine.as(token, folder, service, "audit").err()).contains("was revoked on");
        signedOut();
    }
}
