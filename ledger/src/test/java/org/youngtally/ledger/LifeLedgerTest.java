package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Act.Deed;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;

/** What becomes of numbers, through the journal and the tables, over a restart and a rebuild. */
class LifeLedgerTest {
    @TempDir
    private Path data;

    private volatile Instant now = Instant.parse("2026-03-02T09:00:00Z");
    private Ledger ledger;
    private int requests;

    @BeforeEach
    void open() throws Exception {
        ledger = Ledger.open(LedgerOptions.in(data).withClock(() -> now));
        ledger.perform(
                new Act.Define(
                        List.of(series("a", "A{count 3}"), series("late", "X{count 4}/{date MM}")), Optional.empty()),
                "ines");
    }

    private static SeriesDraft series(String key, String pattern) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.TYPED, "allowed")
                .with(
                        SeriesProperties.RANGES,
                        List.of(new RangeDraft(1L, 999L, null, "2026-01-01", "2026-12-31", null)));
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private void reopen(boolean rebuild) throws Exception {
        ledger.close();
        if (rebuild) Ledger.rebuild(LedgerOptions.in(data));
        ledger = Ledger.open(LedgerOptions.in(data).withClock(() -> now));
    }

    private RequestMark mark(String key) {
        return new RequestMark("ines", Optional.ofNullable(key), "d" + (key == null ? requests++ : key));
    }

    private Outcome<?> take(String series, long quantity, Act.Form form, String date, String reference, String key) {
        return ledger.perform(
                new Act.Allocate(
                        series,
                        Optional.of(LocalDate.parse(date)),
                        quantity,
                        form,
                        Optional.ofNullable(reference),
                        mark(key)),
                "ines");
    }

    private List<String> take(String series, long quantity) {
        return Acts.identifiers(take(series, quantity, Act.Form.SINGLES, "2026-03-02", null, null));
    }

    private Outcome<?> settle(String series, Deed deed, String... texts) {
        return settle(series, deed, new Selection.Identifiers(List.of(texts)), null);
    }

    private Outcome<?> settle(String series, Deed deed, Selection selection, String key) {
        return ledger.perform(
                new Act.Settle(
                        series,
                        selection,
                        deed,
                        Optional.of("a reason"),
                        new RequestMark("tobin", Optional.ofNullable(key), "s" + (key == null ? requests++ : key))),
                "tobin");
    }

    private AuditReport audit() {
        return Audit.of(ledger, Optional.empty(), Head.EMPTY);
    }

    private IdentifierQueries.Found find(String text) {
        return ledger.read(dsl -> new IdentifierQueries(dsl).find(text)).getFirst();
    }

    /** That no text was retired is not remembered longer than it is true. */
    @Test
    void aRetiredTextIsFoundByWhoeverAskedBeforeThereWasOne() throws Exception {
        take("late", 1, Act.Form.SINGLES, "2026-01-10", null, null);
        assertThat(find("X0001/01").retired()).isEmpty();
        settle("late", Deed.RETURN, "X0001/01");
        take("late", 1, Act.Form.SINGLES, "2026-02-10", null, null);
        assertThat(find("X0001/01").retired()).isPresent();
    }

    @Test
    void everyStateIsTheSameAfterARestartAndARebuild() throws Exception {
        take("a", 4, new Act.Form.Held(Duration.ofMinutes(5)), "2026-03-02", "ORDER-1", null);
        settle("a", Deed.CONFIRM, "A001");
        settle("a", Deed.RELEASE, "A002");
        take("a", 1, new Act.Form.Typed("A500"), "2026-03-02", null, null);
        long block = ((Outcome.Taken)
                        take("a", 100, new Act.Form.Block(Optional.of("foundry")), "2026-03-02", null, null))
                .taking()
                .seq();
        assertThat(settle("a", Deed.USE, new Selection.Through("A010", "A019"), null))
                .isInstanceOf(Outcome.Settled.class);
        ledger.perform(new Act.Split(block, 3, Optional.of("care"), mark(null)), "ines");
        settle("a", Deed.RETURN, "A050");
        settle("a", Deed.VOID, "A060", "A061");
        take("late", 2, Act.Form.SINGLES, "2026-01-10", null, null);
        settle("late", Deed.RETURN, "X0001/01");
        assertThat(Acts.identifiers(take("late", 1, Act.Form.SINGLES, "2026-02-10", null, null)))
                .containsExactly("X0001/02");
        ledger.perform(
                new Act.Close(
                        new Period(Period.Scope.SERIES, "late", LocalDate.of(2026, 1, 1), LocalDate.of(2026, 1, 31)),
                        Optional.of("January"),
                        mark(null)),
                "ines");
        AuditReport before = audit();
        assertThat(before.findings()).isEmpty();
        assertThat(before.explained())
                .anyMatch(line -> line.contains("A050 returned"))
                .anyMatch(line -> line.contains("A060 to A061 void (voided), voided by tobin"))
                .anyMatch(line -> line.contains("A500 issued, typed ahead"))
                .anyMatch(line -> line.contains("A003 held until 2026-03-02T09:05:00Z"))
                .anyMatch(line -> line.contains(
                        "block " + block + " of foundry: 84 not reported yet, 1 returned, 2 voided, 10 used"))
                .anyMatch(line -> line.contains("of care: 3 not reported"))
                .anyMatch(line -> line.contains("closed by entry"));
        for (boolean rebuild : new boolean[] {false, true}) {
            reopen(rebuild);
            assertThat(audit()).isEqualTo(before);
        }
        assertThat(find("X0001/01").retired()).isPresent();
        assertThat(find("A007").stretch().block()).isGreaterThan(block);
        assertThat(take("a", 3)).containsExactly("A002", "A050", "A105");
        assertThat(((Outcome.Refused<?>) take("late", 1, Act.Form.SINGLES, "2026-01-10", null, null)).refusal())
                .isInstanceOf(Refusal.DateClosed.class);
        assertThat(audit().findings()).isEmpty();
    }

    /** A rebuild writes many entries in one transaction, and must see in it what it wrote there itself. */
    @Test
    void aReturnedStretchThatIsCutAgainWaitsAfterARebuildAsWell() throws Exception {
        take("a", 9, Act.Form.BLOCK, "2026-03-02", null, null);
        settle("a", Deed.RETURN, new Selection.Through("A005", "A009"), null);
        take("a", 1, new Act.Form.Typed("A006"), "2026-03-02", null, null);
        reopen(true);
        assertThat(audit().findings()).isEmpty();
        assertThat(take("a", 5)).containsExactly("A005", "A007", "A008", "A009", "A010");
    }

    @Test
    void aHoldLapsesByItselfWhenItsTimeIsUp() throws Exception {
        take("a", 2, new Act.Form.Held(Duration.ofSeconds(5)), "2026-03-02", null, null);
        reopen(false);
        now = now.plusSeconds(6);
        // The writer looks by itself; the next act comes behind it.
        assertThat(take("a", 1)).containsExactly("A001");
        assertThat(find("A002").stretch().state()).isEqualTo(PositionState.RETURNED);
        assertThat(find("A002").changed().orElseThrow().by()).isEqualTo("clock");
        assertThat(((Outcome.Refused<?>) settle("a", Deed.CONFIRM, "A002")).refusal())
                .isInstanceOf(Refusal.Unfit.class);
    }

    @Test
    void aHoldDoesNotLapseWhileTheClockHasJumped() {
        take("a", 1, new Act.Form.Held(Duration.ofMinutes(5)), "2026-03-02", null, null);
        now = now.plus(Duration.ofDays(400));
        assertThat(take("a", 1)).containsExactly("A002");
        now = now.minus(Duration.ofDays(400));
        assertThat(settle("a", Deed.CONFIRM, "A001")).isInstanceOf(Outcome.Settled.class);
    }

    @Test
    void aRepeatedRequestSaysThatItsNumbersWereGivenBack() throws Exception {
        take("a", 2, Act.Form.SINGLES, "2026-03-02", "ORDER-1", "k");
        settle("a", Deed.RETURN, new Selection.Reference("ORDER-1"), "r");
        assertThat(take("a", 2)).as("given to somebody else").containsExactly("A001", "A002");
        reopen(false);
        var repeated = (Outcome.Taken) take("a", 2, Act.Form.SINGLES, "2026-03-02", "ORDER-1", "k");
        assertThat(repeated.repeated()).isTrue();
        assertThat(repeated.taking().identifiers()).isEmpty();
        assertThat(repeated.taking().withdrawn()).isEqualTo(2);
        assertThat(settle("a", Deed.RETURN, new Selection.Reference("ORDER-1"), "r"))
                .isInstanceOfSatisfying(Outcome.Settled.class, settled -> {
                    assertThat(settled.repeated()).isTrue();
                    assertThat(settled.entry().first()).contains("A001");
                });
        assertThat(Acts.identifiers(take("a", 1, Act.Form.SINGLES, "2026-03-02", "ORDER-1", null)))
                .as("the reference is free")
                .containsExactly("A003");
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void nothingIsClosedWhileSomethingInsideIsHeld() {
        take("a", 3, new Act.Form.Held(Duration.ofMinutes(5)), "2026-02-02", null, null);
        settle("a", Deed.RELEASE, "A001");
        var period = new Act.Close(
                new Period(Period.Scope.NAMESPACE, "a", LocalDate.of(2026, 2, 1), LocalDate.of(2026, 2, 28)),
                Optional.empty(),
                mark(null));
        assertThat(((Outcome.Refused<?>) ledger.perform(period, "ines")).refusal())
                .isEqualTo(new Refusal.StillHeld(period.period(), 2));
        settle("a", Deed.CONFIRM, "A002", "A003");
        assertThat(ledger.perform(period, "ines")).isInstanceOfSatisfying(Outcome.Settled.class, settled -> assertThat(
                        settled.entry().quantity())
                .as("what was returned is void")
                .isEqualTo(1));
        assertThat(find("A001").stretch().state()).isEqualTo(PositionState.CLOSED);
        settle("a", Deed.RETURN, "A003");
        assertThat(find("A003").stretch().state()).isEqualTo(PositionState.CLOSED);
        assertThat(take("a", 1)).containsExactly("A004");
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void manyCallersSettleAtOnceAndOneOfThemWins() throws Exception {
        take("a", 50, new Act.Form.Held(Duration.ofMinutes(5)), "2026-03-02", null, null);
        var outcomes = new ConcurrentLinkedQueue<Outcome<?>>();
        var callers = new ArrayList<Thread>();
        for (int caller = 0; caller < 100; caller++) {
            String text = "A%03d".formatted(caller / 2 + 1);
            Deed deed = caller % 2 == 0 ? Deed.CONFIRM : Deed.RELEASE;
            callers.add(Thread.ofVirtual().start(() -> outcomes.add(settle("a", deed, text))));
        }
        for (Thread caller : callers) caller.join();
        assertThat(outcomes).filteredOn(Outcome.Settled.class::isInstance).hasSize(50);
        assertThat(audit().in(PositionState.HELD)).isZero();
        assertThat(audit().findings()).isEmpty();
    }
}
