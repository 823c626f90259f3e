package org.youngtally.core.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.BiFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.Draws;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.proof.Proof;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.GeneratedSeries;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Texts are read as numbers of a series, though neither date nor record is known. */
class SeriesReaderTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private static SeriesReader reader(Series series) {
        return new SeriesReader(series, Fields.of(series, key -> Optional.empty()), TODAY);
    }

    private static SeriesReader invoices() {
        return reader(series("invoice", "n", "LW{date yy}-{count 5}", "year", range(1, 99_999, "2026-01-01")));
    }

    private static void everyNumberIsReadAgain(BiFunction<String, Random, Series> generator) {
        for (long seed : Draws.seeds(1_500)) {
            var random = new Random(seed);
            Series series = generator.apply("s", random);
            Fields fields = GeneratedSeries.fields(series);
            // What no definition may say cannot be read for certain.
            if (!(Proof.of(List.of(fields), Set.of("s")) instanceof Proof.Disjoint)) continue;
            var reader = new SeriesReader(series, fields, TODAY);
            for (int i = 0; i < 5; i++) {
                Range range = series.ranges().getFirst();
                long position = random.nextLong(range.size());
                var particulars =
                        new Particulars(range.serves().opens().plusDays(random.nextInt(5)), given(fields, random));
                String text = series.render(range, particulars, position);
                String lane = series.lane(range, particulars).period();
                assertThat(reader.read(text))
                        .as("seed %d: %s of %s", seed, text, series)
                        .anyMatch(found -> found.reading().identifier().equals(text)
                                && found.reading().value() == range.valueAt(position)
                                && found.position() == position
                                && found.place().lane().equals(lane));
            }
        }
    }

    private static Map<String, String> given(Fields fields, Random random) {
        List<Map<String, String>> all = fields.combinations();
        var given = new HashMap<>(all.get(random.nextInt(all.size())));
        fields.series().fields().stream()
                .filter(rule -> rule.isText())
                .forEach(rule -> given.put(
                        rule.name(),
                        List.of("a", "B", "ab", "1").stream()
                                .filter(text -> fields.takes(rule, text))
                                .findFirst()
                                .orElse("a")));
        return given;
    }

    @Test
    void everyNumberOfGeneratedSeriesIsReadAgain() {
        everyNumberIsReadAgain(GeneratedSeries::plain);
    }

    @Test
    void everyNumberIsReadAgainWhereFieldsAreWritten() {
        everyNumberIsReadAgain(GeneratedSeries::withFields);
    }

    @Test
    void aNumberOfAnEarlierYearIsReadAndNoRangeHoldsIt() {
        Located found = invoices().read("LW19-00431").getFirst();
        assertThat(found.place().range()).isEmpty();
        assertThat(found.place().lane()).isEqualTo("2019");
    }

    @Test
    void aDateThatIsWrittenAlikeInTwoCenturiesIsTheServedOne() {
        assertThat(invoices().read("LW99-00001").getFirst().place().lane()).isEqualTo("2099");
    }

    @Test
    void caseMakesNoDifferenceAndIsTold() {
        assertThat(invoices().read("lw26-00431").getFirst().reading().deviations())
                .containsExactly(Deviation.CASE);
    }

    @ParameterizedTest
    @CsvSource({
        "LW26-431, LW26-00431, LOST_ZERO",
        "LW26-000431, LW26-00431, EXTRA_ZERO",
        "LW26-OO431, LW26-00431, LOOK_ALIKE",
        "LW26-0O431, LW26-00431, LOOK_ALIKE",
        "LW26-0043l, LW26-00431, LOOK_ALIKE",
        "LW2б-00431, LW26-00431, ''",
        "LW26 - 00431, LW26-00431, BLANK",
        "LW26–00431, LW26-00431, DASH",
        "LW26/00431, LW26-00431, SEPARATOR",
        "LW2600431, LW26-00431, SEPARATOR",
        "LW26--00431, LW26-00431, SEPARATOR",
        "LW26-００431, LW26-00431, LOOK_ALIKE",
        "ХW26-00431, LW26-00431, ''",
        "LС26-00431, LW26-00431, ''",
        "LW26-12345678, LW26-00431, ''"
    })
    void theNearestNumberIsFound(String text, String meant, String deviation) {
        List<String> found = new ArrayList<>();
        for (Located each : invoices().nearest(text))
            found.add(each.reading().identifier() + " " + each.reading().deviations());
        assertThat(found).isEqualTo(deviation.isEmpty() ? List.of() : List.of(meant + " [" + deviation + "]"));
    }

    @ParameterizedTest
    @CsvSource({"P1001, P1008", "P100, P1008", "P100-8, P1008"})
    void aWrongOrMissingCheckDigitIsPutRight(String text, String meant) {
        SeriesReader parts = reader(series("part", "n", "P{count}{check luhn}", null, range(1, 99_999, "2026-01-01")));
        assertThat(parts.read(text)).isEmpty();
        assertThat(parts.nearest(text))
                .extracting(each -> each.reading().identifier())
                .contains(meant);
    }

    @Test
    void aSymbolThatLooksAlikeIsSeenAlsoWhereBothMayStand() {
        SeriesReader labels = reader(
                series("label", "n", "{count 4 alphanumeric}{check mod37-36}", null, range(1, 99_999, "2026-01-01")));
        String text = labels.series().pattern().render(TODAY, 1);
        assertThat(labels.nearest(text.replace('1', 'I')))
                .anyMatch(found -> found.reading().identifier().equals(text)
                        && found.reading().deviations().equals(Set.of(Deviation.LOOK_ALIKE)));
    }

    @Test
    void aTextOfAHundredThousandSymbolsIsNotLookedInto() {
        assertThat(invoices().nearest("LW26-" + "0".repeat(100_000))).isEmpty();
    }
}
