package org.youngtally.core.series;

import java.util.List;

/** Series for tests. */
public final class Sample {
    private Sample() {}

    public static RangeDraft range(long first, long last, String opens) {
        return new RangeDraft(first, last, null, opens, null, null);
    }

    public static RangeDraft range(long first, long last, long step, String opens, String closes) {
        return new RangeDraft(first, last, step, opens, closes, null);
    }

    public static SeriesDraft draft(
            String key, String namespace, String pattern, String restarts, RangeDraft... ranges) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.NAMESPACE, namespace)
                .with(SeriesProperties.RESTARTS, restarts == null ? null : List.of(restarts))
                .with(SeriesProperties.RANGES, List.of(ranges));
    }

    public static Series series(String key, String namespace, String pattern, String restarts, RangeDraft... ranges) {
        DraftCheck.Result checked = DraftCheck.of(draft(key, namespace, pattern, restarts, ranges));
        return checked.series()
                .orElseThrow(() -> new IllegalArgumentException(checked.faults().toString()));
    }

    public static SeriesDraft invoices() {
        return draft("invoice", "invoice", "LW{date yy}-{count 5}", "year", range(1, 99_999, "2026-01-01"));
    }
}
