package org.youngtally.core.reading;

import java.util.Optional;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * A text as a number of a series.
 *
 * @param place the same object for all texts that differ in nothing but the count
 * @param position in the lane; -1 without a range, and where the secret that spreads the values is not at hand
 */
public record Located(Series series, Reading reading, Place place, long position) {

    /**
     * Where the numbers lie that share all text around the count.
     *
     * @param particulars what the text says of the record, and a date that it was or will be written on
     * @param range that holds the value and serves the date; absent where none does
     * @param lane the name of the lane; empty for the only one of its range
     */
    public record Place(Particulars particulars, Optional<Range> range, String lane) {}
}
