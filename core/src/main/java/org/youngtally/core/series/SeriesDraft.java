package org.youngtally.core.series;

import java.util.List;

/** A series as somebody wrote it, not yet checked; what is absent is null. */
public record SeriesDraft(String key, String title, String namespace, String pattern, List<String> restarts, String typed, List<RangeDraft> ranges) {

    /** The definition that this series would be written as. */
    public static SeriesDraft of(Series series) {
        return new SeriesDraft(series.key(), series.title(), series.namespace(), series.pattern().toString(),
                series.restarts().map(restart -> List.of(restart.word())).orElse(List.of()), "refused",
                series.ranges().stream().map(SeriesDraft::of).toList());
    }

    private static RangeDraft of(Range range) {
        return new RangeDraft(range.first(), range.last(), range.step(), range.serves().opens().toString(),
                range.serves().isOpenEnded() ? null : range.serves().closes().toString(), range.warnWhenLeft() == 0 ? null : range.warnWhenLeft());
    }
}
