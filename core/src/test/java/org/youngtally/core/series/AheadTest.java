package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.pattern.Particulars;

/** Seeing ahead: what comes next, when it runs out, which dates nothing serves. */
class AheadTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private static Series series(List<String> restarts, RangeDraft... ranges) {
        return DraftCheck.of(SeriesDraft.of("a", "A{date yyMM}{count 3}")
                        .with(SeriesProperties.RESTARTS, restarts)
                        .with(SeriesProperties.RANGES, List.of(ranges)))
                .series()
                .orElseThrow();
    }

    private static RangeDraft range(String opens, String closes, Long warnDays) {
        return new RangeDraft(1L, 99L, null, opens, closes, null, warnDays);
    }

    @Test
    void holesAreTheDatesBetweenRangesThatNoneServes() {
        Series series = series(
                null,
                range("2026-05-01", "2026-06-30", null),
                new RangeDraft(101L, 199L, null, "2026-01-01", "2026-03-31", null),
                new RangeDraft(201L, 299L, null, "2026-02-01", "2026-04-15", null),
                new RangeDraft(301L, 399L, null, "2026-07-01", "2026-12-31", null));
        assertThat(RangeCalendar.holes(series))
                .containsExactly(new RangeCalendar.Dates(LocalDate.of(2026, 4, 16), LocalDate.of(2026, 4, 30)));
        assertThat(RangeCalendar.ends(series)).contains(LocalDate.of(2026, 12, 31));
        assertThat(RangeCalendar.ends(series(null, range("2026-01-01", null, null))))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"2026-03-09,true", "2026-03-10,true", "2026-02-28,false"})
    void aRangeThatClosesSoonIsWarnedOfUnlessAnotherFollows(LocalDate date, boolean warned) {
        assertThat(RangeCalendar.closingSoon(series(null, range("2026-01-01", "2026-03-31", 30L)), date)
                        .isPresent())
                .isEqualTo(warned);
        assertThat(RangeCalendar.closingSoon(
                        series(
                                null,
                                range("2026-01-01", "2026-03-31", 30L),
                                new RangeDraft(101L, 199L, null, "2026-04-01", null, null)),
                        date))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"7,70,700,2026-05-10", "30,70,700,2026-12-26", "7,0,700,", "7,70,100000,", "7,70,1,2026-03-02"})
    void whatIsLeftRunsOutAtTheRateOfTheLastDays(int days, long used, long left, LocalDate runsOut) {
        Forecast forecast = Forecast.of(
                days,
                TODAY,
                left,
                Optional.of(LocalDate.of(2026, 12, 31)),
                Map.of(TODAY.minusDays(days - 1), used, TODAY.minusDays(days), 1_000L));
        assertThat(forecast.used()).isEqualTo(used);
        assertThat(forecast.runsOut()).isEqualTo(Optional.ofNullable(runsOut));
        assertThat(forecast.endsFirst().isPresent()).isEqualTo(runsOut == null);
    }

    @Test
    void aCountEndsWithItsPeriodOrItsRange() {
        assertThat(Forecast.ends(series(List.of("month"), range("2026-01-01", null, null)), TODAY))
                .contains(LocalDate.of(2026, 3, 31));
        assertThat(Forecast.ends(series(List.of("month"), range("2026-01-01", "2026-03-15", null)), TODAY))
                .contains(LocalDate.of(2026, 3, 15));
        assertThat(Forecast.ends(series(null, range("2026-01-01", null, null)), TODAY))
                .isEmpty();
    }

    @Test
    void whatWasReturnedComesFirstAndWhatWasTypedIsSteppedOver() {
        Series series = series(null, range("2026-01-01", null, null));
        var used = new Outlook.Used(10, 0, new TreeMap<>(Map.of(2L, 3L, 20L, 20L)), new TreeMap<>(Map.of(11L, 11L)));
        Outlook outlook = Outlook.of(series, Particulars.on(TODAY), lane -> used, 5);
        assertThat(outlook.next()).extracting(Outlook.Coming::position).containsExactly(2L, 3L, 10L, 12L, 13L);
        assertThat(outlook.left()).isEqualTo(99 - 10 - 1 + 2);
    }
}
