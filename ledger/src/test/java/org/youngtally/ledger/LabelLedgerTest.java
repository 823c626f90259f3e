package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.LabelQueries;

/** Labels in the ledger: kept, proved, explained. */
class LabelLedgerTest {
    @TempDir
    private Path data;

    private long job;

    private Ledger open() throws Exception {
        return Ledger.open(LedgerOptions.in(data));
    }

    @BeforeEach
    void print() throws Exception {
        var text = new LayoutDraft.ItemDraft(
                "{identifier}",
                null,
                null,
                null,
                null,
                "1",
                "1",
                "38",
                "10",
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
        var layout = new LayoutDraft("label", null, "40", "20", null, null, null, null, List.of(text));
        try (Ledger ledger = open()) {
            ledger.perform(Acts.define(), "ines");
            ledger.perform(
                    new Act.Define(
                            new Drafts(
                                    List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(layout)),
                            List.of(),
                            Optional.empty()),
                    "ines");
            job = ((Outcome.Labelled) ledger.perform(act("one"), "ruben")).job();
            change(ledger, new LabelStep.Send(List.of(new Places(0, 9))));
            change(ledger, new LabelStep.Note(new Places(0, 3), LabelState.PRINTED));
            change(ledger, new LabelStep.Spoil(List.of(new Places(4, 5)), Optional.of("the roll jammed"), true));
        }
    }

    private static Act.PrintLabels act(String key) {
        return new Act.PrintLabels(
                new LabelJob(
                        "label",
                        1,
                        Acts.KEY,
                        LocalDate.of(2026, 3, 2),
                        Optional.empty(),
                        Optional.empty(),
                        Map.of(),
                        Optional.empty(),
                        20,
                        1,
                        1,
                        Optional.empty()),
                Optional.of(LocalDate.of(2026, 3, 2)),
                List.of(new Act.LabelRow(Map.of(), 20)),
                new RequestMark("ruben", Optional.of(key), "d"));
    }

    private void change(Ledger ledger, LabelStep step) throws Exception {
        Outcome<?> outcome = ledger.perform(
                new Act.ChangeLabels(
                        Acts.KEY, job, step, Purpose.NONE, new RequestMark("ruben", Optional.empty(), step.word())),
                "ruben");
        assertThat(outcome).isInstanceOf(Outcome.Labelled.class);
    }

    @Test
    void aRequestThatIsRepeatedIsTheSameJob() throws Exception {
        try (Ledger ledger = open()) {
            assertThat(ledger.perform(act("one"), "ruben")).isInstanceOfSatisfying(Outcome.Labelled.class, labelled -> {
                assertThat(labelled.repeated()).isTrue();
                assertThat(labelled.job()).isEqualTo(job);
            });
        }
    }

    @Test
    void theAuditExplainsTheNumberOfASpoiledLabelByItsJob() throws Exception {
        try (Ledger ledger = open()) {
            var report = Audit.of(ledger, Optional.empty(), Head.EMPTY);
            assertThat(report.findings()).isEmpty();
            assertThat(report.explained()).anyMatch(line -> line.contains("label job " + job + ": the roll jammed"));
        }
    }

    @Test
    void whatWasDoneIsListedInItsOrder() throws Exception {
        try (Ledger ledger = open()) {
            assertThat(ledger.read(dsl -> new LabelQueries(dsl).changes(job)).stream()
                            .map(change -> change.from() + "-" + change.to() + " "
                                    + change.now().word()))
                    .containsExactly("0-9 sent", "0-3 printed", "4-5 spoiled", "20-21 waiting");
        }
    }

    @Test
    void theJobOfANumberIsFound() throws Exception {
        try (Ledger ledger = open()) {
            List<Long> found = ledger.read(dsl -> new LabelQueries(dsl).bearing(1, 21));
            assertThat(found).containsExactly(job);
        }
    }

    @Test
    void theAuditMissesALabelThatTheTablesSayIsPrinted() throws Exception {
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "")) {
            assertThat(connection.createStatement().executeUpdate("update label_stretch set state = 2 where state = 1"))
                    .isPositive();
        }
        try (Ledger ledger = open()) {
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .containsExactly("the tables have the label job " + job + " differently from the journal");
        }
    }

    @Test
    void aLayoutIsKnownAsItWasWhenTheJobBegan() throws Exception {
        try (Ledger ledger = open()) {
            assertThat(ledger.read(dsl -> new LabelQueries(dsl).layout("label", 1))
                            .orElseThrow()
                            .draft()
                            .width())
                    .isEqualTo("40");
        }
    }
}
