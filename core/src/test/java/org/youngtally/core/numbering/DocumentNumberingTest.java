package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.core.numbering.NumberPlan.Change;
import org.youngtally.core.numbering.NumberPlan.Group;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Order.Axis;
import org.youngtally.core.numbering.Order.Key;
import org.youngtally.core.numbering.Rule.Which;
import org.youngtally.core.pattern.Pattern;

class DocumentNumberingTest {
    private static final LocalDate MARCH = LocalDate.of(2026, 3, 2);
    private static final List<Sheet> SHEETS =
            List.of(new Sheet("Sheet 1", 400, 300), new Sheet("Sheet 2", 400, 300), new Sheet("Sheet 3", 400, 300));
    private static final Order ACROSS = new Order(List.of(new Key.InLines(Axis.Y, 5, false, false)));

    private static Item item(String id, Map<String, String> attributes) {
        return new Item(id, 1, "", Optional.empty(), attributes, Optional.empty());
    }

    private static Item text(String id, int sheet, double x, double y, String text, Map<String, String> attributes) {
        return new Item(id, sheet, text, Optional.empty(), attributes, Optional.of(new Place(x, y)));
    }

    /** A rule that numbers all from 1 with a pattern, and nothing else. */
    private static Rule rule(String pattern) {
        return rule(Choice.ALL, Order.LISTED, pattern);
    }

    private static Rule rule(Choice choice, Order order, String pattern) {
        return new Rule(
                choice,
                order,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Which.ALL,
                Optional.of(new Rule.Count(Pattern.parse(pattern), Sum.of(1), 1)),
                Writing.NUMBER,
                false);
    }

    /** The same with other values for what a count begins again by. */
    private static Rule with(Rule rule, Optional<Grid> grid, List<String> restarts, Optional<String> same) {
        return new Rule(
                rule.choice(),
                rule.order(),
                grid,
                restarts,
                same,
                rule.which(),
                rule.count(),
                rule.writing(),
                rule.repeats());
    }

    private static Rule with(Rule rule, Which which, Sum start, long step, Writing writing, boolean repeats) {
        return new Rule(
                rule.choice(),
                rule.order(),
                rule.grid(),
                rule.restarts(),
                rule.same(),
                which,
                rule.count().map(count -> new Rule.Count(count.pattern(), start, step)),
                writing,
                repeats);
    }

    private static Rule restarting(Rule rule, String start, String... by) {
        return with(
                with(rule, rule.grid(), List.of(by), rule.same()),
                rule.which(),
                Sum.parse(start),
                1,
                rule.writing(),
                false);
    }

    private static Rule with(Rule rule, Which which) {
        Rule.Count count = rule.count().orElseThrow();
        return with(rule, which, count.start(), count.step(), rule.writing(), rule.repeats());
    }

    private static Rule writing(Rule rule, String template) {
        Rule.Count count = rule.count().orElseThrow();
        return with(rule, rule.which(), count.start(), count.step(), Writing.parse(template), false);
    }

    /** Wires: sheet, column of the grid and a number; a net has one number wherever it is. */
    private static Rule wires() {
        return with(
                rule(Choice.ALL, ACROSS, "{field sheet pad-front 2 0}{field column}-{count 2}"),
                Optional.of(new Grid(4, 3)),
                List.of(Rule.SHEET, Rule.COLUMN),
                Optional.of("net"));
    }

    private static NumberPlan plan(Rule rule, List<Item> items) {
        return DocumentNumbering.plan(SHEETS, items, rule, MARCH, Map.of(), Numbers.NONE);
    }

    private static List<String> numbers(NumberPlan plan) {
        return plan.changes().stream().map(change -> change.number().orElse("")).toList();
    }

    /** The items as a plan leaves them. */
    private static List<Item> carriedOut(NumberPlan plan, List<Item> items) {
        Map<String, Change> changes = new HashMap<>();
        plan.changes().forEach(change -> changes.put(change.item(), change));
        return items.stream()
                .map(item -> changes.containsKey(item.id())
                        ? new Item(
                                item.id(),
                                item.sheet(),
                                changes.get(item.id()).after(),
                                changes.get(item.id()).number(),
                                item.attributes(),
                                item.place())
                        : item)
                .toList();
    }

    @Test
    void callOutsAreNumberedRowByRowBehindTheirText() {
        List<Item> items = List.of(
                text("a", 1, 200, 11, "Pipe", Map.of()),
                text("b", 1, 20, 10, "Case", Map.of()),
                text("c", 1, 30, 90, "Pipe", Map.of()));
        Rule rule = with(
                rule(Choice.ALL, ACROSS, "{count}"), Which.ALL, Sum.of(100), 10, Writing.parse("{old} – {new}"), false);
        assertThat(plan(rule, items).changes())
                .extracting(Change::after)
                .containsExactly("Case – 100", "Pipe – 110", "Pipe – 120");
    }

    @Test
    void whatIsPickedIsNumberedAsItWasPicked() {
        List<Item> items = List.of(item("a", Map.of()), item("b", Map.of()), item("c", Map.of()));
        Rule rule = rule(new Choice(List.of(new Choice.Test.Picked(List.of("c", "a")))), Order.LISTED, "{count}");
        assertThat(plan(rule, items).changes()).extracting(Change::item).containsExactly("c", "a");
    }

    @Test
    void aBoxAndALayerChoose() {
        List<Item> items = List.of(
                text("a", 1, 10, 10, "", Map.of("layer", "call-outs")),
                text("b", 1, 10, 10, "", Map.of("layer", "frame")),
                text("c", 1, 90, 10, "", Map.of("layer", "call-outs")));
        var choice = new Choice(
                List.of(new Choice.Test.Attribute("layer", Set.of("call-outs")), new Choice.Test.Box(0, 0, 50, 50)));
        assertThat(choice.of(items)).extracting(Item::id).containsExactly("a");
    }

    @Test
    void aNetIsNumberedWhereItIsFirstMet() {
        List<Item> items = List.of(
                text("a", 1, 10, 10, "", Map.of("net", "K1")),
                text("b", 1, 150, 10, "", Map.of("net", "K2")),
                text("c", 2, 10, 10, "", Map.of("net", "K2")),
                text("d", 2, 20, 10, "", Map.of("net", "K3")));
        assertThat(numbers(plan(wires(), items))).containsExactly("011-01", "012-01", "012-01", "021-01");
    }

    @Test
    void anInsertedDeviceFollowsAndTheRestStays() {
        List<Item> items =
                List.of(text("a", 1, 10, 10, "", Map.of("net", "K1")), text("b", 1, 30, 10, "", Map.of("net", "K2")));
        var numbered = new ArrayList<>(carriedOut(plan(wires(), items), items));
        numbered.add(1, text("new", 1, 20, 10, "", Map.of("net", "K9")));
        assertThat(plan(with(wires(), Which.MISSING), numbered).changes())
                .containsExactly(new Change("new", "", "011-03", Optional.of("011-03")));
    }

    @Test
    void anInsertedPieceOfANetHasItsNumber() {
        List<Item> items = List.of(text("a", 1, 10, 10, "", Map.of("net", "K1")));
        var numbered = new ArrayList<>(carriedOut(plan(wires(), items), items));
        numbered.add(text("more", 3, 20, 10, "", Map.of("net", "K1")));
        assertThat(numbers(plan(with(wires(), Which.MISSING), numbered))).containsExactly("011-01");
    }

    @Test
    void theStartFollowsFromTheDivision() {
        List<Item> pipes = List.of(
                item("a", Map.of("division", "2")),
                item("b", Map.of("division", "1")),
                item("c", Map.of("division", "2")));
        NumberPlan plan = plan(restarting(rule("{count 4}"), "{division} * 250 + 1", "division"), pipes);
        assertThat(numbers(plan)).containsExactly("0501", "0251", "0502");
        assertThat(plan.groups())
                .containsExactly(
                        new Group(List.of("1"), 1, "0251", "0251"), new Group(List.of("2"), 2, "0501", "0502"));
    }

    @Test
    void theDivisionIsInThePrefix() {
        List<Item> pipes = List.of(item("a", Map.of("Division", "2")), item("b", Map.of("Division", "1")));
        assertThat(numbers(plan(restarting(rule("{field division}/{count 3}"), "1", "Division"), pipes)))
                .containsExactly("2/001", "1/001");
    }

    @Test
    void whatIsClearedIsAsItWas() {
        List<Item> items = List.of(text("a", 1, 1, 1, "Case", Map.of()), text("b", 1, 9, 1, "Pipe", Map.of()));
        Rule rule = writing(rule("{count}"), "{old} – {new}");
        List<Item> numbered = carriedOut(plan(rule, items), items);
        assertThat(carriedOut(plan(with(rule, Which.NONE), numbered), numbered)).isEqualTo(items);
    }

    /** As when the file is read again: nobody says what is numbered. */
    private static List<Item> asRead(List<Item> items) {
        return items.stream()
                .map(item -> new Item(
                        item.id(), item.sheet(), item.text(), Optional.empty(), item.attributes(), item.place()))
                .toList();
    }

    @Test
    void aNumberIsReadFromTheText() {
        List<Item> items = List.of(item("a", Map.of()), item("b", Map.of()));
        Rule rule = writing(rule("P{count 2}"), "{old} – {new}");
        var numbered = new ArrayList<>(asRead(carriedOut(plan(rule, items), items)));
        numbered.add(item("c", Map.of()));
        assertThat(plan(with(rule, Which.MISSING), numbered).changes())
                .containsExactly(new Change("c", "", " – P03", Optional.of("P03")));
    }

    @Test
    void aNumberThatRunsIntoWhatWasThereIsAFault() {
        List<Item> items =
                List.of(text("a", 1, 1, 1, "C1", Map.of("net", "1")), text("b", 1, 1, 1, "D", Map.of("net", "11")));
        assertThat(plan(writing(restarting(rule("{field net}-{count}"), "1", "net"), "{old}{new}"), items)
                        .faults())
                .containsExactly(new ItemFault(
                        "a",
                        "would be ‘C11-1’, in which the number 1-1 cannot be told from what was there",
                        "symbols between {old} and {new}"));
    }

    @Test
    void numbersMayRepeatFromGroupToGroupWhereTheRuleSaysSo() {
        List<Item> pipes = List.of(item("a", Map.of("division", "1")), item("b", Map.of("division", "2")));
        Rule rule = restarting(rule("{count 2}"), "1", "division");
        assertThat(numbers(plan(with(rule, Which.ALL, Sum.of(1), 1, Writing.NUMBER, true), pipes)))
                .containsExactly("01", "01");
    }

    @Test
    void numbersOfASeriesComeInTheOrderOfTheCount() {
        List<Item> items = List.of(text("a", 1, 1, 90, "", Map.of()), text("b", 1, 1, 10, "", Map.of()));
        Rule rule = new Rule(
                Choice.ALL,
                ACROSS,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Which.MISSING,
                Optional.empty(),
                Writing.NUMBER,
                false);
        var numbers = List.of("N-1", "N-2").iterator();
        assertThat(DocumentNumbering.plan(SHEETS, items, rule, MARCH, Map.of(), item -> Optional.of(numbers.next()))
                        .changes())
                .extracting(change -> change.item() + " " + change.after())
                .containsExactly("b N-1", "a N-2");
    }

    @Test
    void whatWasThereIsPutBackFromWhatIsKept() {
        var numbered = new Item("a", 1, "7", Optional.of("7"), Map.of(), Optional.empty());
        Rule clearing = with(rule("{count}"), Which.NONE);
        assertThat(DocumentNumbering.plan(SHEETS, List.of(numbered), clearing, MARCH, Map.of("a", "??"), Numbers.NONE)
                        .changes())
                .containsExactly(new Change("a", "7", "??", Optional.empty()));
        assertThat(plan(clearing, List.of(numbered)).faults())
                .containsExactly(new ItemFault(
                        "a", "was numbered, and what was there before is not known", "undo the plan that numbered it"));
    }

    @Test
    void oneThingWithTwoNumbersIsAFault() {
        List<Item> items = List.of(
                new Item("a", 1, "1", Optional.of("1"), Map.of("net", "K1"), Optional.empty()),
                new Item("b", 1, "2", Optional.of("2"), Map.of("net", "K1"), Optional.empty()));
        Rule rule = with(with(rule("{count}"), Optional.empty(), List.of(), Optional.of("net")), Which.MISSING);
        assertThat(plan(rule, items).faults())
                .extracting(ItemFault::problem)
                .containsExactly("is the same thing as an item with the number ‘1’, and has ‘2’");
        assertThat(numbers(plan(with(rule, Which.ALL), items))).containsExactly("1");
    }

    @Test
    void groupsThatThePatternDoesNotTellApartAreAFault() {
        List<Item> pipes = List.of(item("a", Map.of("division", "1")), item("b", Map.of("division", "2")));
        NumberPlan plan = plan(restarting(rule("{count 2}"), "1", "division"), pipes);
        assertThat(plan.changes()).isEmpty();
        assertThat(plan.faults())
                .containsExactly(
                        new ItemFault("b", "would bear ‘01’, as another item does", "a pattern that tells them apart"));
    }

    @Test
    void aCountThatRunsOutIsAFaultOfTheItemThatIsLeft() {
        List<Item> items = new ArrayList<>();
        for (int i = 1; i <= 10; i++) items.add(item("item " + i, Map.of()));
        assertThat(plan(rule("{count 1}"), items).faults())
                .containsExactly(new ItemFault(
                        "item 10", "would get the value 10, which the pattern cannot write", "a wider count"));
    }

    @Test
    void aMissingAttributeIsAFaultOfItsItem() {
        assertThat(plan(rule("{field division}-{count 2}"), List.of(item("a", Map.of())))
                        .faults())
                .containsExactly(new ItemFault("a", "has no division, which the pattern writes", "a value there"));
    }

    @Test
    void anOrderOfPlacesNeedsPlaces() {
        Rule rule = rule(Choice.ALL, ACROSS, "{count}");
        assertThat(plan(rule, List.of(item("a", Map.of()))).faults())
                .containsExactly(new ItemFault("a", "has no place on a sheet", "an order by attributes"));
    }

    @Test
    void aStartThatFollowsFromWhatIsNotCountedApartIsAFaultOfTheRule() {
        assertThat(restarting(rule("{count}"), "{division} * 250", "sheet").faults())
                .extracting(fault -> fault.path() + " " + fault.problem())
                .containsExactly("start follows from {division}, and the count does not begin again with it");
    }

    /** Whatever the rule: what was numbered by it stays, and clearing it gives back what was there. */
    @RepeatedTest(200)
    void numberingTwiceChangesNothingAndClearingUndoesIt(RepetitionInfo repetition) {
        var random = new Random(repetition.getCurrentRepetition());
        var items = new ArrayList<Item>();
        for (int i = 0; i < 30; i++)
            items.add(text(
                    "item " + i,
                    1 + random.nextInt(3),
                    random.nextInt(400),
                    random.nextInt(300),
                    List.of("", "Pipe", "Pipe – 1", "7").get(random.nextInt(4)),
                    Map.of("net", random.nextInt(3) == 0 ? "" : "K" + random.nextInt(12))));
        Rule rule = with(
                with(
                        rule(
                                Choice.ALL,
                                random.nextBoolean() ? Order.LISTED : ACROSS,
                                "{field sheet}/{field column}/{count 3}"),
                        Optional.of(new Grid(1 + random.nextInt(5), 1 + random.nextInt(4))),
                        random.nextBoolean() ? List.of(Rule.SHEET, Rule.COLUMN) : List.of(Rule.SHEET),
                        random.nextBoolean() ? Optional.of("net") : Optional.empty()),
                random.nextBoolean() ? Which.ALL : Which.MISSING,
                Sum.of(random.nextInt(20)),
                1 + random.nextInt(10),
                Writing.parse(List.of("{old} – {new}", "{new} {old}", "{old}({net} {new})")
                        .get(random.nextInt(3))),
                false);
        NumberPlan first = plan(rule, items);
        assertThat(first.faults()).isEmpty();
        List<Item> numbered = carriedOut(first, items);
        assertThat(numbered).allMatch(item -> item.number().isPresent());
        assertThat(plan(rule, numbered).changes()).isEmpty();
        assertThat(plan(rule, asRead(numbered)).changes()).isEmpty();
        assertThat(carriedOut(plan(with(rule, Which.NONE), numbered), numbered)).isEqualTo(items);
        assertThat(first.groups().stream().mapToInt(Group::items).sum()).isEqualTo(items.size());
    }
}
