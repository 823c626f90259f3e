package org.youngtally.core.guess;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;

/** What tells two definitions apart that explain the same numbers. */
final class Difference {
    private Difference() {}

    /** The first of some dates on which the number after the last one is written differently, in a sentence. */
    static String between(Proposal one, Proposal other, Example last, LocalDate today) {
        for (LocalDate date : List.of(
                today,
                today.plusDays(1),
                today.plusMonths(1).withDayOfMonth(1),
                today.plusYears(1).withDayOfYear(1))) {
            Optional<String> first = next(one, last, date);
            Optional<String> second = next(other, last, date);
            if (first.isPresent() && second.isPresent() && !first.equals(second))
                return "After %s, on %s the first writes %s, this one %s."
                        .formatted(last.text(), date, first.get(), second.get());
        }
        boolean widths = one.series().pattern().count().width()
                != other.series().pattern().count().width();
        return "Both write the same after " + last.text()
                + (widths ? "; they differ once the count is longer." : " for a year to come.");
    }

    private static Optional<String> next(Proposal proposal, Example last, LocalDate date) {
        Series series = proposal.series();
        var reader = new SeriesReader(
                series,
                Fields.of(series, key -> Optional.ofNullable(proposal.books().get(key))),
                date);
        return reader.read(last.text()).stream().findFirst().flatMap(found -> {
            Map<String, String> fields =
                    new HashMap<>(found.place().particulars().fields());
            boolean again = !series.restarts().times().isEmpty()
                    && !series.period(date)
                            .equals(series.period(found.place().particulars().date()));
            long step = series.ranges().getFirst().step();
            long value =
                    again ? series.ranges().getFirst().first() : found.reading().value() + step;
            return value > series.pattern().count().largest()
                    ? Optional.empty()
                    : Optional.of(series.pattern().render(new Particulars(date, fields), value));
        });
    }
}
