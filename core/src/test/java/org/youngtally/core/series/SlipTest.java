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
        return PossibleMistake.of(series, before, TODAY, lane -> given).stream()
                .map(slip -> slip.path() + " " + slip.remark())
                .toList();
    }

    @Test
    void thisYearAsFixedTextIsRemarked() {
        assertThat(slips(series("a", null, "A2026-{count 3}", null, range(1, 9, "2026-01-01")), Optional.empty(), 0))
                .singleElement()
                .asString()
                .startsWith("pattern ‘A2026-’ looks like this year");
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
                .contains("is over");
    }

    @Test
    void aRangeThatWillNotLastIsRemarked() {
        Series year = series("a", null, "A{count 3}", null, range(1, 100, 1, "2026-01-01", "2026-12-31"));
        assertThat(slips(year, Optional.of(year), 60))
                .singleElement()
                .asString()
                .startsWith("ranges[0].last at the rate since it opened this range runs out about 2026-04-11");
        assertThat(slips(year, Optional.of(year), 10)).isEmpty();
    }

    @Test
    void aSeriesThatNobodyUsesIsRemarked() {
        Series idle = series("a", null, "A{count 3}", null, range(1, 100, "2025-06-01"));
        assertThat(slips(idle, Optional.of(idle), 0))
                .singleElement()
                .asString()
                .isEqualTo("key no number was given since it opened on 2025-06-01");
    }
}
