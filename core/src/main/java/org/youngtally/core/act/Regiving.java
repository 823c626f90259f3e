package org.youngtally.core.act;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect.Manner;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Gives a returned position anew. It may read otherwise now, and then its former text is retired. */
record Regiving(LedgerState state, Series series, Particulars particulars, Optional<Instant> until) {

    /**
     * The effects of giving it; absent where it cannot be given for these particulars: its value is skipped by now, or
     * it would read as it did before it was given to somebody else.
     */
    Optional<List<Effect>> of(Range range, LaneKey key, int lane, Stretch stretch, long position) {
        return of(range, key, lane, stretch, position, Optional.empty());
    }

    /** @param preexisting where it is in a table, if it is in use there; it is not given to anybody then */
    Optional<List<Effect>> of(
            Range range, LaneKey key, int lane, Stretch stretch, long position, Optional<FileLines> preexisting) {
        if (stretch.state() != PositionState.RETURNED || series.skippedTo(range, key, position) >= position)
            return Optional.empty();
        String text = series.render(range, particulars, position);
        String formerly = Identifiers.at(series, key, stretch, position);
        boolean reads = alike(text, formerly);
        if (!reads
                && state.retired(lane, position).stream()
                        .anyMatch(origin -> alike(text, origin.text().orElseThrow()))) return Optional.empty();
        Stretch one = stretch.between(position, position);
        var effects = new ArrayList<Effect>(2);
        if (!reads)
            effects.add(new Effect.Retired(
                    lane,
                    position,
                    new Origin(
                            one.origin().seq(),
                            one.origin().version(),
                            one.origin().particulars(),
                            one.origin().until(),
                            one.origin().ahead(),
                            Optional.of(formerly))));
        effects.add(new Effect.Issued(
                lane,
                position,
                position,
                series.version(),
                particulars,
                Take.round(series, range, position),
                List.of(text),
                new Manner(until, false, Optional.of(one), preexisting)));
        return Optional.of(effects);
    }

    private boolean alike(String text, String other) {
        return series.comparison().alike(text, other);
    }
}
