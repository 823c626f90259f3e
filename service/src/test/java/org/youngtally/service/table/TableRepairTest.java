package org.youngtally.service.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.core.act.TablePlan.Gaps;
import org.youngtally.core.repair.Choices;
import org.youngtally.documents.table.Rewriting;
import org.youngtally.documents.table.TableFile;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.PlanQueries;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.web.Problem;

/** Tables that are planned and carried out on a ledger of their own. */
class TableRepairTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);
    private static final String DIGEST = "0123456789abcdef".repeat(4);

    @TempDir
    private Path folder;

    private Ledger ledger;

    @BeforeEach
    void open() throws Exception {
        ledger = reopened();
        DefinitionFile file = DefinitionFile.read("parts.yaml", """
                series:
                  - { key: part, pattern: "P-{count 5}", ranges: [{ first: 10, last: 99990, step: 10, opens: 2020-01-01 }] }
                  - { key: yearly, pattern: "Y{date yy}-{count 4}", restarts: [year], ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
                  - { key: daily, pattern: "D{count 4}", chronological: true, ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
                  - { key: loose, pattern: "L{count 4}", gaps: allowed, typed: allowed, ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
                """);
        assertThat(ledger.perform(new Act.Define(file.drafts(), List.of(), Optional.empty()), "ines"))
                .isInstanceOf(Outcome.Defined.class);
    }

    private Ledger reopened() throws Exception {
        return Ledger.open(
                LedgerOptions.in(folder.resolve("data")).withClock(() -> Instant.parse("2026-03-02T10:00:00Z")));
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private static RepairOptions options(Gaps gaps, Choices.Keep keep, Long... chosen) {
        return new RepairOptions(
                "list.csv",
                Optional.empty(),
                Optional.of("No"),
                Optional.of("Date"),
                Map.of(),
                gaps,
                keep,
                List.of(chosen),
                TODAY);
    }

    private PlanFile plan(String series, String table, RepairOptions options) throws Exception {
        Path file = Files.writeString(folder.resolve("list.csv"), table);
        Path to = folder.resolve("plan.json");
        var planning = new TablePlanning(
                ledger.snapshot(),
                ledger.snapshot().series().get(series),
                options,
                TableFile.open(file, "list.csv", Optional.empty()),
                TODAY);
        ledger.read(dsl -> {
            try {
                planning.write(dsl, file, DIGEST, to);
                return null;
            } catch (Exception e) {
                throw new IllegalStateException(e);
            }
        });
        return PlanFile.read(new ByteArrayInputStream(Files.readAllBytes(to)));
    }

    private static RequestMark mark() {
        return new RequestMark("ines", Optional.empty(), "digest");
    }

    private PlanCarrying carrying(PlanFile plan) {
        return new PlanCarrying(ledger, plan, DIGEST, mark());
    }

    private String repaired(PlanFile plan) throws Exception {
        PlanCarrying carrying = carrying(plan);
        long seq = carrying.begin(Optional.of("an old list"));
        carrying.carryOut(seq, done -> {});
        return rewritten(carrying.texts(seq));
    }

    private String rewritten(Map<Long, String> texts) throws Exception {
        TableFile table = TableFile.open(folder.resolve("list.csv"), "list.csv", Optional.empty());
        var out = new ByteArrayOutputStream();
        table.rewrite(
                new Rewriting(
                        table.columns().indexOf("No"), line -> Optional.ofNullable(texts.get(line)), Optional.empty()),
                out);
        return out.toString(StandardCharsets.UTF_8);
    }

    private AuditReport audit() {
        return Audit.of(ledger, Optional.empty(), Head.EMPTY);
    }

    private List<String> allocate(String series, int quantity) {
        var act = new Act.Allocate(series, Optional.of(TODAY), quantity, Act.Form.SINGLES, Optional.empty(), mark());
        return ((Outcome.Taken) ledger.perform(act, "ines")).taking().identifiers();
    }

    private static final String LIST = """
            No,Name,Date
            P-00050,Roller,2025-03-01
            ,Backfall,2025-03-02
            P-00020,Tracker,2025-03-03
            P-00050,Sticker,2025-01-01
            p-00080,Square,2025-03-05
            no idea,Slider,2025-03-06
            """;

    @Test
    void theRepairedTableHasNeitherBlanksNorDuplicates() throws Exception {
        assertThat(repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST))))
                .isEqualTo("""
                        No,Name,Date
                        P-00050,Roller,2025-03-01
                        P-00010,Backfall,2025-03-02
                        P-00020,Tracker,2025-03-03
                        P-00030,Sticker,2025-01-01
                        P-00080,Square,2025-03-05
                        no idea,Slider,2025-03-06
                        """);
    }

    @Test
    void theOldestRowKeepsItsNumber() throws Exception {
        assertThat(repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.OLDEST))))
                .contains("P-00010,Roller", "P-00050,Sticker");
    }

    @Test
    void aChosenRowKeepsItsNumber() throws Exception {
        assertThat(repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST, 5L))))
                .contains("P-00050,Sticker");
    }

    @Test
    void keptGapsAreAllocatedBeforeTheCounterStepsOverWhatIsPreexisting() throws Exception {
        repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST)));
        assertThat(allocate("part", 4)).containsExactly("P-00040", "P-00060", "P-00070", "P-00090");
    }

    @Test
    void closedGapsAreVoidAndTheCounterStandsBehindTheHighest() throws Exception {
        repaired(plan("part", LIST, options(Gaps.CLOSE, Choices.Keep.FIRST)));
        assertThat(allocate("part", 1)).containsExactly("P-00110");
        assertThat(audit().explained()).anyMatch(line -> line.contains("P-00030 to P-00040 void (gap closed)"));
    }

    @Test
    void theAuditTellsPreexistingFromIssued() throws Exception {
        repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST)));
        assertThat(audit().passed()).isTrue();
        assertThat(audit().explained())
                .contains(
                        "series part, range 1: 3 positions pre-existing, P-00020 to P-00080, entry 2: list.csv: an old list");
    }

    @Test
    void aPreexistingNumberIsFoundWithItsLine() throws Exception {
        repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST)));
        long line = ledger.read(dsl -> {
                    var found = new IdentifierQueries(dsl).find("P-00080").getFirst();
                    return new PlanQueries(dsl).origin(found.entry().seq(), found.laneId(), found.position());
                })
                .orElseThrow()
                .line();
        assertThat(line).isEqualTo(6);
    }

    @Test
    void aChronologicalSeriesKeepsNoGaps() throws Exception {
        PlanFile plan = plan("daily", "No,Date\nD0005,2025-01-01\n", options(Gaps.KEEP, Choices.Keep.FIRST));
        assertThatThrownBy(() -> carrying(plan).begin(Optional.empty()))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("is chronological");
    }

    @Test
    void aPlanIsRefusedOnceTheSeriesMoved() throws Exception {
        PlanFile plan = plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST));
        allocate("part", 1);
        assertThatThrownBy(() -> carrying(plan).begin(Optional.empty()))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("changed since the plan was made");
    }

    @Test
    void othersGetNumbersBehindTheTableWhileItIsCarriedOut() throws Exception {
        PlanFile plan = plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST));
        PlanCarrying carrying = carrying(plan);
        long seq = carrying.begin(Optional.empty());
        assertThat(allocate("part", 2)).containsExactly("P-00090", "P-00100");
        carrying.carryOut(seq, done -> {});
        assertThat(allocate("part", 4)).containsExactly("P-00040", "P-00060", "P-00070", "P-00110");
    }

    @Test
    void aReturnedNumberOfTheTableIsGivenToNobodyElse() throws Exception {
        List<String> own = allocate("part", 2);
        ledger.perform(
                new Act.Settle("part", new Selection.Identifiers(own), Act.Deed.RETURN, Optional.empty(), mark()),
                "ines");
        repaired(plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST)));
        assertThat(allocate("part", 5)).doesNotContain("P-00020");
        assertThat(audit().passed()).isTrue();
    }

    @Test
    void aReturnedNumberOfTheTableIsGivenToNobodyWhileItIsCarriedOut() throws Exception {
        List<String> own = allocate("part", 20);
        ledger.perform(
                new Act.Settle(
                        "part",
                        new Selection.Identifiers(List.of(own.get(1))),
                        Act.Deed.RETURN,
                        Optional.empty(),
                        mark()),
                "ines");
        PlanFile plan = plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST));
        carrying(plan).begin(Optional.empty());
        assertThat(allocate("part", 1)).doesNotContain(own.get(1));
    }

    @Test
    void whatAnAbandonedPlanAllocatedIsVoid() throws Exception {
        PlanFile plan = plan("part", LIST, options(Gaps.KEEP, Choices.Keep.FIRST));
        PlanCarrying carrying = carrying(plan);
        long seq = carrying.begin(Optional.empty());
        stopAt(plan.stretches().size() + plan.numbering().size(), carrying, seq);
        PlanCarrying.abandon(
                ledger,
                "ines",
                ledger.read(dsl -> new PlanQueries(dsl).at(seq)).orElseThrow(),
                Optional.of("another file"),
                mark());
        assertThat(audit().explained()).anyMatch(line -> line.contains("P-00010 void (voided)"));
    }

    /** Carries a plan out until so much of it is recorded and numbered. */
    private static void stopAt(long most, PlanCarrying carrying, long seq) {
        assertThatThrownBy(() -> carrying.carryOut(seq, done -> {
                    if (done >= most) throw new Stopped();
                }))
                .isInstanceOf(Stopped.class);
    }

    private static final class Stopped extends RuntimeException {
        private static final long serialVersionUID = 1L;
    }

    /** A table of numbers from before, as people leave them behind. */
    private record DirtyTable(String series, String text, List<String> right) {
        static DirtyTable drawn(Random random) {
            String series = List.of("part", "yearly", "loose").get(random.nextInt(3));
            int numbers = 20 + random.nextInt(1_500);
            var right = new ArrayList<String>();
            var rows = new ArrayList<String>();
            for (int i = 0; i < numbers; i++) {
                int value = 1 + random.nextInt(random.nextBoolean() ? 60 : 900);
                int year = 2024 + random.nextInt(3);
                String number =
                        switch (series) {
                            case "part" -> "P-%05d".formatted(10 * value);
                            case "yearly" -> "Y%02d-%04d".formatted(year % 100, value);
                            default -> "L%04d".formatted(value);
                        };
                String date = year + "-0" + (1 + random.nextInt(2)) + "-11";
                String text =
                        switch (random.nextInt(20)) {
                            case 0 -> "";
                            case 1 -> number.toLowerCase(Locale.ROOT);
                            case 2 -> number.substring(0, 2) + " " + number.substring(2);
                            case 3 -> "see line " + i;
                            default -> number;
                        };
                if (text.equals(number)) right.add(number);
                rows.add(text + ",thing " + i + "," + date);
            }
            Collections.shuffle(rows, random);
            return new DirtyTable(series, "No,Name,Date\n" + String.join("\n", rows) + "\n", right);
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
    void noTableKeepsBlanksOrDuplicatesAndNoRightNumberChanges(long seed) throws Exception {
        var random = new Random(seed);
        DirtyTable dirty = DirtyTable.drawn(random);
        if (random.nextBoolean()) allocate(dirty.series(), 1 + random.nextInt(40));
        PlanFile plan = plan(
                dirty.series(),
                dirty.text(),
                options(random.nextBoolean() ? Gaps.KEEP : Gaps.CLOSE, Choices.Keep.FIRST));
        PlanCarrying carrying = carrying(plan);
        long seq = carrying.begin(Optional.of("an old list"));
        // It is interrupted somewhere, others allocate, and it goes on after another start.
        long all = plan.stretches().size() + plan.numbering().size();
        stopAt(random.nextInt((int) all + 1), carrying, seq);
        List<String> others = allocate(dirty.series(), 3);
        ledger.close();
        ledger = reopened();
        PlanCarrying again = carrying(plan);
        again.carryOut(again.begin(Optional.of("an old list")), done -> {});
        Map<Long, String> texts = again.texts(seq);
        List<String> numbers = rewritten(texts)
                .lines()
                .skip(1)
                .map(row -> row.substring(0, row.indexOf(',')))
                .filter(text -> !text.startsWith("see"))
                .toList();
        Set<String> different = new HashSet<>(numbers);
        assertThat(numbers).doesNotContain("").doesNotHaveDuplicates();
        assertThat(different).containsAll(new TreeSet<>(dirty.right())).doesNotContainAnyElementsOf(others);
        assertThat(audit().findings()).isEmpty();
        assertThat(allocate(dirty.series(), 200)).doesNotContainAnyElementsOf(different);
    }
}
