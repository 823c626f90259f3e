package org.youngtally.bench;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Rendering;
import org.youngtally.core.proof.Proof;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** What core does alone, on one core: writing identifiers, and proving a large namespace. */
final class Sums {
    private static final int ROUNDS = 5;
    private static final int IDENTIFIERS = 4_000_000;
    private static final int SERIES = 300;

    private final Starts.Report report;

    Sums(Starts.Report report) {
        this.report = report;
    }

    void measure() {
        rendering("rendering, LW{date yy}-{count 5}", "LW{date yy}-{count 9}");
        rendering("rendering with a check digit, 09521234{count 9}{check gs1}", "09521234{count 9}{check gs1}");
        rendering("rendering with a check symbol, {count 7 safe}{check mod37-36}", "{count 7 safe}{check mod37-36}");
        proof();
    }

    private void rendering(String what, String pattern) {
        Series series = series("a", pattern, 999_999_999);
        Range range = series.ranges().getFirst();
        var particulars = Particulars.on(LocalDate.of(2026, 3, 2));
        Rendering rendering = series.pattern().on(particulars);
        double best = 0;
        long symbols = 0;
        for (int round = 0; round < ROUNDS; round++) {
            long start = System.nanoTime();
            for (int i = 0; i < IDENTIFIERS; i++)
                symbols += rendering.of(range.valueAt(i)).charAt(4);
            best = Math.max(best, IDENTIFIERS / ((System.nanoTime() - start) / 1e9));
        }
        if (symbols == 0) throw new IllegalStateException("nothing was rendered");
        report.figure(what, "%,.0f a second, best of %d", best, ROUNDS);
    }

    /** Series that begin and end alike and differ behind the date, so that every pair is laid over each other. */
    private void proof() {
        var namespace = new ArrayList<Series>();
        for (int i = 0; i < SERIES; i++) {
            String mark = "/" + i + "/";
            namespace.add(
                    switch (i % 3) {
                        case 0 ->
                            series("s" + i, "N{date yy}" + mark + "{count 5 alphanumeric}{check mod37-36}", 9_999);
                        case 1 -> series("s" + i, "N{date yyMM}" + mark + "{count 5 safe}", 9_999);
                        default -> series("s" + i, "N{date yyyy}" + mark + "{count 6}", 9_999);
                    });
        }
        Set<String> all = namespace.stream().map(Series::key).collect(Collectors.toSet());
        List<Fields> fields =
                namespace.stream().map(each -> new Fields(each, Map.of())).toList();
        double best = Double.MAX_VALUE;
        for (int round = 0; round < ROUNDS; round++) {
            long start = System.nanoTime();
            if (!(Proof.of(fields, all) instanceof Proof.Disjoint))
                throw new IllegalStateException("these series never clash");
            best = Math.min(best, (System.nanoTime() - start) / 1e9);
        }
        report.figure("proof of " + SERIES + " series in one namespace", "%.2f s, best of %d", best, ROUNDS);
    }

    static Series series(String key, String pattern, long last) {
        var draft = SeriesDraft.of(key, pattern)
                .with(SeriesProperties.NAMESPACE, "n")
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(0L, last, null, "2026-01-01", null, null)));
        return DraftCheck.of(draft).series().orElseThrow();
    }
}
