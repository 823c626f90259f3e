package org.youngtally.acceptance;

import java.nio.file.Path;

/** Takes the pictures of the console that the documentation shows, from the demo data. Argument: the folder to write to. */
final class Pictures {
    private Pictures() {}

    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        try (Service service = Service.demo(); Browser browser = new Browser(service.address())) {
            browser.open("/");
            browser.sees("CAST-005");
            browser.sees("ORDER-889");
            browser.picture(folder.resolve("console-overview.png"));
            browser.open("/series");
            browser.sees("P-100640");
            browser.picture(folder.resolve("console-series.png"));
            browser.open("/series/invoice-works");
            browser.sees("LW26-00029");
            browser.type("What for", "ORDER-890");
            browser.press("Take the next number");
            browser.sees("Taken for ORDER-890");
            browser.sees("LW26-00030");
            browser.picture(folder.resolve("console-series-page.png"));
            browser.type("Quantity", "200000");
            browser.press("Take 200,000 numbers");
            browser.sees("is more than");
            browser.picture(folder.resolve("console-refusal.png"));
            browser.open("/new");
            browser.type("Key", "crate");
            browser.type("Title", "Transport crates");
            browser.type("Pattern", "C{date yyMM}-{count 4}");
            browser.field("The count restarts").sendKeys("each month");
            browser.type("Last", "9999");
            browser.sees("C2603-0010");
            browser.picture(folder.resolve("console-editor.png"));
            browser.type("Pattern", "C{date MM}-{count 4}");
            browser.sees("would arise in two ways");
            browser.picture(folder.resolve("console-editor-fault.png"));
            browser.script("document.documentElement.dataset.theme = 'night'");
            browser.open("/");
            browser.script("localStorage.setItem('look', 'night')");
            browser.open("/");
            browser.sees("ORDER-890");
            browser.picture(folder.resolve("console-night.png"));
            browser.size(390, 844);
            browser.open("/series/visit");
            browser.sees("Tuning visits");
            browser.picture(folder.resolve("console-narrow.png"));
        }
    }
}
