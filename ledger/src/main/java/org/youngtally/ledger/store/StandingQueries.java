package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Series;

/** How each series stands: what it gave last, what it gives next, how much is left. */
public final class StandingQueries {
    private final DSLContext dsl;

    public StandingQueries(DSLContext dsl) {
        this.dsl = dsl;
    }

    /**
     * A used lane.
     *
     * @param given how many of its positions the counter has passed, but for those that are skipped
     * @param skipped how many were passed over, because their values are never given
     * @param returned how many wait to be given again
     * @param left how many are left; -1 where the series starts over
     */
    public record LaneStanding(
            int range, String period, long given, long skipped, long returned, long left, Optional<LocalDate> latest) {}

    /** The number that a series gave last, and its business date. */
    public record Newest(String identifier, LocalDate date, EntryQueries.Row entry) {}

    /**
     * @param outlook what comes next; absent where it rests on fields that are not known, and shows no identifiers
     *     where only those do
     * @param lanes the used lanes, by range and period
     */
    public record Standing(
            Series series,
            LocalDate date,
            Optional<Outlook> outlook,
            Optional<Newest> newest,
            List<LaneStanding> lanes) {}

    /** Every series, by its key. */
    public List<Standing> all(LocalDate date) {
        return standings(new StateQueries(dsl).series(), Particulars.on(date), 1);
    }

    /**
     * One series.
     *
     * @param particulars with every field that the series takes, or with none
     * @param coming how many of the next identifiers to show
     */
    public Standing one(Series series, Particulars particulars, int coming) {
        return standings(List.of(series), particulars, coming).getFirst();
    }

    private List<Standing> standings(List<Series> wanted, Particulars particulars, int coming) {
        Map<String, List<StateQueries.LaneRow>> lanes = new StateQueries(dsl)
                .lanes().stream()
                        .collect(Collectors.groupingBy(lane -> lane.key().series()));
        Map<String, Long> newest = dsl.select(SERIES.NAME, DSL.max(LANE.NEWEST_SEQ))
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .groupBy(SERIES.NAME)
                .fetchMap(row -> row.value1(), row -> row.value2());
        Map<Integer, List<Stretch>> apart = apart();
        var entries = new EntryQueries(dsl);
        var standings = new ArrayList<Standing>();
        for (Series series : wanted) {
            List<StateQueries.LaneRow> own = lanes.getOrDefault(series.key(), List.of());
            Optional<Newest> last = Optional.ofNullable(newest.get(series.key()))
                    .flatMap(entries::at)
                    .map(entry -> new Newest(
                            entries.ends(entry, series.key()::equals).getLast(),
                            entries.date(entry, series.key()),
                            entry));
            standings.add(new Standing(
                    series,
                    particulars.date(),
                    outlook(series, own, apart, particulars, coming),
                    last,
                    own.stream()
                            .map(lane -> standing(series, lane, used(lane, apart)))
                            .sorted(Comparator.comparingInt(LaneStanding::range).thenComparing(LaneStanding::period))
                            .toList()));
        }
        standings.sort(Comparator.comparing(standing -> standing.series().key()));
        return standings;
    }

    private static Optional<Outlook> outlook(
            Series series,
            List<StateQueries.LaneRow> lanes,
            Map<Integer, List<Stretch>> apart,
            Particulars particulars,
            int coming) {
        boolean fieldsKnown = series.restsOnDateAlone() || !particulars.fields().isEmpty();
        if (!fieldsKnown && !series.restarts().fields().isEmpty()) return Optional.empty();
        var used = new HashMap<LaneKey, Outlook.Used>();
        lanes.forEach(lane -> used.put(lane.key(), used(lane, apart)));
        return Optional.of(Outlook.of(
                series, particulars, lane -> used.getOrDefault(lane, Outlook.Used.NOT), fieldsKnown ? coming : 0));
    }

    /** How far the lanes of a series have been used. */
    public Map<LaneKey, Outlook.Used> used(String series) {
        Map<Integer, List<Stretch>> apart = apart();
        return new StateQueries(dsl)
                .lanes().stream()
                        .filter(lane -> lane.key().series().equals(series))
                        .collect(Collectors.toMap(StateQueries.LaneRow::key, lane -> used(lane, apart)));
    }

    private Map<Integer, List<Stretch>> apart() {
        return new StateQueries(dsl)
                .watched().stream()
                        .collect(Collectors.groupingBy(
                                StateQueries.Placed::lane,
                                Collectors.mapping(StateQueries.Placed::stretch, Collectors.toList())));
    }

    private static Outlook.Used used(StateQueries.LaneRow lane, Map<Integer, List<Stretch>> apart) {
        List<Stretch> own = apart.get(lane.lane());
        if (own == null) return new Outlook.Used(lane.next(), lane.skipped());
        var returned = new TreeMap<Long, Long>();
        var ahead = new TreeMap<Long, Long>();
        for (Stretch stretch : own) {
            if (stretch.state() == PositionState.RETURNED) returned.put(stretch.from(), stretch.to());
            else if (stretch.from() >= lane.next()) ahead.put(stretch.from(), stretch.to());
        }
        return new Outlook.Used(lane.next(), lane.skipped(), returned, ahead);
    }

    private static LaneStanding standing(Series series, StateQueries.LaneRow lane, Outlook.Used used) {
        long left = series.range(lane.key().range())
                .map(range -> Outlook.left(series, range, lane.key(), used))
                .orElse(0L);
        long returned = used.returned().headMap(lane.next(), false).entrySet().stream()
                .mapToLong(stretch -> stretch.getValue() - stretch.getKey() + 1)
                .sum();
        return new LaneStanding(
                lane.key().range(),
                lane.key().period(),
                lane.next() - lane.skipped(),
                lane.skipped(),
                returned,
                left,
                lane.latest());
    }
}
