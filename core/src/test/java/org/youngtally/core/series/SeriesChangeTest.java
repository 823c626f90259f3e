package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.youngtally.core.fault.Fault;

class SeriesChangeTest {
    private static final Series NOW = series("a", "n", "A{count 3}", null, range(1, 100, "2026-01-01"));
    private static final List<RangeUse> FIFTY_GIVEN = List.of(new RangeUse(1, 50, LocalDate.of(2026, 3, 1)));

    private static List<String> faults(Series to) {
        return SeriesChange.of(NOW, to, FIFTY_GIVEN).faults().stream()
                .map(Fault::path)
                .toList();
    }

    @Test
    void anythingMayChangeBeforeTheFirstNumber() {
        Series to = series("a", "m", "B{date yy}{count 4}", "year", range(5, 50, "2027-01-01"));
        assertThat(SeriesChange.of(NOW, to, List.of()).series())
                .get()
                .extracting(Series::version, series -> series.pattern().toString())
                .containsExactly(2, "B{date yy}{count 4}");
    }

    @Test
    void whatGivenNumbersRestOnStays() {
        assertThat(faults(series("a", "m", "A{count 3}", null, range(1, 100, "2026-01-01"))))
                .containsExactly("namespace");
        assertThat(faults(series("a", "n", "B{count 3}", null, range(1, 100, "2026-01-01"))))
                .containsExactly("pattern");
        assertThat(faults(series("a", "n", "A{count 3}", "year", range(1, 100, "2026-01-01"))))
                .containsExactly("restarts");
        assertThat(faults(series("a", "n", "A{count 3}", null, range(2, 100, "2026-01-01"))))
                .containsExactly("ranges");
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 100, "2026-01-02"))))
                .containsExactly("ranges");
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 100, 3, "2026-01-01", null))))
                .containsExactly("ranges");
    }

    @Test
    void aRangeInUseShrinksNoFurtherThanItWasUsed() {
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 49, "2026-01-01"))))
                .containsExactly("ranges[0].last");
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 50, "2026-01-01"))))
                .isEmpty();
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 100, 1, "2026-01-01", "2026-02-28"))))
                .containsExactly("ranges[0].closes");
        assertThat(faults(series("a", "n", "A{count 3}", null, range(1, 100, 1, "2026-01-01", "2026-03-01"))))
                .isEmpty();
    }

    @Test
    void aRangeInUseCanGrowAndBeFollowed() {
        Series to = series(
                "a",
                "n",
                "A{count 3}",
                null,
                range(200, 300, "2027-01-01"),
                range(1, 150, 1, "2026-01-01", "2026-12-31"));
        Series changed = SeriesChange.of(NOW, to, FIFTY_GIVEN).series().orElseThrow();
        assertThat(changed.ranges()).extracting(Range::id).containsExactly(2, 1);
        assertThat(changed.version()).isEqualTo(2);
    }

    @Test
    void theSameDefinitionIsNoNewVersion() {
        assertThat(SeriesChange.of(NOW, NOW, FIFTY_GIVEN).series()).contains(NOW);
    }
}
