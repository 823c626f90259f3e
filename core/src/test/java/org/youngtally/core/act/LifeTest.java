package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.act.Act.Deed;
import org.youngtally.core.act.Refusal.TypedFault;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** What becomes of a number after it was given. */
class LifeTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private final MemoryLedger ledger = new MemoryLedger();
    private Instant now = Instant.parse("2026-03-02T09:00:00Z");

    @BeforeEach
    void define() {
        define("a", "A{count 3}", draft -> draft.with(SeriesProperties.TYPED, "allowed"));
        define("dated", "{date MM}-{count 3}", draft -> draft.with(SeriesProperties.RESTARTS, List.of("month")));
    }

    private void define(String key, String pattern, UnaryOperator<SeriesDraft> more) {
        assertThat(decide(new Act.Define(
                        List.of(more.apply(SeriesDraft.of(key, pattern)
                                .with(
                                        SeriesProperties.RANGES,
                                        List.of(new RangeDraft(1L, 999L, null, "2026-01-01", "2026-12-31", null))))),
                        Optional.empty())))
                .isInstanceOf(Decision.Done.class);
    }

    private Decision decide(Act<?> act) {
        return ledger.decide(act, now, TODAY);
    }

    private static RequestMark mark() {
        return new RequestMark("ines", Optional.empty(), "d");
    }

    private Decision take(String series, long quantity, Act.Form form, String date, String reference) {
        return decide(new Act.Allocate(
                series,
                Optional.ofNullable(date).map(LocalDate::parse),
                quantity,
                form,
                Optional.ofNullable(reference),
                mark()));
    }

    private Decision take(String series, long quantity) {
        return take(series, quantity, Act.Form.SINGLES, null, null);
    }

    private Decision type(String text) {
        return take("a", 1, new Act.Form.Typed(text), null, null);
    }

    private Decision settle(String series, Deed deed, String... texts) {
        return decide(new Act.Settle(
                series, new Selection.Identifiers(Arrays.asList(texts)), deed, Optional.of("a reason"), mark()));
    }

    private static List<String> texts(Decision decision) {
        assertThat(decision).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision)
                .effects().stream()
                        .filter(Effect.Issued.class::isInstance)
                        .flatMap(effect -> ((Effect.Issued) effect).texts().stream())
                        .toList();
    }

    private static void assertDone(Decision decision) {
        assertThat(decision).isInstanceOf(Decision.Done.class);
    }

    private static <T extends Refusal> T refusal(Decision decision, Class<T> kind) {
        assertThat(decision).isInstanceOf(Decision.Refused.class);
        return kind.cast(((Decision.Refused) decision).refusal());
    }

    @Test
    void aReleasedNumberIsTheNextOneGiven() {
        take("a", 3, new Act.Form.Held(Duration.ofMinutes(5)), null, null);
        assertDone(settle("a", Deed.RELEASE, "A002"));
        assertThat(texts(take("a", 2))).containsExactly("A002", "A004");
    }

    @Test
    void aConfirmedNumberIsIssuedAndHoldsNoMore() {
        take("a", 1, new Act.Form.Held(Duration.ofMinutes(5)), null, null);
        assertDone(settle("a", Deed.CONFIRM, "a001"));
        assertThat(refusal(settle("a", Deed.CONFIRM, "A001"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.ISSUED);
        assertThat(refusal(settle("a", Deed.RELEASE, "A001"), Refusal.Unfit.class)
                        .identifier())
                .isEqualTo("A001");
        now = now.plus(Duration.ofHours(1));
        assertThat(decide(new Act.Lapse(now))).isEqualTo(new Decision.Done(List.of()));
    }

    @Test
    void aHoldLapsesAtItsInstantAndNotBefore() {
        take("a", 2, new Act.Form.Held(Duration.ofMinutes(5)), null, "ORDER-1");
        assertThat(decide(new Act.Lapse(now.plus(Duration.ofMinutes(5)).minusNanos(1))))
                .isEqualTo(new Decision.Done(List.of()));
        assertThat(((Decision.Done) decide(new Act.Lapse(now.plus(Duration.ofMinutes(5))))).effects())
                .containsExactly(
                        new Effect.Settled(1, 0, 1, PositionState.HELD, 0, PositionState.RETURNED, "A001", "A002"),
                        new Effect.ReferenceFreed("a", "ORDER-1", 3));
        assertThat(refusal(settle("a", Deed.CONFIRM, "A001"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.RETURNED);
        assertThat(texts(take("a", 3))).containsExactly("A001", "A002", "A003");
    }

    @Test
    void aReferenceIsFreeOnceNoneOfItsNumbersStandsForAnything() {
        take("a", 2, Act.Form.SINGLES, null, "ORDER-1");
        settle("a", Deed.VOID, "A001");
        assertThat(take("a", 2, Act.Form.SINGLES, null, "ORDER-1")).isInstanceOf(Decision.Repeated.class);
        settle("a", Deed.RETURN, "A002");
        assertThat(texts(take("a", 2, Act.Form.SINGLES, null, "ORDER-1"))).containsExactly("A002", "A003");
    }

    @Test
    void aVoidNumberIsNeverGivenAgainAndNeedsAReason() {
        take("a", 1);
        assertThat(refusal(
                                decide(new Act.Settle(
                                        "a",
                                        new Selection.Identifiers(List.of("A001")),
                                        Deed.VOID,
                                        Optional.empty(),
                                        mark())),
                                Refusal.ReasonMissing.class)
                        .what())
                .isEqualTo("void");
        assertDone(settle("a", Deed.VOID, "A001"));
        assertThat(refusal(settle("a", Deed.RETURN, "A001"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.VOIDED);
        assertThat(texts(take("a", 1))).containsExactly("A002");
        assertThat(refusal(settle("a", Deed.VOID, "A777"), Refusal.NeverGiven.class)
                        .text())
                .isEqualTo("A777");
    }

    @Test
    void oneUnfitNumberLeavesAllAsTheyAre() {
        take("a", 3);
        settle("a", Deed.VOID, "A003");
        assertThat(settle("a", Deed.RETURN, "A001", "A002", "A003")).isInstanceOf(Decision.Refused.class);
        assertThat(texts(take("a", 1))).containsExactly("A004");
    }

    @Test
    void aSeriesThatAllowsGapsGivesNothingAgain() {
        define("loose", "L{count 3}", draft -> draft.with(SeriesProperties.GAPS, "allowed"));
        take("loose", 1, new Act.Form.Held(Duration.ofMinutes(5)), null, null);
        take("loose", 1);
        settle("loose", Deed.RELEASE, "L001");
        settle("loose", Deed.RETURN, "L002");
        assertThat(texts(take("loose", 1))).containsExactly("L003");
        assertThat(refusal(settle("loose", Deed.VOID, "L001"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.RELEASED);
        assertThat(refusal(settle("loose", Deed.VOID, "L002"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.UNUSED);
    }

    @Test
    void aSeriesMayRefuseReturns() {
        define("firm", "F{count 3}", draft -> draft.with(SeriesProperties.RETURNS, "refused"));
        take("firm", 1);
        assertThat(refusal(settle("firm", Deed.RETURN, "F001"), Refusal.NoReturns.class)
                        .series())
                .isEqualTo("firm");
    }

    @Test
    void aChronologicalSeriesRefusesAnEarlierDateAndVoidsWhatIsReturned() {
        define("daily", "D{count 3}", draft -> draft.with(SeriesProperties.CHRONOLOGICAL, true));
        take("daily", 1, Act.Form.SINGLES, "2026-02-10", null);
        assertThat(refusal(take("daily", 1, Act.Form.SINGLES, "2026-02-09", null), Refusal.NotChronological.class)
                        .latest())
                .isEqualTo(LocalDate.of(2026, 2, 10));
        settle("daily", Deed.RETURN, "D001");
        assertThat(texts(take("daily", 1, Act.Form.SINGLES, "2026-02-10", null)))
                .containsExactly("D002");
        assertThat(refusal(take("daily", 1, Act.Form.SINGLES, "2026-02-09", null), Refusal.NotChronological.class))
                .isNotNull();
    }

    @Test
    void aReturnedPositionThatReadsOtherwiseRetiresItsFormerText() {
        define("month", "{date MM}-{count 3}", draft -> draft.with(SeriesProperties.RESTARTS, List.of("month")));
        define("late", "X{count 3}/{date MM}", UnaryOperator.identity());
        take("late", 1, Act.Form.SINGLES, "2026-01-10", null);
        settle("late", Deed.RETURN, "X001/01");
        assertThat(texts(take("late", 1, Act.Form.SINGLES, "2026-02-10", null))).containsExactly("X001/02");
        settle("late", Deed.RETURN, "X001/02");
        assertThat(texts(take("late", 1, Act.Form.SINGLES, "2026-01-10", null)))
                .as("a retired text is never given again")
                .containsExactly("X002/01");
        assertThat(texts(take("late", 1, Act.Form.SINGLES, "2026-02-11", null)))
                .as("the text that was returned last is")
                .containsExactly("X001/02");
        assertThat(refusal(settle("late", Deed.VOID, "X001/01"), Refusal.NeverGiven.class))
                .isNotNull();
    }

    @Test
    void aTypedNumberAheadIsSteppedOver() {
        assertThat(texts(type("a003"))).containsExactly("A003");
        assertThat(texts(take("a", 3))).containsExactly("A001", "A002", "A004");
        assertThat(refusal(type("A003"), Refusal.TypedFaulty.class).fault()).isEqualTo(TypedFault.TAKEN);
        assertThat(texts(type("A005"))).as("just what comes next").containsExactly("A005");
        assertThat(texts(take("a", 1))).containsExactly("A006");
    }

    @Test
    void aTypedNumberAheadThatIsReturnedIsGivenWhenTheCounterComesToIt() {
        type("A003");
        settle("a", Deed.RETURN, "A003");
        assertThat(texts(take("a", 1))).containsExactly("A001");
        assertThat(texts(take("a", 2))).containsExactly("A002", "A003");
        assertThat(texts(take("a", 1))).containsExactly("A004");
    }

    @Test
    void aTypedNumberAheadThatIsVoidIsSteppedOver() {
        type("A002");
        settle("a", Deed.VOID, "A002");
        assertThat(refusal(type("A002"), Refusal.TypedFaulty.class).fault()).isEqualTo(TypedFault.TAKEN);
        assertThat(texts(take("a", 2))).containsExactly("A001", "A003");
    }

    @ParameterizedTest
    @CsvSource({"B001,NOT_OF_THE_PATTERN,A001", "A01,NOT_OF_THE_PATTERN,A001", "A000,OUTSIDE_THE_RANGES,", "A001,TAKEN,"
    })
    void aTypedNumberThatCannotBeTakenIsRefusedWithTheReason(String text, TypedFault fault, String instead) {
        take("a", 1);
        assertThat(refusal(type(text), Refusal.TypedFaulty.class))
                .isEqualTo(new Refusal.TypedFaulty("a", text, fault, Optional.ofNullable(instead)));
    }

    @Test
    void aWrongCheckDigitIsToldWithTheRightOne() {
        define("checked", "C{count 4}{check luhn}", draft -> draft.with(SeriesProperties.TYPED, "required"));
        assertThat(refusal(take("checked", 1), Refusal.TypedNotAllowed.class).required())
                .isTrue();
        var faulty = refusal(take("checked", 1, new Act.Form.Typed("C00010"), null, null), Refusal.TypedFaulty.class);
        assertThat(faulty.fault()).isEqualTo(TypedFault.CHECK_WRONG);
        assertThat(texts(take("checked", 1, new Act.Form.Typed(faulty.instead().orElseThrow()), null, null)))
                .containsExactly(faulty.instead().orElseThrow());
        assertThat(refusal(take("dated", 1, new Act.Form.Typed("03-001"), null, null), Refusal.TypedNotAllowed.class)
                        .required())
                .isFalse();
    }

    @Test
    void aBlockIsReportedReturnedAndSplitInParts() {
        take("a", 100, Act.Form.BLOCK, null, null);
        long block = ledger.seq();
        assertDone(
                decide(new Act.Settle("a", new Selection.Through("A001", "A010"), Deed.USE, Optional.empty(), mark())));
        assertThat(((Decision.Done) decide(new Act.Split(block, 20, Optional.of("foundry"), mark()))).effects())
                .containsExactly(new Effect.Handed(1, 10, 29, block));
        long part = ledger.seq();
        assertDone(decide(new Act.Settle("a", new Selection.Taken(block), Deed.RETURN, Optional.empty(), mark())));
        assertThat(refusal(settle("a", Deed.RETURN, "A010"), Refusal.Unfit.class)
                        .state())
                .as("it was reported as used")
                .isEqualTo(PositionState.USED);
        assertThat(texts(take("a", 1))).as("the rest, from its first on").containsExactly("A031");
        assertDone(decide(new Act.Settle("a", new Selection.Taken(part), Deed.VOID, Optional.of("lost"), mark())));
        assertThat(refusal(decide(new Act.Split(part, 1, Optional.empty(), mark())), Refusal.BlockTooSmall.class)
                        .left())
                .isZero();
        assertThat(texts(take("a", 71)).getLast()).isEqualTo("A102");
    }

    @Test
    void aRowLiesInOneLaneAndInOrder() {
        take("dated", 2, Act.Form.SINGLES, "2026-01-10", null);
        take("dated", 2, Act.Form.SINGLES, "2026-02-10", null);
        assertThat(refusal(
                                decide(new Act.Settle(
                                        "dated",
                                        new Selection.Through("01-001", "02-002"),
                                        Deed.RETURN,
                                        Optional.empty(),
                                        mark())),
                                Refusal.NotARow.class)
                        .last())
                .isEqualTo("02-002");
        assertThat(refusal(
                                decide(new Act.Settle(
                                        "dated",
                                        new Selection.Through("01-002", "01-001"),
                                        Deed.RETURN,
                                        Optional.empty(),
                                        mark())),
                                Refusal.NotARow.class)
                        .first())
                .isEqualTo("01-002");
        assertThat(refusal(settle("dated", Deed.USE, "01-001"), Refusal.NotOfABlock.class)
                        .identifier())
                .isEqualTo("01-001");
    }

    @Test
    void nothingIsGivenInAClosedPeriodAndWhatIsReturnedThereIsVoid() {
        take("dated", 2, Act.Form.SINGLES, "2026-01-10", null);
        var period = new Period(Period.Scope.NAMESPACE, "dated", LocalDate.of(2026, 1, 1), LocalDate.of(2026, 1, 31));
        assertDone(decide(new Act.Close(period, Optional.empty(), mark())));
        long closing = ledger.seq();
        assertThat(refusal(take("dated", 1, Act.Form.SINGLES, "2026-01-31", null), Refusal.DateClosed.class)
                        .closing())
                .isEqualTo(closing);
        assertThat(refusal(
                                decide(new Act.Close(
                                        new Period(
                                                Period.Scope.NAMESPACE,
                                                "dated",
                                                LocalDate.of(2026, 1, 31),
                                                LocalDate.of(2026, 2, 1)),
                                        Optional.empty(),
                                        mark())),
                                Refusal.ClosedAlready.class)
                        .closing())
                .isEqualTo(closing);
        assertThat(refusal(
                                decide(new Act.Close(
                                        new Period(Period.Scope.SERIES, "dates", period.from(), period.to()),
                                        Optional.empty(),
                                        mark())),
                                Refusal.UnknownScope.class)
                        .nearest())
                .contains("dated");
        settle("dated", Deed.RETURN, "01-002");
        assertThat(refusal(settle("dated", Deed.VOID, "01-002"), Refusal.Unfit.class)
                        .state())
                .isEqualTo(PositionState.CLOSED);
        assertThat(refusal(decide(new Act.Reopen(closing, Optional.empty(), mark())), Refusal.ReasonMissing.class))
                .isNotNull();
        assertDone(decide(new Act.Reopen(closing, Optional.of("a late bill"), mark())));
        assertThat(texts(take("dated", 1, Act.Form.SINGLES, "2026-01-31", null)))
                .containsExactly("01-003");
        assertThat(refusal(decide(new Act.Reopen(closing, Optional.of("again"), mark())), Refusal.NotClosed.class)
                        .closing())
                .isEqualTo(closing);
    }

    @ParameterizedTest
    @CsvSource({"PT0S", "-PT1S", "P367D"})
    void aHoldHasBounds(Duration time) {
        assertThat(refusal(take("a", 1, new Act.Form.Held(time), null, null), Refusal.HoldOutOfBounds.class)
                        .time())
                .isEqualTo(time);
    }

    /** It would hold up everybody else for as long as it takes. */
    @Test
    void noMoreIsSettledInOneActThanABatchDoes() {
        define(
                "wide",
                "W{count 5}",
                draft -> draft.with(
                        SeriesProperties.RANGES, List.of(new RangeDraft(1L, 9_999L, null, "2026-01-01", null, null))));
        List<String> all = texts(take("wide", 2_002));
        List<String> alternate =
                IntStream.range(0, 1_001).mapToObj(i -> all.get(2 * i)).toList();
        assertThat(refusal(settle("wide", Deed.RETURN, alternate.toArray(String[]::new)), Refusal.TooManyPieces.class)
                        .most())
                .isEqualTo(1_000);
        assertThat(settle("wide", Deed.RETURN, alternate.subList(0, 1_000).toArray(String[]::new)))
                .isInstanceOf(Decision.Done.class);
    }
}
