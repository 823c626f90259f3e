package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.draft;
import static org.youngtally.core.series.Sample.range;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.NullSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.Sample;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SkipsDraft;

class DeciderTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private final MemoryLedger ledger = new MemoryLedger();

    private Decision decide(Act<?> act) {
        return ledger.decide(act, Instant.parse("2026-03-02T09:00:00Z"), TODAY);
    }

    private void define(SeriesDraft... drafts) {
        assertThat(decide(new Act.Define(List.of(drafts), Optional.empty()))).isInstanceOf(Decision.Done.class);
    }

    private static Act.Allocate take(String series, long quantity, String date) {
        return new Act.Allocate(
                series,
                Optional.ofNullable(date).map(LocalDate::parse),
                quantity,
                Act.Form.SINGLES,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
    }

    private List<String> texts(Decision decision) {
        assertThat(decision).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision)
                .effects().stream()
                        .filter(Effect.Issued.class::isInstance)
                        .flatMap(effect -> ((Effect.Issued) effect).texts().stream())
                        .toList();
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
        define(draft(
                "a", null, "A{count 2}", null, range(1, 3, 1, "2026-01-01", "2026-06-30"), range(4, 9, "2026-07-01")));
        assertThat(refusal(decide(take("a", 5, null))))
                .isEqualTo(new Refusal.Exhausted("a", TODAY, 5, 3, Optional.of(LocalDate.of(2026, 7, 1))));
        assertThat(texts(decide(take("a", 3, null)))).containsExactly("A01", "A02", "A03");
        assertThat(refusal(decide(take("a", 1, null))))
                .isEqualTo(new Refusal.Exhausted("a", TODAY, 1, 0, Optional.of(LocalDate.of(2026, 7, 1))));
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
        assertThat(refusal(decide(take("invioce", 1, null))))
                .isEqualTo(new Refusal.UnknownSeries("invioce", Optional.of("invoice")));
        assertThat(refusal(decide(take("somethingelse", 1, null))))
                .isEqualTo(new Refusal.UnknownSeries("somethingelse", Optional.empty()));
    }

    @Test
    void quantitiesHaveBounds() {
        define(Sample.invoices());
        for (long quantity : new long[] {0, -1, 10_001, Long.MAX_VALUE})
            assertThat(refusal(decide(take("invoice", quantity, null))))
                    .isInstanceOf(Refusal.QuantityOutOfBounds.class);
        var block = new Act.Allocate(
                "invoice",
                Optional.empty(),
                50_000,
                Act.Form.BLOCK,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
        assertThat(((Decision.Done) decide(block)).effects()).last().satisfies(effect -> assertThat(
                        ((Effect.Issued) effect).isBlock())
                .isTrue());
    }

    private Decision reference(String date, long quantity, Act.Form form, String unit) {
        return decide(new Act.Allocate(
                "invoice",
                Optional.ofNullable(date).map(LocalDate::parse),
                Map.of(),
                quantity,
                form,
                Optional.of("ORDER-1"),
                new Purpose(Optional.empty(), Optional.ofNullable(unit)),
                new RequestMark("ines", Optional.empty(), "digest " + date + quantity + form + unit)));
    }

    @ParameterizedTest
    @NullSource
    @ValueSource(strings = "2026-03-02")
    void aReferenceWithTheSameMeaningIsRepeatedWhateverItsWords(String date) {
        define(Sample.invoices());
        assertThat(reference("2026-03-02", 2, Act.Form.SINGLES, null)).isInstanceOf(Decision.Done.class);
        assertThat(reference(date, 2, new Act.Form.Singles(), null)).isEqualTo(new Decision.Repeated(2));
    }

    static Stream<Arguments> otherMeanings() {
        return Stream.of(
                Arguments.of("2026-03-03", 2L, Act.Form.SINGLES, null),
                Arguments.of(null, 1L, Act.Form.SINGLES, null),
                Arguments.of(null, 2L, Act.Form.BLOCK, null),
                Arguments.of(null, 2L, new Act.Form.Held(Duration.ofHours(1)), null),
                Arguments.of(null, 2L, Act.Form.SINGLES, "works"));
    }

    @ParameterizedTest
    @MethodSource("otherMeanings")
    void aReferenceWithAnotherMeaningIsRefused(String date, long quantity, Act.Form form, String unit) {
        define(Sample.invoices());
        reference("2026-03-02", 2, Act.Form.SINGLES, null);
        assertThat(refusal(reference(date, quantity, form, unit))).isInstanceOf(Refusal.ReferenceReused.class);
    }

    @Test
    void aTypedNumbersReferenceIsRepeatedHoweverTheNumberIsWrittenAndForNoOther() {
        define(Sample.invoices().with(SeriesProperties.TYPED, "allowed"));
        assertThat(reference("2026-03-02", 1, new Act.Form.Typed("LW26-00003"), null))
                .isInstanceOf(Decision.Done.class);
        assertThat(reference(null, 1, new Act.Form.Typed("lw26-00003"), null)).isEqualTo(new Decision.Repeated(2));
        assertThat(refusal(reference(null, 1, new Act.Form.Typed("LW26-00004"), null)))
                .isInstanceOf(Refusal.ReferenceReused.class);
    }

    @Test
    void theSameRequestIsRepeatedAndAnotherOneRefused() {
        define(Sample.invoices());
        var mark = new RequestMark("ines", Optional.of("k1"), "digest");
        var first = new Act.Allocate("invoice", Optional.empty(), 1, Act.Form.SINGLES, Optional.of("ORDER-1"), mark);
        decide(first);
        assertThat(decide(first)).isEqualTo(new Decision.Repeated(2));
        assertThat(decide(new Act.Allocate(
                        "invoice",
                        Optional.empty(),
                        1,
                        Act.Form.SINGLES,
                        Optional.of("ORDER-1"),
                        new RequestMark("tobin", Optional.empty(), "digest"))))
                .isEqualTo(new Decision.Repeated(2));
        assertThat(refusal(decide(new Act.Allocate(
                        "invoice",
                        Optional.empty(),
                        2,
                        Act.Form.SINGLES,
                        Optional.of("ORDER-1"),
                        new RequestMark("ines", Optional.of("k2"), "other")))))
                .isInstanceOf(Refusal.ReferenceReused.class);
        assertThat(refusal(decide(new Act.Allocate(
                        "invoice",
                        Optional.empty(),
                        2,
                        Act.Form.SINGLES,
                        Optional.empty(),
                        new RequestMark("ines", Optional.of("k1"), "other")))))
                .isInstanceOf(Refusal.KeyReused.class);
    }

    @Test
    void aKeyBelongsToOneAccount() {
        define(Sample.invoices());
        decide(new Act.Allocate(
                "invoice",
                Optional.empty(),
                1,
                Act.Form.SINGLES,
                Optional.empty(),
                new RequestMark("ines", Optional.of("k"), "d")));
        assertThat(texts(decide(new Act.Allocate(
                        "invoice",
                        Optional.empty(),
                        1,
                        Act.Form.SINGLES,
                        Optional.empty(),
                        new RequestMark("tobin", Optional.of("k"), "d")))))
                .containsExactly("LW26-00002");
    }

    @Test
    void oneFaultyDefinitionKeepsAllOut() {
        Decision decision = decide(new Act.Define(
                List.of(Sample.invoices(), draft("b", null, "{count", null, range(1, 9, "2026-01-01"))),
                Optional.empty()));
        assertThat(((Refusal.DefinitionsFaulty) refusal(decision)).faults())
                .singleElement()
                .satisfies(faults -> assertThat(faults.index()).isEqualTo(1));
        assertThat(ledger.state.allSeries()).isEmpty();
    }

    @Test
    void twoSeriesThatWouldClashAreRefusedWithBothWays() {
        define(draft("a", "n", "A{count 3}", null, range(1, 99, "2026-01-01")));
        Decision decision = decide(new Act.Define(
                List.of(draft("b", "n", "a0{count 2}", null, range(7, 9, "2026-01-01"))), Optional.empty()));
        Refusal.DraftFaults faults =
                ((Refusal.DefinitionsFaulty) refusal(decision)).faults().getFirst();
        assertThat(faults.faults().getFirst().problem()).contains("A007");
        assertThat(faults.clash()).get().satisfies(clash -> assertThat(
                        List.of(clash.one().series(), clash.other().series()))
                .containsExactlyInAnyOrder("a", "b"));
    }

    @Test
    void aSeriesDefinedTwiceInOneGoIsRefused() {
        assertThat(refusal(decide(new Act.Define(List.of(Sample.invoices(), Sample.invoices()), Optional.empty()))))
                .isInstanceOf(Refusal.DefinitionsFaulty.class);
    }

    @Test
    void aChangeOnAnOldVersionIsRefused() {
        define(Sample.invoices());
        assertThat(refusal(decide(new Act.Define(List.of(Sample.invoices()), Optional.of(0)))))
                .isEqualTo(new Refusal.VersionMoved(Refusal.What.SERIES, "invoice", 0, 1));
        assertThat(decide(new Act.Define(List.of(Sample.invoices()), Optional.of(1))))
                .isEqualTo(new Decision.Done(List.of()));
    }

    @Test
    void aFileIsKeptOnceAndAgainWhenItsTextChanges() {
        Function<String, Act<?>> apply = text -> new Act.Define(
                Drafts.of(List.of(Sample.invoices())), List.of(new KeptFile("a.yaml", text)), Optional.empty());
        Decision.Done first = (Decision.Done) decide(apply.apply("one"));
        assertThat(first.effects()).contains(new Effect.FileKept(new KeptFile("a.yaml", "one")));
        assertThat(decide(apply.apply("one"))).isEqualTo(new Decision.Done(List.of()));
        assertThat(decide(apply.apply("one # and a comment")))
                .isEqualTo(
                        new Decision.Done(List.of(new Effect.FileKept(new KeptFile("a.yaml", "one # and a comment")))));
    }

    private static Effect.Skipped skipped(int from, int to) {
        return new Effect.Skipped(1, from, to, 1, Particulars.on(TODAY));
    }

    @Test
    void skippedPositionsAreTakenNoteOfWhenTheyArePassed() {
        define(SeriesDraft.of("a", "A{count 3}")
                .with(SeriesProperties.SKIPS, new SkipsDraft(List.of("3-4"), List.of("6")))
                .with(SeriesProperties.RANGES, List.of(range(1, 70, "2026-01-01"))));
        assertThat(texts(decide(take("a", 2, null)))).containsExactly("A001", "A002");
        Decision.Done over = (Decision.Done) decide(take("a", 3, null));
        assertThat(texts(over)).containsExactly("A005", "A007", "A008");
        assertThat(over.effects().stream().filter(Effect.Skipped.class::isInstance))
                .containsExactly(skipped(2, 3), skipped(5, 5));
        assertThat(texts(decide(take("a", 45, null)))).hasSize(45).endsWith("A058");
        assertThat(refusal(decide(take("a", 3, null))))
                .as("only 59 and 70 are left")
                .isEqualTo(new Refusal.Exhausted("a", TODAY, 3, 2, Optional.empty()));
        assertThat(texts(decide(take("a", 2, null)))).containsExactly("A059", "A070");
    }

    @Test
    void aBlockIsTakenInStretchesAroundSkippedValues() {
        define(SeriesDraft.of("a", "A{count 5}")
                .with(SeriesProperties.SKIPS, new SkipsDraft(null, List.of("7")))
                .with(SeriesProperties.RANGES, List.of(range(1, 99_999, "2026-01-01"))));
        var block = new Act.Allocate(
                "a",
                Optional.empty(),
                100,
                Act.Form.BLOCK,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
        var effects = ((Decision.Done) decide(block)).effects();
        assertThat(effects.stream()
                        .filter(Effect.Issued.class::isInstance)
                        .mapToLong(effect -> ((Effect.Issued) effect).quantity())
                        .sum())
                .isEqualTo(100);
        assertThat(effects).contains(skipped(6, 6), skipped(69, 78));
        var wide = new Act.Allocate(
                "a",
                Optional.empty(),
                50_000,
                Act.Form.BLOCK,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
        assertThat(refusal(decide(wide)))
                .isInstanceOfSatisfying(Refusal.BlockInPieces.class, pieces -> assertThat(pieces.most())
                        .isBetween(1_000L, 49_999L));
    }

    @Test
    void aScatteredSeriesGivesEachValueOnceInNoOrder() {
        define(SeriesDraft.of("a", "A{count 3}")
                .with(SeriesProperties.ORDER, "scattered")
                .with(SeriesProperties.RANGES, List.of(range(0, 999, "2026-01-01"))));
        List<String> texts = texts(decide(take("a", 1_000, null)));
        assertThat(texts)
                .doesNotHaveDuplicates()
                .hasSize(1_000)
                .isNotEqualTo(texts.stream().sorted().toList());
        assertThat(refusal(decide(take("a", 1, null)))).isInstanceOf(Refusal.Exhausted.class);
        assertThat(faults(SeriesDraft.of("a", "A{count 3}")
                        .with(SeriesProperties.ORDER, "scattered")
                        .with(SeriesProperties.RANGES, List.of(range(0, 998, "2026-01-01")))))
                .contains("is fixed at 999", "because the series is scattered");
        assertThat(faults(SeriesDraft.of("a", "A{count 3}")
                        .with(SeriesProperties.RANGES, List.of(range(0, 999, "2026-01-01")))))
                .contains("is fixed at ‘scattered’");
    }

    private String faults(SeriesDraft draft) {
        return refusal(decide(new Act.Define(List.of(draft), Optional.empty()))).toString();
    }

    @Test
    void marksComeRoundAgainWhereTheNamespaceSaysSo() {
        SeriesDraft marks = SeriesDraft.of("mark", "{count upper}")
                .with(SeriesProperties.NAMESPACE, "marks")
                .with(SeriesProperties.ORDER, "repeating")
                .with(SeriesProperties.RANGES, List.of(range(1, 3, "2026-01-01")));
        assertThat(faults(marks)).contains("does not say that its marks come round again");
        assertThat(decide(new Act.Define(
                        new Drafts(
                                List.of(new NamespaceDraft("marks", null, "allowed", null)), List.of(), List.of(marks)),
                        List.of(),
                        Optional.empty())))
                .isInstanceOf(Decision.Done.class);
        Decision.Done taken = (Decision.Done) decide(take("mark", 7, null));
        assertThat(texts(taken)).containsExactly("A", "B", "C", "A", "B", "C", "A");
        assertThat(taken.effects().stream()
                        .filter(Effect.Issued.class::isInstance)
                        .map(effect -> ((Effect.Issued) effect).round()))
                .containsExactly(1L, 2L, 3L);
        assertThat(texts(decide(take("mark", 1, null)))).containsExactly("B");
        assertThat(decide(new Act.Define(List.of(marks), Optional.empty())))
                .as("as it was, after more than one round")
                .isEqualTo(new Decision.Done(List.of()));
        assertThat(faults(SeriesDraft.of("mark", "{count upper}")
                        .with(SeriesProperties.NAMESPACE, "marks")
                        .with(SeriesProperties.ORDER, "repeating")
                        .with(SeriesProperties.RANGES, List.of(range(1, 9, "2026-01-01")))))
                .contains("is fixed at 3");
        assertThat(faults(draft("in-turn", "marks", "{count upper}", null, range(1, 3, "2026-01-01"))))
                .contains("is for marks that come round again");
        assertThat(refusal(decide(new Act.Define(
                                new Drafts(
                                        List.of(new NamespaceDraft("marks", null, null, null)), List.of(), List.of()),
                                List.of(),
                                Optional.empty())))
                        .toString())
                .contains("after the first number of the namespace was issued");
    }

    @Test
    void aCodebookThatGrowsIsProvedAgainForEverySeriesThatUsesIt() {
        SeriesDraft parts = SeriesDraft.of("part", "{field group}{count 2}")
                .with(SeriesProperties.NAMESPACE, "n")
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("group", "group", null, null, null)))
                .with(SeriesProperties.RESTARTS, List.of("field group"))
                .with(SeriesProperties.RANGES, List.of(range(1, 99, "2026-01-01")));
        assertThat(decide(new Act.Define(
                        new Drafts(
                                List.of(),
                                List.of(book("A", "B")),
                                List.of(parts, draft("c", "n", "C{count 2}", null, range(1, 99, "2026-01-01")))),
                        List.of(),
                        Optional.empty())))
                .isInstanceOf(Decision.Done.class);
        assertThat(texts(decide(take("part", 1, null, "group", "a")))).containsExactly("A01");
        assertThat(texts(decide(take("part", 1, null, "group", "B")))).containsExactly("B01");
        assertThat(refusal(decide(take("part", 1, null)))).isInstanceOf(Refusal.FieldFaulty.class);
        Refusal clash = refusal(decide(new Act.Define(Drafts.of(book("A", "B", "C")), List.of(), Optional.of(1))));
        assertThat(clash.toString()).contains("CODEBOOK", "would arise in two ways");
        assertThat(refusal(decide(new Act.Define(Drafts.of(book("A", "B", "D")), List.of(), Optional.of(3)))))
                .isEqualTo(new Refusal.VersionMoved(Refusal.What.CODEBOOK, "group", 3, 1));
        assertThat(decide(new Act.Define(Drafts.of(book("A", "B", "D")), List.of(), Optional.of(1))))
                .isInstanceOf(Decision.Done.class);
        assertThat(texts(decide(take("part", 1, null, "group", "D")))).containsExactly("D01");
        SeriesDraft narrow = SeriesDraft.of("narrow", "N{field group}{count 2}")
                .with(SeriesProperties.LONGEST, 4L)
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("group", "group", null, null, null)))
                .with(SeriesProperties.RANGES, List.of(range(1, 99, "2026-01-01")));
        define(narrow);
        assertThat(refusal(decide(new Act.Define(Drafts.of(book("A", "B", "D", "EE")), List.of(), Optional.empty())))
                        .toString())
                .contains("CODEBOOK", "the series ‘narrow’ could not be kept", "have up to 5 symbols");
    }

    private static CodebookDraft book(String... codes) {
        return new CodebookDraft(
                "group",
                null,
                Stream.of(codes)
                        .map(code -> new CodebookDraft.ChoiceDraft("Name of " + code, code, null, null))
                        .toList());
    }

    private static Act.Allocate take(String series, long quantity, String date, String field, String value) {
        return new Act.Allocate(
                series,
                Optional.ofNullable(date).map(LocalDate::parse),
                Map.of(field, value),
                quantity,
                Act.Form.SINGLES,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
    }

    @Test
    void aSeriesThatCannotBeProvedIsTakenWhereItIsWaivedAndGivesNoBlocks() {
        SeriesDraft open = SeriesDraft.of("open", "{field a}{field b}{count 3}{check luhn}")
                .with(
                        SeriesProperties.FIELDS,
                        List.of(
                                new FieldDraft("a", null, null, 9L, "digits"),
                                new FieldDraft("b", null, null, 9L, "digits")))
                .with(SeriesProperties.RANGES, List.of(range(1, 999, "2026-01-01")));
        String told = faults(open);
        assertThat(told).contains("cannot be proved", "proof: waived");
        define(open.with(SeriesProperties.PROOF, "waived"));
        var block = new Act.Allocate(
                "open",
                Optional.empty(),
                Map.of("a", "1", "b", "2"),
                5,
                Act.Form.BLOCK,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "d"));
        assertThat(refusal(decide(block))).isEqualTo(new Refusal.NoBlocks("open", false));
    }

    @Test
    void aCheckThatCoversNothingOfTheCountIsRefused() {
        SeriesDraft letters = SeriesDraft.of("tag", "T7-{count 3 upper}{check gs1}")
                .with(SeriesProperties.RANGES, List.of(range(1, 999, "2026-01-01")));
        assertThat(faults(letters)).contains("{check gs1} covers no symbol of the count");
    }
}
