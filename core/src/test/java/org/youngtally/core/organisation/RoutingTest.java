package org.youngtally.core.organisation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.MemoryLedger;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

class RoutingTest {
    private final MemoryLedger ledger = new MemoryLedger();

    RoutingTest() {
        define(Larkmoor.drafts());
    }

    private Decision define(Drafts drafts) {
        return ledger.perform(new Act.Define(drafts, List.of(), Optional.empty()));
    }

    private static Drafts routes(RouteDraft... routes) {
        return new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(routes));
    }

    private String fault(Drafts drafts) {
        return ((Refusal.DefinitionsFaulty) ((Decision.Refused) define(drafts)).refusal())
                .faults()
                .getFirst()
                .faults()
                .getFirst()
                .toString();
    }

    private Routing.Found find(String kind, String unit, Map<String, String> values) {
        return Routing.find(ledger.state().organisation(), kind, unit, values);
    }

    private String series(String kind, String unit, Map<String, String> values) {
        return find(kind, unit, values).chosen().map(Route::series).orElse("none");
    }

    @Test
    void theNearestUnitWins() {
        assertThat(series("invoice", "bench", Map.of())).isEqualTo("invoice-works");
        assertThat(series("invoice", "care", Map.of())).isEqualTo("invoice-care");
        assertThat(series("invoice", "group", Map.of())).isEqualTo("none");
        assertThat(series("customer", "bench", Map.of())).isEqualTo("customer");
    }

    @Test
    void aRuleWithAConditionComesBeforeOneWithout() {
        define(routes(Larkmoor.route("customer", "care", "customer", null)));
        assertThat(series("customer", "care", Map.of("class", "S"))).isEqualTo("school");
        assertThat(series("customer", "care", Map.of("class", "C"))).isEqualTo("customer");
        assertThat(series("customer", "works", Map.of("class", "S"))).isEqualTo("customer");
    }

    @Test
    void eachRuleTriedIsToldWithWhatBecameOfIt() {
        Routing.Found found = find("customer", "care", Map.of("class", "C"));
        assertThat(found.steps()).extracting(Routing.Step::unit).containsExactly("care", "group");
        assertThat(found.steps().getFirst().tried())
                .extracting(Routing.Tried::verdict, Routing.Tried::fails)
                .containsExactly(tuple(Routing.Verdict.CONDITION_FAILS, Optional.of("class")));
        assertThat(found.steps().getLast().tried())
                .extracting(Routing.Tried::verdict)
                .containsExactly(Routing.Verdict.CHOSEN);
        assertThat(find("customer", "care", Map.of("class", "S"))
                        .steps()
                        .getLast()
                        .tried())
                .extracting(Routing.Tried::verdict)
                .containsExactly(Routing.Verdict.NOT_REACHED);
    }

    @Test
    void twoConditionsOfOneUnitThatCanBothHoldAreRefused() {
        assertThat(fault(routes(Larkmoor.route(
                        "customer", "care", "customer", Map.of("total", Larkmoor.between("100", null))))))
                .contains("class=S, total=100")
                .contains("‘school’")
                .contains("‘customer’");
        assertThat(define(routes(Larkmoor.route(
                        "customer",
                        "care",
                        "customer",
                        Map.of("class", Larkmoor.is("C"), "total", Larkmoor.between("100", null))))))
                .isInstanceOf(Decision.Done.class);
        assertThat(fault(routes(Larkmoor.route(
                        "customer",
                        "care",
                        "school",
                        Map.of("class", Larkmoor.is("Church"), "total", Larkmoor.between(null, "100"))))))
                .contains("total=100");
        assertThat(define(routes(Larkmoor.route(
                        "customer",
                        "care",
                        "school",
                        Map.of("class", Larkmoor.is("Church"), "total", Larkmoor.between(null, "99.99"))))))
                .isInstanceOf(Decision.Done.class);
    }

    /**
     * Two conditions can both hold just where some record makes both hold: every pair is compared with every record of
     * a small world.
     */
    @Test
    void overlapIsWhatRecordsShow() {
        List<Condition> conditions = new ArrayList<>();
        for (List<String> classes : List.of(List.<String>of(), List.of("S"), List.of("S", "C"), List.of("C")))
            for (int from = -1; from < 4; from++)
                for (int to = -1; to < 4; to++)
                    for (boolean dated : new boolean[] {false, true}) {
                        var tests = new TreeMap<String, Condition.Test>();
                        if (!classes.isEmpty())
                            tests.put(
                                    "class",
                                    new Condition.Test(
                                            KindField.Type.CHOICE, classes, Optional.empty(), Optional.empty()));
                        if (from >= 0 || to >= 0)
                            tests.put(
                                    "total",
                                    new Condition.Test(
                                            KindField.Type.NUMBER,
                                            List.of(),
                                            Optional.of(from)
                                                    .filter(end -> end >= 0)
                                                    .map(String::valueOf),
                                            Optional.of(to)
                                                    .filter(end -> end >= 0)
                                                    .map(String::valueOf)));
                        if (dated)
                            tests.put(
                                    "agreed",
                                    new Condition.Test(
                                            KindField.Type.YES_NO, List.of("yes"), Optional.empty(), Optional.empty()));
                        if (from >= 0 && to >= 0 && from > to) continue;
                        conditions.add(new Condition(tests));
                    }
        List<Map<String, String>> records = new ArrayList<>();
        for (String group : List.of("S", "C"))
            for (String total : List.of("0", "0.5", "1", "1.5", "2", "2.5", "3", "99"))
                for (String agreed : List.of("yes", "no"))
                    records.add(Map.of("class", group, "total", total, "agreed", agreed));
        for (Condition one : conditions)
            for (Condition other : conditions) {
                boolean both = records.stream()
                        .anyMatch(values -> one.fails(values).isEmpty()
                                && other.fails(values).isEmpty());
                assertThat(one.common(other).isPresent())
                        .as("%s and %s", one, other)
                        .isEqualTo(both);
                one.common(other).ifPresent(values -> assertThat(List.of(one.fails(values), other.fails(values)))
                        .as("%s and %s under %s", one, other, values)
                        .containsOnly(Optional.empty()));
            }
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
            customr; care; customer; kind: ‘customr’ not found; did you mean customer?
            customer; caer; customer; unit: ‘caer’ not found; did you mean care?
            customer; care; customers; series: ‘customers’ not found; did you mean customer?
            """)
    void aRouteNamesWhatThereIs(String kind, String unit, String series, String problem, String accepted) {
        assertThat(fault(routes(Larkmoor.route(kind, unit, series, null)))).isEqualTo(problem + "; " + accepted);
    }

    @Test
    void aConditionTestsFieldsOfTheKindWithValuesOfTheirType() {
        assertThat(fault(routes(Larkmoor.route("customer", "works", "customer", Map.of("clas", Larkmoor.is("S"))))))
                .contains("when.clas")
                .contains("did you mean class?");
        assertThat(fault(routes(Larkmoor.route("customer", "works", "customer", Map.of("class", Larkmoor.is("Shop"))))))
                .contains("‘Shop’ is not a value")
                .contains("School (S), Church (C)");
        assertThat(fault(routes(Larkmoor.route("customer", "works", "customer", Map.of("total", Larkmoor.is("many"))))))
                .contains("a number in digits");
        assertThat(fault(routes(
                        Larkmoor.route("customer", "works", "customer", Map.of("class", Larkmoor.between("C", "S"))))))
                .contains("has no order");
        assertThat(fault(routes(Larkmoor.route("customer", "works", "customer", Map.of("number", Larkmoor.is("1"))))))
                .contains("the identifier goes into");
    }

    @Test
    void aConditionIsShortEnoughToBeAName() {
        assertThat(fault(routes(Larkmoor.route(
                        "customer",
                        "works",
                        "customer",
                        Map.of("name", Larkmoor.is("n".repeat(300), "m".repeat(300)))))))
                .contains("when: is 606 symbols long when it is written out");
    }

    @Test
    void aSeriesGetsItsFieldsFromEveryRecordOfTheRoute() {
        SeriesDraft plants = SeriesDraft.of("plants", "P{field plant upper}-{count 3}")
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("plant", null, null, 4L, null)))
                .with(SeriesProperties.RESTARTS, List.of("field plant"))
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 999L, null, "2026-01-01", null, null, null)));
        define(Drafts.of(List.of(plants)));
        assertThat(fault(routes(Larkmoor.route("customer", "works", "plants", null))))
                .contains("requires a field ‘plant’, which the kind ‘customer’ does not have");
        assertThat(define(routes(Larkmoor.route("invoice", "bench", "plants", null))))
                .isInstanceOf(Decision.Done.class);
        KindDraft without = new KindDraft("invoice", null, List.of(Larkmoor.field("number", "text", null)), null);
        assertThat(fault(new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(without), List.of())))
                .contains("the route ‘invoice in bench’ could not be kept");
    }

    @Test
    void aFieldThatARouteTestsKeepsItsType() {
        define(routes(Larkmoor.route("customer", "works", "customer", Map.of("total", Larkmoor.is("7")))));
        KindDraft before = Larkmoor.customers();
        KindDraft after = new KindDraft(
                before.key(),
                null,
                before.fields().stream()
                        .map(field -> field.name().equals("total") ? Larkmoor.field("total", "text", null) : field)
                        .toList(),
                null);
        assertThat(fault(new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(after), List.of())))
                .contains("‘customer in works when total=7’ tests a field whose type would be another");
    }

    @Test
    void aRouteIsTakenAwayOnTheVersionThatWasSeen() {
        assertThat(ledger.perform(new Act.RemoveRoute("invoice in works", Optional.of(4))))
                .isEqualTo(
                        new Decision.Refused(new Refusal.VersionMoved(Refusal.What.ROUTE, "invoice in works", 4, 1)));
        ledger.perform(new Act.RemoveRoute("invoice in works", Optional.of(1)));
        assertThat(series("invoice", "bench", Map.of())).isEqualTo("none");
        assertThat(ledger.perform(new Act.RemoveRoute("invoice in work", Optional.empty())))
                .isEqualTo(new Decision.Refused(
                        new Refusal.UnknownRoute("invoice in work", Optional.of("invoice in care"))));
    }

    @Test
    void unitsAreATree() {
        Function<UnitDraft, Drafts> only =
                unit -> new Drafts(List.of(), List.of(), List.of(), List.of(unit), List.of(), List.of());
        assertThat(fault(only.apply(Larkmoor.unit("group", "bench")))).contains("lies below ‘group’ itself");
        assertThat(fault(only.apply(Larkmoor.unit("shop", "work")))).contains("did you mean works?");
        assertThat(fault(only.apply(new UnitDraft("shop", null, null, "WORKS", null))))
                .contains("is the code of the unit ‘works’");
        assertThat(fault(only.apply(new UnitDraft("shop", null, null, null, "Mars/Olympus"))))
                .contains("not a time zone");
    }

    @ParameterizedTest
    @CsvSource({
        "total, 12.50, 12.5",
        "total, -0.0, 0",
        "since, 2026-02-28, 2026-02-28",
        "agreed, TRUE, yes",
        "agreed, no, no",
        "class, school, S",
        "class, c, C"
    })
    void valuesAreKeptInOneForm(String field, String given, String kept) {
        var values = new FieldValues(ledger.state().organisation().kinds().get("customer"), ledger.state()::codebook);
        assertThat(values.read(Map.of("name", "Anne", field, given), Set.of("number"), Map.of()))
                .isEqualTo(new FieldValues.Reading.Understood(Map.of("name", "Anne", field, kept)));
    }

    @ParameterizedTest
    @CsvSource({
        "total, much, NOT_OF_THE_TYPE",
        "since, 2026-02-30, NOT_OF_THE_TYPE",
        "agreed, perhaps, NOT_OF_THE_TYPE",
        "class, Old, RETIRED",
        "class, Shop, NOT_A_CHOICE",
        "nam, Anne, NOT_A_FIELD",
        "name, ' ', MISSING"
    })
    void whatAFieldCannotTakeIsRefused(String field, String given, FieldFault.Kind fault) {
        var values = new FieldValues(ledger.state().organisation().kinds().get("customer"), ledger.state()::codebook);
        var record = new TreeMap<>(Map.of("name", "Anne"));
        record.put(field, given);
        assertThat(values.read(record, Set.of("number"), Map.of()))
                .isInstanceOfSatisfying(
                        FieldValues.Reading.Faulty.class,
                        faulty -> assertThat(faulty.fault().kind()).isEqualTo(fault));
    }
}
