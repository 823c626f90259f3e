package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldFault.Kind;
import org.youngtally.core.series.Fields.Reading;

class FieldsTest {
    private static final Map<String, Codebook> BOOKS = Map.of(
            "part",
            new Codebook(
                    "part",
                    "Parts",
                    List.of(
                            new Choice(
                                    "Wind-chest",
                                    "WC",
                                    false,
                                    List.of(
                                            new Choice("Pallet", "PL", false, List.of()),
                                            new Choice("Sponsil", "SP", true, List.of()))),
                            new Choice("Action", "AC", false, List.of(new Choice("Backfall", "BF", false, List.of())))),
                    1));

    private static SeriesDraft draft(String pattern, FieldDraft... fields) {
        return SeriesDraft.of("a", pattern)
                .with(SeriesProperties.FIELDS, List.of(fields))
                .with(SeriesProperties.RANGES, List.of(range(1, 99, "2026-01-01")));
    }

    private static Series series(SeriesDraft draft) {
        DraftCheck.Result checked = DraftCheck.of(draft, BOOKS);
        assertThat(checked.faults()).isEmpty();
        return checked.series().orElseThrow();
    }

    private static FieldDraft book(String name, String codebook) {
        return new FieldDraft(name, codebook, null, null, null);
    }

    private static FieldDraft within(String name, String other) {
        return new FieldDraft(name, null, other, null, null);
    }

    private static FieldDraft text(String name, long longest, String symbols) {
        return new FieldDraft(name, null, null, longest, symbols);
    }

    private static Reading read(Series series, Map<String, String> given) {
        return new Fields(series, BOOKS).read(given);
    }

    private static FieldFault fault(Series series, Map<String, String> given) {
        return ((Reading.Faulty) read(series, given)).fault();
    }

    private static String written(Series series, Map<String, String> given) {
        var particulars =
                new Particulars(LocalDate.of(2026, 3, 2), ((Reading.Understood) read(series, given)).fields());
        return series.render(series.ranges().getFirst(), particulars, 0);
    }

    private static List<String> problems(Choice... choices) {
        return DraftCheck.of(
                        draft("{field group}-{field type}-{count 2}", book("group", "twins"), within("type", "group")),
                        Map.of("twins", new Codebook("twins", "Twins", List.of(choices), 1)))
                .faults()
                .stream()
                .map(Fault::problem)
                .toList();
    }

    @Test
    void codesBeneathDifferentChoicesMayBeAlike() {
        assertThat(problems(
                        new Choice("One", "A", false, List.of(new Choice("Pallet", "PL", false, List.of()))),
                        new Choice("Other", "B", false, List.of(new Choice("Plate", "pl", false, List.of())))))
                .isEmpty();
    }

    @Test
    void codesThatANewNamespaceTakesForOneAreRefused() {
        assertThat(problems(
                        new Choice("One", "\u1E9E", false, List.of(new Choice("Pallet", "PL", false, List.of()))),
                        new Choice("Other", "SS", false, List.of(new Choice("Plate", "PT", false, List.of())))))
                .anyMatch(problem -> problem.contains("are one as the namespace compares them"));
    }

    private final Series parts =
            series(draft("{field group}-{field type}-{count 2}", book("group", "part"), within("type", "group"))
                    .with(SeriesProperties.RESTARTS, List.of("field group", "year")));

    @Test
    void aChoiceIsKnownByItsNameOrItsCodeAndNarrowsTheNext() {
        assertThat(written(parts, Map.of("group", "wind-chest", "type", "PL"))).isEqualTo("WC-PL-01");
        assertThat(written(parts, Map.of("group", "ac", "type", "Backfall"))).isEqualTo("AC-BF-01");
        FieldFault foreign = fault(parts, Map.of("group", "AC", "type", "Pallet"));
        assertThat(foreign.kind()).isEqualTo(Kind.NOT_A_CHOICE);
        assertThat(foreign.accepted()).containsExactly("Backfall (BF)");
        assertThat(fault(parts, Map.of("group", "Acton", "type", "x")).nearest())
                .contains("Action");
    }

    @Test
    void missingUnknownAndRetiredAreRefusedByName() {
        assertThat(fault(parts, Map.of("group", "WC")))
                .extracting(FieldFault::field, FieldFault::kind)
                .containsExactly("type", Kind.MISSING);
        assertThat(fault(parts, Map.of("group", "WC", "type", "PL", "colour", "red")))
                .extracting(FieldFault::field, FieldFault::kind)
                .containsExactly("colour", Kind.NOT_A_FIELD);
        assertThat(fault(parts, Map.of("group", "WC", "type", "SP")).kind()).isEqualTo(Kind.RETIRED);
    }

    @Test
    void eachCombinationIsALaneOfItsOwn() {
        Range range = parts.ranges().getFirst();
        var chest = new Particulars(LocalDate.of(2026, 3, 2), Map.of("group", "WC", "type", "PL"));
        assertThat(parts.lane(range, chest).period()).isEqualTo("2026, group WC");
        Series clients = series(draft("{field client first 3 upper}{count 2}", text("client", 3, "letters"))
                .with(SeriesProperties.RESTARTS, List.of("field client")));
        assertThat(clients.lane(range, new Particulars(LocalDate.EPOCH, Map.of("client", "Larkmoor"))))
                .as("what is written alike counts together")
                .isEqualTo(clients.lane(range, new Particulars(LocalDate.EPOCH, Map.of("client", "largo"))));
    }

    @ParameterizedTest
    @CsvSource({
        "first 3, St. Anne's, StA",
        "first 3 upper, Ürmel, ÜRM",
        "unaccented first 4 lower, Ørsted Straße, orst",
        "initials, Saint Mary-the-Virgin, SMtV",
        "initials upper, anna b., AB",
        "pad 6 X, abc, abcXXX",
        "pad-front 4, 7, 0007",
        "pad-front 4 -, 7, ---7",
        "lower, ABC, abc",
        "unaccented, Æsop, AEsop",
        "first 2 pad 4 0, a, a000",
    })
    void textsAreTransformedInOrder(String transforms, String given, String expected) {
        Series series = series(draft("{field t " + transforms + "}/{count 1}", text("t", 20, "letters digits - Ü ü"))
                .with(SeriesProperties.RANGES, List.of(range(1, 9, "2026-01-01"))));
        assertThat(written(series, Map.of("t", given))).isEqualTo(expected + "/1");
    }

    @Test
    void aTextIsHeldToItsLengthAndSymbolsAsWritten() {
        Series series = series(draft("{field t unaccented first 5}-{count 2}", text("t", 4, "letters")));
        assertThat(written(series, Map.of("t", "Zoë!"))).isEqualTo("Zoe-01");
        assertThat(fault(series, Map.of("t", "Larkmoor")).kind()).isEqualTo(Kind.TOO_LONG);
        assertThat(fault(series, Map.of("t", "AB1")).kind()).isEqualTo(Kind.SYMBOL);
        assertThat(fault(series, Map.of("t", "...")).kind()).isEqualTo(Kind.NOTHING_LEFT);
        Series padded = series(draft("{field t first 4 pad 4 X}-{count 2}", text("t", 4, "letters")));
        assertThat(fault(padded, Map.of("t", "...")).kind())
                .as("what is padded out of nothing")
                .isEqualTo(Kind.NOTHING_LEFT);
        assertThat(fault(series, Map.of("t", "x".repeat(201))).kind()).isEqualTo(Kind.TOO_LONG);
    }

    @Test
    void theUnitIsAFieldOfItsOwn() {
        Series series = series(
                draft("{unit upper}-{count 2}", book("unit", "part")).with(SeriesProperties.RESTARTS, List.of("unit")));
        assertThat(written(series, Map.of("unit", "Action"))).isEqualTo("AC-01");
        assertThat(series.restarts().words()).containsExactly("unit");
        assertThat(DraftCheck.of(SeriesDraft.of(series), BOOKS).series()).contains(series);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{field group}-{count 2} | fields | is not defined",
                "{field group}{count 2 | pattern | is not closed",
                "{field}-{count 2} | pattern | names no field",
                "{field Group}-{count 2} | pattern | ‘Group’ is not the name of a field",
                "{field unit}-{count 2} | pattern | the unit has a field of its own",
                "{field g frist 3}-{count 2} | pattern | did you mean first?",
                "{field g first}-{count 2} | pattern | ‘first’ has no length",
                "{field g pad 99}-{count 2} | pattern | ‘pad 99’ has no length",
            })
    void faultsOfThePatternAreTold(String pattern, String path, String problem) {
        assertThat(DraftCheck.of(draft(pattern.strip()), BOOKS).faults())
                .anySatisfy(fault -> assertThat(fault.path() + ": " + fault.problem() + " " + fault.accepted())
                        .startsWith(path.strip())
                        .contains(problem.strip()));
    }

    @Test
    void faultsOfTheFieldsAreTold() {
        refused(
                draft("{field g}-{count 2}", book("g", "prat")),
                "fields[0].codebook",
                "codebook ‘prat’ not found",
                "did you mean part?");
        refused(draft("{field g}-{count 2}", book("g", "")), "fields[0].codebook", "is not chosen");
        refused(draft("{field g}-{count 2}", within("g", "")), "fields[0].within", "is not chosen");
        refused(
                draft("{field g}-{count 2}", within("g", "h")),
                "fields[0].within",
                "‘h’ is not an earlier field with a codebook");
        refused(
                draft("{field g}-{count 2}", new FieldDraft("g", "part", null, 3L, null)),
                "fields[0].longest",
                "as long as its codes");
        refused(draft("{field g}-{count 2}", text("g", 41, null)), "fields[0].longest", "41 is not a length");
        refused(draft("{field g}-{count 2}", text("g", 4, "lettres")), "fields[0].symbols", "‘lettres’ is not a kind");
        refused(draft("{field g}-{count 2}", book("g", "part"), book("g", "part")), "fields[1].name", "occurs twice");
        refused(
                draft("{field g}-{count 2}", book("g", "part")).with(SeriesProperties.RESTARTS, List.of("field h")),
                "restarts[0]",
                "does not show the field ‘h’");
        refused(
                draft("{field g}-{count 2}", book("g", "part")).with(SeriesProperties.LONGEST, 4L),
                "longest",
                "have up to 5 symbols");
        refused(
                draft("{field g}-{count 2}", text("g", 4, "letters")).with(SeriesProperties.SYMBOLS, "digits -"),
                "symbols",
                "the field {field g} holds ‘A’");
    }

    private static void refused(SeriesDraft draft, String path, String... problem) {
        assertThat(DraftCheck.of(draft, BOOKS).faults()).anySatisfy(fault -> {
            assertThat(fault.path()).isEqualTo(path);
            assertThat(fault.toString()).contains(problem);
        });
    }

    @Test
    void aChoiceThatWasRetiredSinceCountsForWhatIsKept() {
        Series series =
                series(draft("{field group}-{field type}-{count 2}", book("group", "part"), within("type", "group")));
        assertThat(new Fields(series, BOOKS).kept(Map.of("group", "WC", "type", "SP")))
                .contains(Map.of("group", "WC", "type", "SP"));
    }
}
