package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** A lane goes on behind numbers that exist elsewhere, and allocates none of them. */
class ContinuingTest {
    private static final LaneKey LANE = new LaneKey("a", 1, "");
    private static final Particulars MARCH = Particulars.on(LocalDate.of(2026, 3, 2));

    private final MemoryLedger ledger = new MemoryLedger();

    @BeforeEach
    void define() {
        done(new Act.Define(
                List.of(SeriesDraft.of("a", "A{count 3}")
                        .with(
                                SeriesProperties.RANGES,
                                List.of(new RangeDraft(0L, 999L, null, "2026-01-01", "2026-12-31", null)))),
                Optional.empty()));
    }

    private static RequestMark mark() {
        return new RequestMark("ines", Optional.empty(), "d");
    }

    private List<Effect> done(Act<?> act) {
        Decision decision = ledger.perform(act);
        assertThat(decision).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision).effects();
    }

    private Act.Continue proceed(long next) {
        return new Act.Continue("a", 1, LANE, MARCH, next, Optional.of("the old book"), mark());
    }

    /** Positions 22 to 26 are recorded ahead of the counter, as one stretch. */
    private void recordAhead() {
        var plan = new TablePlan(
                "a", 1, "parts.csv", "a".repeat(64), "b".repeat(64), TablePlan.Gaps.KEEP, Map.of(LANE, 27L), 5, 1, 0);
        String standing = SeriesStanding.of(
                ledger.state.counters(), ledger.state.series("a").orElseThrow());
        done(new Act.CarryOut("a", new PlanStep.Begin(plan, standing, Optional.of("why")), mark()));
        long begun = ledger.seq();
        var inUse = new PlanStep.InUse(LANE, MARCH, 22, 26, true, FileLines.of(new long[] {2, 3, 4, 5, 6}));
        done(new Act.CarryOut("a", new PlanStep.Record(begun, 0, List.of(inUse)), mark()));
        done(new Act.CarryOut("a", new PlanStep.Complete(begun), mark()));
    }

    private List<String> take(long quantity) {
        return done(new Act.Allocate(
                        "a", Optional.of(MARCH.date()), quantity, Act.Form.SINGLES, Optional.empty(), mark()))
                .stream()
                .filter(Effect.Issued.class::isInstance)
                .flatMap(effect -> ((Effect.Issued) effect).texts().stream())
                .toList();
    }

    /** Wherever the lane is told to go on: before, in the middle of, behind what is recorded ahead. */
    @ParameterizedTest
    @CsvSource({"10, A010 A011", "21, A021 A027", "22, A027 A028", "24, A027 A028", "27, A027 A028", "40, A040 A041"})
    void whatIsRecordedAheadIsAllocatedToNobody(long next, String expected) {
        recordAhead();
        done(proceed(next));
        assertThat(String.join(" ", take(2))).isEqualTo(expected);
    }

    @Test
    void theNumbersBeforeAreInUseAndNoneThatIsAhead() {
        recordAhead();
        assertThat(done(proceed(30)).stream()
                        .filter(Effect.Issued.class::isInstance)
                        .mapToLong(effect -> ((Effect.Issued) effect).quantity())
                        .sum())
                .isEqualTo(25);
    }

    @Test
    void whatIsRecordedAtTheVeryNextPositionIsAheadOfIt() {
        recordAhead();
        done(proceed(21));
        take(1);
        Outlook.Used used = ledger.state.counters().used(LANE);
        assertThat(used.next()).isEqualTo(22);
        assertThat(used.ahead()).containsExactly(Map.entry(22L, 26L));
    }

    @Test
    void aLaneDoesNotGoBack() {
        take(5);
        assertThat(ledger.perform(proceed(5)))
                .isInstanceOfSatisfying(Decision.Refused.class, refused -> assertThat(refused.refusal())
                        .isInstanceOfSatisfying(Refusal.NotContinued.class, why -> assertThat(why.fault())
                                .isEqualTo(Refusal.ContinueFault.BEHIND)));
    }
}
