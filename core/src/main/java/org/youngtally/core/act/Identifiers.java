package org.youngtally.core.act;

import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;

/** How positions that were given read. */
final class Identifiers {
    private Identifiers() {}

    /**
     * The identifier at a position of a stretch: the text that it has alone, or what a block's origin renders there.
     */
    static String at(Series series, LaneKey lane, Stretch stretch, long position) {
        // A ledger whose secret is away can still lapse holds.
        if (stretch.origin().text().isEmpty() && series.order().isSealed()) return "";
        return stretch.origin()
                .text()
                .orElseGet(() -> series.render(
                        series.range(lane.range()).orElseThrow(),
                        stretch.origin().particulars(),
                        position));
    }
}
