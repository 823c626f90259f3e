package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.numbering.Order.Axis;
import org.youngtally.core.numbering.Order.Key;
import org.youngtally.core.numbering.RuleDraft.BoxDraft;
import org.youngtally.core.numbering.RuleDraft.ChoiceDraft;
import org.youngtally.core.numbering.RuleDraft.GridDraft;
import org.youngtally.core.numbering.RuleDraft.OrderDraft;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Values;

class RuleCheckTest {
    /** Names and their values, one behind the other. */
    private static RuleDraft draft(Object... said) {
        Values values = Values.NONE;
        for (int i = 0; i < said.length; i += 2) values = with(values, (String) said[i], said[i + 1]);
        return RuleDraft.PROPERTIES.make(values);
    }

    @SuppressWarnings("unchecked") // as the property has it
    private static Values with(Values values, String name, Object value) {
        Property<?> property = RuleDraft.PROPERTIES.properties().stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow();
        return values.with((Property<Object>) property, value);
    }

    private static List<String> faults(Object... said) {
        return RuleCheck.of(draft(said)).faults().stream()
                .map(RuleCheckTest::words)
                .toList();
    }

    private static String words(Fault fault) {
        return fault.path() + " " + fault.problem();
    }

    @Test
    void aRuleIsMadeOfWhatIsSaid() {
        Rule rule = RuleCheck.of(draft(
                        "pattern",
                        "{count}",
                        "choose",
                        List.of(
                                new ChoiceDraft("class", List.of("call-out"), null, null, null),
                                new ChoiceDraft(null, null, null, new BoxDraft("0", "-1.5", "40", "30"), null)),
                        "order",
                        List.of(new OrderDraft("columns", null, "2.5", true, null)),
                        "grid",
                        new GridDraft(4L, null),
                        "restarts",
                        List.of("sheet", "column"),
                        "number",
                        "all"))
                .rule()
                .orElseThrow();
        assertThat(rule.choice().tests())
                .containsExactly(
                        new Choice.Test.Attribute("class", Set.of("call-out")), new Choice.Test.Box(0, -1.5, 40, 30));
        assertThat(rule.order().keys()).containsExactly(new Key.InLines(Axis.X, 2.5, false, true));
        assertThat(rule.grid()).contains(new Grid(4, 1));
        assertThat(rule.which()).isEqualTo(Rule.Which.ALL);
    }

    @Test
    void whatIsNotSaidIsAsUsual() {
        Rule rule = RuleCheck.of(draft("pattern", "{count}")).rule().orElseThrow();
        assertThat(rule.which()).isEqualTo(Rule.Which.MISSING);
        assertThat(rule.writing()).isEqualTo(Writing.NUMBER);
    }

    @Test
    void aRuleNeedsOneSourceOfNumbers() {
        assertThat(faults()).containsExactly(" says neither a pattern nor a series");
        assertThat(faults("pattern", "{count}", "series", "part", "document", "case"))
                .containsExactly("series is said beside a pattern");
    }

    @Test
    void aSeriesNeedsANameOfTheDocument() {
        assertThat(faults("series", "part")).containsExactly("document is missing");
    }

    @Test
    void whatIsWrittenWrongIsToldAtItsColumn() {
        assertThat(faults("pattern", "{count", "start", "{division} *", "write", "{old}"))
                .containsExactly(
                        "pattern column 1: this brace is not closed",
                        "start column 13: the sum ends too soon",
                        "write column 6: the number is written nowhere");
    }

    @Test
    void everyKeyAndTestIsOne() {
        assertThat(faults(
                        "pattern",
                        "{count}",
                        "choose",
                        List.of(new ChoiceDraft("class", null, null, null, null)),
                        "order",
                        List.of(
                                new OrderDraft("x", "net", null, null, null),
                                new OrderDraft("x", null, "3", null, null))))
                .containsExactly(
                        "choose[0] is not one test",
                        "order[0] is not one key",
                        "order[1] has a tolerance or lines-descending without lines");
    }

    @Test
    void measuresAreMeasures() {
        assertThat(faults(
                        "pattern",
                        "{count}",
                        "choose",
                        List.of(new ChoiceDraft(null, null, null, new BoxDraft("0", "0", "4O", "0"), null)),
                        "order",
                        List.of(new OrderDraft("rows", null, "-1", null, null)),
                        "grid",
                        new GridDraft(0L, 2L)))
                .containsExactly(
                        "choose[0].within.right ‘4O’ is not a measure",
                        "order[0].tolerance is less than 0",
                        "grid has 0 columns and 2 rows");
    }

    @Test
    void numbersOfASeriesAreNotAllocatedTwice() {
        assertThat(faults("series", "part", "document", "case", "number", "all"))
                .containsExactly("number would allocate second numbers of a series for what has one");
    }
}
