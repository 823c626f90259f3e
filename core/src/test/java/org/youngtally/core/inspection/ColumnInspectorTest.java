package org.youngtally.core.inspection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.inspection.Inspection.Duplicate;
import org.youngtally.core.inspection.Inspection.FaultKind;
import org.youngtally.core.inspection.Inspection.Gap;
import org.youngtally.core.inspection.Inspection.LaneUse;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/** A column is looked through row by row. */
class ColumnInspectorTest {
    private static Numbers of(Series series) {
        return new BySeries(List.of(
                new SeriesReader(series, Fields.of(series, key -> Optional.empty()), LocalDate.of(2026, 3, 2))));
    }

    private static Numbers invoices() {
        return of(series("invoice", "n", "LW{date yy}-{count 5}", "year", range(1, 99_999, "2026-01-01")));
    }

    /** The rows have a number and a name: number/name. */
    private static Inspection inspected(Numbers numbers, String... rows) {
        var inspector = new ColumnInspector(List.of("number", "name"), 0, numbers, Comparison.NEWEST);
        for (int i = 0; i < rows.length; i++) inspector.row(i + 2L, List.of(rows[i].split("/", 2)));
        if (inspector.needsSecondPass())
            for (int i = 0; i < rows.length; i++) inspector.again(i + 2L, List.of(rows[i].split("/", 2)));
        return inspector.found();
    }

    @Test
    void everyRowIsBlankReadOrNot() {
        Inspection found = inspected(invoices(), "LW26-00001/a", "/b", "LW26-00002/c", "lost/d");
        assertThat(List.of(found.rows(), found.blanks(), found.read(), found.unread()))
                .containsExactly(4L, 1L, 2L, 1L);
    }

    @Test
    void theHighestIsTheOneOfTheLargestValueAndNotTheLastAsText() {
        Inspection found =
                inspected(of(series("c", "n", "C{count}", null, range(1, 9_999, "2026-01-01"))), "C9", "C10", "C2");
        assertThat(found.lanes().getFirst().highest().text()).isEqualTo("C10");
        assertThat(found.lanes().getFirst().lastAsText()).isEqualTo("C9");
    }

    @Test
    void gapsAreToldByTheNumbersThatAreMissing() {
        LaneUse lane = inspected(invoices(), "LW26-00001", "LW26-00004", "LW26-00005", "LW26-00007")
                .lanes()
                .getFirst();
        assertThat(lane.missing()).isEqualTo(3);
        assertThat(lane.gaps())
                .containsExactly(
                        new Gap("LW26-00002", "LW26-00003", 2, 3, 2), new Gap("LW26-00006", "LW26-00006", 6, 6, 1));
    }

    @Test
    void aNumberThatTheStepPassesOverIsNoGap() {
        Numbers tens = of(series("p", "n", "P{count 4}", null, range(10, 9_990, 10, "2026-01-01", null)));
        LaneUse lane = inspected(tens, "P0010", "P0020", "P0040").lanes().getFirst();
        assertThat(lane.gaps()).containsExactly(new Gap("P0030", "P0030", 30, 30, 1));
    }

    @Test
    void eachYearIsALaneOfItsOwn() {
        assertThat(inspected(invoices(), "LW26-00001", "LW25-00900", "LW25-00901")
                        .lanes())
                .extracting(lane -> lane.lane() + " range " + lane.range())
                .containsExactly("2025 range 0", "2026 range 1");
    }

    @Test
    void aNumberThatOccursTwiceIsToldWithWhatItsRowsDifferIn() {
        Inspection found = inspected(invoices(), "LW26-00001/Pallet", "LW26-00002/Slider", "lw26-00001/Roller");
        assertThat(found.duplicates().listed())
                .extracting(Duplicate::text, Duplicate::lines, duplicate -> List.copyOf(duplicate.differing()))
                .containsExactly(org.assertj.core.groups.Tuple.tuple("LW26-00001", List.of(2L, 4L), List.of("name")));
        assertThat(found.duplicates().rows()).isEqualTo(2);
    }

    @ParameterizedTest
    @CsvSource({
        "LW26-431, NEAR",
        "lw26-00431, SPELLING",
        "1.2E+10, EXPONENT",
        "=A1+1, FORMULA",
        "2026-03-02, DATE",
        "Gamba, UNREADABLE"
    })
    void aTextThatIsNoNumberIsToldByItsKind(String text, FaultKind kind) {
        assertThat(inspected(invoices(), text).byKind()).containsOnlyKeys(kind);
    }

    @Test
    void withoutASeriesTheDigitsThatDifferMostAreTheCount() {
        List<String> sample = List.of("7/2025-A", "8/2025-A", "9/2025-A", "10/2025-A");
        assertThat(inspected(Numbers.byShape(sample), "9", "11").lanes()).hasSize(1);
        Inspection found = inspected(
                Numbers.byShape(sample),
                sample.stream().map(text -> text.replace('/', '_')).toArray(String[]::new));
        assertThat(found.lanes().getFirst().highest().text()).isEqualTo("10_2025-A");
        assertThat(found.byYear()).containsEntry("2025", 4L);
    }

    @Test
    void whatIsThereIsCountedByTheLettersInFront() {
        assertThat(inspected(Numbers.byShape(List.of("A1", "BC2")), "A1", "BC2", "A3")
                        .byLetters())
                .containsEntry("A", 2L)
                .containsEntry("BC", 1L);
    }

    @Test
    void theDensityCountsEveryDifferentNumberOnceInStretchesOfEqualLength() {
        LaneUse lane = inspected(invoices(), "LW26-00001", "LW26-00001", "LW26-00002", "LW26-00100")
                .lanes()
                .getFirst();
        assertThat(lane.stretch()).isEqualTo(2);
        assertThat(lane.density()).hasSize(50).startsWith(2L, 0L).endsWith(0L, 1L);
    }

    @Test
    void theColumnOfTheIdentifiersIsTold() {
        var choice = new ColumnChoice(List.of("name", "part no", "weight"), Numbers.byShape(List.of()));
        for (int i = 0; i < 50; i++) choice.row(List.of("Pallet", "P-%04d".formatted(i), Integer.toString(i % 7)));
        assertThat(choice.profiles().getFirst().name()).isEqualTo("part no");
    }
}
