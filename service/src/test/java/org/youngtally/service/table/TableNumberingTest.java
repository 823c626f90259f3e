package org.youngtally.service.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.web.Problem;

class TableNumberingTest {
    private static final int ROWS = 2_500;

    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void open() throws Exception {
        ledger = Ledger.open(LedgerOptions.in(data).withClock(() -> Instant.parse("2026-03-02T10:00:00Z")));
        define("last: 99999");
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private void define(String last) {
        DefinitionFile file = DefinitionFile.read("rows.yaml", """
                units: [{ key: works }]
                series: [{ key: row, pattern: "R{count}", ranges: [{ first: 1, %s, opens: 2026-01-01 }] }]
                kinds: [{ key: row, fields: [{ name: number }] }]
                routes: [{ kind: row, unit: works, series: row, into: number }]
                """.formatted(last));
        assertThat(ledger.perform(new Act.Define(file.drafts(), List.of(), Optional.empty()), "ines"))
                .isInstanceOf(Outcome.Defined.class);
    }

    private TableNumbering table(String key, int rows) {
        return new TableNumbering(
                ledger,
                "mara",
                new Act.FillTable(
                        "row",
                        "works",
                        Collections.nCopies(rows, Map.of()),
                        Optional.empty(),
                        Set.of("row"),
                        new RequestMark("mara", Optional.of(key), "table of " + rows)));
    }

    private static List<String> numbers(int from, int to) {
        return IntStream.rangeClosed(from, to).mapToObj(number -> "R" + number).toList();
    }

    private void takeByAnother(int quantity) {
        assertThat(ledger.perform(
                        new Act.Allocate(
                                "row",
                                Optional.empty(),
                                quantity,
                                Act.Form.SINGLES,
                                Optional.empty(),
                                new RequestMark("ruben", Optional.empty(), "other")),
                        "ruben"))
                .isInstanceOf(Outcome.Taken.class);
    }

    @Test
    void aLongTableIsNumberedInSteps() throws Exception {
        TableNumbering table = table("a", ROWS);
        assertThat(table.looked().take(done -> {})).isEqualTo(numbers(1, ROWS));
        assertThat(table.entries()).hasSize(3);
    }

    @Test
    void othersTakeTheirsBetweenTheSteps() throws Exception {
        List<String> taken = table("a", ROWS).take(done -> {
            if (done == 1_000) takeByAnother(5);
        });
        assertThat(taken.subList(0, 1_000)).isEqualTo(numbers(1, 1_000));
        assertThat(taken.subList(1_000, ROWS)).isEqualTo(numbers(1_006, ROWS + 5));
    }

    @Test
    void theSameRequestGetsTheSameNumbers() throws Exception {
        List<String> first = table("a", ROWS).take(done -> {});
        takeByAnother(1);
        assertThat(table("a", ROWS).looked().take(done -> {})).isEqualTo(first);
    }

    @Test
    void aTableOfAnEarlierBuildThatWasNumberedInOneActIsRepeatedWhole() throws Exception {
        ledger.perform(table("a", ROWS).table(), "mara");
        assertThat(table("a", ROWS).take(done -> {})).isEqualTo(numbers(1, ROWS));
        assertThat(ledger.perform(table("b", 1).table(), "mara"))
                .isInstanceOfSatisfying(Outcome.Filled.class, filled -> assertThat(filled.identifiers())
                        .containsExactly("R" + (ROWS + 1)));
    }

    @Test
    void whatWasEndedInTheMiddleGoesOnThere() throws Exception {
        assertThatThrownBy(() -> table("a", ROWS).take(done -> {
                    throw new CancellationException("the process ended");
                }))
                .isInstanceOf(CancellationException.class);
        takeByAnother(1);
        List<String> taken = table("a", ROWS).looked().take(done -> {});
        assertThat(taken.subList(0, 1_000)).isEqualTo(numbers(1, 1_000));
        assertThat(taken.subList(1_000, ROWS)).isEqualTo(numbers(1_002, ROWS + 1));
    }

    @Test
    void whereTheLedgerIsAwayInTheMiddleItIsSaidHowToGoOn() {
        TableNumbering table = table("a", ROWS);
        assertThatThrownBy(() -> table.take(done -> {
                    if (done == 2_000) ledgerEnds();
                }))
                .isInstanceOfSatisfying(LedgerUnavailable.class, e -> assertThat(
                                table.unavailable(e).getMessage())
                        .contains("The first 2,000 rows are numbered", "Idempotency-Key ‘a’"));
    }

    private void ledgerEnds() {
        try {
            ledger.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void whatIsTooMuchIsRefusedBeforeAnythingIsTaken() {
        define("last: 2400");
        assertThatThrownBy(() -> table("a", ROWS).looked())
                .isInstanceOfSatisfying(TableNumbering.Refused.class, refused -> assertThat(refused.refusal())
                        .isInstanceOfSatisfying(Refusal.RowFaulty.class, row -> assertThat(row.refusal())
                                .isInstanceOf(Refusal.Exhausted.class)));
        assertThat(ledger.status().head().seq()).isEqualTo(2);
    }

    /** A table whose last step finds no number, since somebody else was quicker. */
    private void refuseTheLastStep() {
        define("last: 2500");
        assertThatThrownBy(() -> table("a", ROWS).take(done -> {
                    if (done == 2_000) takeByAnother(100);
                }))
                .isInstanceOfSatisfying(TableNumbering.Refused.class, refused -> assertThat(refused.refusal())
                        .isInstanceOfSatisfying(Refusal.RowFaulty.class, row -> assertThat(row.row())
                                .isEqualTo(2_000)));
    }

    @Test
    void whereSomebodyWasQuickerEverythingIsGivenBack() throws Exception {
        refuseTheLastStep();
        assertThat(table("b", 2_400).take(done -> {})).startsWith("R1", "R2").doesNotHaveDuplicates();
        assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).passed()).isTrue();
    }

    @Test
    void itIsToldWhetherEarlierRowsHadNumbers() {
        define("last: 2500");
        assertThatThrownBy(() -> table("a", ROWS).take(done -> {
                    if (done == 2_000) takeByAnother(100);
                }))
                .isInstanceOfSatisfying(TableNumbering.Refused.class, refused -> assertThat(refused.givenBack())
                        .isTrue());
        assertThatThrownBy(() -> table("b", 2_450).looked())
                .isInstanceOfSatisfying(TableNumbering.Refused.class, refused -> assertThat(refused.givenBack())
                        .isFalse());
    }

    @Test
    void whatWasGivenBackIsNotGivenAgainByTheSameRequest() {
        refuseTheLastStep();
        assertThatThrownBy(() -> table("a", ROWS).take(done -> {}))
                .isInstanceOf(Problem.class)
                .hasMessageContaining("1000 of them were returned or voided since");
    }
}
