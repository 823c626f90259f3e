package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.List;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;

/** What an act does to the ledger. Effects are facts: applying them takes no further decision. */
public sealed interface Effect {

    /** A lane comes into being with its first position still to give. */
    record LaneOpened(int lane, LaneKey key) implements Effect {}

    /**
     * Positions are given.
     *
     * @param from the first position
     * @param to the last position, included
     * @param version the version of the series that rendered them
     * @param texts the identifiers in order; empty for a block, whose identifiers are rendered when asked for
     */
    record Issued(int lane, long from, long to, int version, LocalDate date, List<String> texts) implements Effect {
        public Issued {
            texts = List.copyOf(texts);
        }

        public long quantity() { return to - from + 1; }

        public boolean isBlock() { return texts.isEmpty(); }
    }

    /** A file of definitions is kept in the place of an earlier one of its name. */
    record FileKept(KeptFile file) implements Effect {}

    /** A series is defined, or has a new version. */
    record Defined(Series series) implements Effect {}
}
