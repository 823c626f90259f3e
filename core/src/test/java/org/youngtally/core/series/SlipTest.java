package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class SlipTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private static List<String> slips(Series series, Optional<Series> before, long given) {
        return slips(series, before, Optional.of(LocalDate.of(2025, 6, 1)), given);
    }

    private static List<String> slips(Series series, Optional<Series> before, Optional<LocalDate> defined, long given) {
        return PossibleMistake.of(series, before, TODAY, defined, lane -> given).stream()
                .map(slip -> slip.path() + " " + slip.remark())
                .toList();
    }

    @Test
    void thisYearAsFixedTextIsRemarked() {
        assertThat(slips(series("a", null, "A2026-{count 3}", null, range(1, 9, "2026-01-01")), Optional.empty(), 0))
                .singleElement()
                .asString()
                .startsWith("pattern ‘A2026-’ looks like the current year");
        assertThat(slips(series("a", null, "A26/{count 3}", null, range(1, 9, "2026-01-01")), Optional.empty(), 0))
                .hasSize(1);
        assertThat(slips(
                        series("a", null, "A126-{date yy}{count 3}", null, range(1, 9, "2026-01-01")),
                        Optional.empty(),
                        0))
                .isEmpty();
    }

    @Test
    void anOpeningLongAgoIsRemarkedOnceWhenTheRangeIsNew() {
        Series past = series("a", null, "A{count 3}", null, range(1, 9, "2025-12-31"));
        assertThat(slips(past, Optional.empty(), 0))
                .singleElement()
                .asString()
                .startsWith("ranges[0].opens 2025-12-31 lies before this year");
        assertThat(slips(past, Optional.of(past), 1)).isEmpty();
        assertThat(slips(
                        series("a", null, "A{count 3}", null, range(1, 9, 1, "2026-01-01", "2026-02-01")),
                        Optional.empty(),
                        0))
                .singleElement()
                .asString()
                .contains("has passed");
    }

    @Test
    void aRangeThatWillNotLastIsRemarked() {
        Series year = series("a", null, "A{count 3}", null, range(1, 100, 1, "2026-01-01", "2026-12-31"));
        assertThat(slips(year, Optional.of(year), 60))
                .singleElement()
                .asString()
                .startsWith("ranges[0].last at the rate since it opened, this range is exhausted about 2026-04-11");
        assertThat(slips(year, Optional.of(year), 10)).isEmpty();
    }

    @Test
    void aSeriesThatNobodyUsesIsRemarked() {
        Series idle = series("a", null, "A{count 3}", null, range(1, 100, "2025-06-01"));
        assertThat(slips(idle, Optional.of(idle), 0))
                .singleElement()
                .asString()
                .isEqualTo("key no number was allocated since it opened on 2025-06-01");
    }

    @Test
    void aSeriesThatIsSecondsOldNeedNotBeUsedYet() {
        Series idle = series("a", null, "A{count 3}", null, range(1, 100, "2025-06-01"));
        assertThat(slips(idle, Optional.of(idle), Optional.of(TODAY), 0)).isEmpty();
    }

    @Test
    void aYearOfTheWeekWithoutTheWeekIsRemarked() {
        assertThat(slips(
                        series("a", null, "A{date YY}-{count 3}", null, range(1, 9, "2026-01-01")),
                        Optional.empty(),
                        0))
                .singleElement()
                .asString()
                .startsWith("pattern YY and YYYY are the year of the week");
    }

    @Test
    void aYearOfTheWeekWithTheWeekIsNone() {
        assertThat(slips(
                        series("a", null, "A{date YYww}-{count 3}", null, range(1, 9, "2026-01-01")),
                        Optional.empty(),
                        0))
                .isEmpty();
    }

    @Test
    void datesBetweenRangesAreRemarked() {
        assertThat(slips(
                        series(
                                "a",
                                null,
                                "A{count 3}",
                                null,
                                range(1, 9, 1, "2026-01-01", "2026-03-31"),
                                range(10, 99, "2026-05-01")),
                        Optional.empty(),
                        0))
                .containsExactly("ranges uncovered dates: no range is active from 2026-04-01 to 2026-04-30");
    }

    @Test
    void aRangeThatAnOlderFileTakesAwayIsRemarked() {
        Series older = series("a", null, "A{count 3}", null, range(1, 9, "2026-01-01"));
        Series newer = series("a", null, "A{count 3}", null, range(1, 9, "2026-01-01"), range(10, 99, "2026-02-01"));
        assertThat(slips(older, Optional.of(newer), 0))
                .singleElement()
                .asString()
                .contains("10 to 99, from 2026-02-01 is not in this file and is removed");
    }
}
