package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** Series, units and kinds that are out of use, and units as the choices of a series. */
class RetiredTest {
    private final MemoryLedger ledger = new MemoryLedger();

    private static SeriesDraft series(String key, String pattern) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.TYPED, "allowed")
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 99L, null, "2026-01-01", null, null, null)));
    }

    private static SeriesDraft orders() {
        return series("order", "PO-{unit}-{count 2}")
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("unit", null, true, null, null, null)));
    }

    private static UnitDraft unit(String key, String below, String code, Boolean retired) {
        return new UnitDraft(key, null, below, code, null, retired, null, null);
    }

    private static KindDraft kind(Boolean retired) {
        return new KindDraft(
                "job",
                null,
                List.of(new KindFieldDraft("number", null, null, null, null, null)),
                null,
                null,
                null,
                null,
                null,
                null,
                retired);
    }

    private static Drafts of(SeriesDraft... series) {
        return Drafts.of(List.of(series));
    }

    private static Drafts of(UnitDraft... units) {
        return new Drafts(List.of(), List.of(), List.of(), List.of(units), List.of(), List.of());
    }

    private Decision define(Drafts drafts) {
        return ledger.perform(new Act.Define(drafts, List.of(), Optional.empty()));
    }

    private String fault(Drafts drafts) {
        return ((Refusal.DefinitionsFaulty) ((Decision.Refused) define(drafts)).refusal())
                .faults()
                .getFirst()
                .faults()
                .getFirst()
                .toString();
    }

    private Decision take(String series, Act.Form form, String unit) {
        return ledger.perform(new Act.Allocate(
                series,
                Optional.empty(),
                unit == null || !series.equals("order") ? Map.of() : Map.of("unit", unit),
                1,
                form,
                Optional.empty(),
                new Purpose(Optional.empty(), Optional.ofNullable(unit)),
                new RequestMark("ines", Optional.empty(), "d")));
    }

    private Decision take(String series) {
        return take(series, Act.Form.SINGLES, null);
    }

    private static String text(Decision decision) {
        return ((Decision.Done) decision)
                .effects().stream()
                        .filter(Effect.Issued.class::isInstance)
                        .map(effect -> ((Effect.Issued) effect).texts().getFirst())
                        .findFirst()
                        .orElseThrow();
    }

    @BeforeEach
    void begin() {
        assertThat(define(new Drafts(
                        List.of(),
                        List.of(),
                        List.of(series("a", "A{count 2}"), series("b", "B{count 2}"), orders()),
                        List.of(unit("group", null, null, null), unit("works", "group", "WK", null)),
                        List.of(kind(null)),
                        List.of(new RouteDraft("job", "works", null, "b", null)))))
                .isInstanceOf(Decision.Done.class);
        take("a");
    }

    private void retireA() {
        assertThat(define(of(series("a", "A{count 2}").with(SeriesProperties.RETIRED, true))))
                .isInstanceOf(Decision.Done.class);
    }

    enum Way {
        SINGLE(Act.Form.SINGLES),
        HELD(new Act.Form.Held(Duration.ofHours(1))),
        BLOCK(new Act.Form.Block(Optional.empty())),
        TYPED(new Act.Form.Typed("A07"));

        private final Act.Form form;

        Way(Act.Form form) {
            this.form = form;
        }
    }

    @ParameterizedTest
    @EnumSource(Way.class)
    void aRetiredSeriesGivesNothing(Way way) {
        retireA();
        assertThat(take("a", way.form, null))
                .isEqualTo(new Decision.Refused(new Refusal.Retired(Refusal.What.SERIES, "a")));
    }

    @Test
    void itsNumbersLiveOn() {
        retireA();
        assertThat(ledger.perform(new Act.Settle(
                        "a",
                        new Selection.Identifiers(List.of("A01")),
                        Act.Deed.VOID,
                        Optional.of("a reason"),
                        new RequestMark("ines", Optional.empty(), "d"))))
                .isInstanceOf(Decision.Done.class);
    }

    @Test
    void whatSaysNothingOfItChangesNothing() {
        retireA();
        define(of(series("a", "A{count 2}").with(SeriesProperties.TITLE, "Old")));
        assertThat(ledger.state().series("a").orElseThrow().retired()).isTrue();
    }

    @Test
    void falseBringsItBack() {
        retireA();
        define(of(series("a", "A{count 2}").with(SeriesProperties.RETIRED, false)));
        assertThat(text(take("a"))).isEqualTo("A02");
    }

    @Test
    void theProofsCountItForEver() {
        retireA();
        assertThat(fault(of(series("c", "A{count 2}").with(SeriesProperties.NAMESPACE, "a"))))
                .contains("would arise in two ways");
    }

    @Test
    void aSeriesThatARouteLeadsToIsNotRetired() {
        assertThat(fault(of(series("b", "B{count 2}").with(SeriesProperties.RETIRED, true))))
                .contains("the route ‘job in works’ leads to the series");
    }

    @Test
    void noRouteLeadsToARetiredSeries() {
        retireA();
        assertThat(fault(new Drafts(
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(new RouteDraft("job", "group", null, "a", null)))))
                .contains("the series ‘a’ is retired");
    }

    @Test
    void aSeriesIsRetiredTogetherWithTheRouteThatLeavesIt() {
        assertThat(define(new Drafts(
                        List.of(),
                        List.of(),
                        List.of(series("b", "B{count 2}").with(SeriesProperties.RETIRED, true)),
                        List.of(),
                        List.of(),
                        List.of(new RouteDraft("job", "works", null, "a", null)))))
                .isInstanceOf(Decision.Done.class);
    }

    @Test
    void aKindThatARouteNeedsIsNotRetired() {
        assertThat(fault(new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(kind(true)), List.of())))
                .contains("the route ‘job in works’ needs it");
    }

    @Test
    void aUnitThatARouteNeedsIsNotRetired() {
        assertThat(fault(of(unit("works", "group", "WK", true)))).contains("the route ‘job in works’ needs it");
    }

    @Test
    void aUnitAboveOneInUseIsNotRetired() {
        assertThat(fault(of(unit("group", null, null, true)))).contains("the unit ‘works’ below it is in use");
    }

    @Test
    void nothingIsGivenForARetiredUnit() {
        define(of(unit("shop", "group", "SH", null)));
        define(of(unit("shop", "group", "SH", true)));
        assertThat(take("a", Act.Form.SINGLES, "shop"))
                .isEqualTo(new Decision.Refused(new Refusal.Retired(Refusal.What.UNIT, "shop")));
    }

    @ParameterizedTest
    @EnumSource(names = {"KEY", "CODE"})
    void aUnitIsChosenByItsKeyOrItsCode(Called called) {
        assertThat(text(take("order", Act.Form.SINGLES, called == Called.KEY ? "works" : "wk")))
                .isEqualTo("PO-WK-01");
    }

    enum Called {
        KEY,
        CODE
    }

    @Test
    void aNewUnitIsAChoiceAtOnce() {
        define(of(unit("care", "group", "CR", null)));
        assertThat(text(take("order", Act.Form.SINGLES, "care"))).isEqualTo("PO-CR-01");
    }

    @Test
    void aNewUnitProvesTheSeriesAgain() {
        define(of(series("other", "PO-XX-{count 2}").with(SeriesProperties.NAMESPACE, "order")));
        assertThat(fault(of(unit("extra", "group", "XX", null))))
                .contains("in the series ‘order’", "would arise in two ways");
    }

    @Test
    void aCodeThatWasWrittenNeverChanges() {
        take("order", Act.Form.SINGLES, "works");
        assertThat(fault(of(unit("works", "group", "WS", null)))).contains("is fixed at ‘WK’");
    }

    @Test
    void aCodeThatIsTheKeyOfAnotherUnitIsRefused() {
        assertThat(fault(of(unit("shop", "group", "works", null)))).contains("is the key of the unit ‘works’");
    }
}
