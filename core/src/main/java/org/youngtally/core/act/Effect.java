package org.youngtally.core.act;

import java.util.List;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
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
     * @param round of a series that starts over, from 1; 0 for any other
     * @param texts the identifiers in order; empty for a block, whose identifiers are rendered when asked for
     */
    record Issued(int lane, long from, long to, int version, Particulars particulars, long round, List<String> texts) implements Effect {
        public Issued {
            texts = List.copyOf(texts);
        }

        public long quantity() { return to - from + 1; }

        public boolean isBlock() { return texts.isEmpty(); }
    }

    /**
     * Positions are passed over for ever, because their values are never given.
     *
     * @param from the first position
     * @param to the last position, included
     * @param version the version of the series that says so
     */
    record Skipped(int lane, long from, long to, int version, Particulars particulars) implements Effect {
        public long quantity() { return to - from + 1; }
    }

    /** A file of definitions is kept in the place of an earlier one of its name. */
    record FileKept(KeptFile file) implements Effect {}

    /** A series is defined, or has a new version. */
    record Defined(Series series) implements Effect {}

    /** A codebook is defined, or has a new version. */
    record CodebookDefined(Codebook codebook) implements Effect {}

    /** A namespace is defined, or has a new version. */
    record NamespaceDefined(Namespace namespace) implements Effect {}
}
