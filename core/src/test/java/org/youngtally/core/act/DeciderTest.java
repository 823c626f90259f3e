package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.draft;
import static org.youngtally.core.series.Sample.range;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.youngtally.core.series.Sample;
import org.youngtally.core.series.SeriesDraft;

class DeciderTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private final MapState state = new MapState();

    private Decision decide(Act act) {
        Decision decision = Decider.decide(state, act, TODAY);
        if (decision instanceof Decision.Done done) state.take(act, done);
        return decision;
    }

    private void define(SeriesDraft... drafts) {
        assertThat(decide(new Act.Define(List.of(drafts), Optional.empty()))).isInstanceOf(Decision.Done.class);
    }

    private static Act.Allocate take(String series, long quantity, String date) {
        return new Act.Allocate(series, Optional.ofNullable(date).map(LocalDate::parse), quantity, Act.Form.SINGLES, Optional.empty(), new RequestMark("ines", Optional.empty(), "d"));
    }

    private List<String> texts(Decision decision) {
        assertThat(decision).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision).effects().stream().filter(Effect.Issued.class::isInstance).flatMap(effect -> ((Effect.Issued) effect).texts().stream()).toList();
    }

    private static Refusal refusal(Decision decision) {
        assertThat(decision).isInstanceOf(Decision.Refused.class);
        return ((Decision.Refused) decision).refusal();
    }

    @Test
    void numbersComeInARowAndANewYearStartsByItself() {
        define(Sample.invoices());
        assertThat(texts(decide(take("invoice", 2, null)))).containsExactly("LW26-00001", "LW26-00002");
        assertThat(texts(decide(take("invoice", 1, "2027-01-01")))).containsExactly("LW27-00001");
        assertThat(texts(decide(take("invoice", 1, "2026-12-31")))).containsExactly("LW26-00003");
    }

    @Test
    void oneRequestRunsOnIntoTheNextRange() {
        define(draft("a", null, "A{count 2}", null, range(1, 3, "2026-01-01"), range(50, 40, -1, "2026-01-01", null)));
        assertThat(texts(decide(take("a", 5, null)))).containsExactly("A01", "A02", "A03", "A50", "A49");
    }

    @Test
    void aQuantityThatDoesNotFitTakesNone() {
        define(draft("a", null, "A{count 2}", null, range(1, 3, 1, "2026-01-01", "2026-06-30"), range(4, 9, "2026-07-01")));
        assertThat(refusal(decide(take("a", 5, null)))).isEqualTo(new Refusal.Exhausted("a", TODAY, 5, 3, Optional.of(LocalDate.of(2026, 7, 1))));
        assertThat(texts(decide(take("a", 3, null)))).containsExactly("A01", "A02", "A03");
        assertThat(refusal(decide(take("a", 1, null)))).isEqualTo(new Refusal.Exhausted("a", TODAY, 1, 0, Optional.of(LocalDate.of(2026, 7, 1))));
    }

    @Test
    void aDateOutsideEveryRangeIsRefused() {
        define(Sample.invoices());
        assertThat(refusal(decide(take("invoice", 1, "2025-12-31")))).isInstanceOf(Refusal.DateNotServed.class);
        assertThat(refusal(decide(take("invoice", 1, "2100-01-01")))).isInstanceOf(Refusal.DateNotServed.class);
    }

    @Test
    void anUnknownSeriesIsToldTheNearest() {
        define(Sample.invoices());
        assertThat(refusal(decide(take("invioce", 1, null)))).isEqualTo(new Refusal.UnknownSeries("invioce", Optional.of("invoice")));
        assertThat(refusal(decide(take("somethingelse", 1, null)))).isEqualTo(new Refusal.UnknownSeries("somethingelse", Optional.empty()));
    }

    @Test
    void quantitiesHaveBounds() {
        define(Sample.invoices());
        for (long quantity : new long[] {0, -1, 10_001, Long.MAX_VALUE}) assertThat(refusal(decide(take("invoice", quantity, null)))).isInstanceOf(Refusal.QuantityOutOfBounds.class);
        var block = new Act.Allocate("invoice", Optional.empty(), 50_000, Act.Form.BLOCK, Optional.empty(), new RequestMark("ines", Optional.empty(), "d"));
        assertThat(((Decision.Done) decide(block)).effects()).last().satisfies(effect -> assertThat(((Effect.Issued) effect).isBlock()).isTrue());
    }

    @Test
    void theSameRequestIsRepeatedAndAnotherOneRefused() {
        define(Sample.invoices());
        var mark = new RequestMark("ines", Optional.of("k1"), "digest");
        var first = new Act.Allocate("invoice", Optional.empty(), 1, Act.Form.SINGLES, Optional.of("ORDER-1"), mark);
        decide(first);
        assertThat(decide(first)).isEqualTo(new Decision.Repeated(2));
        assertThat(decide(new Act.Allocate("invoice", Optional.empty(), 1, Act.Form.SINGLES, Optional.of("ORDER-1"), new RequestMark("tobin", Optional.empty(), "digest")))).isEqualTo(new Decision.Repeated(2));
        assertThat(refusal(decide(new Act.Allocate("invoice", Optional.empty(), 2, Act.Form.SINGLES, Optional.of("ORDER-1"), new RequestMark("ines", Optional.of("k2"), "other"))))).isInstanceOf(Refusal.ReferenceReused.class);
        assertThat(refusal(decide(new Act.Allocate("invoice", Optional.empty(), 2, Act.Form.SINGLES, Optional.empty(), new RequestMark("ines", Optional.of("k1"), "other"))))).isInstanceOf(Refusal.KeyReused.class);
    }

    @Test
    void aKeyBelongsToOneAccount() {
        define(Sample.invoices());
        decide(new Act.Allocate("invoice", Optional.empty(), 1, Act.Form.SINGLES, Optional.empty(), new RequestMark("ines", Optional.of("k"), "d")));
        assertThat(texts(decide(new Act.Allocate("invoice", Optional.empty(), 1, Act.Form.SINGLES, Optional.empty(), new RequestMark("tobin", Optional.of("k"), "d"))))).containsExactly("LW26-00002");
    }

    @Test
    void oneFaultyDefinitionKeepsAllOut() {
        Decision decision = decide(new Act.Define(List.of(Sample.invoices(), draft("b", null, "{count", null, range(1, 9, "2026-01-01"))), Optional.empty()));
        assertThat(((Refusal.DefinitionsFaulty) refusal(decision)).faults()).singleElement().satisfies(faults -> assertThat(faults.index()).isEqualTo(1));
        assertThat(state.series).isEmpty();
    }

    @Test
    void twoSeriesThatWouldClashAreRefusedWithBothWays() {
        define(draft("a", "n", "A{count 3}", null, range(1, 99, "2026-01-01")));
        Decision decision = decide(new Act.Define(List.of(draft("b", "n", "a0{count 2}", null, range(7, 9, "2026-01-01"))), Optional.empty()));
        Refusal.SeriesFaults faults = ((Refusal.DefinitionsFaulty) refusal(decision)).faults().getFirst();
        assertThat(faults.faults().getFirst().problem()).contains("A007");
        assertThat(faults.clash()).get().satisfies(clash -> assertThat(List.of(clash.one().series(), clash.other().series())).containsExactlyInAnyOrder("a", "b"));
    }

    @Test
    void aSeriesDefinedTwiceInOneGoIsRefused() {
        assertThat(refusal(decide(new Act.Define(List.of(Sample.invoices(), Sample.invoices()), Optional.empty())))).isInstanceOf(Refusal.DefinitionsFaulty.class);
    }

    @Test
    void aChangeOnAnOldVersionIsRefused() {
        define(Sample.invoices());
        assertThat(refusal(decide(new Act.Define(List.of(Sample.invoices()), Optional.of(0))))).isEqualTo(new Refusal.VersionMoved("invoice", 0, 1));
        assertThat(decide(new Act.Define(List.of(Sample.invoices()), Optional.of(1)))).isEqualTo(new Decision.Done(List.of()));
    }

    @Test
    void aFileIsKeptOnceAndAgainWhenItsTextChanges() {
        Function<String, Act> apply = text -> new Act.Define(List.of(Sample.invoices()), List.of(new KeptFile("a.yaml", text)), Optional.empty());
        Decision.Done first = (Decision.Done) decide(apply.apply("one"));
        assertThat(first.effects()).hasSize(2).contains(new Effect.FileKept(new KeptFile("a.yaml", "one")));
        assertThat(decide(apply.apply("one"))).isEqualTo(new Decision.Done(List.of()));
        assertThat(decide(apply.apply("one # and a comment"))).isEqualTo(new Decision.Done(List.of(new Effect.FileKept(new KeptFile("a.yaml", "one # and a comment")))));
    }
}
