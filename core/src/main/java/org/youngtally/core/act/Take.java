package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Takes positions: range after range that serves the date; in each first what was returned, then what the counter comes
 * to, past the values that are never given and those that were typed ahead of it; all of the quantity or nothing.
 */
final class Take {
    /** The most stretches that a block may fall into. */
    static final int MOST_PIECES = 1_000;

    private final LedgerState state;
    private final Series series;
    private final Act.Allocate act;
    private final Particulars particulars;
    private final Regiving regiving;
    private final Effect.Manner manner;
    private final Optional<TablePlan.Open> plan;
    private final List<Effect> effects = new ArrayList<>();
    private long wanted;
    private int pieces;
    private int newLane;

    Take(LedgerState state, Series series, Act.Allocate act, Particulars particulars, Instant now) {
        this(state, series, act, particulars, now, state.plan(series.key()));
    }

    /** @param plan for a table whose numbers are not all recorded yet, and must not be met */
    Take(
            LedgerState state,
            Series series,
            Act.Allocate act,
            Particulars particulars,
            Instant now,
            Optional<TablePlan.Open> plan) {
        this.state = state;
        this.plan = plan;
        this.series = series;
        this.act = act;
        this.particulars = particulars;
        this.wanted = act.quantity();
        this.newLane = state.nextLane();
        Optional<Instant> until =
                act.form() instanceof Act.Form.Held held ? Optional.of(now.plus(held.time())) : Optional.empty();
        this.manner = until.isEmpty() ? Effect.Manner.USUAL : new Effect.Manner(until, false, Optional.empty());
        this.regiving = new Regiving(state, series, particulars, until);
    }

    Decision decide() {
        LocalDate date = particulars.date();
        List<Range> serving = series.serving(date);
        if (serving.isEmpty()) return refused(notServed(series, date));
        for (Range range : serving) {
            Optional<Refusal> refusal = along(range);
            if (refusal.isPresent()) return refused(refusal.get());
            if (pieces == MOST_PIECES && wanted > 0)
                return refused(new Refusal.BlockInPieces(series.key(), act.quantity(), act.quantity() - wanted));
            if (wanted == 0) return new Decision.Done(effects);
        }
        return refused(
                new Refusal.Exhausted(series.key(), date, act.quantity(), act.quantity() - wanted, opensNext(date)));
    }

    static Refusal notServed(Series series, LocalDate date) {
        return new Refusal.DateNotServed(
                series.key(), date, series.ranges().stream().map(Range::serves).toList());
    }

    /** A date that a lane of a series that follows the calendar has passed. */
    static Optional<Refusal> outOfTurn(Series series, Optional<LaneState> lane, LocalDate date) {
        if (!series.policy().chronological()) return Optional.empty();
        return lane.flatMap(LaneState::latest)
                .filter(latest -> latest.isAfter(date))
                .map(latest -> new Refusal.NotChronological(series.key(), date, latest));
    }

    private Optional<Refusal> along(Range range) {
        LaneKey key = series.lane(range, particulars);
        Optional<LaneState> used = state.lane(key);
        long end = series.positions(range);
        Optional<Long> planned = plan.map(open -> open.plan().ends().get(key));
        if (planned.isPresent() && planned.get() > used.map(LaneState::next).orElse(0L))
            return aside(range, key, used, planned.get(), end);
        // What was returned may be in the table.
        if (used.isPresent() && planned.isEmpty()) returned(range, key, used.get());
        long position = used.map(LaneState::next).orElse(0L);
        if (position == end || wanted == 0) return Optional.empty();
        Optional<Refusal> outOfTurn = outOfTurn(series, used, particulars.date());
        if (outOfTurn.isPresent()) return outOfTurn;
        int lane = used.map(LaneState::lane).orElse(newLane);
        if (used.isEmpty()) {
            effects.add(new Effect.LaneOpened(lane, key));
            newLane++;
        }
        count(range, key, lane, position, end);
        return Optional.empty();
    }

    /**
     * While a plan for a table is carried out, numbers behind all of the table are given ahead of the counter: nobody
     * waits, and nobody gets a number that is about to be recorded.
     */
    private Optional<Refusal> aside(Range range, LaneKey key, Optional<LaneState> used, long behind, long end) {
        if (act.form().isBlock())
            return Optional.of(
                    new Refusal.PlanOpen(series.key(), plan.orElseThrow().seq()));
        Optional<Refusal> outOfTurn = outOfTurn(series, used, particulars.date());
        if (outOfTurn.isPresent()) return outOfTurn;
        int lane = used.map(LaneState::lane).orElse(newLane);
        NavigableMap<Long, Stretch> apart = used.isEmpty() ? Collections.emptyNavigableMap() : state.apart(lane);
        long position = Math.max(
                behind, apart.isEmpty() ? 0 : apart.lastEntry().getValue().to() + 1);
        if (position >= end) position = behind;
        var ahead = new Effect.Manner(manner.until(), true, Optional.empty());
        while (wanted > 0 && position < end) {
            Map.Entry<Long, Stretch> there = apart.floorEntry(position);
            if (there != null && there.getValue().to() >= position) {
                position = there.getValue().to() + 1;
                continue;
            }
            Map.Entry<Long, Stretch> next = apart.ceilingEntry(position);
            long free = next == null ? end : Math.min(end, next.getKey());
            position = behindSkipped(range, key, position, free);
            if (position == free) continue;
            if (used.isEmpty() && newLane == lane) {
                effects.add(new Effect.LaneOpened(lane, key));
                newLane++;
            }
            long behindGiven = behindGiven(range, key, position, free);
            give(range, key, lane, position, behindGiven, ahead);
            position = behindGiven;
        }
        return Optional.empty();
    }

    /**
     * What was returned is given before the counter goes on; a block is taken in one piece where it can be, and leaves
     * it to others.
     */
    private void returned(Range range, LaneKey key, LaneState lane) {
        if (act.form().isBlock() || !series.policy().givesAgain()) return;
        for (Stretch stretch :
                state.apart(lane.lane()).headMap(lane.next(), false).values())
            for (long position = stretch.from(); position <= stretch.to() && wanted > 0; position++)
                again(range, key, lane.lane(), stretch, position);
    }

    private boolean again(Range range, LaneKey key, int lane, Stretch stretch, long position) {
        Optional<List<Effect>> given = regiving.of(range, key, lane, stretch, position);
        given.ifPresent(effects::addAll);
        if (given.isPresent()) wanted--;
        return given.isPresent();
    }

    private void count(Range range, LaneKey key, int lane, long from, long end) {
        long position = from;
        while (wanted > 0 && position < end && pieces < MOST_PIECES) {
            Map.Entry<Long, Stretch> ahead = state.apart(lane).ceilingEntry(position);
            long free = ahead == null ? end : ahead.getKey();
            if (free == position) {
                position = past(range, key, lane, ahead.getValue());
                continue;
            }
            long behindSkipped = behindSkipped(range, key, position, free);
            if (behindSkipped > position)
                effects.add(new Effect.Skipped(lane, position, behindSkipped - 1, series.version(), particulars));
            position = behindSkipped;
            if (position == free) continue;
            long behindGiven = behindGiven(range, key, position, free);
            give(range, key, lane, position, behindGiven, manner);
            position = behindGiven;
        }
    }

    /**
     * The counter comes to what was typed ahead of it, and perhaps returned since.
     *
     * @return the position behind it
     */
    private long past(Range range, LaneKey key, int lane, Stretch stretch) {
        if (stretch.state() == PositionState.RETURNED
                && !act.form().isBlock()
                && series.policy().givesAgain()) {
            again(range, key, lane, stretch, stretch.from());
            effects.add(new Effect.Passed(lane, stretch.from(), stretch.from()));
            return stretch.from() + 1;
        }
        effects.add(new Effect.Passed(lane, stretch.from(), stretch.to()));
        return stretch.to() + 1;
    }

    /** The first position that is not skipped. */
    private long behindSkipped(Range range, LaneKey key, long from, long end) {
        long position = from;
        while (position < end) {
            long last = series.skippedTo(range, key, position);
            if (last < position) break;
            position = Math.min(end, last + 1);
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

    private void give(Range range, LaneKey key, int lane, long from, long behind, Effect.Manner how) {
        boolean block = act.form().isBlock();
        effects.add(new Effect.Issued(
                lane,
                from,
                behind - 1,
                series.version(),
                particulars,
                round(series, range, from),
                block ? List.of() : series.render(range, particulars, from, behind - from),
                how));
        wanted -= behind - from;
        if (block) pieces++;
    }

    /** The round of a position, 0 for a series that does not start over. */
    static long round(Series series, Range range, long position) {
        return series.order().repeats() ? series.order().round(range, position) : 0;
    }

    private Optional<LocalDate> opensNext(LocalDate date) {
        return series.ranges().stream()
                .map(Range::serves)
                .map(DateWindow::opens)
                .filter(opens -> opens.isAfter(date))
                .min(LocalDate::compareTo);
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
