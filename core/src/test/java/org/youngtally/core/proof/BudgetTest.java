package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** A definition that would take the heap, or for ever, is told so after so many steps, on every machine alike. */
class BudgetTest {
    private static final Map<String, Codebook> BOOKS = Map.of("book", book(5_000));

    private static Codebook book(int choices) {
        return new Codebook(
                "book",
                "Book",
                IntStream.range(0, choices)
                        .mapToObj(i -> new Choice("choice " + i, "C%04d".formatted(i), false, List.of()))
                        .toList(),
                1);
    }

    private static DraftCheck.Result checked(SeriesDraft draft, List<RangeDraft> ranges) {
        return DraftCheck.of(draft.with(SeriesProperties.RANGES, ranges), BOOKS);
    }

    private static Fields fields(SeriesDraft draft, List<RangeDraft> ranges) {
        Series series = checked(draft, ranges).series().orElseThrow();
        return Fields.of(series, key -> Optional.ofNullable(BOOKS.get(key)));
    }

    private static List<RangeDraft> ranges(int count) {
        var ranges = new ArrayList<RangeDraft>();
        for (int i = 0; i < count; i++)
            ranges.add(new RangeDraft(1L + i * 1_000L, 999L + i * 1_000L, null, "2026-01-01", null, null));
        return ranges;
    }

    @Test
    void combinationsOfCodesAreCountedBeforeTheyAreBuilt() {
        var draft = SeriesDraft.of("part", "{field a}-{field b}-{count 3}")
                .with(
                        SeriesProperties.FIELDS,
                        List.of(
                                new FieldDraft("a", "book", null, null, null),
                                new FieldDraft("b", "book", null, null, null)));
        assertThat(checked(draft, ranges(1)).faults())
                .extracting(fault -> fault.path() + " " + fault.problem())
                .containsExactly("fields have more than 20000 combinations of codes");
    }

    @Test
    void aRestartEachDayInManyRangesIsUndecidedAndSaysWhy() {
        var daily =
                SeriesDraft.of("daily", "{date yyyyMMdd}-{count 6}").with(SeriesProperties.RESTARTS, List.of("day"));
        assertThat(Proof.of(List.of(fields(daily, ranges(40))), Set.of("daily")))
                .isInstanceOfSatisfying(Proof.Undecided.class, undecided -> assertThat(undecided.cause())
                        .isEqualTo("there are more than 200,000,000 states and combinations to look at"));
    }

    @Test
    void theAnswerRestsOnTheStepsAndNotOnTheTime() {
        var letters = SeriesDraft.of("letters", "{field a}{count 4 upper}")
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("a", "book", null, null, null)));
        Fields fields = fields(letters, ranges(3));
        var enough = new Budget(Budget.USUAL);
        Proof proof = Proof.of(List.of(fields), Set.of("letters"), enough);
        assertThat(proof).isInstanceOf(Proof.Disjoint.class);
        assertThat(Proof.of(List.of(fields), Set.of("letters"), new Budget(enough.spent())))
                .isEqualTo(proof);
        assertThat(Proof.of(List.of(fields), Set.of("letters"), new Budget(enough.spent() - 1)))
                .isInstanceOf(Proof.Undecided.class);
    }

    @Test
    void whereTheCheckAtRunTimeIsEnoughNoneIsAskedFor() {
        var daily = SeriesDraft.of("daily", "{date yyyyMMdd}-{count 6}")
                .with(SeriesProperties.RESTARTS, List.of("day"))
                .with(SeriesProperties.PROOF, "waived");
        assertThat(Proof.of(List.of(fields(daily, ranges(2))), Set.of("daily"), new Budget(10_000)))
                .isInstanceOf(Proof.Disjoint.class);
    }
}
