package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.youngtally.acceptance.CommandLine.Result;

/**
 * Tables that were there before: repaired at a terminal, over HTTP and in the console. Each test has its own series.
 */
class RepairedTableTest {
    private static final String LIST = "No,Name\nA-003,Roller\n,Backfall\nA-001,Tracker\nA-003,Sticker\n";
    private static final String REPAIRED = "No,Name\nA-003,Roller\nA-002,Backfall\nA-001,Tracker\nA-004,Sticker\n";
    private static final AtomicInteger NAMES = new AtomicInteger();

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    /** A series of its own, and the table with its numbers. */
    private record Own(String series, String letter, Path table) {
        String text(String list) {
            return list.replace("A-", letter + "-");
        }

        Path plan() {
            return table.resolveSibling(series + "-plan.json");
        }

        Path repaired() {
            return table.resolveSibling(series + "-repaired.csv");
        }
    }

    private static Own own(String list) throws Exception {
        int number = NAMES.incrementAndGet();
        String letter = String.valueOf((char) ('A' + number));
        String series = "list-" + number;
        assertThat(service.apply("series: [{ key: " + series + ", pattern: '" + letter
                                + "-{count 3}', ranges: [{ first: 1, last: 999, opens: 2020-01-01 }] }]")
                        .status())
                .isEqualTo(200);
        var own = new Own(series, letter, folder.resolve(series + ".csv"));
        Files.writeString(own.table(), own.text(list));
        return own;
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static Result plan(Own own, String... more) throws Exception {
        var all = new ArrayList<>(List.of("table", "plan", own.table().toString(), "--series", own.series()));
        all.addAll(List.of(more));
        return run(all.toArray(String[]::new));
    }

    private static Result carryOut(Own own, String... more) throws Exception {
        var all = new ArrayList<>(List.of("table", "carry-out", own.plan().toString()));
        all.addAll(List.of(more));
        return run(all.toArray(String[]::new));
    }

    @Test
    void aTableIsPlannedAndRepairedAtTheTerminal() throws Exception {
        Own own = own(LIST);
        plan(own);
        assertThat(carryOut(own).exit()).isZero();
        assertThat(own.repaired()).hasContent(own.text(REPAIRED));
    }

    @Test
    void theOldNumberStandsInAColumnOfItsOwn() throws Exception {
        Own own = own(LIST);
        plan(own);
        carryOut(own, "--old-column", "Was");
        assertThat(own.repaired()).content().contains(own.text("A-004,Sticker,A-003"));
    }

    @Test
    void theSamePlanAgainComesToTheSameTable() throws Exception {
        Own own = own(LIST);
        plan(own);
        carryOut(own);
        Path again = folder.resolve(own.series() + "-again.csv");
        carryOut(own, "--output", again.toString());
        assertThat(again).hasSameTextualContentAs(own.repaired());
    }

    @Test
    void aTableThatChangedSinceIsNotRepaired() throws Exception {
        Own own = own(LIST);
        plan(own);
        Files.writeString(own.table(), own.text(LIST) + ",Square\n");
        assertThat(carryOut(own).err()).contains("changed since the plan was made. Plan again with:");
    }

    @Test
    void aPlanThatWasEditedIsNotCarriedOut() throws Exception {
        Own own = own(LIST);
        plan(own);
        Files.writeString(own.plan(), Files.readString(own.plan()).replace(own.text("A-004"), own.text("A-005")));
        assertThat(carryOut(own).err()).contains("The plan is not that of this table and ledger.");
    }

    @Test
    void aPlanIsRefusedOnceANumberWasAllocated() throws Exception {
        Own own = own(LIST);
        plan(own);
        run("allocate", own.series());
        assertThat(carryOut(own).err()).contains("changed since the plan was made");
    }

    @Test
    void gapsAreNotClosedWithoutAReason() throws Exception {
        Own own = own("No,Name\nA-005,Roller\n");
        plan(own, "--gaps", "close");
        assertThat(carryOut(own).err()).contains("A reason is required.");
    }

    @Test
    void whoMayNotDefineRepairsNothing() throws Exception {
        Own own = own(LIST);
        plan(own);
        service.post(
                "/api/v1/accounts",
                "{\"name\":\"" + own.series() + "\",\"sort\":\"program\",\"grants\":"
                        + "[{\"right\":\"read\",\"scope\":\"all\"},{\"right\":\"allocate\",\"scope\":\"all\"}]}");
        String token = service.post("/api/v1/accounts/" + own.series() + "/tokens", "{\"name\":\"clerk\"}")
                .text("token");
        assertThat(CommandLine.as(
                                token,
                                folder,
                                service,
                                "table",
                                "carry-out",
                                own.plan().toString())
                        .err())
                .contains("Missing grant");
    }

    @Test
    void aRightOnOneSeriesCarriesOutNoPlanOfAnother() throws Exception {
        Own own = own(LIST);
        Own other = own(LIST);
        plan(own);
        carryOut(own);
        String digest =
                service.get("/api/v1/table-plans").json().get(0).get("digest").asString();
        assertThat(service.send(service.request(
                                        "/api/v1/series/" + other.series() + "/table-repairs?name=a.csv&plan=" + digest)
                                .header("Content-Type", "application/octet-stream")
                                .POST(HttpRequest.BodyPublishers.ofFile(own.table())))
                        .text("detail"))
                .isEqualTo("The plan is not that of this table and ledger.");
    }

    @Test
    void aPlanThatIsNotOpenCannotBeAbandoned() throws Exception {
        assertThat(run("table", "abandon", "1", "--reason", "the wrong file").err())
                .contains("Entry 1 has no open plan for a table.");
    }

    @Test
    void aSeriesContinuesBehindNumbersFromElsewhere() throws Exception {
        Own own = own(LIST);
        run("series", "continue", own.series(), "--after", own.text("A-200"), "--reason", "the old book");
        assertThat(run("allocate", own.series()).out()).isEqualTo(own.text("A-201\n"));
    }

    @Test
    void aDryRunContinuesNothing() throws Exception {
        Own own = own(LIST);
        run("series", "continue", own.series(), "--from", own.text("A-200"), "--reason", "the old book", "--dry-run");
        assertThat(run("allocate", own.series()).out()).isEqualTo(own.text("A-001\n"));
    }

    @Test
    void aNumberFromElsewhereIsFoundAsPreexisting() throws Exception {
        Own own = own(LIST);
        run("series", "continue", own.series(), "--from", own.text("A-200"), "--reason", "the old book");
        assertThat(run("find", own.text("A-150")).out()).contains("state      pre-existing");
    }

    @Test
    void theCounterDoesNotGoBack() throws Exception {
        Own own = own(LIST);
        run("allocate", own.series(), "--quantity", "5");
        assertThat(run("series", "continue", own.series(), "--from", own.text("A-003"), "--reason", "a look back")
                        .err())
                .contains(own.text("The counter has already passed A-003. The next number is A-006."));
    }

    @Test
    void theConsoleGoesFromUploadToTheRepairedTable() throws Exception {
        Own own = own(LIST);
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", service.password());
            browser.open("/tables/repair");
            browser.sees("Repair a table");
            browser.field("Table").sendKeys(own.table().toString());
            browser.choose("Series of the numbers", own.series());
            browser.press("Plan");
            browser.sees("Plan for " + own.series() + ".csv");
            browser.press("Keep it here in line 5");
            browser.sees("line 5 keeps the old one");
            browser.press("Carry out");
            browser.sees("Carried out, entry");
            browser.element(By.linkText("Download the repaired table")).click();
            assertThat(browser.downloaded(own.series() + "-repaired.csv"))
                    .isEqualTo(own.text("No,Name\nA-002,Roller\nA-004,Backfall\nA-001,Tracker\nA-003,Sticker\n"));
        }
    }

    /** Many single numbers, in more pieces than a kill lets through. */
    @Test
    void aKillInTheMiddleIsGoneOnWithAndNumbersNothingTwice() throws Exception {
        Path data = folder.resolve("killed");
        var rows = new StringBuilder("No,Name\n");
        IntStream.range(0, 20_000).forEach(i -> rows.append(i % 4 == 3 ? "" : "K-%06d".formatted(3 * i + 1))
                .append(",thing ")
                .append(i)
                .append('\n'));
        Path table = Files.writeString(folder.resolve("killed.csv"), rows);
        Service first = Service.process(data);
        first.apply(
                "series: [{ key: killed, pattern: 'K-{count 6}', ranges: [{ first: 1, last: 999999, opens: 2020-01-01 }] }]");
        CommandLine.run(folder, first, "table", "plan", table.toString(), "--series", "killed");
        Path plan = folder.resolve("killed-plan.json");
        var carrying = CompletableFuture.supplyAsync(() -> {
            try {
                return CommandLine.run(folder, first, "table", "carry-out", plan.toString());
            } catch (Exception e) {
                throw new IllegalStateException(e);
            }
        });
        first.await(() -> {
            var plans = first.get("/api/v1/table-plans").json();
            return !plans.isEmpty() && plans.get(0).get("recorded").asLong() > 10;
        });
        first.kill();
        assertThat(carrying.get().exit()).isNotZero();
        try (Service second = Service.serve(data)) {
            assertThat(CommandLine.run(folder, second, "table", "carry-out", plan.toString())
                            .exit())
                    .isZero();
            List<String> numbers = Files.readAllLines(folder.resolve("killed-repaired.csv")).stream()
                    .skip(1)
                    .map(row -> row.substring(0, row.indexOf(',')))
                    .toList();
            assertThat(numbers).doesNotContain("").doesNotHaveDuplicates();
            assertThat(CommandLine.run(folder, second, "audit").out()).startsWith("gap-free:");
        }
    }
}
