package org.youngtally.core.repair;

import java.time.LocalDate;
import java.util.List;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.series.LaneKey;

/** What the ledger knows of the numbers of a series. */
public interface LedgerNumbers {

    /** The lowest position of a lane that the counter has not passed; 0 for a lane that was never used. */
    long next(LaneKey lane);

    /** The stretches that reach between two positions of a lane, cut to them, in order. */
    List<Stretch> stretches(LaneKey lane, long from, long to);

    /** Whether a date lies in a closed period. */
    boolean isClosed(LocalDate date);
}
