package org.youngtally.acceptance;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import tools.jackson.databind.node.ObjectNode;

/**
 * Takes the pictures of the console that the documentation shows, from the demo data. Argument: the folder to write to.
 */
final class Pictures {
    /** The entry that closes the demo's period. */
    private static final int CLOSING = 85;

    private static final Path PARTS =
            Path.of("../demo/tables/parts-list.csv").toAbsolutePath().normalize();

    private Pictures() {}

    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        try (Service service = Service.demo();
                Browser browser = new Browser(service.address())) {
            browser.signIn("hanna", service.password());
            terminal(service, browser, folder.resolve("terminal.png"));
            browser.open("/");
            browser.sees("CAST-005");
            browser.sees("record saved");
            browser.picture(folder.resolve("console-overview.png"));
            browser.open("/series");
            browser.sees("P-100640");
            browser.picture(folder.resolve("console-series.png"));
            browser.open("/series/invoice-works");
            browser.sees("LW26-00029");
            browser.type("Reference", "ORDER-890");
            browser.press("Allocate the next number");
            browser.sees("Allocated for ORDER-890");
            browser.sees("LW26-00030");
            browser.sees("99,979 left");
            browser.picture(folder.resolve("console-series-page.png"));
            browser.open("/new");
            browser.type("Key", "crate");
            browser.type("Title", "Transport crates");
            browser.type("Pattern", "C{date yyMM}-{count 4}");
            browser.field("each month").click();
            browser.type("Last", "9999");
            browser.sees("C2603-0010");
            browser.script("scrollTo(0, 0)");
            browser.picture(folder.resolve("console-editor.png"));
            browser.type("Pattern", "C{date MM}-{count 4 safe}");
            browser.sees("would be issued twice");
            browser.script("scrollTo(0, 0)");
            browser.picture(folder.resolve("console-editor-fault.png"));
            browser.open("/life");
            browser.sees("Label printer of the foundry");
            browser.picture(folder.resolve("console-life.png"));
            labels(browser, folder.resolve("console-labels.png"));
            page(service, "/closings/" + CLOSING + "/page", folder.resolve("closing-page.png"));
            records(service, browser, folder);
            browser.open("/routes");
            browser.sees("customer-school");
            browser.element(By.cssSelector("[aria-label='Add a route: invoice in foundry']"))
                    .click();
            browser.sees("into the field");
            browser.picture(folder.resolve("console-routes.png"));
            browser.open("/accounts/tobin");
            browser.sees("Issue a token");
            browser.picture(folder.resolve("console-account.png"));
            conflict(service, browser, folder.resolve("console-conflict.png"));
            browser.open("/tables");
            browser.field("Table").sendKeys(PARTS.toString());
            browser.choose("Series of the numbers", "Parts");
            browser.press("Inspect");
            browser.sees("P-1O0560");
            browser.script("document.getElementById('findings').scrollIntoView()");
            browser.picture(folder.resolve("console-inspection.png"));
            browser.open("/tables/repair");
            browser.field("Table").sendKeys(PARTS.toString());
            browser.choose("Series of the numbers", "Parts");
            browser.press("Plan");
            browser.sees("Plan for parts-list.csv");
            browser.script("document.getElementById('plan').scrollIntoView()");
            browser.picture(folder.resolve("console-repair.png"));
            job(service, browser, folder.resolve("console-label-job.png"));
            browser.script("localStorage.setItem('look', 'night')");
            browser.size(390, 844);
            browser.open("/series/visit");
            browser.sees("Tuning visits");
            browser.picture(folder.resolve("console-narrow.png"));
        }
    }

    /** A stack of labels before it is printed. */
    private static void labels(Browser browser, Path picture) throws IOException {
        browser.open("/labels");
        browser.choose("Layout", "Label of a pipe, 62 × 29 mm");
        browser.choose("Numbers of", "Pipe label");
        browser.choose("Unit", "Pipe foundry");
        browser.type("Quantity", "500");
        browser.type("Stop", "Gamba");
        browser.sees("500 labels on 500 pages");
        browser.holds("document.querySelectorAll('img[alt$=expected]').length === 12");
        browser.picture(picture);
    }

    /** A job whose roll jammed: what came out, what is spoiled, what is printed again. */
    private static void job(Service service, Browser browser, Path picture) throws IOException {
        String jobs = "/api/v1/label-jobs";
        String job = jobs + "/"
                + service.post(
                                jobs,
                                "{\"layout\":\"pipe-label\",\"series\":\"pipe-label\",\"unit\":\"foundry\",\"quantity\":500,\"fields\":{\"stop\":\"Gamba\"}}")
                        .json()
                        .at("/summary/job")
                        .asLong();
        service.post(job + "/outputs", "");
        service.post(job + "/confirmations", "{\"places\":[\"1-119\"]}");
        service.post(job + "/spoilages", "{\"places\":[\"120\"],\"reason\":\"the roll jammed\"}");
        service.post(job + "/reprints", "{\"places\":[\"121-140\"],\"reason\":\"the roll jammed\"}");
        browser.open(job.replace(jobs, "/labels/jobs"));
        browser.sees("What was done");
        browser.script("document.querySelector('#labels').scrollIntoView()");
        browser.picture(picture);
    }

    /** Two people change one series. */
    private static void conflict(Service service, Browser browser, Path picture) throws Exception {
        browser.open("/series/contract/edit");
        browser.sees("CT2526-0001");
        browser.type("Title", "Contracts of tuning and care");
        ObjectNode definition =
                (ObjectNode) service.get("/api/v1/series/contract/definition").json();
        definition.put("title", "Contracts for maintenance");
        ((ObjectNode) definition.get("ranges").get(0)).put("warnWhenLeft", 50);
        service.put("/api/v1/series/contract/definition", definition.toString(), "If-Match", "\"1\"");
        browser.press("Save the change");
        browser.sees("while you were editing it");
        browser.script("scrollTo(0, document.body.scrollHeight)");
        browser.picture(picture);
    }

    /** A record that is being written, one that is in two units, and one on paper. */
    private static void records(Service service, Browser browser, Path folder) throws Exception {
        browser.open("/records/new?kind=customer&unit=care");
        browser.sees("allocated on saving");
        browser.type("Name", "Little Marrow Town Band");
        browser.choose("Class", "Private house (house)");
        browser.type("Town", "Little Marrow");
        browser.key(Keys.ENTER);
        browser.sees("Saved");
        browser.type("Name", "Tallowmere");
        browser.sees("Possible duplicates");
        browser.picture(folder.resolve("console-record-new.png"));
        browser.open("/records/1");
        browser.sees("shared in Tuning and care");
        browser.press("Tuning and care");
        browser.picture(folder.resolve("console-record.png"));
        page(service, "/records/5/page", folder.resolve("record-page.png"));
    }

    /** A page as it is printed. */
    private static void page(Service service, String path, Path picture) throws Exception {
        byte[] pdf = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(service.address() + "/api/v1" + path))
                                .header("Authorization", Service.bearer(service.token()))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray())
                .body();
        try (PDDocument document = Loader.loadPDF(pdf)) {
            ImageIO.write(new PDFRenderer(document).renderImageWithDPI(0, 80), "png", picture.toFile());
        }
    }

    /** What some commands print, set in a page as a terminal would show it. */
    private static void terminal(Service service, Browser browser, Path picture) throws Exception {
        var text = new StringBuilder();
        for (List<String> command : List.of(
                List.of("series", "list"),
                List.of("allocate", "visit", "--quantity", "2", "--reference", "PAD-3"),
                List.of("allocate", "component", "--field", "group=Action", "--field", "kind=Palet"),
                List.of("find", "V2603/05"),
                List.of("audit"))) {
            text.append("$ youngtally ").append(String.join(" ", command)).append('\n');
            var all = new ArrayList<>(
                    List.of(Service.JAVA.toString(), "-jar", Service.jar("cli").toString()));
            all.addAll(command);
            var builder = new ProcessBuilder(all).redirectErrorStream(true);
            builder.environment().put("YOUNGTALLY_SERVICE", service.address());
            builder.environment().put("YOUNGTALLY_TOKEN", service.token());
            text.append(new String(builder.start().getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                    .append('\n');
        }
        browser.open("/nowhere");
        browser.script(
                "document.body.innerHTML = ''; const pre = document.createElement('pre'); pre.textContent = arguments[0]; pre.style.cssText = 'margin:0;padding:20px;min-height:100vh;overflow:hidden;background:#12191e;color:#e4ded0;font:10.5px/1.28 \"Spline Sans Mono Variable\"'; document.body.append(pre)",
                text.toString());
        browser.picture(picture);
    }
}
