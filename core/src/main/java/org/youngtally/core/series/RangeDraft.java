package org.youngtally.core.series;

/** A range as somebody wrote it, not yet checked; what is absent is null. Dates are ISO 8601. */
public record RangeDraft(
        Long first, Long last, Long step, String opens, String closes, Long warnWhenLeft, Long warnDaysBefore) {
    public RangeDraft(Long first, Long last, Long step, String opens, String closes, Long warnWhenLeft) {
        this(first, last, step, opens, closes, warnWhenLeft, null);
    }
}
