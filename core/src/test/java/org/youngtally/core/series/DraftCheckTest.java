package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.draft;
import static org.youngtally.core.series.Sample.range;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.youngtally.core.fault.Fault;

class DraftCheckTest {

    static Stream<Arguments> faulty() {
        RangeDraft good = range(1, 999, "2026-01-01");
        return Stream.of(
                Arguments.of(draft("Invoice!", null, "{count}", null, good), "key", "is not a name"),
                Arguments.of(draft(null, null, "{count}", null, good), "key", "is missing"),
                Arguments.of(draft("a", "b c", "{count}", null, good), "namespace", "is not a name"),
                Arguments.of(draft("a", null, null, null, good), "pattern", "is missing"),
                Arguments.of(draft("a", null, "LW{count", null, good), "pattern", "column 3"),
                Arguments.of(draft("a", null, "{count}", "yaer", good), "restarts[0]", "not a time to restart"),
                Arguments.of(draft("a", null, "{count}", null), "ranges", "are missing"),
                Arguments.of(
                        draft("a", null, "{count}", null, new RangeDraft(null, 9L, null, "2026-01-01", null, null)),
                        "ranges[0].first",
                        "is missing"),
                Arguments.of(
                        draft("a", null, "{count}", null, new RangeDraft(1L, null, null, "2026-01-01", null, null)),
                        "ranges[0].last",
                        "is missing"),
                Arguments.of(
                        draft("a", null, "{count}", null, new RangeDraft(1L, 9L, null, null, null, null)),
                        "ranges[0].opens",
                        "is missing"),
                Arguments.of(
                        draft("a", null, "{count}", null, range(1, 9, "2026-02-30")), "ranges[0].opens", "not a date"),
                Arguments.of(
                        draft("a", null, "{count}", null, range(1, 9, 1, "2026-02-03", "2026-02-02")),
                        "ranges[0].closes",
                        "before the day it opens"),
                Arguments.of(
                        draft("a", null, "{count}", null, range(1, 9, 1, "2026-02-03", "2100-01-01")),
                        "ranges[0].closes",
                        "out of bounds"),
                Arguments.of(
                        draft("a", null, "{count}", null, good, range(1, 10, 2, "2026-01-01", null)),
                        "ranges[1].last",
                        "not reached"),
                Arguments.of(
                        draft("a", null, "{count 2}", null, good),
                        "ranges[0].last",
                        "wider than the count, which has 2 digits"),
                Arguments.of(
                        draft("a", null, "{count 2}", null, range(100, 1, -1, "2026-01-01", null)),
                        "ranges[0].first",
                        "wider than the count"),
                Arguments.of(
                        draft("a", null, "{count}", null, good, range(1, 5, "2026-01-01")),
                        "ranges[1].first",
                        "an earlier range has the same"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.TITLE, "x".repeat(201))
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "title",
                        "201 symbols"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.TYPED, "sometimes")
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "typed",
                        "is not an option"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.TYPED, "required")
                                .with(SeriesProperties.ORDER, "repeating")
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "typed",
                        "cannot be typed"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.TYPED, "allowed")
                                .with(SeriesProperties.CHRONOLOGICAL, true)
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "typed",
                        "ahead of the counter"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.ORDER, "scattered")
                                .with(SeriesProperties.CHRONOLOGICAL, true)
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "chronological",
                        "do not follow the calendar"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.GAPS, "yes")
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "gaps",
                        "is not an option"),
                Arguments.of(
                        SeriesDraft.of("a", "{count}")
                                .with(SeriesProperties.RETURNS, "no")
                                .with(SeriesProperties.RANGES, List.of(good)),
                        "returns",
                        "is not an option"),
                Arguments.of(
                        draft("a", null, "{count}", null, new RangeDraft(1L, 9L, null, "2026-01-01", null, null, -1L)),
                        "ranges[0].warn-days-before",
                        "is not a number of days"));
    }

    @Test
    void aLastValueAsItIsWrittenSaysNothingMoreWhereThePatternHasAFault() {
        assertThat(written("A{count 3 sefa}", null, "ZZZ").faults())
                .extracting(Fault::path)
                .containsExactly("pattern");
    }

    private static DraftCheck.Result written(String pattern, Long last, String lastWritten) {
        return DraftCheck.of(SeriesDraft.of("a", pattern)
                .with(
                        SeriesProperties.RANGES,
                        List.of(new RangeDraft(0L, last, lastWritten, null, "2026-01-01", null, null, null))));
    }

    @Test
    void theLastValueIsReadAsTheCountWritesIt() {
        assertThat(written("A{count 3 safe}", null, "zzz")
                        .series()
                        .orElseThrow()
                        .ranges()
                        .getFirst()
                        .last())
                .isEqualTo(30 * 30 * 30 - 1);
    }

    @Test
    void aLastValueThatTheCountNeverWritesIsToldWithItsAlphabet() {
        assertThat(written("A{count 3 safe}", null, "ZZ0").faults())
                .singleElement()
                .asString()
                .contains("‘ZZ0’ is not a value of this count", "alphabet of 30 (23456789ABCDEFGHJKMNPQRTUVWXYZ)");
    }

    @Test
    void twoLastValuesMustBeOne() {
        assertThat(written("A{count 3 safe}", 5L, "ZZZ").faults())
                .singleElement()
                .asString()
                .contains("‘ZZZ’ is the value 26999, and last is 5");
    }

    @Test
    void aLastValueThatIsTooHighIsToldWithTheHighest() {
        assertThat(written("A{count 3 safe}", 27_000L, null).faults())
                .singleElement()
                .asString()
                .contains("alphabet of 30", "enter at most 26999, written ZZZ");
    }

    @ParameterizedTest
    @MethodSource("faulty")
    void aFaultIsToldAtItsPlace(SeriesDraft draft, String path, String problem) {
        DraftCheck.Result checked = DraftCheck.of(draft);
        assertThat(checked.series()).isEmpty();
        assertThat(checked.faults()).singleElement().satisfies(fault -> {
            assertThat(fault.path()).isEqualTo(path);
            assertThat(fault.problem()).contains(problem);
            assertThat(fault.accepted()).isNotBlank();
        });
    }

    @Test
    void allFaultsAreToldAtOnce() {
        assertThat(DraftCheck.of(draft("A", "B", "{count", "fortnight", range(5, 1, "never")))
                        .faults())
                .extracting(Fault::path)
                .containsExactly("key", "namespace", "pattern", "restarts[0]", "ranges[0].opens");
    }

    @Test
    void whatIsLeftOutHasItsDefault() {
        Series series = DraftCheck.of(draft("part", null, "P{count 3}", null, range(1, 9, "2026-01-01")))
                .series()
                .orElseThrow();
        assertThat(series.namespace()).isEqualTo("part");
        assertThat(series.title()).isEqualTo("part");
        assertThat(series.ranges().getFirst().step()).isEqualTo(1);
        assertThat(series.ranges().getFirst().serves().closes()).isEqualTo(DateWindow.HORIZON);
    }

    @Test
    void aMonthlyRestartIncludesTheYearly() {
        var draft = SeriesDraft.of("a", "{date yyMM}{count 3}")
                .with(SeriesProperties.RESTARTS, List.of("year", "month"))
                .with(SeriesProperties.RANGES, List.of(range(1, 9, "2026-01-01")));
        assertThat(DraftCheck.of(draft).series().orElseThrow().restarts().times())
                .containsExactly(Restart.MONTH);
    }

    @Test
    void aSeriesWrittenAsADraftIsTheSameSeries() {
        Series series = Sample.series(
                "a",
                "n",
                "A{date yy}{count 4}",
                "year",
                range(9_999, 1, -2, "2026-01-01", "2027-12-31"),
                range(1, 10, "2028-01-01"));
        assertThat(DraftCheck.of(SeriesDraft.of(series)).series()).contains(series);
    }
}
