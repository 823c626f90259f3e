package org.youngtally.service.api;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.store.StandingQueries;

/**
 * A series and how it stands on a date.
 *
 * @param date the business date that the rest speaks of
 * @param next the next identifiers in order; empty where nothing is left for the date
 * @param left how many are left for the date, over all ranges that serve it
 * @param low whether a range that serves the date has fewer left than it warns at
 * @param newest the number given last; absent if none was ever given
 * @param state {@code serving}, {@code exhausted} where the ranges for the date have run out, {@code closed} where none serves it
 */
record SeriesView(String key, String title, String namespace, String pattern, List<String> restarts, int version, LocalDate date, List<String> next, long left, boolean low, String state, @Nullable NewestView newest, List<RangeView> ranges) {

    record NewestView(String identifier, Instant at, String by, LocalDate date, long seq) {}

    /**
     * A range and its lanes.
     *
     * @param size how many positions each lane has
     * @param state {@code serving}, {@code not open}, {@code closed}, or {@code exhausted} on the date
     * @param given how many positions were given in the lane that counts on the date
     * @param left how many are left in it; absent where the range does not serve the date
     * @param warnWhenLeft at how many left it counts as low; absent for never
     */
    record RangeView(int id, long first, long last, long step, LocalDate opens, @Nullable LocalDate closes, @Nullable Long warnWhenLeft, long size, String state, long given, @Nullable Long left, List<LaneView> lanes) {}

    /** @param period what the lane counts for; empty where the count does not restart */
    record LaneView(String period, long given, long left, LocalDate latest) {}

    static SeriesView of(StandingQueries.Standing standing) {
        Series series = standing.series();
        LocalDate date = standing.outlook().date();
        Map<LaneKey, Long> given = standing.lanes().stream().collect(Collectors.toMap(lane -> new LaneKey(series.key(), lane.range(), lane.period()), StandingQueries.LaneStanding::given));
        List<RangeView> ranges = series.ranges().stream().map(range -> range(series, range, date, given, standing.lanes())).toList();
        boolean low = ranges.stream().anyMatch(range -> range.left() != null && range.warnWhenLeft() != null && standing.outlook().left() < range.warnWhenLeft());
        String state = series.serving(date).isEmpty() ? "closed" : standing.outlook().left() == 0 ? "exhausted" : "serving";
        return new SeriesView(series.key(), series.title(), series.namespace(), series.pattern().toString(), series.restarts().stream().map(Restart::word).toList(), series.version(), date,
                standing.outlook().next().stream().map(Outlook.Coming::identifier).toList(), standing.outlook().left(), low, state,
                standing.newest().map(newest -> new NewestView(newest.identifier(), newest.entry().at(), newest.entry().by(), newest.entry().date(), newest.entry().seq())).orElse(null), ranges);
    }

    private static RangeView range(Series series, Range range, LocalDate date, Map<LaneKey, Long> given, List<StandingQueries.LaneStanding> lanes) {
        boolean serves = range.serves().includes(date);
        long taken = given.getOrDefault(series.lane(range, date), 0L);
        String state = !serves ? (date.isBefore(range.serves().opens()) ? "not open" : "closed") : taken == range.size() ? "exhausted" : "serving";
        return new RangeView(range.id(), range.first(), range.last(), range.step(), range.serves().opens(), range.serves().isOpenEnded() ? null : range.serves().closes(), range.warnWhenLeft() == 0 ? null : range.warnWhenLeft(), range.size(), state,
                taken, serves ? range.size() - taken : null,
                lanes.stream().filter(lane -> lane.range() == range.id()).map(lane -> new LaneView(lane.period(), lane.given(), range.size() - lane.given(), lane.latest())).toList());
    }
}
