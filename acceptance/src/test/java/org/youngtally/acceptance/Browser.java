package org.youngtally.acceptance;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.Select;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Headless Chromium on the console, used as a person would: by what is written on the page. */
final class Browser implements AutoCloseable {
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    /** One for all tests of this process: it takes seconds to start, and is emptied between two users. */
    private static Running shared;

    private static boolean inUse;

    private final Running running;
    private final ChromeDriver driver;
    private final String address;

    /** A browser that runs, and its folder. */
    private record Running(ChromeDriver driver, Path profile) {
        Path downloads() {
            return profile.resolve("downloads");
        }

        void quit() {
            driver.quit();
            try {
                Folders.delete(profile);
            } catch (IOException e) {
                System.err.println(profile + " could not be deleted: " + e.getMessage());
            }
        }
    }

    /** While another one is open this is one by itself. */
    Browser(String address) throws IOException {
        this.address = address;
        if (inUse) this.running = start();
        else {
            if (shared == null) {
                shared = start();
                Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().unstarted(shared::quit));
            }
            this.running = shared;
            inUse = true;
        }
        this.driver = running.driver();
        size(1280, 800);
    }

    private static Running start() throws IOException {
        Path profile = Files.createTempDirectory("console-test");
        var options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments(
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-dev-shm-usage",
                "--lang=en-GB",
                "--user-data-dir=" + profile);
        options.setExperimentalOption(
                "prefs",
                Map.of(
                        "download.default_directory",
                        profile.resolve("downloads").toString()));
        var service = new ChromeDriverService.Builder()
                .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                .build();
        var driver = new ChromeDriver(service, options);
        driver.manage().timeouts().scriptTimeout(PATIENCE);
        return new Running(driver, profile);
    }

    void size(int width, int height) {
        driver.manage().window().setSize(new Dimension(width, height));
        // The window's own frame takes some of it, so that the page gets what was asked for.
        int frameWidth = width - ((Number) driver.executeScript("return innerWidth")).intValue();
        int frameHeight = height - ((Number) driver.executeScript("return innerHeight")).intValue();
        if (frameWidth != 0 || frameHeight != 0)
            driver.manage().window().setSize(new Dimension(width + frameWidth, height + frameHeight));
    }

    /** Signs in and waits for the pages. */
    void signIn(String account, String password) {
        open("/");
        type("Account", account);
        type("Password", password);
        press("Sign in");
        sees("Sign out");
    }

    void open(String path) {
        driver.get(address + path);
    }

    String path() {
        return driver.getCurrentUrl().substring(address.length());
    }

    /** Waits for an element, and gives it. */
    WebElement element(By by) {
        return waiting().until(each -> each.findElement(by));
    }

    /** The field with this label. */
    WebElement field(String label) {
        WebElement found = element(By.xpath("//label[contains(normalize-space(), '" + label + "')]"));
        String id = found.getDomAttribute("for");
        return id != null ? element(By.id(id)) : found.findElement(By.cssSelector("input, select, textarea"));
    }

    /** Chooses an option by what it says. */
    void choose(String label, String option) {
        new Select(field(label)).selectByVisibleText(option);
    }

    /** Puts a text into a field in place of what stands there. */
    void type(String label, String text) {
        WebElement field = field(label);
        field.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
        field.sendKeys(text);
    }

    /** Ends what is typed into a field with Enter. */
    void enter(String label) {
        field(label).sendKeys(Keys.ENTER);
    }

    void press(String button) {
        element(By.xpath("//*[self::button or self::a][normalize-space() = '" + button + "']"))
                .click();
    }

    /** Waits until a text stands on the page. */
    void sees(String text) {
        waiting()
                .withMessage(() -> "‘" + text + "’ does not appear on the page, which says: " + text())
                .until(each -> text().contains(text));
    }

    /** Waits until one of two texts stands on the page. */
    void seesEither(String one, String other) {
        waiting()
                .withMessage(() -> "neither ‘" + one + "’ nor ‘" + other + "’ appears on the page")
                .until(each -> text().contains(one) || text().contains(other));
    }

    void seesNoLonger(String text) {
        waiting().withMessage(() -> "‘" + text + "’ stays on the page").until(each -> !text().contains(text));
    }

    /** Waits until a script says true, and the page shows what came of it. */
    void holds(String script) {
        waiting()
                .withMessage(() -> "this stays untrue: " + script)
                .until(each -> Boolean.TRUE.equals(driver.executeScript("return " + script)));
        driver.executeAsyncScript("requestAnimationFrame(() => requestAnimationFrame(arguments[0]))");
    }

    String text() {
        return driver.findElement(By.tagName("body")).getText();
    }

    void key(CharSequence keys) {
        driver.switchTo().activeElement().sendKeys(keys);
    }

    WebElement active() {
        return driver.switchTo().activeElement();
    }

    Object script(String script, Object... arguments) {
        return driver.executeScript(script, arguments);
    }

    Object scriptAsync(String script) {
        return driver.executeAsyncScript(script);
    }

    /** Waits until a file was downloaded whole, and gives its text. */
    String downloaded(String name) throws IOException {
        waiting().until(each -> Files.exists(running.downloads().resolve(name)));
        return Files.readString(running.downloads().resolve(name));
    }

    void picture(Path file) throws IOException {
        driver.executeAsyncScript("""
                const done = arguments[arguments.length - 1];
                const moving = document.getAnimations().filter((each) => each.effect.getComputedTiming().iterations !== Infinity).map((each) => each.finished);
                Promise.allSettled([document.fonts.ready, ...moving]).then(() => requestAnimationFrame(() => requestAnimationFrame(done)));
                """);
        Files.createDirectories(file.getParent());
        Files.write(file, driver.getScreenshotAs(OutputType.BYTES));
    }

    private WebDriverWait waiting() {
        var wait = new WebDriverWait(driver, PATIENCE, Duration.ofMillis(25));
        wait.ignoring(StaleElementReferenceException.class);
        return wait;
    }

    /** Nothing is left for the next one: no page that asks its service for more, no cookie, no receipt, no download. */
    @Override
    public void close() throws IOException {
        if (running != shared) {
            running.quit();
            return;
        }
        driver.get("about:blank");
        driver.executeCdpCommand("Network.clearBrowserCookies", Map.of());
        driver.executeCdpCommand("Storage.clearDataForOrigin", Map.of("origin", address, "storageTypes", "all"));
        Folders.delete(running.downloads());
        inUse = false;
    }
}
