package org.youngtally.service.api;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.RangeCalendar;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SeriesProperty;
import org.youngtally.ledger.store.SeriesStatusQueries.LaneStatus;
import org.youngtally.ledger.store.SeriesStatusQueries.SeriesStatus;

/**
 * A series and how it stands on a date.
 *
 * @param fields the fields of the record that it uses; empty for none
 * @param retired whether it is out of use
 * @param about what it says besides, for people, by the names of the properties
 * @param order {@code in-turn}, {@code scattered} or {@code repeating}
 * @param date the business date that the rest speaks of
 * @param next the next identifiers in order; empty where nothing is left for the date, or where they rest on fields
 *     that are not known
 * @param left how many are left for the date, over all ranges that serve it; absent where that rests on fields, or
 *     where the series starts over
 * @param low whether a range that serves the date, or where that rests on fields any of its lanes, has fewer left than
 *     it warns at
 * @param warnings what an administrator should see to, in words: little left, a range that closes soon
 * @param newest the number given last; absent if none was ever given
 * @param state {@code serving} while it is active, {@code exhausted}, or {@code closed} without an active range
 */
record SeriesView(
        String key,
        String title,
        String namespace,
        String pattern,
        List<FieldView> fields,
        List<String> restarts,
        String order,
        PolicyView policy,
        Map<String, String> about,
        boolean retired,
        int version,
        LocalDate date,
        List<String> next,
        @Nullable Long left,
        boolean low,
        List<String> warnings,
        String state,
        @Nullable NewestView newest,
        List<RangeView> ranges) {

    /**
     * The rules for returned and typed numbers.
     *
     * @param typed refused, allowed or required
     */
    record PolicyView(boolean gaps, boolean returns, boolean chronological, String typed) {
        static PolicyView of(Policy policy) {
            return new PolicyView(
                    policy.gaps(),
                    policy.returns(),
                    policy.chronological(),
                    policy.typed().word());
        }
    }

    record NewestView(String identifier, Instant at, String by, LocalDate date, long seq) {}

    /**
     * @param codebook with its choices
     * @param units whether the choices are the units
     * @param within the field whose choice narrows it
     * @param takes for a text: what it may write
     */
    record FieldView(
            String name,
            @Nullable String codebook,
            boolean units,
            @Nullable String within,
            @Nullable String takes) {
        static FieldView of(FieldRule rule) {
            return new FieldView(
                    rule.name(),
                    rule.takesUnits() ? null : rule.codebook().orElse(null),
                    rule.takesUnits(),
                    rule.within().orElse(null),
                    rule.isText() ? "up to " + rule.longest() + " symbols of: " + rule.symbols() : null);
        }
    }

    /**
     * A range and its lanes.
     *
     * @param size how many positions each lane has
     * @param state {@code serving}, {@code not open}, {@code closed}, or {@code exhausted} on the date
     * @param given how many positions were issued in the lane of the date; absent where the lane depends on fields
     * @param left how many are left in it; absent where the range does not serve the date, the lane rests on fields, or
     *     the series starts over
     * @param warnWhenLeft at how many left it counts as low; absent for never
     */
    record RangeView(
            int id,
            long first,
            long last,
            long step,
            LocalDate opens,
            @Nullable LocalDate closes,
            @Nullable Long warnWhenLeft,
            long size,
            String state,
            @Nullable Long given,
            @Nullable Long left,
            List<LaneView> lanes) {}

    /**
     * @param period what the lane counts for; empty where the count does not restart
     * @param given how many positions the counter has passed, but for those skipped
     * @param skipped how many positions were passed over
     * @param returned how many are returned and issued next
     * @param left absent where the series starts over
     */
    record LaneView(
            String period,
            long given,
            long skipped,
            long returned,
            @Nullable Long left,
            @Nullable LocalDate latest) {}

    static SeriesView of(SeriesStatus standing) {
        Series series = standing.series();
        LocalDate date = standing.date();
        List<RangeView> ranges =
                series.ranges().stream().map(range -> range(standing, range)).toList();
        Optional<Long> left = standing.outlook().map(Outlook::left).filter(known -> known >= 0);
        boolean low = left.isPresent()
                ? ranges.stream()
                        .anyMatch(range -> range.left() != null
                                && range.warnWhenLeft() != null
                                && left.get() < range.warnWhenLeft())
                : aLaneIsLow(standing);
        String state = series.serving(date).isEmpty()
                ? "closed"
                : left.isPresent() && left.get() == 0 ? "exhausted" : "serving";
        return new SeriesView(
                series.key(),
                series.title(),
                series.namespace(),
                series.pattern().toString(),
                series.fields().stream().map(FieldView::of).toList(),
                series.restarts().words(),
                series.order().kind().word(),
                PolicyView.of(series.policy()),
                about(series),
                series.retired(),
                series.version(),
                date,
                standing.outlook().map(Outlook::next).orElse(List.of()).stream()
                        .map(Outlook.Coming::identifier)
                        .toList(),
                left.orElse(null),
                low,
                warnings(series, date, left, low),
                state,
                standing.newest()
                        .map(newest -> new NewestView(
                                newest.identifier(),
                                newest.entry().at(),
                                newest.entry().by(),
                                newest.date(),
                                newest.entry().seq()))
                        .orElse(null),
                ranges);
    }

    private static Map<String, String> about(Series series) {
        var about = new TreeMap<String, String>();
        for (SeriesProperty<String> property : SeriesProperties.PLAIN) {
            String text = property.of().apply(series);
            if (property != SeriesProperties.TITLE && text != null)
                about.put(property.property().json(), text);
        }
        return about;
    }

    private static List<String> warnings(Series series, LocalDate date, Optional<Long> left, boolean low) {
        var warnings = new ArrayList<String>();
        if (low) warnings.add(left.map(known -> "low, " + known + " left").orElse("a lane is low"));
        RangeCalendar.closingSoon(series, date)
                .ifPresent(range -> warnings.add("closes on " + range.serves().closes() + ", and no range follows"));
        return warnings;
    }

    /** Where lanes rest on fields that are not known: whether any of those that count on the date has little left. */
    private static boolean aLaneIsLow(SeriesStatus standing) {
        Series series = standing.series();
        String times = series.period(standing.date());
        return series.serving(standing.date()).stream()
                .anyMatch(range -> range.warnWhenLeft() > 0
                        && standing.lanes().stream()
                                .anyMatch(lane -> lane.range() == range.id()
                                        && lane.period().startsWith(times)
                                        && lane.left() >= 0
                                        && lane.left() < range.warnWhenLeft()));
    }

    private static RangeView range(SeriesStatus standing, Range range) {
        Series series = standing.series();
        boolean serves = range.serves().includes(standing.date());
        // Where lanes rest on fields, none is the one that counts unless they are known.
        Optional<LaneKey> lane = standing.outlook().map(outlook -> series.lane(range, outlook.particulars()));
        Optional<LaneStatus> used = lane.flatMap(key -> standing.lanes().stream()
                .filter(each -> each.range() == range.id() && each.period().equals(key.period()))
                .findFirst());
        Optional<Long> left = lane.map(key ->
                        used.map(LaneStatus::left).orElseGet(() -> Outlook.left(series, range, key, Outlook.Used.NOT)))
                .filter(known -> known >= 0 && serves);
        String state = !serves
                ? (standing.date().isBefore(range.serves().opens()) ? "not open" : "closed")
                : left.isPresent() && left.get() == 0 ? "exhausted" : "serving";
        return new RangeView(
                range.id(),
                range.first(),
                range.last(),
                range.step(),
                range.serves().opens(),
                range.serves().isOpenEnded() ? null : range.serves().closes(),
                range.warnWhenLeft() == 0 ? null : range.warnWhenLeft(),
                range.size(),
                state,
                lane.map(key -> used.map(LaneStatus::given).orElse(0L)).orElse(null),
                left.orElse(null),
                standing.lanes().stream()
                        .filter(each -> each.range() == range.id())
                        .map(each -> new LaneView(
                                each.period(),
                                each.given(),
                                each.skipped(),
                                each.returned(),
                                each.left() < 0 ? null : each.left(),
                                each.latest().orElse(null)))
                        .toList());
    }
}
