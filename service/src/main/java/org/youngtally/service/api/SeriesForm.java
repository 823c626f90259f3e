package org.youngtally.service.api;

import java.util.List;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;

/**
 * A series as it is written to be defined.
 *
 * @param namespace the set within which its identifiers are unique; the key where it is left out
 * @param pattern e.g. {@code LW{date yy}-{count 5}}
 * @param restarts {@code year} or {@code month}; never where it is left out
 */
record SeriesForm(String key, String title, String namespace, String pattern, List<String> restarts, String typed, List<RangeForm> ranges) {

    /**
     * @param step 1 where it is left out; negative to count down
     * @param opens the first date it serves, as in 2026-01-01
     * @param closes the last date it serves; 2099-12-31 where it is left out
     * @param warnWhenLeft at how many left it counts as low
     */
    record RangeForm(Long first, Long last, Long step, String opens, String closes, Long warnWhenLeft) {}

    SeriesDraft draft() {
        return new SeriesDraft(key, title, namespace, pattern, restarts, typed, ranges == null ? null : ranges.stream().map(range -> new RangeDraft(range.first(), range.last(), range.step(), blank(range.opens()), blank(range.closes()), range.warnWhenLeft())).toList());
    }

    private static String blank(String text) { return text == null || text.isBlank() ? null : text; }
}
