package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.NAMESPACE;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.SeriesJson;
import org.youngtally.ledger.store.statement.CachedQuery;

/** Versions of series and the lanes they stand behind, each read once per question. */
public final class DefinitionVersions {
    private static final CachedQuery LANE_BY_ID = new CachedQuery(dsl -> dsl.select(
                    LANE.SERIES_ID, SERIES.NAME, LANE.RANGE_ID, LANE.PERIOD, LANE.NEXT_POSITION, NAMESPACE.COMPARISON)
            .from(LANE)
            .join(SERIES)
            .on(SERIES.ID.eq(LANE.SERIES_ID))
            .join(NAMESPACE)
            .on(NAMESPACE.ID.eq(SERIES.NAMESPACE_ID))
            .where(LANE.ID.eq(0)));

    private final DSLContext dsl;
    private final Map<List<Integer>, Series> versions;
    private final Map<Integer, Lane> lanes = new HashMap<>();
    private final Map<Integer, Series> newest = new HashMap<>();

    public DefinitionVersions(DSLContext dsl) {
        this.dsl = dsl;
        this.versions = Store.versions(dsl);
    }

    /**
     * @param seriesId the row id of the series
     * @param comparison how its namespace compares identifiers
     */
    public record Lane(
            int id, int seriesId, String series, int range, String period, long next, Comparison comparison) {}

    public Lane lane(int id) {
        return lanes.computeIfAbsent(
                id, wanted -> lane(wanted, LANE_BY_ID.ask(dsl, wanted).getFirst(), SERIES.NAME));
    }

    /** Keeps a lane that another question has asked for besides. */
    void know(int id, Record row, Field<String> series) {
        lanes.computeIfAbsent(id, wanted -> lane(wanted, row, series));
    }

    private static Lane lane(int id, Record row, Field<String> series) {
        return new Lane(
                id,
                row.get(LANE.SERIES_ID),
                row.get(series),
                row.get(LANE.RANGE_ID),
                row.get(LANE.PERIOD),
                row.get(LANE.NEXT_POSITION),
                Comparison.of(row.get(NAMESPACE.COMPARISON)).orElseThrow());
    }

    /** The version of the series of a lane. */
    public Series version(Lane lane, int version) {
        return version(lane.seriesId(), version, lane.comparison());
    }

    /** @param comparison how the namespace of the series compares identifiers */
    Series version(int seriesId, int version, Comparison comparison) {
        return versions.computeIfAbsent(
                List.of(seriesId, version, comparison.number()), wanted -> dsl.select(SERIES_VERSION.DEFINITION)
                        .from(SERIES_VERSION)
                        .where(SERIES_VERSION.SERIES_ID.eq(seriesId), SERIES_VERSION.VERSION.eq(version))
                        .fetchSingle(row -> Store.secrets(dsl)
                                .unsealed(SeriesJson.read(row.value1()))
                                .comparedBy(comparison)));
    }

    /** The newest version of a series. */
    private Series newest(Lane lane) {
        return newest.computeIfAbsent(
                lane.seriesId(),
                wanted -> version(
                        lane,
                        dsl.select(SERIES.VERSION)
                                .from(SERIES)
                                .where(SERIES.ID.eq(wanted))
                                .fetchSingle(SERIES.VERSION)));
    }

    /** The identifier at a position of a lane that was used. Every version renders it alike. */
    public String render(int lane, Particulars particulars, long position) {
        Lane row = lane(lane);
        Series series = newest(row);
        // A ledger whose secret is away can be asked all the same.
        if (series.order().isSealed()) return "(its secret is away)";
        return series.render(series.range(row.range()).orElseThrow(), particulars, position);
    }
}
