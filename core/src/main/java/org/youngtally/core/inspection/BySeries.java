package org.youngtally.core.inspection;

import java.time.temporal.ChronoUnit;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SortedMap;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Reads texts as numbers of some series. */
public final class BySeries implements Numbers {
    private static final int MOST_CANDIDATES = 3;

    private final List<SeriesReader> readers;
    private final Map<InSeries, InSeries> lanes = new HashMap<>();

    /** @param readers of the series, the likeliest first */
    public BySeries(List<SeriesReader> readers) {
        this.readers = List.copyOf(readers);
    }

    @Override
    public Number read(String text) {
        Located best = null;
        for (SeriesReader reader : readers) {
            for (Located found : reader.read(text)) {
                if (best == null || best.range().isEmpty() && found.range().isPresent()) best = found;
                if (best.range().isPresent()) return number(best);
            }
        }
        return best == null ? null : number(best);
    }

    private Number number(Located found) {
        Series series = found.series();
        var lane = new InSeries(series, found.range(), found.lane(), found.particulars());
        boolean dated = series.pattern().parts().stream().anyMatch(DateField.class::isInstance);
        return new Number(
                found.reading().identifier(),
                lanes.computeIfAbsent(lane, same -> same),
                found.reading().value(),
                dated ? OptionalInt.of(found.particulars().date().getYear()) : OptionalInt.empty(),
                found.particulars().fields(),
                found.reading().deviations());
    }

    @Override
    public List<Candidate> nearest(String text) {
        return readers.stream()
                .flatMap(reader -> reader.nearest(text).stream())
                .sorted((one, other) -> Integer.compare(
                        one.reading().deviations().size(),
                        other.reading().deviations().size()))
                .map(found -> new Candidate(
                        found.reading().identifier(), found.reading().deviations()))
                .distinct()
                .limit(MOST_CANDIDATES)
                .toList();
    }

    /** A lane of a range; without a range, all numbers that the pattern writes alike but for the count. */
    private static final class InSeries implements Lane {
        private final Series series;
        private final Optional<Range> range;
        private final String lane;
        private final Particulars first;

        InSeries(Series series, Optional<Range> range, String lane, Particulars first) {
            this.series = series;
            this.range = range;
            this.lane = lane;
            this.first = first;
        }

        @Override
        public String name() {
            return lane;
        }

        @Override
        public String series() {
            return series.key();
        }

        @Override
        public int range() {
            return range.map(Range::id).orElse(0);
        }

        @Override
        public String written(long value) {
            return sharesAllAround()
                    ? series.pattern().render(first, value)
                    : series.pattern().count().written(value);
        }

        /** Whether all numbers of the lane have the same text around the count. */
        private boolean sharesAllAround() {
            Optional<ChronoUnit> changes = series.pattern().changes();
            return series.fields().isEmpty()
                    && (changes.isEmpty()
                            || series.restarts().times().stream()
                                    .anyMatch(restart -> restart.changes().compareTo(changes.get()) <= 0));
        }

        @Override
        public long missing(long low, long high) {
            if (range.isEmpty()) return high - low - 1;
            if (!isInTurn()) return 0;
            Range of = range.get();
            long one = of.positionOf(low);
            long other = of.positionOf(high);
            long from = Math.min(one, other) + 1;
            long to = Math.max(one, other) - 1;
            return to < from ? 0 : series.unskipped(of, from, to);
        }

        private boolean isInTurn() {
            return !series.order().scatters() && !series.order().repeats();
        }

        @Override
        public long next(long value) {
            return value + step();
        }

        @Override
        public long previous(long value) {
            return value - step();
        }

        private long step() {
            return range.map(of -> Math.abs(of.step())).orElse(1L);
        }

        /** What the numbers of a lane share: the fields are in its name where they part it from others. */
        private SortedMap<String, String> apart() {
            return range.isPresent() ? Collections.emptySortedMap() : first.fields();
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof InSeries same
                    && same.series == series
                    && same.range() == range()
                    && same.lane.equals(lane)
                    && same.apart().equals(apart());
        }

        @Override
        public int hashCode() {
            return Objects.hash(series.key(), range(), lane);
        }
    }
}
