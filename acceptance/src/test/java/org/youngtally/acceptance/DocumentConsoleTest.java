package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** The page on which the draughtsperson numbers a drawing. */
class DocumentConsoleTest {
    private static final String DRAWING = """
            <svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 200" onload="parent.document.title = 'ran'">
              <script>parent.document.title = "ran"</script>
              <image href="/api/v1/series" width="9" height="9" onerror="parent.document.title = 'ran'"/>
              <path id="bow" d="M20 150 Q150 90 280 150"/>
              <text id="a" class="call-out" x="30" y="40">00</text>
              <text id="b" class="call-out" x="130" y="42">00</text>
              <text id="c" class="call-out" x="230" y="39">00</text>
              <text><textPath href="#bow"><tspan id="d" class="bow">00</tspan></textPath></text>
            </svg>
            """;

    @TempDir
    private static Path folder;

    private static Service service;

    private Browser browser;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
        Files.writeString(folder.resolve("front.svg"), DRAWING);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void open() throws Exception {
        browser = new Browser(service.address());
        browser.signIn("hanna", Service.demoPassword("hanna"));
        browser.open("/documents");
        browser.element(By.cssSelector("input[type=file]"))
                .sendKeys(folder.resolve("front.svg").toString());
        browser.sees("3 changes, 0 unchanged");
    }

    @AfterEach
    void close() throws Exception {
        browser.close();
    }

    private WebElement mark(String item) {
        return browser.element(By.cssSelector("[data-item='1:" + item + "']"));
    }

    private void pick(String... items) {
        for (String item : items) {
            mark(item).click();
            browser.holds("document.querySelector(\"[data-item='1:" + item + "']\").ariaPressed === 'true'");
        }
        browser.sees(items.length + (items.length == 1 ? " change, 0" : " changes, 0"));
    }

    private List<String> changed() {
        return browser.element(By.cssSelector("table")).findElements(By.cssSelector("tbody tr")).stream()
                .map(row -> row.getText().replaceAll("\\s+", " ").replaceAll(" [↑↓]", ""))
                .toList();
    }

    private void rule(String text) {
        WebElement rule = browser.element(By.tagName("textarea"));
        rule.sendKeys(Keys.chord(Keys.CONTROL, "a"));
        rule.sendKeys(text);
    }

    @Test
    void aRuleShowsTheNewNumbersOverTheDrawing() {
        assertThat(mark("c").getText()).isEqualTo("3");
    }

    @Test
    void whatIsPickedIsNumberedInThatOrder() {
        pick("c", "a");
        assertThat(changed()).containsExactly("1:c 00 1", "1:a 00 2");
    }

    @Test
    void pickingOnceMoreTakesAPickBack() {
        pick("c", "a");
        mark("c").click();
        browser.sees("1 change, 0 unchanged");
        assertThat(changed()).containsExactly("1:a 00 1");
    }

    @Test
    void withTheKeyboardAloneAsWell() {
        mark("b").sendKeys(Keys.ENTER);
        browser.sees("1 change, 0 unchanged");
        assertThat(changed()).containsExactly("1:b 00 1");
    }

    @Test
    void aChangeMovesToAnotherPlace() {
        browser.element(By.cssSelector("[aria-label='Move 1:c up']")).click();
        browser.holds("document.querySelector('tbody tr:nth-child(2)').textContent.includes('1:c')");
        assertThat(changed()).containsExactly("1:a 00 1", "1:c 00 2", "1:b 00 3");
    }

    @Test
    void aChangeIsDraggedToAnotherPlace() {
        browser.script("""
                const rows = document.querySelectorAll('tbody tr');
                const drag = (row, type) => row.dispatchEvent(new DragEvent(type, { bubbles: true, cancelable: true }));
                drag(rows[2], 'dragstart');
                setTimeout(() => { drag(rows[0], 'dragover'); drag(rows[0], 'drop'); }, 50);
                """);
        browser.holds("document.querySelector('tbody tr').textContent.includes('1:c')");
        assertThat(changed()).containsExactly("1:c 00 1", "1:a 00 2", "1:b 00 3");
    }

    @Test
    void theNumberedDrawingIsDownloadedWithEveryOtherByteAsItWas() throws Exception {
        pick("b", "c", "a");
        browser.press("Number");
        browser.sees("3 changed, 0 unchanged");
        browser.element(By.linkText("Download front-numbered.svg")).click();
        assertThat(browser.downloaded("front-numbered.svg"))
                .isEqualTo(DRAWING.replace("y=\"40\">00", "y=\"40\">3")
                        .replace("y=\"42\">00", "y=\"42\">1")
                        .replace("y=\"39\">00", "y=\"39\">2"));
    }

    @Test
    void nothingInTheDrawingRunsAndNothingIsFetched() {
        assertThat(browser.script("return document.title")).isNotEqualTo("ran");
        assertThat(browser.element(By.tagName("iframe")).getDomAttribute("sandbox"))
                .isEqualTo("allow-same-origin");
        assertThat(
                        browser.script(
                                "return document.querySelector('iframe').contentDocument.querySelector('image').getBBox().width === 9"
                                        + " && performance.getEntriesByType('resource').every(each => each.initiatorType !== 'image')"))
                .isEqualTo(true);
    }

    /** The file does not say where a text along a path comes to lie: the browser does. */
    @Test
    void aTextAlongAPathHasThePlaceWhereItIsDrawn() {
        rule("choose:\n- { attribute: class, values: [bow] }\norder:\n- { by: x }\npattern: \"{count}\"\n");
        browser.sees("1 change, 0 unchanged");
        assertThat(changed()).containsExactly("1:d 00 1");
    }

    @Test
    void aRuleThatIsWrongSaysInWhichLine() {
        rule("number: missing\npattern: \"{count\"\n");
        browser.sees("Line 2: pattern column 1: this brace is not closed");
        assertThat(browser.element(By.xpath("//button[.='Number']")).isEnabled())
                .isFalse();
    }

    @Test
    void numbersOfASeriesAreReturnedWhereNobodySawThem() {
        rule("choose:\n- { attribute: class, values: [call-out] }\nseries: part\ndocument: front\n");
        browser.sees("3 to allocate");
        browser.press("Number");
        browser.sees("3 numbers were allocated");
        browser.press("Return the numbers");
        browser.sees("3 numbers returned. Do not use the numbered files.");
    }

    private void choose(int field, Path file) {
        WebElement input = browser.element(By.xpath("(//input[@type='file'])[" + field + "]"));
        // What was chosen before would be chosen again.
        browser.script("arguments[0].value = ''", input);
        input.sendKeys(file.toString());
    }

    private static Path demo(String file) {
        return Path.of("..", "demo", file).toAbsolutePath().normalize();
    }

    @Test
    void theProductsOfAnAssemblyAreListedAndPickedOneByOne() {
        choose(1, demo("rules/parts.yaml"));
        choose(1, demo("parts/choir-chest.stp"));
        browser.sees("40 changes, 0 unchanged, 40 to allocate");
        browser.element(By.cssSelector("[data-item='1:#83']")).click();
        browser.sees("1 change, 0 unchanged, 1 to allocate");
        assertThat(changed().getFirst()).matches("1:#83 Part5 (WC-PA-[0-9]{4}) \\1 Pallet C♯");
    }

    @Test
    void aNumberedAssemblyIsDownloaded() throws Exception {
        Files.writeString(
                folder.resolve("own.yaml"),
                Files.readString(demo("rules/parts.yaml")).replace("\"{file}\"", "own"));
        choose(1, folder.resolve("own.yaml"));
        choose(1, demo("parts/choir-chest.stp"));
        browser.sees("40 changes, 0 unchanged, 40 to allocate");
        browser.press("Number");
        browser.sees("40 changed, 0 unchanged");
        browser.element(By.linkText("Download choir-chest-numbered.stp")).click();
        assertThat(browser.downloaded("choir-chest-numbered.stp")).containsPattern("#83=PRODUCT[(]'WC-PA-[0-9]{4}'");
    }

    @Test
    void aProgramWithItsTableShowsItsLinesAndIsDownloadedUnderTheNameOfItsJob() throws Exception {
        String rule = Files.readString(demo("rules/stop-plates.yaml"))
                .replace("{ name: order, value: \"\" }", "{ name: order, value: LW26-77 }");
        Files.writeString(folder.resolve("plates.yaml"), rule);
        choose(1, folder.resolve("plates.yaml"));
        choose(1, demo("programs/stop-plates.nc"));
        choose(2, demo("programs/stop-plates.csv"));
        browser.sees("97 lines to change");
        browser.press("Number");
        browser.sees("48 changed, 0 unchanged, 98 values in their places");
        browser.element(By.linkText("Download LW26-77 stop-plates.nc")).click();
        assertThat(browser.downloaded("LW26-77 stop-plates.nc")).contains("L1 \"Principal 8\" H5.0");
    }
}
