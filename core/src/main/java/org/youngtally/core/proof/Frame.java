package org.youngtally.core.proof;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;

/**
 * What stands around the count in one lane on some date: every identifier of the lane on that date is front, value, back. Front
 * and back are folded, as identifiers are compared.
 *
 * @param date the first date on which the lane has this frame
 */
record Frame(Series series, Range range, LaneKey lane, LocalDate date, String front, String back) {

    private record Look(LaneKey lane, String front, String back) {}

    /** Every frame that the series can ever show, day by day from the first opening to the last closing. */
    static List<Frame> of(Series series) {
        var frames = new ArrayList<Frame>();
        for (Range range : series.ranges()) {
            var seen = new HashSet<Look>();
            boolean constant = !series.pattern().showsDate() && series.restarts().isEmpty();
            LocalDate last = constant ? range.serves().opens() : range.serves().closes();
            for (LocalDate date = range.serves().opens(); !date.isAfter(last); date = date.plusDays(1)) {
                var look = new Look(series.lane(range, date), IdentifierKey.fold(series.pattern().renderBefore(date)), IdentifierKey.fold(series.pattern().renderAfter(date)));
                if (seen.add(look)) frames.add(new Frame(series, range, look.lane(), date, look.front(), look.back()));
            }
        }
        return frames;
    }
}
