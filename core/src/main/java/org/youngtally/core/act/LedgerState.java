package org.youngtally.core.act;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;

/** What a decision rests on: the ledger as it stands after every act before this one. */
public interface LedgerState {

    /** The series in its newest version. */
    Optional<Series> series(String key);

    Collection<Series> allSeries();

    /** The codebook in its newest version. */
    Optional<Codebook> codebook(String key);

    Collection<Codebook> allCodebooks();

    /** The namespace in its newest version, if it was ever defined. */
    Optional<Namespace> namespace(String key);

    /** The secret by which the positions of a series are spread; the same one for ever. */
    Scatter scatter(String series);

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

    /** @param next the lowest position that was neither given nor skipped yet */
    record LaneState(int lane, long next) {}

    record EarlierAct(long seq, String digest) {}
}
