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
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
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
     * @param given how many of its positions were given
     */
    public record LaneStanding(int range, String period, long given, LocalDate latest) {}

    /** The number that a series gave last. */
    public record Newest(String identifier, EntryQueries.Row entry) {}

    /**
     * @param outlook what comes next on the date that was asked about
     * @param lanes the used lanes, by range and period
     */
    public record Standing(Series series, Outlook outlook, Optional<Newest> newest, List<LaneStanding> lanes) {}

    /** Every series, by its key. */
    public List<Standing> all(LocalDate date) {
        return standings(new StateQueries(dsl).series(), date, 1);
    }

    /** @param coming how many of the next identifiers to show */
    public Optional<Standing> one(String key, LocalDate date, int coming) {
        return standings(new StateQueries(dsl).series().stream().filter(series -> series.key().equals(key)).toList(), date, coming).stream().findFirst();
    }

    private List<Standing> standings(List<Series> wanted, LocalDate date, int coming) {
        Map<String, List<StateQueries.LaneRow>> lanes = new StateQueries(dsl).lanes().stream().collect(Collectors.groupingBy(lane -> lane.key().series()));
        Map<String, Long> newest = dsl.select(SERIES.NAME, DSL.max(LANE.NEWEST_SEQ)).from(LANE).join(SERIES).on(SERIES.ID.eq(LANE.SERIES_ID)).groupBy(SERIES.NAME).fetchMap(row -> row.value1(), row -> row.value2());
        var entries = new EntryQueries(dsl);
        var standings = new ArrayList<Standing>();
        for (Series series : wanted) {
            List<StateQueries.LaneRow> own = lanes.getOrDefault(series.key(), List.of());
            var next = new HashMap<LaneKey, Long>();
            own.forEach(lane -> next.put(lane.key(), lane.next()));
            Optional<Newest> last = Optional.ofNullable(newest.get(series.key())).flatMap(entries::at).map(entry -> new Newest(entries.ends(entry).getLast(), entry));
            standings.add(new Standing(series, Outlook.of(series, date, lane -> next.getOrDefault(lane, 0L), coming), last,
                    own.stream().map(lane -> new LaneStanding(lane.key().range(), lane.key().period(), lane.next(), lane.latest())).sorted(Comparator.comparingInt(LaneStanding::range).thenComparing(LaneStanding::period)).toList()));
        }
        standings.sort(Comparator.comparing(standing -> standing.series().key()));
        return standings;
    }
}
