package org.youngtally.core.inspection;

import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import org.youngtally.core.reading.Deviation;

/** How the texts of a column are read as numbers. For one thread at a time. */
public interface Numbers {

    /**
     * Without a series: one run of digits in each text is the count.
     *
     * @param sample some texts of the column, from which it follows which run that is
     */
    static Numbers byShape(List<String> sample) {
        return new ByShape(sample);
    }

    /** What a text is as a number; absent (null) where it is none. */
    Number read(String text);

    /** The numbers that a text may have been meant for, the likeliest first. */
    List<Candidate> nearest(String text);

    /**
     * A text that was read.
     *
     * @param identifier as it should be written
     * @param lane that it counts in
     * @param year that it names
     * @param fields what it says of the record
     * @param deviations in which it is written otherwise
     */
    record Number(
            String identifier,
            Lane lane,
            long value,
            OptionalInt year,
            Map<String, String> fields,
            Set<Deviation> deviations) {}

    /** A number that a text may have been meant for, and in what the text differs from it. */
    record Candidate(String identifier, Set<Deviation> deviations) {}

    /** Numbers that are counted together. */
    interface Lane {
        /** What people call it. */
        String name();

        /** The key of its series; empty without one. */
        String series();

        /** The id of its range; 0 where none holds it. */
        int range();

        /** What a value is written as. */
        String written(long value);

        /**
         * How many values are missing between two that are there, the first being the lower one; 0 where values that
         * are missing do not make a gap.
         */
        long missing(long low, long high);

        /** The value that follows another, upwards. */
        long next(long value);

        /** The value that another follows, upwards. */
        long previous(long value);
    }
}
