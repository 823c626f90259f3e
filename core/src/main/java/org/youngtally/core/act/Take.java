package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Takes positions: range after range that serves the date, past the values that are never given, and all of the quantity or nothing. */
final class Take {
    /** The most stretches that a block may fall into. */
    static final int MOST_PIECES = 1_000;

    private final LedgerState state;
    private final Series series;
    private final Act.Allocate act;
    private final Particulars particulars;
    private final List<Effect> effects = new ArrayList<>();
    private long wanted;
    private int pieces;
    private int newLane;

    Take(LedgerState state, Series series, Act.Allocate act, Particulars particulars) {
        this.state = state;
        this.series = series;
        this.act = act;
        this.particulars = particulars;
        this.wanted = act.quantity();
        this.newLane = state.nextLane();
    }

    Decision decide() {
        LocalDate date = particulars.date();
        List<Range> serving = series.serving(date);
        if (serving.isEmpty()) return refused(new Refusal.DateNotServed(series.key(), date, series.ranges().stream().map(Range::serves).toList()));
        for (Range range : serving) {
            along(range);
            if (pieces == MOST_PIECES && wanted > 0) return refused(new Refusal.BlockInPieces(series.key(), act.quantity(), act.quantity() - wanted));
            if (wanted == 0) return new Decision.Done(effects);
        }
        return refused(new Refusal.Exhausted(series.key(), date, act.quantity(), act.quantity() - wanted, opensNext(date)));
    }

    private void along(Range range) {
        LaneKey key = series.lane(range, particulars);
        Optional<LaneState> used = state.lane(key);
        long position = used.map(LaneState::next).orElse(0L);
        long end = series.positions(range);
        if (position == end) return;
        int lane = used.map(LaneState::lane).orElse(newLane);
        if (used.isEmpty()) {
            effects.add(new Effect.LaneOpened(lane, key));
            newLane++;
        }
        while (wanted > 0 && position < end && pieces < MOST_PIECES) {
            long behindSkipped = behindSkipped(range, key, position, end);
            if (behindSkipped > position) effects.add(new Effect.Skipped(lane, position, behindSkipped - 1, series.version(), particulars));
            position = behindSkipped;
            if (position == end) return;
            long behindGiven = behindGiven(range, key, position, end);
            give(range, key, lane, position, behindGiven);
            position = behindGiven;
        }
    }

    /** The first position that is not skipped. */
    private long behindSkipped(Range range, LaneKey key, long from, long end) {
        long position = from;
        while (position < end) {
            long last = series.skippedTo(range, key, position);
            if (last < position) break;
            position = last + 1;
        }
        return position;
    }

    /** The position behind those that can be given in one stretch. */
    private long behindGiven(Range range, LaneKey key, long from, long end) {
        long most = Math.min(wanted, end - from);
        if (series.order().repeats()) most = Math.min(most, range.size() - from % range.size());
        if (series.skips().isNone()) return from + most;
        long behind = from + 1;
        while (behind < from + most && series.skippedTo(range, key, behind) < behind) behind++;
        return behind;
    }

    private void give(Range range, LaneKey key, int lane, long from, long behind) {
        boolean block = act.form() == Act.Form.BLOCK;
        long round = series.order().repeats() ? series.order().round(range, from) : 0;
        effects.add(new Effect.Issued(lane, from, behind - 1, series.version(), particulars, round, block ? List.of() : series.render(range, particulars, from, behind - from)));
        wanted -= behind - from;
        if (block) pieces++;
    }

    private Optional<LocalDate> opensNext(LocalDate date) {
        return series.ranges().stream().map(Range::serves).map(DateWindow::opens).filter(opens -> opens.isAfter(date)).min(LocalDate::compareTo);
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
