package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;

import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.Draws;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Particulars;

class SkipsTest {
    private static SeriesDraft draft(String pattern, SkipsDraft skips, RangeDraft range) {
        return SeriesDraft.of("a", pattern)
                .with(SeriesProperties.SKIPS, skips)
                .with(SeriesProperties.RANGES, List.of(range));
    }

    /** What is skipped, in which stretches, and how much is left: compared with looking at every value by itself. */
    @Test
    void stretchesAndCountsAgreeWithLookingAtEachValue() {
        String[] counts = {
            "{count 3}",
            "{count}",
            "{count 2 upper}",
            "{count upper}",
            "{count 3 of ab}",
            "{count of abc}",
            "{count 2 grow}",
            "{count 2 alphanumeric}"
        };
        String[][] texts = {{"13"}, {"1", "22"}, {"AB"}, {"B", "CA"}, {"ba"}, {"cab", "aa"}, {"12", "23"}, {"A1", "1A1"}
        };
        int checked = 0;
        for (long seed : Draws.seeds(2_000)) {
            var random = new Random(seed);
            int which = random.nextInt(counts.length);
            long step = new long[] {1, 1, 2, 7, -1, -3}[random.nextInt(6)];
            long first = 1 + random.nextInt(60) + (step < 0 ? 300 : 0);
            var range = range(first, first + step * random.nextInt(90), step, "2026-01-01", null);
            var values = random.nextBoolean()
                    ? null
                    : List.of("" + random.nextInt(50), random.nextInt(90) + "-" + (90 + random.nextInt(60)));
            var result = DraftCheck.of(draft(
                    counts[which],
                    new SkipsDraft(values, random.nextInt(4) == 0 ? null : List.of(texts[which])),
                    range));
            if (result.series().isEmpty()) continue;
            checked++;
            agrees(result.series().get(), "seed " + seed);
        }
        assertThat(checked).isGreaterThan(Draws.of(2_000) / 2);
    }

    private static void agrees(Series series, String what) {
        Range range = series.ranges().getFirst();
        CountField count = series.pattern().count();
        LaneKey lane = series.lane(range, Particulars.on(LocalDate.of(2026, 1, 1)));
        long left = 0;
        for (long position = range.size() - 1; position >= 0; position--) {
            long value = range.valueAt(position);
            boolean listed = series.skips().values().stream()
                    .anyMatch(stretch -> stretch.from() <= value && value <= stretch.to());
            boolean contains = series.skips().containing().stream()
                    .anyMatch(text -> count.written(value).contains(text));
            assertThat(series.skips().skips(value, count))
                    .as(what + " value " + value)
                    .isEqualTo(listed || contains);
            long to = series.skippedTo(range, lane, position);
            assertThat(to >= position).as(what + " value " + value).isEqualTo(listed || contains);
            for (long each = position; each <= to; each++)
                assertThat(series.skips().skips(range.valueAt(each), count))
                        .as(what + " value " + range.valueAt(each))
                        .isTrue();
            if (!listed && !contains) left++;
            assertThat(SkipCount.given(series.skips(), count, range, value))
                    .as(what + " from " + value + " of " + range + series.skips())
                    .isEqualTo(left);
        }
    }

    @Test
    void aWideRangeIsCountedAndPassedWithoutLookingAtEach() {
        Series series = DraftCheck.of(draft(
                        "{count 18}",
                        new SkipsDraft(List.of("1-400000000000000000"), List.of("13", "666")),
                        range(1, 999_999_999_999_999_999L, "2026-01-01")))
                .series()
                .orElseThrow();
        Range range = series.ranges().getFirst();
        Outlook outlook = Outlook.of(series, Particulars.on(LocalDate.of(2026, 1, 1)), lane -> Outlook.Used.NOT, 1);
        assertThat(outlook.next().getFirst().identifier()).isEqualTo("400000000000000001");
        assertThat(outlook.left()).isBetween(100_000_000_000_000_000L, range.size());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{count 3} | x | | skips.values[0] | is neither a value nor a row",
                "{count 3} | 9-3 | | skips.values[0] | is neither a value nor a row",
                "{count 3} | | AB | skips.containing[0] | can never occur in this count",
                "{count 3 upper} | | 13 | skips.containing[0] | can never occur in this count",
                "{count 3} | 0-999 | | skips | nothing is left of the range",
            })
    void faultsAreTold(String pattern, String value, String containing, String path, String problem) {
        var skips =
                new SkipsDraft(value == null ? null : List.of(value), containing == null ? null : List.of(containing));
        assertThat(DraftCheck.of(draft(pattern, skips, range(1, 99, "2026-01-01")))
                        .faults())
                .singleElement()
                .satisfies(fault -> {
                    assertThat(fault.path()).isEqualTo(path);
                    assertThat(fault.problem()).contains(problem);
                });
    }

    @Test
    void theyAreWrittenAsTheyWereRead() {
        Series series = DraftCheck.of(draft(
                        "{count 3 upper}",
                        new SkipsDraft(List.of("7", "4 - 5", "6", "90-99"), List.of("bad")),
                        range(0, 999, "2026-01-01")))
                .series()
                .orElseThrow();
        assertThat(SeriesDraft.of(series).get(SeriesProperties.SKIPS))
                .isEqualTo(new SkipsDraft(List.of("4-7", "90-99"), List.of("BAD")));
        assertThat(DraftCheck.of(SeriesDraft.of(series)).series()).contains(series);
    }
}
