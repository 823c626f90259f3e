package org.youngtally.core.proof;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;

/** Whether two numbers of a namespace can ever be written alike. */
public sealed interface Proof {

    /** They cannot. */
    record Disjoint() implements Proof {}

    /** They can, as these two would. */
    record Clashing(Clash clash) implements Proof {}

    /**
     * It was neither shown that they can nor that they cannot.
     *
     * @param cause why, as a sentence without its end
     * @param remedy what would help
     */
    record Undecided(String one, String other, String cause, String remedy) implements Proof {}

    /**
     * Looks at one namespace.
     *
     * @param changed the keys of the series that are new or changed; what stands between the others was proved before
     */
    static Proof of(List<Fields> namespace, Set<String> changed) {
        return of(namespace, changed, new Budget(Budget.USUAL));
    }

    /** @param budget how much it may look at, after which the answer is undecided */
    static Proof of(List<Fields> namespace, Set<String> changed, Budget budget) {
        try {
            return within(namespace, changed, budget);
        } catch (Budget.Spent spent) {
            // Where the check at run time is enough for each of them, no proof is asked for.
            if (namespace.stream().allMatch(fields -> fields.series().proofWaived())) return new Disjoint();
            String key = changed.stream().sorted().findFirst().orElseThrow();
            return new Undecided(
                    key,
                    key,
                    "there are more than %,d states and combinations to look at".formatted(budget.whole()),
                    "use fewer codes, let counts restart less often, or use a separate namespace for the series");
        }
    }

    private static Proof within(List<Fields> namespace, Set<String> changed, Budget budget) {
        Set<String> plain = namespace.stream()
                .map(Fields::series)
                .filter(series -> series.pattern().isPlain())
                .map(Series::key)
                .collect(Collectors.toCollection(HashSet::new));
        if (plain.stream().anyMatch(changed::contains)) {
            Optional<Clash> found = ClashSearch.in(plainOnes(namespace, plain), budget);
            if (found.isPresent() && isSkipped(found.get(), namespace)) {
                // The exact search knows no skipped values: the series that have some are read text by text.
                namespace.stream()
                        .map(Fields::series)
                        .filter(series -> !series.skips().isNone())
                        .forEach(series -> plain.remove(series.key()));
                found = ClashSearch.in(plainOnes(namespace, plain), budget);
            }
            if (found.isPresent()) return new Clashing(found.get());
        }
        Map<String, List<RangeLanguage>> languages = new LinkedHashMap<>();
        Proof worst = new Disjoint();
        var earlier = new ArrayList<Fields>();
        for (Fields fields : namespace) {
            Series series = fields.series();
            if (!plain.contains(series.key()) && changed.contains(series.key())) {
                Proof alone = LanguageSearch.within(languages(fields, languages, budget), budget);
                if (alone instanceof Clashing) return alone;
                if (alone instanceof Undecided && !series.proofWaived()) worst = alone;
            }
            for (Fields before : earlier) {
                Series other = before.series();
                if (plain.contains(series.key()) && plain.contains(other.key())) continue;
                if (!changed.contains(series.key()) && !changed.contains(other.key())) continue;
                if (LanguageSearch.standApart(series, other)) continue;
                Proof pair = LanguageSearch.between(
                        languages(before, languages, budget), languages(fields, languages, budget), budget);
                if (pair instanceof Clashing) return pair;
                if (pair instanceof Undecided && !(series.proofWaived() && other.proofWaived())) worst = pair;
            }
            earlier.add(fields);
        }
        return worst;
    }

    private static List<Series> plainOnes(List<Fields> namespace, Set<String> plain) {
        return namespace.stream()
                .map(Fields::series)
                .filter(series -> plain.contains(series.key()))
                .toList();
    }

    private static boolean isSkipped(Clash clash, List<Fields> namespace) {
        return namespace.stream()
                .map(Fields::series)
                .anyMatch(series -> series.key().equals(clash.one().series())
                                && series.skips()
                                        .skips(
                                                clash.one().value(),
                                                series.pattern().count())
                        || series.key().equals(clash.other().series())
                                && series.skips()
                                        .skips(
                                                clash.other().value(),
                                                series.pattern().count()));
    }

    private static List<RangeLanguage> languages(Fields fields, Map<String, List<RangeLanguage>> known, Budget budget) {
        return known.computeIfAbsent(fields.series().key(), key -> fields.series().ranges().stream()
                .map(range -> RangeLanguage.of(fields, range, budget))
                .toList());
    }
}
