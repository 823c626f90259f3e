package org.youngtally.service.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;

/**
 * A series as it is written to be defined.
 *
 * @param namespace the set within which its identifiers are unique; the key where it is left out
 * @param pattern e.g. {@code LW{date yy}-{count 5}}
 * @param locale a language tag for the names of months; en where it is left out
 * @param fiscalYearStarts the month in which the fiscal year begins; 1 where it is left out
 * @param restarts some of year, fiscal-year, quarter, month, week and day; never where it is left out
 * @param longest the most symbols that the place allows which the identifiers live in
 * @param symbols the symbols that it allows, such as {@code letters digits -}
 */
record SeriesForm(@Nullable String key, @Nullable String title, @Nullable String namespace, @Nullable String pattern, @Nullable String locale, @Nullable Long fiscalYearStarts, @Nullable List<String> restarts, @Nullable Long longest, @Nullable String symbols, @Nullable String typed, @Nullable List<RangeForm> ranges) {

    /**
     * @param step 1 where it is left out; negative to count down
     * @param opens the first date it serves, as in 2026-01-01
     * @param closes the last date it serves; 2099-12-31 where it is left out
     * @param warnWhenLeft at how many left it counts as low
     */
    record RangeForm(@Nullable Long first, @Nullable Long last, @Nullable Long step, @Nullable String opens, @Nullable String closes, @Nullable Long warnWhenLeft) {}

    static SeriesForm of(Series series) {
        SeriesDraft draft = SeriesDraft.of(series);
        return new SeriesForm(draft.key(), draft.title(), draft.namespace(), draft.pattern(), draft.locale(), draft.fiscalYearStarts(), draft.restarts(), draft.longest(), draft.symbols(), draft.typed(), draft.ranges().stream().map(range -> new RangeForm(range.first(), range.last(), range.step(), range.opens(), range.closes(), range.warnWhenLeft())).toList());
    }

    SeriesDraft draft() {
        return new SeriesDraft(key, title, namespace, pattern, blank(locale), fiscalYearStarts, restarts, longest, blank(symbols), typed, ranges == null ? null : ranges.stream().map(range -> new RangeDraft(range.first(), range.last(), range.step(), blank(range.opens()), blank(range.closes()), range.warnWhenLeft())).toList());
    }

    private static String blank(String text) { return text == null || text.isBlank() ? null : text; }
}
