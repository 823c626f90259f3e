package org.youngtally.core.series;

import java.util.List;
import org.youngtally.core.pattern.DateStyle;

/**
 * A series as somebody wrote it, not yet checked; what is absent is null.
 *
 * @param locale a language tag for the names of months
 * @param fiscalYearStarts the month in which the fiscal year begins, 1 to 12
 * @param longest the most symbols that the place allows which the identifiers live in
 * @param symbols the symbols that it allows, as {@link Place#symbols}
 */
public record SeriesDraft(String key, String title, String namespace, String pattern, String locale, Long fiscalYearStarts, List<String> restarts, Long longest, String symbols, String typed, List<RangeDraft> ranges) {

    /** The definition that this series would be written as. */
    public static SeriesDraft of(Series series) {
        return new SeriesDraft(series.key(), series.title(), series.namespace(), series.pattern().toString(),
                series.pattern().style().locale().equals(DateStyle.PLAIN.locale()) ? null : series.pattern().style().locale(), series.pattern().style().fiscalStart() == 1 ? null : (long) series.pattern().style().fiscalStart(),
                series.restarts().stream().map(Restart::word).toList(), series.place().longest() == 0 ? null : (long) series.place().longest(), series.place().symbols().isEmpty() ? null : series.place().symbols(), "refused",
                series.ranges().stream().map(SeriesDraft::of).toList());
    }

    private static RangeDraft of(Range range) {
        return new RangeDraft(range.first(), range.last(), range.step(), range.serves().opens().toString(),
                range.serves().isOpenEnded() ? null : range.serves().closes().toString(), range.warnWhenLeft() == 0 ? null : range.warnWhenLeft());
    }
}
