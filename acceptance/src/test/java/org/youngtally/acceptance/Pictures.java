package org.youngtally.acceptance;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;

/**
 * Takes the pictures of the console that the documentation shows, from the demo data. Argument: the folder to write to.
 */
final class Pictures {
    /** The entry that closes the demo's period. */
    private static final int CLOSING = 85;

    private static final Path PARTS =
            Path.of("../demo/tables/parts-list.csv").toAbsolutePath().normalize();
    private static final Path CASE =
            Path.of("..", "demo", "drawings", "case-front.svg").toAbsolutePath().normalize();
    private static final Path CALL_OUTS =
            Path.of("..", "demo", "rules", "call-outs.yaml").toAbsolutePath().normalize();

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
            browser.open("/life");
            browser.sees("Label printer of the foundry");
            browser.picture(folder.resolve("console-life.png"));
            labels(service, browser, folder);
            page(service, "/closings/" + CLOSING + "/page", folder.resolve("closing-page.png"));
            records(service, browser, folder);
            browser.open("/routes");
            browser.sees("customer-school");
            browser.element(By.cssSelector("[aria-label='Add a route: invoice in foundry']"))
                    .click();
            browser.sees("into the field");
            browser.picture(folder.resolve("console-routes.png"));
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
            browser.open("/documents");
            browser.element(By.cssSelector("input[type=file]")).sendKeys(CASE + "\n" + CALL_OUTS);
            browser.sees("40 changes, 0 unchanged");
            browser.holds("document.querySelectorAll('[data-item] span').length === 40");
            browser.picture(folder.resolve("console-document.png"));
        }
    }

    /** A layout beside its picture, and labels as they are printed: on a sheet, on a roll, on a crate. */
    private static void labels(Service service, Browser browser, Path folder) throws Exception {
        browser.open("/labels/layouts/crate-label");
        browser.sees("Shipping label of a crate");
        browser.choose("Numbers of", "Shipping codes of transport crates");
        browser.type("Building site", "Saint Aldric, Larkmoor");
        browser.sees("1 label on 1 page");
        browser.seesNoLonger("cannot be printed");
        browser.picture(folder.resolve("console-layout.png"));
        preview(
                service,
                "{\"layout\":\"shelf-label\",\"series\":\"part\",\"quantity\":24}",
                "pdf",
                folder.resolve("label-sheet.png"));
        preview(
                service,
                "{\"layout\":\"pipe-label\",\"series\":\"pipe-label\",\"fields\":{\"stop\":\"Gamba\"}}",
                "png",
                folder.resolve("label-roll.png"));
        preview(
                service,
                "{\"layout\":\"crate-label\",\"series\":\"crate-code\",\"fields\":{\"site\":\"Saint Aldric, Larkmoor\"}}",
                "png",
                folder.resolve("label-shipping.png"));
    }

    private static void preview(Service service, String request, String format, Path picture) throws Exception {
        byte[] file = HttpClient.newHttpClient()
                .send(
                        service.request("/api/v1/label-preview-files?format=" + format)
                                .header("Content-Type", "application/json")
                                .POST(HttpRequest.BodyPublishers.ofString(request))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray())
                .body();
        if (format.equals("png")) {
            Files.write(picture, file);
            return;
        }
        try (PDDocument document = Loader.loadPDF(file)) {
            ImageIO.write(new PDFRenderer(document).renderImageWithDPI(0, 80), "png", picture.toFile());
        }
    }

    /** A job whose roll jams: what came out, what is on its way, what waits. */
    private static void job(Service service, Browser browser, Path picture) throws Exception {
        String jobs = "/api/v1/label-jobs";
        String printer = service.get("/api/v1/printers").json().at("/0/address").asString();
        service.put("/api/v1/simulated-printer", "{\"trouble\":\"jam\",\"behind\":120}");
        String job = jobs + "/"
                + service.post(
                                jobs,
                                "{\"layout\":\"pipe-label\",\"series\":\"pipe-label\",\"unit\":\"foundry\",\"quantity\":500,\"fields\":{\"stop\":\"Gamba\"},\"printer\":\""
                                        + printer + "\"}")
                        .json()
                        .at("/summary/job")
                        .asLong();
        browser.open(job.replace(jobs, "/labels/jobs"));
        browser.sees("media jam");
        browser.script("document.querySelector('#printer').scrollIntoView()");
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
