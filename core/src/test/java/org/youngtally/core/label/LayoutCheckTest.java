package org.youngtally.core.label;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.LayoutDraft.AskDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.core.label.LayoutDraft.SheetDraft;
import org.youngtally.core.pattern.PatternException;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Values;

/** What a layout may be, and every fault of one that it may not. */
class LayoutCheckTest {
    private static final LabelContent CONTENT = new LabelContent(
            "LW26-00431",
            LocalDate.of(2026, 11, 29),
            Optional.of("works"),
            Map.of("stop", "Gamba"),
            "17",
            3,
            500,
            1,
            2,
            true);

    /** An item with these properties, as {@code name=value}; one with a text otherwise. */
    private static ItemDraft item(String... said) {
        Values values = ItemDraft.PROPERTIES.values(new ItemDraft(
                null, null, null, null, null, null, null, "20", "8", null, null, null, null, null, null, null, null));
        for (String each : said) values = with(values, each.split("=", 2)[0], each.split("=", 2)[1]);
        return ItemDraft.PROPERTIES.make(values);
    }

    @SuppressWarnings("unchecked") // the shape says what the value is
    private static Values with(Values values, String name, String text) {
        Property<?> property = ItemDraft.PROPERTIES.properties().stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow();
        if (name.equals("turn")) return values.with((Property<Long>) property, Long.valueOf(text));
        if (name.equals("transport") || name.equals("readable"))
            return values.with((Property<Boolean>) property, Boolean.valueOf(text));
        return values.with((Property<String>) property, text.isEmpty() ? null : text);
    }

    private static LayoutDraft draft(ItemDraft... items) {
        return new LayoutDraft("pipe", null, "62", "29", null, null, null, null, List.of(items));
    }

    private static List<String> faults(LayoutDraft draft) {
        return LayoutCheck.of(draft).faults().stream().map(Fault::toString).toList();
    }

    @Test
    void whatIsAbsentIsAsUsual() {
        Layout layout =
                LayoutCheck.of(draft(item("text={identifier}"))).layout().orElseThrow();
        assertThat(layout.title()).isEqualTo("pipe");
        assertThat(layout.resolution()).isEqualTo(300);
        assertThat(layout.advance()).isEqualTo(Layout.Advance.LABEL);
        assertThat(layout.sheet()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "left=50 | items[0].left: its right edge is at 70 mm, and the label ends at 62; move it, or make it smaller",
                "top=25 | items[0].top: its lower edge is at 33 mm, and the label ends at 29; move it, or make it smaller",
                "turn=45 | items[0].turn: is 45; write 0, 90, 180 or 270",
                "width=x | items[0].width: ‘x’ is not a length in mm; write up to 9999 with at most three places behind a point, such as 62.5",
                "width= | items[0].width: is missing; write it in mm, such as 62",
                "height=0 | items[0].height: is 0; write more than 0, in mm",
                "size=2 | items[0].size: ‘2’ is no size of letters; write 3 to 400 points, such as 8.5",
                "align=centre | items[0].align: ‘centre’ is not an option; did you mean center? write left, center or right",
                "code=qr | items[0]: is text and code at once; write one of text, code, line, box and picture",
                "text= | items[0]: shows nothing; write one of text, code, line, box and picture",
                "module=0.3 | items[0].module: is for bar codes alone; remove it, or write code and the symbology",
                "text={identifer} | items[0].text: at symbol 1: ‘{identifer}’ is not a place that is known; did you mean identifier?"
            })
    void aFaultyItemIsToldWithWhatWouldDo(String said, String fault) {
        assertThat(faults(draft(item("text={identifier}", said))))
                .anySatisfy(each -> assertThat(each).startsWith(fault));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "code-128 | '' | items[0].content: is missing; write what the bar code holds, such as {identifier}",
                "code-129 | {identifier} | items[0].code: ‘code-129’ is not an option; did you mean code-128?",
                "gs1-128 | link=https://id.larkmoor.example | items[0].link: gs1-128 holds elements and no link; write code: qr or data-matrix",
                "qr | link=larkmoor | items[0].link: ‘larkmoor’ is not an address that a link can begin with",
                "qr | readable=true | items[0].readable: is for bar codes that are read along one line; add a text beside it"
            })
    void aFaultyBarCodeIsToldWithWhatWouldDo(String kind, String said, String fault) {
        ItemDraft item = said.contains("=")
                ? item("code=" + kind, "content={identifier}", said)
                : item("code=" + kind, "content=" + said);
        assertThat(faults(draft(item))).anySatisfy(each -> assertThat(each).startsWith(fault));
    }

    @Test
    void aTurnedItemTakesItsHeightInWidth() {
        ItemDraft high = item("text={identifier}", "width=29", "height=62", "turn=90");
        assertThat(faults(draft(high))).isEmpty();
        assertThat(faults(draft(item("text={identifier}", "width=29", "height=62"))))
                .isNotEmpty();
    }

    @Test
    void aLineNeedsNoWidthOrNoHeight() {
        assertThat(faults(draft(item("line=0.3", "height=0")))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "4 | 8 | sheet.columns: 4 labels side by side need 262 mm, and the sheet has 210; use fewer columns, or smaller labels, margins or gaps",
                "3 | 11 | sheet.rows: 11 labels one below the other need 329 mm, and the sheet has 297; use fewer rows, or smaller labels, margins or gaps",
                "0 | 8 | sheet.columns: is 0; enter 1 to 100"
            })
    void labelsThatDoNotFitTheirSheetAreAFault(long columns, long rows, String fault) {
        var sheet = new SheetDraft("210", "297", columns, rows, "5", "10", "3", null);
        assertThat(faults(new LayoutDraft(
                        "pipe", null, "62", "29", null, null, sheet, null, List.of(item("text={identifier}")))))
                .containsExactly(fault);
    }

    @Test
    void aSheetThatAdvancesMustBeThere() {
        assertThat(faults(new LayoutDraft(
                        "pipe", null, "62", "29", null, "sheet", null, null, List.of(item("text={identifier}")))))
                .containsExactly("advance: is sheet, and there is no sheet; add sheet, or write advance: label");
    }

    @Test
    void aFieldIsAskedForOnce() {
        assertThat(faults(new LayoutDraft(
                        "pipe",
                        null,
                        "62",
                        "29",
                        50L,
                        null,
                        null,
                        List.of(new AskDraft("stop", null), new AskDraft("stop", "Stop"), new AskDraft("Stop", null)),
                        List.of(item("text={identifier}")))))
                .contains(
                        "resolution: is 50 dots per inch; enter 72 to 2400",
                        "ask[1].name: ‘stop’ is asked for twice; keep one",
                        "ask[2].name: ‘Stop’ is not the name of a field; write small letters, digits and hyphens, such as inspector");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "No. {identifier} | No. LW26-00431",
                "{field stop}/{field none}/{unit} | Gamba//works",
                "{date yyMMdd} {date dd.MM.yyyy} | 261129 29.11.2026",
                "{number} of {quantity}, {copy}/{copies}, job {job} | 3 of 500, 1/2, job 17",
                "{reprint} {{literal}} | reprint {literal}"
            })
    void aTemplateIsFilledForEachLabel(String template, String text) {
        assertThat(Template.parse(template).of(CONTENT)).isEqualTo(text);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "ab{identifier | 3 | the brace is not closed",
                "a}b | 2 | this brace closes nothing",
                "{field Stop} | 8 | ‘Stop’ is not the name of a field",
                "{date xx} | 7 | ",
                "{count 5} | 1 | ‘{count 5}’ is not a place that is known"
            })
    void aFaultyTemplateIsToldAtItsColumn(String template, int column, String problem) {
        assertThatThrownBy(() -> Template.parse(template))
                .isInstanceOfSatisfying(
                        PatternException.class, e -> assertThat(e.column()).isEqualTo(column))
                .hasMessageContaining(problem == null ? "" : problem);
    }
}
