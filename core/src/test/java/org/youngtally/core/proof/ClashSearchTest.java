package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.youngtally.core.Draws;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Sample;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

class ClashSearchTest {

    private static List<Fields> fields(List<Series> namespace) {
        return namespace.stream().map(series -> new Fields(series, Map.of())).toList();
    }

    private static Optional<Clash> clash(Series... namespace) {
        return ClashSearch.in(List.of(namespace));
    }

    @Test
    void aYearlyCountNeedsTheYear() {
        Clash clash = clash(series("a", null, "A-{count 3}", "year", range(1, 999, "2026-01-01")))
                .orElseThrow();
        assertThat(clash.text()).isEqualTo("A-001");
        assertThat(clash.one().period()).isEqualTo("2026");
        assertThat(clash.other().period()).isEqualTo("2027");
    }

    @Test
    void aMonthlyCountNeedsTheYearToo() {
        assertThat(clash(series("a", null, "A{date MM}-{count 3}", "month", range(1, 999, "2026-01-01"))))
                .isPresent();
        assertThat(clash(series("a", null, "A{date yyMM}-{count 3}", "month", range(1, 999, "2026-01-01"))))
                .isEmpty();
    }

    @Test
    void twoDigitYearsRepeatAfterACentury() {
        assertThat(clash(series("a", null, "A{date yy}-{count 3}", "year", range(1, 999, "1990-01-01"))))
                .get()
                .satisfies(clash -> {
                    assertThat(clash.one().period()).isEqualTo("1990");
                    assertThat(clash.other().period()).isEqualTo("2090");
                });
    }

    @Test
    void rangesWithTheSameValuesNeedTheirDatesInThePattern() {
        RangeDraft one = range(1, 10, 1, "2026-01-01", "2026-12-31");
        RangeDraft other = range(5, 15, 1, "2027-01-01", null);
        assertThat(clash(series("a", null, "A{count 3}", null, one, other)))
                .get()
                .extracting(Clash::text)
                .isEqualTo("A005");
        assertThat(clash(series("a", null, "A{date yyyy}{count 3}", null, one, other)))
                .isEmpty();
    }

    @Test
    void oddAndEvenRangesShareNoValue() {
        assertThat(clash(series(
                        "a",
                        null,
                        "A{count 3}",
                        null,
                        range(1, 99, 2, "2026-01-01", null),
                        range(2, 98, 2, "2026-01-01", null))))
                .isEmpty();
        assertThat(clash(series(
                        "a",
                        null,
                        "A{count 3}",
                        null,
                        range(1, 99, 2, "2026-01-01", null),
                        range(2, 98, 3, "2026-01-01", null))))
                .isPresent();
    }

    @Test
    void partsOfVaryingLengthMustBeKeptApart() {
        assertThat(clash(series("a", null, "{date d}{count}", "month", range(1, 999, 1, "2026-01-01", "2026-01-31"))))
                .isPresent();
        assertThat(clash(series("a", null, "{date d}-{count}", "month", range(1, 999, 1, "2026-01-01", "2026-01-31"))))
                .isEmpty();
    }

    @Test
    void twoSeriesOfANamespaceAreComparedWithoutRegardToCase() {
        Series lower = series("a", "n", "x{count 3}", null, range(1, 9, "2026-01-01"));
        Series upper = series("b", "n", "X{count 3}", null, range(9, 20, "2026-01-01"));
        assertThat(clash(lower, upper))
                .get()
                .satisfies(clash -> assertThat(clash.other().series()).isEqualTo("b"));
        assertThat(clash(lower, series("b", "n", "X{count 3}", null, range(10, 20, "2026-01-01"))))
                .isEmpty();
    }

    @Test
    void aLiteralThatLooksLikeDigitsIsSeenThrough() {
        assertThat(clash(
                        series("a", "n", "1{count}", null, range(1, 9, "2026-01-01")),
                        series("b", "n", "{count}", null, range(11, 11, "2026-01-01"))))
                .get()
                .extracting(Clash::text)
                .isEqualTo("11");
    }

    /**
     * Every answer is compared with all identifiers written out, over patterns that are made to come close to each
     * other.
     */
    @Test
    void noWrongAnswerOverGeneratedPairs() {
        String[] fronts = {"", "1", "A", "a", "11", "{date d}", "{date M}", "{date MM}", "A{date d}", "1{date M}"};
        String[] backs = {"", "1", "-", "{date d}", "{date MM}", "1{date M}", "b"};
        int clashes = 0;
        for (long seed : Draws.seeds(3_000)) {
            var random = new Random(seed);
            List<Series> namespace = random.nextBoolean()
                    ? List.of(generated("a", fronts, backs, random))
                    : List.of(generated("a", fronts, backs, random), generated("b", fronts, backs, random));
            Optional<Clash> found = ClashSearch.in(namespace);
            Optional<String> expected = Written.firstDouble(fields(namespace));
            assertThat(found.isPresent())
                    .as("seed " + seed + ": " + namespace + " " + expected + " " + found)
                    .isEqualTo(expected.isPresent());
            if (found.isEmpty()) continue;
            clashes++;
            assertThat(Written.of(found.get().one(), fields(namespace)))
                    .isEqualTo(Comparison.FIRST.key(found.get().text()))
                    .isEqualTo(Written.of(found.get().other(), fields(namespace)));
            assertThat(found.get().one()).isNotEqualTo(found.get().other());
        }
        assertThat(clashes).as("both answers are exercised").isBetween(Draws.of(3_000) / 20, Draws.of(3_000) * 9 / 10);
    }

    private static Series generated(String key, String[] fronts, String[] backs, Random random) {
        while (true) {
            int width = random.nextInt(4);
            String count = width == 0 ? "{count}" : "{count " + width + "}";
            String pattern = fronts[random.nextInt(fronts.length)] + count + backs[random.nextInt(backs.length)];
            String restarts = new String[] {null, null, "year", "month"}[random.nextInt(4)];
            long first = random.nextInt(120);
            long step = new long[] {1, 1, 2, 3, 10, -1}[random.nextInt(6)];
            long last = first + step * random.nextInt(25);
            String opens = "2026-01-" + (10 + random.nextInt(20));
            RangeDraft range = range(first, last, step, opens, "2026-02-" + (10 + random.nextInt(18)));
            var checked = DraftCheck.of(Sample.draft(key, "n", pattern, restarts, range));
            if (checked.series().isPresent()) return checked.series().get();
        }
    }
}
