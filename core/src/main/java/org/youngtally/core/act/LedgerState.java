package org.youngtally.core.act;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;

/** What a decision rests on: the ledger as it stands after every act before this one. */
public interface LedgerState {

    /** The series in its newest version. */
    Optional<Series> series(String key);

    Collection<Series> allSeries();

    /** The text that is kept of a file of definitions. */
    Optional<String> keptFile(String name);

    /** The lane, if it was ever used. */
    Optional<LaneState> lane(LaneKey key);

    /** The number that the next new lane gets. */
    int nextLane();

    /** How far each used range of a series was used. */
    List<RangeUse> uses(String series);

    /** The act that was done under a key of an account. */
    Optional<EarlierAct> byKey(String account, String key);

    /** The act that holds a reference of a series. */
    Optional<EarlierAct> byReference(String series, String reference);

    /** @param next the lowest position not given yet */
    record LaneState(int lane, long next) {}

    record EarlierAct(long seq, String digest) {}
}
