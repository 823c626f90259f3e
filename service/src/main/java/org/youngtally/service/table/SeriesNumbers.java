package org.youngtally.service.table;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.repair.LedgerNumbers;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.store.StateQueries;

/** What the ledger knows of the numbers of a series, as a snapshot has it. */
final class SeriesNumbers implements LedgerNumbers {
    private final LedgerSnapshot snapshot;
    private final Series series;
    private final StateQueries queries;

    SeriesNumbers(LedgerSnapshot snapshot, Series series, DSLContext dsl) {
        this.snapshot = snapshot;
        this.series = series;
        this.queries = new StateQueries(dsl);
    }

    private Optional<LaneState> lane(LaneKey key) {
        return Optional.ofNullable(snapshot.counters().lanes().get(key));
    }

    @Override
    public long next(LaneKey key) {
        return lane(key).map(LaneState::next).orElse(0L);
    }

    @Override
    public List<Stretch> stretches(LaneKey key, long from, long to) {
        return lane(key).stream()
                .flatMap(lane -> queries.stretches(lane.lane(), from, to).stream())
                .map(stretch -> stretch.between(from, to))
                .toList();
    }

    @Override
    public boolean isClosed(LocalDate date) {
        return snapshot.counters().closed().values().stream()
                .anyMatch(closed ->
                        closed.period().includes(date) && closed.period().concerns(series));
    }
}
