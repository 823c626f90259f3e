package org.youngtally.core.series;

import java.util.Objects;
import org.youngtally.core.fault.DefinitionException;

/**
 * A stretch of values of a series, and the dates it serves. Positions count from zero; both ends are included.
 *
 * @param id tells the ranges of a series apart for ever, whatever their order; from 1
 * @param first the value at position 0
 * @param last the value at the last position
 * @param step what is added from one position to the next; negative to count down
 * @param warnWhenLeft at how many positions left the range counts as running low; 0 for never
 * @param warnDaysBefore how many days before it closes that is warned of; 0 for never
 */
public record Range(
        int id, long first, long last, long step, DateWindow serves, long warnWhenLeft, int warnDaysBefore) {
    private static final int MOST_DAYS = 3_660;

    public Range {
        if (first < 0) throw new DefinitionException("first", "a value cannot be negative", "enter 0 or more");
        if (last < 0) throw new DefinitionException("last", "a value cannot be negative", "enter 0 or more");
        if (step == 0)
            throw new DefinitionException("step", "a step cannot be zero", "enter a step such as 1, 10 or -1");
        if (step > 0 ? last < first : last > first)
            throw new DefinitionException(
                    "last",
                    last + " lies before first, " + first + ", going by " + step,
                    step > 0 ? "enter " + first + " or more" : "enter " + first + " or less");
        if ((last - first) % step != 0)
            throw new DefinitionException(
                    "last",
                    last + " is not reached from " + first + " in steps of " + step,
                    "enter " + (last - (last - first) % step) + nextReached(first, last, step));
        if (warnWhenLeft < 0)
            throw new DefinitionException("warn-when-left", "a number left cannot be negative", "enter 0 or more");
        if (warnDaysBefore < 0 || warnDaysBefore > MOST_DAYS)
            throw new DefinitionException(
                    "warn-days-before", warnDaysBefore + " is not a number of days to warn", "enter 0 to " + MOST_DAYS);
    }

    private static String nextReached(long first, long last, long step) {
        long next = last - (last - first) % step + step;
        return next >= 0 ? " or " + next : "";
    }

    /** How many positions a lane of this range has. */
    public long size() {
        return (last - first) / step + 1;
    }

    /** The value at a position, or {@link IndexOutOfBoundsException} past the last. */
    public long valueAt(long position) {
        return first + Objects.checkIndex(position, size()) * step;
    }

    /** The position of a value, or -1 where the range does not hold it. */
    public long positionOf(long value) {
        long distance = value - first;
        if (distance % step != 0) return -1;
        long position = distance / step;
        return position < 0 || position >= size() ? -1 : position;
    }

    public Range withId(int newId) {
        return new Range(newId, first, last, step, serves, warnWhenLeft, warnDaysBefore);
    }

    /**
     * Whether the other is this same range in another version of the series: what is fixed once a number was given is
     * alike.
     */
    boolean continues(Range other) {
        return first == other.first && step == other.step && serves.opens().equals(other.serves.opens());
    }

    @Override
    public String toString() {
        return first + " to " + last + (step == 1 ? "" : " by " + step) + ", " + serves;
    }
}
