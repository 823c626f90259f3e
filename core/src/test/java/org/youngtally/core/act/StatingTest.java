package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** What a lost state of the ledger may have issued is in doubt, and is allocated to nobody. */
class StatingTest {
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

    private List<String> take(Act.Form form, long quantity) {
        return done(new Act.Allocate("a", Optional.of(MARCH.date()), quantity, form, Optional.empty(), mark())).stream()
                .filter(Effect.Issued.class::isInstance)
                .flatMap(effect -> ((Effect.Issued) effect).texts().stream())
                .toList();
    }

    private void settle(Act.Deed deed, String text) {
        done(new Act.Settle(
                "a", new Selection.Identifiers(List.of(text)), deed, Optional.of("the file was found"), mark()));
    }

    private void stated(long highest) {
        done(stating(highest));
    }

    private static Act.StateHighest stating(long highest) {
        return new Act.StateHighest(
                "a", 1, List.of(new Act.HighestIn(LANE, MARCH, highest)), Optional.of("the last invoice"), mark());
    }

    private PositionState at(long position) {
        int lane = ledger.state.lane(LANE).orElseThrow().lane();
        return ledger.state.stretches(lane, position, position).getFirst().state();
    }

    @Test
    void theNextNumberIsBehindTheHighest() {
        take(Act.Form.SINGLES, 3);
        stated(9);
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A010");
    }

    @Test
    void whatLiesBetweenIsInDoubt() {
        take(Act.Form.SINGLES, 3);
        stated(9);
        assertThat(at(3)).isEqualTo(PositionState.IN_DOUBT);
    }

    @Test
    void whatTheLedgerKnowsToBeIssuedIsNotInDoubt() {
        take(Act.Form.SINGLES, 3);
        stated(9);
        assertThat(at(2)).isEqualTo(PositionState.ISSUED);
    }

    /** The lost state may have issued it again. */
    @Test
    void aReturnedNumberIsNotIssuedAgain() {
        take(Act.Form.SINGLES, 3);
        settle(Act.Deed.RETURN, "A001");
        stated(5);
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A006");
    }

    /** In the lost state it may have lapsed, and may have been issued to somebody else. */
    @Test
    void aHeldNumberIsInDoubt() {
        take(new Act.Form.Held(Duration.ofHours(1)), 1);
        stated(5);
        assertThat(at(0)).isEqualTo(PositionState.IN_DOUBT);
    }

    @Test
    void aLaneThatIsNotThereYetIsOpened() {
        stated(4);
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A005");
    }

    @Test
    void aHighestThatTheLedgerHasPassedMovesNothing() {
        take(Act.Form.SINGLES, 3);
        stated(1);
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A003");
    }

    @Test
    void oneInDoubtTurnsOutToBeIssued() {
        stated(4);
        settle(Act.Deed.USE, "A002");
        assertThat(at(2)).isEqualTo(PositionState.USED);
    }

    @Test
    void oneInDoubtIsVoided() {
        stated(4);
        settle(Act.Deed.VOID, "A002");
        assertThat(at(2)).isEqualTo(PositionState.VOIDED);
    }

    @Test
    void oneInDoubtIsNotReturned() {
        stated(4);
        assertThat(ledger.perform(new Act.Settle(
                        "a", new Selection.Identifiers(List.of("A002")), Act.Deed.RETURN, Optional.empty(), mark())))
                .isInstanceOfSatisfying(Decision.Refused.class, refused -> assertThat(refused.refusal())
                        .isInstanceOf(Refusal.Unfit.class));
    }

    /** The lost state may have had it returned, and issued to somebody else. */
    @Test
    void aNumberFromBeforeTheLossIsNotIssuedAgainWhenItIsReturned() {
        take(Act.Form.SINGLES, 3);
        stated(5);
        settle(Act.Deed.RETURN, "A001");
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A006");
    }

    @Test
    void aNumberFromBehindTheLossIsIssuedAgainWhenItIsReturned() {
        stated(5);
        take(Act.Form.SINGLES, 3);
        settle(Act.Deed.RETURN, "A007");
        assertThat(take(Act.Form.SINGLES, 1)).containsExactly("A007");
    }

    @Test
    void itIsNotStatedWithoutAReason() {
        var act = new Act.StateHighest("a", 1, List.of(), Optional.empty(), mark());
        assertThat(ledger.perform(act))
                .isInstanceOfSatisfying(Decision.Refused.class, refused -> assertThat(refused.refusal())
                        .isInstanceOf(Refusal.ReasonMissing.class));
    }
}
