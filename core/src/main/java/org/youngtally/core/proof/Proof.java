package org.youngtally.core.proof;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
    static Proof of(List<Series> namespace, Set<String> changed) {
        List<Series> plainOnes = namespace.stream().filter(series -> series.pattern().isPlain()).toList();
        Optional<Clash> plain = plainOnes.stream().anyMatch(series -> changed.contains(series.key())) ? ClashSearch.in(plainOnes) : Optional.empty();
        if (plain.isPresent()) return new Clashing(plain.get());
        Map<String, List<RangeLanguage>> languages = new LinkedHashMap<>();
        Proof worst = new Disjoint();
        var earlier = new ArrayList<Series>();
        for (Series series : namespace) {
            boolean plainSeries = series.pattern().isPlain();
            if (!plainSeries && changed.contains(series.key())) {
                Proof alone = LanguageSearch.within(languages(series, languages));
                if (alone instanceof Clashing) return alone;
                if (alone instanceof Undecided) worst = alone;
            }
            for (Series other : earlier) {
                if (plainSeries && other.pattern().isPlain()) continue;
                if (!changed.contains(series.key()) && !changed.contains(other.key())) continue;
                if (LanguageSearch.standApart(series, other)) continue;
                Proof pair = LanguageSearch.between(languages(other, languages), languages(series, languages));
                if (pair instanceof Clashing) return pair;
                if (pair instanceof Undecided) worst = pair;
            }
            earlier.add(series);
        }
        return worst;
    }

    private static List<RangeLanguage> languages(Series series, Map<String, List<RangeLanguage>> known) {
        return known.computeIfAbsent(series.key(), key -> series.ranges().stream().map(range -> RangeLanguage.of(series, range)).toList());
    }
}
