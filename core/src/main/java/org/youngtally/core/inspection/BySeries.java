package org.youngtally.core.inspection;

import java.time.temporal.ChronoUnit;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.SortedMap;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Deviation;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.Located.Place;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Reads texts as numbers of some series. */
public final class BySeries implements Numbers {
    private static final int MOST_CANDIDATES = 3;
    private static final int MOST_KEPT = 50_000;
    /** A check symbol that is right speaks for a reading. */
    private static final Comparator<Located> LIKELIEST = Comparator.comparing(
                    (Located found) -> found.reading().deviations().size())
            .thenComparing(found -> found.reading().deviations().contains(Deviation.CHECK));

    private final List<SeriesReader> readers;
    private final Map<InSeries, InSeries> lanes = new HashMap<>();
    private final Map<Place, Alike> places = new IdentityHashMap<>();

    /** @param readers of the series, the likeliest first */
    public BySeries(List<SeriesReader> readers) {
        this.readers = List.copyOf(readers);
    }

    /**
     * What all numbers of a place have alike.
     *
     * @param year absent where the pattern writes no date
     */
    private record Alike(Lane lane, OptionalInt year) {}

    @Override
    public Number read(String text) {
        Located best = null;
        for (SeriesReader reader : readers) {
            for (Located found : reader.read(text)) {
                boolean inRange = found.place().range().isPresent();
                if (best == null || inRange) best = found;
                if (inRange) return number(found);
            }
        }
        return best == null ? null : number(best);
    }

    private Number number(Located found) {
        // Without a bound memory would grow with what is read.
        if (places.size() > MOST_KEPT) places.clear();
        Alike alike = places.computeIfAbsent(found.place(), place -> alike(found.series(), place));
        return new Number(
                found.reading().identifier(),
                alike.lane(),
                found.reading().value(),
                alike.year(),
                found.place().particulars().fields(),
                found.reading().deviations());
    }

    private Alike alike(Series series, Place place) {
        boolean dated = series.pattern().parts().stream().anyMatch(DateField.class::isInstance);
        return new Alike(
                lanes.computeIfAbsent(new InSeries(series, place), same -> same),
                dated ? OptionalInt.of(place.particulars().date().getYear()) : OptionalInt.empty());
    }

    @Override
    public List<Candidate> nearest(String text) {
        return readers.stream()
                .flatMap(reader -> reader.nearest(text).stream())
                .sorted(LIKELIEST)
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
        private final int hash;

        InSeries(Series series, Place place) {
            this.series = series;
            this.range = place.range();
            this.lane = place.lane();
            this.first = place.particulars();
            this.hash = Objects.hash(series.key(), range(), lane);
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
            return hash;
        }
    }
}
