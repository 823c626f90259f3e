package org.youngtally.service.demo;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;

/** The main job from end to end: define, take one, take five, look one up, audit. */
final class DemoSteps {
    private final DemoAccounts accounts;
    private final DemoClient client;
    private final PrintWriter out;

    DemoSteps(DemoAccounts accounts, DemoClient client, PrintWriter out) {
        this.accounts = accounts;
        this.client = client;
        this.out = out;
    }

    /**
     * Prints each step with its result.
     *
     * @return whether all came out as they must
     */
    boolean run() throws IOException {
        step("Define the series of Larkmoor Organ Works");
        for (JsonNode series : client.apply("hanna", "larkmoor.yaml", DemoFiles.text("larkmoor.yaml"))
                .get("series"))
            out.printf(
                    "   %-9s %-14s %-30s begins with %s%n",
                    text(series, "change"),
                    text(series, "key"),
                    text(series, "title"),
                    series.get("next").isEmpty()
                            ? "depends on fields"
                            : series.get("next").get(0).stringValue());

        accounts.openOthers();

        step("Allocate one invoice number");
        JsonNode one = client.allocate(
                "ines", "invoice-works", 1, "2026-02-03", Optional.of("ORDER-881"), Map.of(), "demo-once-1");
        out.println("   " + text(one, "first") + " for ORDER-881, entry "
                + one.get("seq").longValue());

        step("Allocate five more");
        List<String> five = new ArrayList<>();
        for (JsonNode identifier : client.allocate(
                        "ines", "invoice-works", 5, "2026-02-03", Optional.empty(), Map.of(), "demo-once-5")
                .get("identifiers")) five.add(identifier.stringValue());
        out.println("   " + String.join("  ", five));

        step("Find one");
        JsonNode found = client.find("ines", five.get(2)).get(0);
        out.println("   " + text(found, "identifier") + " is a number of ‘" + text(found, "title") + "’, lane "
                + text(found, "lane") + ", position " + (found.get("position").longValue() + 1) + ", allocated by "
                + text(found, "by") + " for " + text(found, "date"));

        step("Audit the ledger");
        JsonNode audit = client.audit("odile");
        boolean gapFree = audit.get("gapFree").booleanValue();
        out.println("   " + audit.get("entries").longValue() + " entries and "
                + audit.get("positions").longValue() + " positions read: "
                + (gapFree ? "gap-free, no number issued twice" : "NOT gap-free"));
        for (JsonNode finding : audit.get("findings")) out.println("   " + finding.stringValue());
        out.println("   head " + text(audit, "head"));
        return gapFree
                && five.size() == 5
                && text(one, "first").equals("LW26-00001")
                && five.getLast().equals("LW26-00006");
    }

    private int number;

    private void step(String title) {
        out.println(++number + ". " + title);
    }

    private static String text(JsonNode node, String name) {
        return node.get(name).stringValue();
    }
}
