package org.youngtally.core.proof;

import java.math.BigInteger;
import java.time.LocalDate;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.proof.Proof.Clashing;
import org.youngtally.core.proof.Proof.Disjoint;
import org.youngtally.core.proof.Proof.Undecided;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/**
 * Looks for a text that two ranges can both write, over patterns of every kind. The languages may be wider than the
 * truth, so that a text found in both is read again; where none of those that are tried can really arise twice, the
 * answer is undecided.
 */
final class LanguageSearch {
    /** Up to so many common texts are all looked at, which decides the matter. */
    private static final int MOST_TEXTS = 20_000;

    private static final int TRIES = 3_000;

    private LanguageSearch() {}

    /** Whether the literal fronts or backs of two patterns differ, so that nothing more need be looked at. */
    static boolean standApart(Series one, Series other) {
        List<Part> parts = one.pattern().parts();
        List<Part> others = other.pattern().parts();
        Comparison comparison = one.comparison();
        if (parts.getFirst() instanceof Part.Literal a
                && others.getFirst() instanceof Part.Literal b
                && !fits(comparison.fold(a.text()), comparison.fold(b.text()), String::startsWith)) return true;
        return parts.getLast() instanceof Part.Literal a
                && others.getLast() instanceof Part.Literal b
                && !fits(comparison.fold(a.text()), comparison.fold(b.text()), String::endsWith);
    }

    private static boolean fits(String a, String b, BiPredicate<String, String> within) {
        return within.test(a, b) || within.test(b, a);
    }

    /** Between two series. */
    static Proof between(List<RangeLanguage> one, List<RangeLanguage> other, Budget budget) {
        Proof worst = new Disjoint();
        for (RangeLanguage a : one) {
            for (RangeLanguage b : other) {
                Proof found = common(a, b, false, budget);
                if (found instanceof Clashing) return found;
                if (found instanceof Undecided) worst = found;
            }
        }
        return worst;
    }

    /** Within a series: its ranges against themselves and each other. */
    static Proof within(List<RangeLanguage> ranges, Budget budget) {
        Proof worst = new Disjoint();
        for (int i = 0; i < ranges.size(); i++) {
            for (int j = 0; j <= i; j++) {
                for (Proof found : List.of(
                        alike(ranges.get(j), ranges.get(i)), common(ranges.get(j), ranges.get(i), true, budget))) {
                    if (found instanceof Clashing) return found;
                    if (found instanceof Undecided) worst = found;
                }
            }
        }
        return worst;
    }

    /**
     * Two numbers whose parts are all alike: the same value, on dates that are written the same way but lie in two
     * lanes.
     */
    private static Proof alike(RangeLanguage one, RangeLanguage other) {
        Optional<Progression> values = Progression.of(one.range()).and(Progression.of(other.range()));
        if (values.isEmpty()) return new Disjoint();
        boolean same = one.range().id() == other.range().id();
        for (Map.Entry<List<String>, Map<String, LocalDate>> texts : one.dates().entrySet()) {
            Map<String, LocalDate> others = other.dates().getOrDefault(texts.getKey(), Map.of());
            if (others.isEmpty() || (same && others.size() < 2)) continue;
            Optional<Map<String, String>> fields = one.fields().some();
            Optional<Long> value = firstGiven(values.get(), one.series());
            if (value.isEmpty() || fields.isEmpty())
                return undecided(
                        one,
                        other,
                        "no number was found that can be issued",
                        "skip less, or allow more values for the fields");
            Iterator<LocalDate> seconds = others.values().iterator();
            var first = new Particulars(texts.getValue().values().iterator().next(), fields.get());
            if (same) seconds.next();
            var second = new Particulars(seconds.next(), fields.get());
            return new Clashing(new Clash(
                    one.series().pattern().render(first, value.get()),
                    one.way(first, value.get()),
                    other.way(second, value.get())));
        }
        return new Disjoint();
    }

    /** The first of the values that is not skipped. */
    private static Optional<Long> firstGiven(Progression values, Series series) {
        BigInteger last = values.high().min(values.low().add(values.step().multiply(BigInteger.valueOf(TRIES))));
        for (BigInteger value = values.low(); value.compareTo(last) <= 0; value = value.add(values.step()))
            if (!series.skips().skips(value.longValueExact(), series.pattern().count()))
                return Optional.of(value.longValueExact());
        return Optional.empty();
    }

    private static Proof common(RangeLanguage one, RangeLanguage other, boolean apart, Budget budget) {
        Proof worst = new Disjoint();
        for (List<PartLanguage> oneWay : one.ways()) {
            for (List<PartLanguage> otherWay : other.ways()) {
                var product = new Product(oneWay, otherWay, apart, budget);
                if (product.isEmpty()) continue;
                if (product.isTooLarge()) {
                    worst = undecided(
                            one,
                            other,
                            "the two are too large to be laid over each other",
                            "let a literal part tell them apart early in the text");
                    continue;
                }
                Optional<Set<String>> all = product.allTexts(MOST_TEXTS);
                boolean sure = all.isPresent();
                for (String text : all.isPresent() ? all.get() : product.texts(TRIES)) {
                    budget.spend(Budget.COMPARED * (long) text.length());
                    RangeLanguage.Reading first = one.read(text);
                    RangeLanguage.Reading second = other.read(text);
                    Optional<Clash> real = real(one, first, second);
                    if (real.isPresent()) return new Clashing(real.get());
                    sure &= isSettled(first, second);
                }
                if (!sure)
                    worst = undecided(
                            one,
                            other,
                            cause(one, other),
                            "let a literal part tell them apart, or keep parts of varying length apart with a literal");
            }
        }
        return worst;
    }

    private static Optional<Clash> real(
            RangeLanguage one, RangeLanguage.Reading firsts, RangeLanguage.Reading seconds) {
        for (Clash.Way first : firsts.ways()) {
            for (Clash.Way second : seconds.ways()) {
                if (!place(first).equals(place(second)))
                    return Optional.of(new Clash(
                            one.series().pattern().render(first.particulars(), first.value()), first, second));
            }
        }
        return Optional.empty();
    }

    /** Whether it is certain that the two readings hold no clash. */
    private static boolean isSettled(RangeLanguage.Reading first, RangeLanguage.Reading second) {
        if (first.isUnsure()) return !second.isUnsure() && second.ways().isEmpty();
        return !second.isUnsure() || first.ways().isEmpty();
    }

    private static List<Object> place(Clash.Way way) {
        return List.of(way.series(), way.range(), way.period(), way.position());
    }

    private static String cause(RangeLanguage one, RangeLanguage other) {
        boolean exact = one.isExact() && other.isExact();
        return "their texts look alike, and "
                + (exact
                        ? "none of those that were tried"
                        : "what their fields, check symbols, several dates or large steps allow could not be followed: none of the texts that were tried")
                + " really arises twice";
    }

    private static Undecided undecided(RangeLanguage one, RangeLanguage other, String cause, String remedy) {
        return new Undecided(one.series().key(), other.series().key(), cause, remedy);
    }
}
