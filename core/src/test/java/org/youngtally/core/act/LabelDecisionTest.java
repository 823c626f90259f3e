package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.label.LabelState.CANCELLED;
import static org.youngtally.core.label.LabelState.PRINTED;
import static org.youngtally.core.label.LabelState.SENT;
import static org.youngtally.core.label.LabelState.SPOILED;
import static org.youngtally.core.label.LabelState.UNCONFIRMED;
import static org.youngtally.core.label.LabelState.WAITING;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.LongStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** The numbers of labels, and what becomes of them with each label. */
class LabelDecisionTest {
    private static final LocalDate MARCH = LocalDate.of(2026, 3, 2);
    private static final Optional<String> JAM = Optional.of("the roll jammed");

    private final MemoryLedger ledger = new MemoryLedger();

    @BeforeEach
    void define() {
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
        done(new Act.Define(
                new Drafts(
                        List.of(),
                        List.of(),
                        List.of(SeriesDraft.of("pipe", "P-{count 5}")
                                .with(
                                        SeriesProperties.RANGES,
                                        List.of(new RangeDraft(1L, 99_999L, null, "2026-01-01", null, null)))),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(new LayoutDraft("label", null, "40", "20", null, null, null, null, List.of(text)))),
                List.of(),
                Optional.empty()));
    }

    private static RequestMark mark() {
        return new RequestMark("ruben", Optional.empty(), "d");
    }

    private List<Effect> done(Act<?> act) {
        Decision decision = ledger.perform(act);
        assertThat(decision).as(decision.toString()).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision).effects();
    }

    private Refusal refused(Act<?> act) {
        Decision decision = ledger.perform(act);
        assertThat(decision).isInstanceOf(Decision.Refused.class);
        return ((Decision.Refused) decision).refusal();
    }

    private static Act.PrintLabels print(long labels, long each, int copies) {
        return new Act.PrintLabels(
                new LabelJob(
                        "label",
                        1,
                        "pipe",
                        LocalDate.EPOCH,
                        Optional.empty(),
                        Optional.empty(),
                        Map.of(),
                        Optional.empty(),
                        labels,
                        each,
                        copies,
                        Optional.empty()),
                Optional.of(MARCH),
                List.of(new Act.LabelRow(Map.of(), labels / each)),
                mark());
    }

    private long job(long labels, long each, int copies) {
        done(print(labels, each, copies));
        return ledger.seq();
    }

    private static Act.ChangeLabels change(long job, LabelStep step) {
        return new Act.ChangeLabels("pipe", job, step, Purpose.NONE, mark());
    }

    /** Sent, and then as the printer says. */
    private void out(long job, long from, long to, LabelState now) {
        done(change(job, new LabelStep.Send(List.of(new Places(from, to)))));
        if (now != SENT) done(change(job, new LabelStep.Note(new Places(from, to), now)));
    }

    private static LabelStep spoil(long from, long to) {
        return new LabelStep.Spoil(List.of(new Places(from, to)), JAM, true);
    }

    private JobLabels labels(long job) {
        return ledger.state.labels(job).orElseThrow();
    }

    /** The number at a place, counted from 1 as the identifier is. */
    private long number(long job, long place) {
        return labels(job).piece(place).positionAt(place) + 1;
    }

    private PositionState state(long number) {
        return ledger.state.stretches(1, number - 1, number - 1).getFirst().state();
    }

    private static LabelStretch stretch(long from, long to, LabelState state) {
        return new LabelStretch(from, to, state);
    }

    @Test
    void aLabelHasANumberOfItsOwnAndItsCopiesTheSame() {
        long job = job(3, 1, 2);
        assertThat(List.of(number(job, 0), number(job, 1), number(job, 2), number(job, 5)))
                .containsExactly(1L, 1L, 2L, 3L);
    }

    @Test
    void manyNumbersAreOneBlock() {
        assertThat(done(print(5_000, 1, 1)).stream()
                        .filter(Effect.Issued.class::isInstance)
                        .map(effect -> ((Effect.Issued) effect).isBlock()))
                .containsExactly(true);
    }

    @Test
    void aJobKnowsTheDateThatItsNumbersHave() {
        assertThat(labels(job(3, 1, 1)).job().date()).isEqualTo(MARCH);
    }

    @Test
    void moreThanTheRangeHoldsIsRefused() {
        assertThat(refused(print(100_000, 1, 1))).isInstanceOf(Refusal.Exhausted.class);
    }

    @Test
    void aLayoutThatWasChangedMeanwhileIsRefused() {
        var act = print(1, 1, 1);
        var job = act.job();
        assertThat(refused(new Act.PrintLabels(
                        new LabelJob(
                                "label",
                                2,
                                "pipe",
                                job.date(),
                                job.kind(),
                                job.unit(),
                                job.fields(),
                                job.table(),
                                1,
                                1,
                                1,
                                job.printer()),
                        act.date(),
                        act.rows(),
                        mark())))
                .isEqualTo(new Refusal.LayoutChanged("label"));
    }

    @Test
    void whatIsSentIsNotSentAgain() {
        long job = job(10, 1, 1);
        out(job, 0, 4, SENT);
        assertThat(refused(change(job, new LabelStep.Send(List.of(new Places(4, 6))))))
                .isEqualTo(new Refusal.LabelUnfit(job, 4, SENT, "send"));
    }

    @Test
    void aJamLeavesEachLabelInAStateOfItsOwn() {
        long job = job(500, 1, 1);
        done(change(job, new LabelStep.Send(List.of(new Places(0, 199)))));
        done(change(job, new LabelStep.Note(new Places(0, 119), PRINTED)));
        done(change(job, new LabelStep.Note(new Places(120, 199), UNCONFIRMED)));
        assertThat(labels(job).stretches())
                .containsExactly(stretch(0, 119, PRINTED), stretch(120, 199, UNCONFIRMED), stretch(200, 499, WAITING));
    }

    @Test
    void whatAPersonSaidBeforeThePrinterStays() {
        long job = job(4, 1, 1);
        out(job, 0, 3, SENT);
        done(change(job, spoil(1, 1)));
        done(change(job, new LabelStep.Note(new Places(0, 3), PRINTED)));
        assertThat(labels(job).state(1)).isEqualTo(SPOILED);
    }

    @Test
    void aReprintBearsTheSameNumbersAndIsMarked() {
        long job = job(10, 1, 1);
        out(job, 0, 9, UNCONFIRMED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(3, 5)), JAM)));
        assertThat(List.of(number(job, 10), number(job, 12))).containsExactly(4L, 6L);
        assertThat(labels(job).piece(10).reprint()).isTrue();
    }

    @Test
    void whatWasUnconfirmedIsSpoiledByItsReprint() {
        long job = job(10, 1, 1);
        out(job, 0, 9, UNCONFIRMED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(3, 5)), JAM)));
        assertThat(labels(job).stretches())
                .containsExactly(
                        stretch(0, 2, UNCONFIRMED),
                        stretch(3, 5, SPOILED),
                        stretch(6, 9, UNCONFIRMED),
                        stretch(10, 12, WAITING));
    }

    @Test
    void whatIsPrintedStaysSoBesideItsReprint() {
        long job = job(2, 1, 1);
        out(job, 0, 1, PRINTED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(0, 0)), JAM)));
        assertThat(labels(job).state(0)).isEqualTo(PRINTED);
    }

    @Test
    void theNumberOfALabelThatIsSpoiledBecomesVoid() {
        long job = job(10, 1, 1);
        out(job, 0, 9, PRINTED);
        done(change(job, spoil(3, 4)));
        assertThat(List.of(state(3), state(4), state(5), state(6)))
                .containsExactly(
                        PositionState.ISSUED, PositionState.VOIDED, PositionState.VOIDED, PositionState.ISSUED);
    }

    @Test
    void aNewNumberComesInItsStead() {
        long job = job(10, 1, 1);
        out(job, 0, 9, PRINTED);
        done(change(job, spoil(3, 4)));
        assertThat(List.of(number(job, 10), number(job, 11))).containsExactly(11L, 12L);
        assertThat(labels(job).piece(10).originalOf(10)).isEqualTo(3);
    }

    @Test
    void aCopyIsPrintedAgainWithItsNumber() {
        long job = job(3, 1, 2);
        out(job, 0, 5, PRINTED);
        done(change(job, spoil(3, 3)));
        assertThat(number(job, 6)).isEqualTo(2);
        assertThat(state(2)).isEqualTo(PositionState.ISSUED);
    }

    @Test
    void theNumberIsVoidOnceNoCopyIsLeft() {
        long job = job(3, 1, 2);
        out(job, 0, 5, PRINTED);
        done(change(job, new LabelStep.Spoil(List.of(new Places(2, 2)), JAM, false)));
        assertThat(state(2)).isEqualTo(PositionState.ISSUED);
        done(change(job, new LabelStep.Spoil(List.of(new Places(3, 3)), JAM, false)));
        assertThat(state(2)).isEqualTo(PositionState.VOIDED);
    }

    @Test
    void asManyAreReplacedAsThereWereToBe() {
        long job = job(1, 1, 2);
        out(job, 0, 1, PRINTED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(0, 0)), JAM)));
        done(change(job, spoil(0, 0)));
        assertThat(labels(job).size()).isEqualTo(3);
    }

    @Test
    void spoilingTakesAReason() {
        long job = job(1, 1, 1);
        out(job, 0, 0, PRINTED);
        assertThat(refused(change(job, new LabelStep.Spoil(List.of(new Places(0, 0)), Optional.empty(), true))))
                .isInstanceOf(Refusal.ReasonMissing.class);
    }

    @Test
    void aLabelWhoseNumberIsVoidIsNotPrintedAgain() {
        long job = job(3, 1, 1);
        out(job, 0, 2, PRINTED);
        done(change(job, spoil(1, 1)));
        assertThat(refused(change(job, new LabelStep.Reprint(List.of(new Places(0, 2)), JAM))))
                .isEqualTo(new Refusal.LabelDead(job, 1, "P-00002", PositionState.VOIDED));
    }

    @Test
    void whatWasNeverSentIsReturned() {
        long job = job(5_000, 1, 1);
        out(job, 0, 9, PRINTED);
        done(change(job, new LabelStep.Cancel(List.of(), Optional.empty())));
        assertThat(List.of(state(10), state(11), state(5_000)))
                .containsExactly(PositionState.ISSUED, PositionState.RETURNED, PositionState.RETURNED);
        assertThat(labels(job).stretches()).containsExactly(stretch(0, 9, PRINTED), stretch(10, 4_999, CANCELLED));
    }

    @Test
    void aNumberThatWasOnASpoiledLabelIsVoidAndNotReturned() {
        long job = job(3, 1, 1);
        out(job, 0, 2, UNCONFIRMED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(1, 1)), JAM)));
        done(change(job, new LabelStep.Cancel(List.of(new Places(3, 3)), Optional.empty())));
        assertThat(state(2)).isEqualTo(PositionState.VOIDED);
    }

    @Test
    void aNumberStaysWhileACopyBearsIt() {
        long job = job(2, 1, 2);
        out(job, 0, 0, PRINTED);
        done(change(job, new LabelStep.Cancel(List.of(), Optional.empty())));
        assertThat(List.of(state(1), state(2))).containsExactly(PositionState.ISSUED, PositionState.RETURNED);
    }

    @Test
    void aNumberOfALabelIsNotReturnedWithoutIt() {
        long job = job(3, 1, 1);
        assertThat(refused(new Act.Settle(
                        "pipe",
                        new Selection.Identifiers(List.of("P-00002")),
                        Act.Deed.RETURN,
                        Optional.empty(),
                        mark())))
                .isEqualTo(new Refusal.OnALabel("pipe", "P-00002", job));
    }

    @Test
    void aSheetOfLabelsBearsOneNumber() {
        long job = job(48, 24, 1);
        assertThat(List.of(number(job, 0), number(job, 23), number(job, 24), number(job, 47)))
                .containsExactly(1L, 1L, 2L, 2L);
    }

    @Test
    void aPartOfASheetIsPrintedAgainWithItsNumber() {
        long job = job(48, 24, 1);
        out(job, 0, 47, UNCONFIRMED);
        done(change(job, new LabelStep.Reprint(List.of(new Places(20, 27)), JAM)));
        assertThat(List.of(number(job, 48), number(job, 51), number(job, 52), number(job, 55)))
                .containsExactly(1L, 1L, 2L, 2L);
    }

    @Test
    void aThousandRunsOfLabelsAreOneAct() {
        long job = job(4_000, 1, 1);
        out(job, 0, 3_999, PRINTED);
        List<Places> each = LongStream.range(0, 1_001)
                .mapToObj(i -> new Places(2 * i, 2 * i))
                .toList();
        assertThat(refused(change(job, new LabelStep.Reprint(each, JAM))))
                .isEqualTo(new Refusal.TooManyLabels(job, 1_001, 1_000));
        done(change(job, new LabelStep.Reprint(each.subList(0, 1_000), JAM)));
        assertThat(labels(job).size()).isEqualTo(5_000);
    }

    /** Each reprint of single labels adds as many pieces; what waits is sent in as many acts as it takes. */
    @Test
    void howeverManyPiecesWaitTheyCanBeSent() {
        long job = job(6_000, 1, 1);
        out(job, 0, 5_999, PRINTED);
        for (long first = 0; first < 3_000; first += 1_000) {
            long from = 2 * first;
            List<Places> each = LongStream.range(0, 1_000)
                    .mapToObj(i -> new Places(from + 2 * i, from + 2 * i))
                    .toList();
            done(change(job, new LabelStep.Reprint(each, JAM)));
        }
        while (!labels(job).waiting().isEmpty())
            done(change(
                    job,
                    new LabelStep.Send(labels(job).waiting(20_000, Decider.MOST_SETTLED).stream()
                            .map(each -> new Places(each.from(), each.to()))
                            .toList())));
        assertThat(labels(job).counts()).containsOnlyKeys(PRINTED, SENT);
    }

    @Test
    void noMoreIsSentThanIsDrawn() {
        long job = job(5_000, 1, 1);
        assertThat(labels(job).waiting(1_200, 1_000)).containsExactly(stretch(0, 1_199, WAITING));
    }

    @Test
    void anUnknownPlaceIsNamed() {
        long job = job(3, 1, 1);
        assertThat(refused(change(job, new LabelStep.Send(List.of(new Places(2, 3))))))
                .isEqualTo(new Refusal.NoSuchLabel(job, 2, 3, 3));
    }
}
