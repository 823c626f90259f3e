package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.youngtally.core.series.Sample.range;
import static org.youngtally.core.series.Sample.series;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Sample;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;

class ProofTest {

    private static Proof proof(Series... namespace) {
        List<Series> all = List.of(namespace);
        return Proof.of(all, all.stream().map(Series::key).collect(Collectors.toSet()));
    }

    private static void assertClash(Proof proof, String text) {
        assertThat(proof).isInstanceOfSatisfying(Proof.Clashing.class, found -> assertThat(IdentifierKey.of(found.clash().text())).isEqualTo(text));
    }

    @Test
    void lettersAndDigitsInOnePlaceAreFollowed() {
        Series parts = series("parts", "n", "P{count 3 alphanumeric}", null, range(0, 9_999, "2026-01-01"));
        assertThat(proof(parts)).isInstanceOf(Proof.Disjoint.class);
        assertClash(proof(parts, series("old", "n", "p{count 3}", null, range(41, 41, "2026-01-01"))), "p041");
        assertThat(proof(parts, series("old", "n", "p{count 3}", null, range(900, 999, "2026-01-01")))).as("900 in radix 36 is value 11,664").isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void unpaddedLettersBesideALetterRunTogether() {
        assertThat(proof(series("a", "n", "{count upper}{date MMM}", "month", range(1, 99, 1, "2026-01-01", "2026-12-31")))).as("three letters at the end are always the month").isInstanceOf(Proof.Disjoint.class);
        assertThat(proof(series("a", "n", "{count upper}{date MMMM}", "month", range(1, 500_000_000, 1, "2026-01-01", "2026-12-31")))).isInstanceOf(Proof.Disjoint.class);
        assertClash(proof(series("a", "n", "{count}{date M}", "month", range(1, 99, 1, "2026-01-01", "2026-12-31"))), "111");
    }

    @Test
    void aCheckSymbolDoesNotSeparateLanes() {
        assertThat(proof(series("a", "n", "A{count 3}{check luhn}", "year", range(1, 9, "2026-01-01")))).isInstanceOf(Proof.Clashing.class);
        assertThat(proof(series("a", "n", "A{date yy}{count 3}{check luhn}", "year", range(1, 9, "2026-01-01")))).isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void aCheckedNumberMeetsAnUncheckedOneWhereTheCheckIsRight() {
        Series checked = series("checked", "n", "{count 3}{check damm}", null, range(572, 572, "2026-01-01"));
        assertClash(proof(checked, series("plain", "n", "{count 4}", null, range(5_724, 5_724, "2026-01-01"))), "5724");
        assertThat(proof(checked, series("plain", "n", "{count 4}", null, range(5_725, 5_729, "2026-01-01")))).isInstanceOf(Proof.Disjoint.class);
    }

    @Test
    void stepsAreFollowed() {
        Series even = series("even", "n", "{count 4 safe}", null, range(0, 100, 2, "2026-01-01", null));
        assertThat(proof(even, series("odd", "n", "{count 4 safe}", null, range(1, 101, 2, "2026-01-01", null)))).isInstanceOf(Proof.Disjoint.class);
        assertThat(proof(even, series("odd", "n", "{count 4 safe}", null, range(1, 100, 3, "2026-01-01", null)))).isInstanceOf(Proof.Clashing.class);
    }

    @Test
    void whatStoodBeforeIsNotProvedAgain() {
        Series one = series("one", "n", "A{count 3 upper}", null, range(0, 9, "2026-01-01"));
        Series other = series("other", "n", "A{count 3 upper}", null, range(5, 9, "2026-01-01"));
        assertThat(Proof.of(List.of(one, other), Set.of())).isInstanceOf(Proof.Disjoint.class);
        assertThat(Proof.of(List.of(one, other), Set.of("other"))).isInstanceOf(Proof.Clashing.class);
    }

    /** Every answer is compared with all identifiers written out: no wrong answer, and undecided seldom. */
    @Test
    void noWrongAnswerOverGeneratedNamespaces() {
        int clashes = 0;
        int disjoint = 0;
        var undecided = new ArrayList<String>();
        for (int seed = 0; seed < 3_000; seed++) {
            var random = new Random(seed);
            List<Series> namespace = random.nextBoolean() ? List.of(generated("a", random)) : List.of(generated("a", random), generated("b", random));
            Optional<String> expected = Written.firstDouble(namespace);
            String what = "seed " + seed + ": " + namespace + " " + expected;
            switch (Proof.of(namespace, new HashSet<>(List.of("a", "b")))) {
                case Proof.Disjoint d -> {
                    assertThat(expected).as(what).isEmpty();
                    disjoint++;
                }
                case Proof.Clashing c -> {
                    assertThat(expected).as(what + c).isPresent();
                    assertThat(Written.of(c.clash().one(), namespace)).as(what).isEqualTo(IdentifierKey.of(c.clash().text())).isEqualTo(Written.of(c.clash().other(), namespace));
                    clashes++;
                }
                case Proof.Undecided u -> undecided.add(what);
            }
        }
        assertThat(clashes).isGreaterThan(300);
        assertThat(disjoint).isGreaterThan(1_000);
        assertThat(undecided).as("undecided").isEmpty();
    }

    private static Series generated(String key, Random random) {
        String[] fronts = {"", "1", "A", "a", "{date d}", "{date M}", "{date MMM}", "A{date d}", "1{date M}", "{fiscal yy}", "{check luhn of count}"};
        String[] backs = {"", "1", "-", "{date d}", "{date MM}", "b", "{check luhn}", "{check mod11-2}", "{check mod37-36}"};
        String[] alphabets = {"", "", " upper", " lower", " alphanumeric", " of ab", " of 10", " grow"};
        while (true) {
            int width = random.nextInt(4);
            String alphabet = alphabets[random.nextInt(alphabets.length)];
            String count = width == 0 ? "{count" + alphabet.replace(" grow", "") + "}" : "{count " + width + alphabet + "}";
            String pattern = fronts[random.nextInt(fronts.length)] + count + backs[random.nextInt(backs.length)];
            String restarts = new String[] {null, null, "year", "month", "week", "day"}[random.nextInt(6)];
            long first = random.nextInt(120);
            long step = new long[] {1, 1, 2, 3, 10, -1}[random.nextInt(6)];
            RangeDraft range = range(first, first + step * random.nextInt(25), step, "2026-01-" + (10 + random.nextInt(20)), "2026-02-" + (10 + random.nextInt(18)));
            var checked = DraftCheck.of(Sample.draft(key, "n", pattern, restarts, range));
            if (checked.series().isPresent()) return checked.series().get();
        }
    }
}
