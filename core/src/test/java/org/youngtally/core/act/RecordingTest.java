package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.organisation.RecordWorld.change;
import static org.youngtally.core.organisation.RecordWorld.edit;
import static org.youngtally.core.organisation.RecordWorld.save;
import static org.youngtally.core.organisation.RecordWorld.saveIn;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.organisation.RecordWorld;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.series.FieldFault;

/** Records and their numbers: one comes with the other, and stays with it. */
class RecordingTest {
    private final MemoryLedger ledger = new MemoryLedger();

    @BeforeEach
    void define() {
        assertThat(ledger.perform(RecordWorld.define())).isInstanceOf(Decision.Done.class);
    }

    private KeptRecord kept(Act<?> act) {
        Decision decision = ledger.perform(act);
        assertThat(decision).isInstanceOf(Decision.Done.class);
        return ((Decision.Done) decision)
                .effects().stream()
                        .filter(Effect.RecordKept.class::isInstance)
                        .map(effect -> ((Effect.RecordKept) effect).record())
                        .findFirst()
                        .orElseThrow();
    }

    private Refusal refused(Act<?> act) {
        Decision decision = ledger.perform(act);
        assertThat(decision).isInstanceOf(Decision.Refused.class);
        return ((Decision.Refused) decision).refusal();
    }

    private PositionState state(String series, String text) {
        Span spot = ledger.state()
                .spot(ledger.state().series(series).orElseThrow(), text)
                .orElseThrow();
        return ledger.state()
                .stretches(spot.lane(), spot.from(), spot.from())
                .getFirst()
                .state();
    }

    private KeptRecord customer(String name, String kind) {
        return kept(save("customer", Map.of("name", name, "class", kind)));
    }

    @Test
    void aRecordIsKeptWithItsNumberInTheFieldThatTheRouteNames() {
        KeptRecord record = customer("St Anna", "parish");
        assertThat(record.number()).isEqualTo(new KeptRecord.Numbered("customer", "K001", "number"));
        assertThat(record.values()).containsEntry("number", "K001").containsEntry("name", "St Anna");
        assertThat(ledger.state()
                        .numberedRecord(ledger.state().series("customer").orElseThrow(), "k001"))
                .contains(record.id());
    }

    @Test
    void aSaveThatFailsTakesNothing() {
        assertThat(refused(save("customer", Map.of("class", "parish"))))
                .isInstanceOfSatisfying(
                        Refusal.FieldFaulty.class,
                        faulty -> assertThat(faulty.fault().kind()).isEqualTo(FieldFault.Kind.MISSING));
        assertThat(refused(save("invoice", Map.of("dated", "2025-12-31"), "pipe")))
                .isInstanceOf(Refusal.DateNotServed.class);
        assertThat(customer("St Anna", "parish").number().text()).isEqualTo("K001");
        assertThat(kept(save("invoice", Map.of("dated", "2026-05-01"))).number().text())
                .isEqualTo("I26-001");
    }

    @Test
    void theSeriesThatWasAskedForIsTheOneThatIsTakenFrom() {
        assertThat(refused(saveIn("care", "order", "order", Map.of("what", "organ"))))
                .isEqualTo(new Refusal.RouteMoved("order", "care", "big"));
        assertThat(kept(saveIn("care", "order", "big", Map.of("what", "organ")))
                        .number()
                        .text())
                .isEqualTo("B001");
    }

    @Test
    void aChoicesNameAndCodeGoIntoFieldsOfTheirOwnWhenTheNumberIsGiven() {
        KeptRecord part = kept(save("part", Map.of("group", "Wind-chest")));
        assertThat(part.values())
                .containsEntry("group-name", "Wind-chest")
                .containsEntry("group-code", "WC")
                .containsEntry("number", "WC-001");
        assertThat(kept(edit(part.id(), Map.of("group", "Action"))).values())
                .as("they go with the number, not with the choice")
                .containsEntry("group", "AC")
                .containsEntry("group-name", "Wind-chest");
    }

    @Test
    void whatTheServiceFillsIsNotTyped() {
        assertThat(refused(save("customer", Map.of("name", "St Anna", "number", "K777"))))
                .isInstanceOfSatisfying(
                        Refusal.FieldFaulty.class,
                        faulty -> assertThat(faulty.fault().kind()).isEqualTo(FieldFault.Kind.FILLED));
        KeptRecord record = customer("St Anna", "parish");
        assertThat(kept(edit(record.id(), Map.of("number", "K001", "name", "Sankt Anna")))
                        .values())
                .as("as it stands it may be sent along")
                .containsEntry("name", "Sankt Anna");
    }

    @Test
    void editingNeverChangesTheNumberAndANewOneIsAskedFor() {
        KeptRecord part = kept(save("part", Map.of("group", "WC")));
        KeptRecord edited = kept(edit(part.id(), Map.of("group", "AC")));
        assertThat(edited.number().text()).isEqualTo("WC-001");
        assertThat(refused(change(part.id(), new RecordChange.Renumber(Optional.empty(), Optional.empty(), "part"))))
                .isInstanceOf(Refusal.ReasonMissing.class);
        KeptRecord renumbered = kept(change(
                part.id(), new RecordChange.Renumber(Optional.of("drawn as an action"), Optional.empty(), "part")));
        assertThat(renumbered.number().text()).isEqualTo("AC-002");
        assertThat(renumbered.values()).containsEntry("number", "AC-002").containsEntry("group-name", "Action");
        assertThat(state("part", "WC-001")).isEqualTo(PositionState.VOIDED);
        assertThat(ledger.state().numberedRecord(ledger.state().series("part").orElseThrow(), "WC-001"))
                .as("found by the old one too")
                .contains(part.id());
    }

    @Test
    void aKnownThingIsReturnedWithItsNumber() {
        KeptRecord order = kept(save("order", Map.of("theirs", "PO 17", "what", "bench")));
        Act.SaveRecord again = (Act.SaveRecord) save("order", Map.of("theirs", "po 17"));
        assertThat(ledger.perform(again))
                .as("whatever else is given, or not")
                .isEqualTo(new Decision.Known(order.id()));
        KeptRecord other = kept(save("order", Map.of("theirs", "PO 18", "what", "bench")));
        assertThat(other.number().text()).isEqualTo("O002");
        assertThat(refused(edit(other.id(), Map.of("theirs", "PO 17", "what", "bench"))))
                .isEqualTo(new Refusal.KnownAlready("theirs", "PO 17", order.id(), "O001"));
        kept(change(order.id(), new RecordChange.Delete(Optional.of("cancelled"))));
        assertThat(kept(save("order", Map.of("theirs", "PO 17", "what", "bench")))
                        .id())
                .as("what was deleted is known by nothing")
                .isGreaterThan(other.id());
    }

    @Test
    void theNumberOfADeletedRecordIsVoidOrReturnedByPolicy() {
        KeptRecord customer = customer("St Anna", "parish");
        assertThat(refused(change(customer.id(), new RecordChange.Delete(Optional.empty()))))
                .isInstanceOf(Refusal.ReasonMissing.class);
        assertThat(kept(change(customer.id(), new RecordChange.Delete(Optional.of("twice"))))
                        .deleted())
                .isTrue();
        assertThat(state("customer", "K001")).isEqualTo(PositionState.VOIDED);
        assertThat(refused(edit(customer.id(), Map.of("name", "x"))))
                .isEqualTo(new Refusal.RecordDeleted(customer.id(), "K001"));
        KeptRecord invoice = kept(save("invoice", Map.of()));
        kept(change(invoice.id(), new RecordChange.Delete(Optional.empty())));
        assertThat(state("invoice", "I26-001")).isEqualTo(PositionState.RETURNED);
        KeptRecord next = kept(save("invoice", Map.of()));
        assertThat(next.number().text()).as("given to the next").isEqualTo("I26-001");
        assertThat(ledger.state()
                        .numberedRecord(ledger.state().series("invoice").orElseThrow(), "I26-001"))
                .contains(next.id());
    }

    @Test
    void theNumberOfARecordIsNotGivenBackWithoutIt() {
        KeptRecord invoice = kept(save("invoice", Map.of()));
        var giveBack = new Act.Settle(
                "invoice",
                new Selection.Identifiers(List.of("I26-001")),
                Act.Deed.RETURN,
                Optional.empty(),
                RecordWorld.MARK);
        assertThat(refused(giveBack)).isEqualTo(new Refusal.OfARecord("invoice", "I26-001", invoice.id()));
    }

    @ParameterizedTest(name = "{0} {1}: {2} becomes {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "loose | a b c | 10_a 30_c     | 10_a 20_c      ", "loose | a b c | 30_c 10_a 20_b | 10_c 20_a 30_b",
                        "loose | a b   | 10_a x 20_b    | 10_a 20_x 30_b",
                "fixed | a b c | 10_a 30_c     | 10_a 30_c      ", "fixed | a b c | 30_c 10_a 20_b | 10_a 20_b 30_c",
                        "fixed | a b   | 10_a x         | 10_a 30_x     "
            })
    void linesAreContiguousUntilTheDocumentIsFixed(String how, String before, String wanted, String after) {
        KeptRecord invoice = kept(save("invoice", Map.of(), before.split(" ")));
        if (how.equals("fixed")) kept(change(invoice.id(), new RecordChange.Fix()));
        KeptRecord changed = kept(edit(
                invoice.id(),
                Map.of("dated", "2026-04-01"),
                Arrays.stream(wanted.split(" "))
                        .map(line -> line.replace('_', ' '))
                        .toArray(String[]::new)));
        assertThat(changed.lines())
                .extracting(line -> line.number() + "_" + line.values().get("what"))
                .containsExactly(after.split(" "));
        assertThat(changed.number()).isEqualTo(invoice.number());
    }

    @Test
    void theNumberOfALineThatWasTakenOutOfAFixedDocumentIsNotUsedAgain() {
        KeptRecord invoice = kept(save("invoice", Map.of(), "a", "b"));
        kept(change(invoice.id(), new RecordChange.Fix()));
        kept(edit(invoice.id(), Map.of(), "10 a"));
        assertThat(kept(edit(invoice.id(), Map.of(), "10 a", "c")).lines())
                .extracting(KeptRecord.Line::number)
                .containsExactly(10, 30);
    }

    @Test
    void aLineThatThereIsNotIsRefusedWithItsPlace() {
        KeptRecord invoice = kept(save("invoice", Map.of(), "a"));
        assertThat(refused(edit(invoice.id(), Map.of(), "10 a", "20 b")))
                .isEqualTo(new Refusal.LineFaulty(1, 20, false));
        assertThat(refused(edit(invoice.id(), Map.of(), "10 a", "10 b")))
                .isEqualTo(new Refusal.LineFaulty(1, 10, true));
        assertThat(refused(change(
                        invoice.id(),
                        new RecordChange.Edit(
                                Map.of(), Optional.of(List.of(new LineOrder.Wanted(Optional.empty(), Map.of())))))))
                .isInstanceOfSatisfying(
                        Refusal.FieldFaulty.class,
                        faulty -> assertThat(faulty.fault().field()).isEqualTo("lines[0].what"));
        assertThat(refused(save("customer", Map.of("name", "x"), "a"))).isEqualTo(new Refusal.NoLines("customer"));
    }

    @Test
    void aSharedRecordKeepsItsNumberAndAgreesWhereItsKindSaysSo() {
        KeptRecord customer =
                kept(save("customer", Map.of("name", "St Anna", "class", "parish", "salesperson", "Ines")));
        var takeOver = new Act.ChangeRecord(
                customer.id(),
                "care",
                new RecordChange.TakeOver(Map.of("class", "school")),
                Optional.empty(),
                RecordWorld.MARK);
        assertThat(refused(takeOver)).isEqualTo(new Refusal.Disagreeing("K001", "class", "works", "parish", "school"));
        KeptRecord shared = kept(new Act.ChangeRecord(
                customer.id(),
                "care",
                new RecordChange.TakeOver(Map.of("salesperson", "Tobin")),
                Optional.empty(),
                RecordWorld.MARK));
        assertThat(shared.number()).isEqualTo(customer.number());
        assertThat(shared.units()).containsExactly("works", "care");
        assertThat(shared.in("care").orElseThrow().values())
                .containsEntry("salesperson", "Tobin")
                .containsEntry("class", "parish")
                .containsEntry("number", "K001");
        assertThat(refused(takeOver)).isEqualTo(new Refusal.InUnitAlready(customer.id(), "K001", "care"));
        KeptRecord edited =
                kept(edit(customer.id(), Map.of("name", "St Anna", "class", "school", "salesperson", "Ida")));
        assertThat(edited.in("care").orElseThrow().values())
                .as("what agrees goes along, the rest stays")
                .containsEntry("class", "school")
                .containsEntry("salesperson", "Tobin");
    }

    @Test
    void oneOfTwoWhoEditTheSameVersionIsTold() {
        KeptRecord customer = customer("St Anna", "parish");
        kept(new Act.ChangeRecord(
                customer.id(),
                "works",
                new RecordChange.Edit(Map.of("name", "Sankt Anna"), Optional.empty()),
                Optional.of(1),
                RecordWorld.MARK));
        assertThat(refused(new Act.ChangeRecord(
                        customer.id(),
                        "works",
                        new RecordChange.Edit(Map.of("name", "St Ann"), Optional.empty()),
                        Optional.of(1),
                        RecordWorld.MARK)))
                .isEqualTo(new Refusal.RecordMoved(customer.id(), "K001", 1, 2));
    }

    private static Act.FillTable table(String... groups) {
        return new Act.FillTable(
                "part",
                "works",
                Arrays.stream(groups).map(group -> Map.of("group", group)).toList(),
                Optional.empty(),
                Set.of("part"),
                RecordWorld.MARK);
    }

    @Test
    void aTableIsFilledFromTheTopInOneLaneWhateverItsRowsAre() {
        Decision decision = ledger.perform(table("WC", "WC", "AC", "WC"));
        assertThat(((Decision.Done) decision)
                        .effects().stream()
                                .filter(Effect.Issued.class::isInstance)
                                .flatMap(effect -> ((Effect.Issued) effect).texts().stream()))
                .containsExactly("WC-001", "WC-002", "AC-003", "WC-004");
        assertThat(kept(save("part", Map.of("group", "AC"))).number().text()).isEqualTo("AC-005");
    }

    @Test
    void aTableWithAFaultyRowTakesNothing() {
        assertThat(refused(table("WC", "AC", "QQ")))
                .isInstanceOfSatisfying(Refusal.RowFaulty.class, faulty -> assertThat(faulty.row())
                        .isEqualTo(2));
        assertThat(ledger.perform(table("WC"))).isInstanceOf(Decision.Done.class);
        assertThat(state("part", "WC-001")).isEqualTo(PositionState.ISSUED);
    }
}
