package org.youngtally.core.series;

/** A range as somebody wrote it, not yet checked; what is absent is null. Dates are ISO 8601. */
public record RangeDraft(
        Long first,
        Long last,
        String lastWritten,
        Long step,
        String opens,
        String closes,
        Long warnWhenLeft,
        Long warnDaysBefore) {
    /** One whose last value is a number. */
    public RangeDraft(
            Long first, Long last, Long step, String opens, String closes, Long warnWhenLeft, Long warnDaysBefore) {
        this(first, last, null, step, opens, closes, warnWhenLeft, warnDaysBefore);
    }

    public RangeDraft(Long first, Long last, Long step, String opens, String closes, Long warnWhenLeft) {
        this(first, last, step, opens, closes, warnWhenLeft, null);
    }

    public static RangeDraft of(Range range) {
        return new RangeDraft(
                range.first(),
                range.last(),
                range.step(),
                range.serves().opens().toString(),
                range.serves().isOpenEnded() ? null : range.serves().closes().toString(),
                range.warnWhenLeft() == 0 ? null : range.warnWhenLeft(),
                range.warnDaysBefore() == 0 ? null : (long) range.warnDaysBefore());
    }
}
