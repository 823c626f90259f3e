package org.youngtally.ledger.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SkipsDraft;

class DefinitionJsonTest {
    private static SeriesDraft draft(String pattern) {
        return SeriesDraft.of("a", pattern)
                .with(SeriesProperties.TITLE, "Ein Buch")
                .with(SeriesProperties.NAMESPACE, "n")
                .with(
                        SeriesProperties.RANGES,
                        List.of(
                                new RangeDraft(10L, 1L, -1L, "2026-01-01", "2026-12-31", 3L),
                                new RangeDraft(1L, 9L, null, "2027-01-01", null, null)));
    }

    private static Series series(SeriesDraft draft) {
        DraftCheck.Result checked = DraftCheck.of(draft);
        assertThat(checked.faults()).isEmpty();
        return checked.series().orElseThrow();
    }

    @Test
    void aSeriesWithEveryPropertyIsReadAsItWasWritten() {
        Series all = series(draft("{unit}{field t first 2}-{date MMM}{fiscal yy}-{count 3}{check luhn of count}")
                        .with(SeriesProperties.LOCALE, "de")
                        .with(SeriesProperties.FISCAL_YEAR_STARTS, 4L)
                        .with(
                                SeriesProperties.FIELDS,
                                List.of(
                                        new FieldDraft("unit", "unit", null, null, null),
                                        new FieldDraft("t", null, null, 2L, "upper -")))
                        .with(SeriesProperties.RESTARTS, List.of("month", "fiscal-year", "unit", "field t"))
                        .with(SeriesProperties.SKIPS, new SkipsDraft(List.of("4", "6-7"), List.of("05")))
                        .with(SeriesProperties.LONGEST, 40L)
                        .with(SeriesProperties.SYMBOLS, "letters digits - . ä")
                        .with(SeriesProperties.PROOF, "waived"))
                .withVersion(7);
        assertThat(SeriesJson.read(SeriesJson.write(all))).isEqualTo(all);
        Series repeating = series(draft("{count upper}").with(SeriesProperties.ORDER, "repeating"));
        assertThat(SeriesJson.read(SeriesJson.write(repeating))).isEqualTo(repeating);
    }

    @Test
    void theNamesOfMonthsAreThoseThatWereWritten() {
        Series march = series(draft("{date MMM}{date yyyy}{count 3}").with(SeriesProperties.LOCALE, "de"));
        Series read = SeriesJson.read(SeriesJson.write(march).replace("\"März\"", "\"Lenzing\""));
        assertThat(read.pattern().render(LocalDate.of(2026, 3, 2), 1)).isEqualTo("Lenzing2026001");
    }

    @Test
    void aScatteredSeriesIsReadSealedAndShowsNoKey() {
        byte[] key = "0123456789abcdef".getBytes(StandardCharsets.US_ASCII);
        Series scattered = series(draft("{count 3}").with(SeriesProperties.ORDER, "scattered"))
                .withScatter(new Scatter(key));
        Series read = SeriesJson.read(SeriesJson.write(scattered));
        assertThat(read.order().isSealed()).isTrue();
        assertThat(read.withScatter(new Scatter(key))).isEqualTo(scattered);
        assertThat(SeriesJson.write(scattered)).doesNotContain("0123456789abcdef", "30313233");
    }

    @Test
    void codebooksAndFieldsAreReadAsTheyWereWritten() {
        var book = new Codebook(
                "b",
                "Ein Buch",
                List.of(
                        new Choice("Eins „\"“", "1", true, List.of(new Choice("Zwei", "ZW", false, List.of()))),
                        new Choice("Drei", "D", false, List.of())),
                4);
        assertThat(CodebookJson.read(CodebookJson.write(book))).isEqualTo(book);
        var fields = new TreeMap<>(Map.of("place", "Ørsted \"x\"", "unit", "works"));
        assertThat(FieldsJson.read(FieldsJson.write(fields))).isEqualTo(fields);
        assertThat(FieldsJson.write(new TreeMap<>())).isNull();
        assertThat(FieldsJson.read((String) null)).isEmpty();
    }

    /** What the first releases wrote says nothing of an edition, and is meant as they meant it. */
    @Test
    void aPatternKeepsTheMeaningThatItWasWrittenWith() {
        Series now = series(draft("A{count 3}{check mod97-10}"));
        String written = SeriesJson.write(now);
        Series before = SeriesJson.read(written.replace(",\"edition\":2", ""));
        assertThat(SeriesJson.read(written)).isEqualTo(now);
        assertThat(SeriesJson.write(before)).doesNotContain("edition");
        var differing = IntStream.rangeClosed(1, 999)
                .filter(value -> !now.pattern()
                        .render(LocalDate.EPOCH, value)
                        .equals(before.pattern().render(LocalDate.EPOCH, value)))
                .mapToObj(
                        value -> before.pattern().render(LocalDate.EPOCH, value).substring(4))
                .distinct();
        assertThat(differing).containsExactlyInAnyOrder("00", "01");
    }

    @Test
    void aPatternThatMeansTheSameInEveryEditionSaysNothingOfIt() {
        assertThat(SeriesJson.write(series(draft("A{count 3}{check gs1}")))).doesNotContain("edition");
    }
}
