package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Counters;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Series;

/** How each series stands: what it gave last, what it gives next, how much is left. */
public final class SeriesStatusQueries {
    private final DSLContext dsl;
    private final Counters counters;

    /** @param counters how far everything is counted */
    public SeriesStatusQueries(DSLContext dsl, Counters counters) {
        this.dsl = dsl;
        this.counters = counters;
    }

    /**
     * A used lane.
     *
     * @param given how many of its positions the counter has passed, but for those that are skipped
     * @param skipped how many were passed over, because their values are never given
     * @param returned how many are returned and issued next
     * @param left how many are left; -1 where the series starts over
     */
    public record LaneStatus(
            int range, String period, long given, long skipped, long returned, long left, Optional<LocalDate> latest) {}

    private record Lane(LaneKey key, LaneState state) {}

    /** The number that a series gave last, and its business date. */
    public record Newest(String identifier, LocalDate date, EntryQueries.Row entry) {}

    /**
     * @param outlook what comes next; absent where it rests on fields that are not known, and shows no identifiers
     *     where only those do
     * @param lanes the used lanes, by range and period
     */
    public record SeriesStatus(
            Series series,
            LocalDate date,
            Optional<Outlook> outlook,
            Optional<Newest> newest,
            List<LaneStatus> lanes) {}

    /** Several series, by their keys. */
    public List<SeriesStatus> all(Collection<Series> series, LocalDate date) {
        return standings(series, Particulars.on(date), 1);
    }

    /**
     * One series.
     *
     * @param particulars with every field that the series takes, or with none
     * @param coming how many of the next identifiers to show
     */
    public SeriesStatus one(Series series, Particulars particulars, int coming) {
        return standings(List.of(series), particulars, coming).getFirst();
    }

    private List<SeriesStatus> standings(Collection<Series> wanted, Particulars particulars, int coming) {
        Map<String, List<Lane>> lanes = counters.lanes().entrySet().stream()
                .map(lane -> new Lane(lane.getKey(), lane.getValue()))
                .collect(Collectors.groupingBy(lane -> lane.key().series()));
        Map<String, Long> newest = dsl.select(SERIES.NAME, DSL.max(LANE.NEWEST_SEQ))
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .groupBy(SERIES.NAME)
                .fetchMap(row -> row.value1(), row -> row.value2());
        var entries = new EntryQueries(dsl);
        var standings = new ArrayList<SeriesStatus>();
        for (Series series : wanted) {
            List<Lane> own = lanes.getOrDefault(series.key(), List.of());
            Optional<Newest> last = Optional.ofNullable(newest.get(series.key()))
                    .flatMap(entries::at)
                    .map(entry -> new Newest(
                            entries.ends(entry, series.key()::equals).getLast(),
                            entries.date(entry, series.key()),
                            entry));
            standings.add(new SeriesStatus(
                    series,
                    particulars.date(),
                    outlook(series, particulars, coming),
                    last,
                    own.stream()
                            .map(lane -> standing(series, lane, counters.used(lane.key())))
                            .sorted(Comparator.comparingInt(LaneStatus::range).thenComparing(LaneStatus::period))
                            .toList()));
        }
        standings.sort(Comparator.comparing(standing -> standing.series().key()));
        return standings;
    }

    private Optional<Outlook> outlook(Series series, Particulars particulars, int coming) {
        boolean fieldsKnown = series.restsOnDateAlone() || !particulars.fields().isEmpty();
        if (!fieldsKnown && !series.restarts().fields().isEmpty()) return Optional.empty();
        return Optional.of(Outlook.of(series, particulars, counters::used, fieldsKnown ? coming : 0));
    }

    private static LaneStatus standing(Series series, Lane of, Outlook.Used used) {
        LaneKey key = of.key();
        LaneState lane = of.state();
        long left = series.range(key.range())
                .map(range -> Outlook.left(series, range, key, used))
                .orElse(0L);
        long returned = used.returned().headMap(lane.next(), false).entrySet().stream()
                .mapToLong(stretch -> stretch.getValue() - stretch.getKey() + 1)
                .sum();
        return new LaneStatus(
                key.range(), key.period(), lane.next() - lane.skipped(), lane.skipped(), returned, left, lane.latest());
    }
}
