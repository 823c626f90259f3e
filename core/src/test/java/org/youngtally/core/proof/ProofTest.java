package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.GeneratedSeries.fields;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.youngtally.core.Draws;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.GeneratedSeries;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

class ProofTest {

    private static Proof proof(Series... namespace) {
        List<Series> all = List.of(namespace);
        return Proof.of(
                all.stream().map(GeneratedSeries::fields).toList(),
                all.stream().map(Series::key).collect(Collectors.toSet()));
    }

    private static void assertClash(Proof proof, String text) {
        assertThat(proof).isInstanceOfSatisfying(Proof.Clashing.class, found -> assertThat(
                        Comparison.FIRST.key(found.clash().text()))
                .isEqualTo(text));
    }

    @Test
    void lettersAndDigitsInOnePlaceAreFollowed() {
        Series parts = series("parts", "n", "P{count 3 alphanumeric}", null, range(0, 9_999, "2026-01-01"));
        assertThat(proof(parts)).isInstanceOf(Proof.Disjoint.class);
        assertClash(proof(parts, series("old", "n", "p{count 3}", null, range(41, 41, "2026-01-01"))), "p041");
        assertThat(proof(parts, series("old", "n", "p{count 3}", null, range(900, 999, "2026-01-01"))))
                .as("900 in radix 36 is value 11,664")
                .isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void unpaddedLettersBesideALetterRunTogether() {
        assertThat(proof(series(
                        "a", "n", "{count upper}{date MMM}", "month", range(1, 99, 1, "2026-01-01", "2026-12-31"))))
                .as("three letters at the end are always the month")
                .isInstanceOf(Proof.Disjoint.class);
        assertThat(proof(series(
                        "a",
                        "n",
                        "{count upper}{date MMMM}",
                        "month",
                        range(1, 500_000_000, 1, "2026-01-01", "2026-12-31"))))
                .isInstanceOf(Proof.Disjoint.class);
        assertClash(
                proof(series("a", "n", "{count}{date M}", "month", range(1, 99, 1, "2026-01-01", "2026-12-31"))),
                "111");
    }

    @Test
    void aCheckSymbolDoesNotSeparateLanes() {
        assertThat(proof(series("a", "n", "A{count 3}{check luhn}", "year", range(1, 9, "2026-01-01"))))
                .isInstanceOf(Proof.Clashing.class);
        assertThat(proof(series("a", "n", "A{date yy}{count 3}{check luhn}", "year", range(1, 9, "2026-01-01"))))
                .isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void aCheckedNumberMeetsAnUncheckedOneWhereTheCheckIsRight() {
        Series checked = series("checked", "n", "{count 3}{check damm}", null, range(572, 572, "2026-01-01"));
        assertClash(proof(checked, series("plain", "n", "{count 4}", null, range(5_724, 5_724, "2026-01-01"))), "5724");
        assertThat(proof(checked, series("plain", "n", "{count 4}", null, range(5_725, 5_729, "2026-01-01"))))
                .isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void stepsAreFollowed() {
        Series even = series("even", "n", "{count 4 safe}", null, range(0, 100, 2, "2026-01-01", null));
        assertThat(proof(even, series("odd", "n", "{count 4 safe}", null, range(1, 101, 2, "2026-01-01", null))))
                .isInstanceOf(Proof.Disjoint.class);
        assertThat(proof(even, series("odd", "n", "{count 4 safe}", null, range(1, 100, 3, "2026-01-01", null))))
                .isInstanceOf(Proof.Clashing.class);
    }

    @Test
    void whatStoodBeforeIsNotProvedAgain() {
        Series one = series("one", "n", "A{count 3 upper}", null, range(0, 9, "2026-01-01"));
        Series other = series("other", "n", "A{count 3 upper}", null, range(5, 9, "2026-01-01"));
        assertThat(Proof.of(List.of(fields(one), fields(other)), Set.of())).isInstanceOf(Proof.Disjoint.class);
        assertThat(Proof.of(List.of(fields(one), fields(other)), Set.of("other")))
                .isInstanceOf(Proof.Clashing.class);
    }

    /** How often each answer was given, none of them wrong. */
    private record Answers(int disjoint, int clashing, int undecided) {}

    /** Every answer is compared with all identifiers written out. */
    private static Answers compared(BiFunction<String, Random, Series> generator) {
        int clashes = 0;
        int disjoint = 0;
        int undecided = 0;
        for (long seed : Draws.seeds(3_000)) {
            var random = new Random(seed);
            List<Fields> namespace = random.nextBoolean()
                    ? List.of(fields(generator.apply("a", random)))
                    : List.of(fields(generator.apply("a", random)), fields(generator.apply("b", random)));
            Optional<String> expected = Written.firstDouble(namespace);
            String what = "seed " + seed + ": " + namespace + " " + expected;
            switch (Proof.of(namespace, Set.of("a", "b"))) {
                case Proof.Disjoint d -> {
                    assertThat(expected).as(what).isEmpty();
                    disjoint++;
                }
                case Proof.Clashing c -> {
                    assertThat(Written.of(c.clash().one(), namespace))
                            .as(what)
                            .isEqualTo(Comparison.FIRST.key(c.clash().text()))
                            .isEqualTo(Written.of(c.clash().other(), namespace));
                    assertThat(place(c.clash().one()))
                            .as(what)
                            .isNotEqualTo(place(c.clash().other()));
                    clashes++;
                }
                case Proof.Undecided u -> undecided++;
            }
        }
        return new Answers(disjoint, clashes, undecided);
    }

    private static List<Object> place(Clash.Way way) {
        return List.of(way.series(), way.range(), way.period(), way.position());
    }

    @Test
    void noWrongAnswerOverGeneratedNamespaces() {
        Answers answers = compared(GeneratedSeries::plain);
        assertThat(answers.clashing()).isGreaterThan(Draws.of(3_000) / 10);
        assertThat(answers.disjoint()).isGreaterThan(Draws.of(3_000) / 3);
        assertThat(answers.undecided()).isZero();
    }

    /** The same with fields of the record, codebooks that narrow each other, and skipped values. */
    @Test
    void noWrongAnswerWhereFieldsAreWritten() {
        Answers answers = compared(GeneratedSeries::withFields);
        assertThat(answers.clashing()).isGreaterThan(Draws.of(3_000) / 6);
        assertThat(answers.disjoint()).isGreaterThan(Draws.of(3_000) / 3);
        assertThat(answers.undecided()).isZero();
    }
}
