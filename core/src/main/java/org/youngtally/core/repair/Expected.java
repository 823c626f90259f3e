package org.youngtally.core.repair;

import it.unimi.dsi.fastutil.longs.LongArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.act.TablePlan.Gaps;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Which numbers rows get once a plan is carried out, if nobody does anything else meanwhile. */
final class Expected {
    /** Positions of a lane that are looked up in the ledger at once. */
    private static final int PAGE = 1_000;

    private final Series series;
    private final LedgerNumbers ledger;
    private final Gaps gaps;
    /** Of each lane the positions that the plan records, in order. */
    private final Map<LaneKey, LongArrayList> recorded;

    private final Map<LaneKey, Cursor> cursors = new HashMap<>();

    Expected(Series series, LedgerNumbers ledger, Gaps gaps, Map<LaneKey, LongArrayList> recorded) {
        this.series = series;
        this.ledger = ledger;
        this.gaps = gaps;
        this.recorded = recorded;
    }

    /** The next number for particulars; absent where the ranges that serve the date are exhausted. */
    Optional<String> next(Particulars particulars) {
        for (Range range : series.serving(particulars.date())) {
            LaneKey lane = series.lane(range, particulars);
            Optional<Long> position = cursors.computeIfAbsent(lane, added -> new Cursor(lane, range))
                    .next();
            if (position.isPresent()) return Optional.of(series.render(range, particulars, position.get()));
        }
        return Optional.empty();
    }

    /** Goes along the positions of a lane that nobody has. */
    private final class Cursor {
        private final LaneKey lane;
        private final Range range;
        private final long counter;
        private final LongArrayList own;
        private long at;
        private int passed;
        private long pageEnd = -1;
        private List<Stretch> page = List.of();

        Cursor(LaneKey lane, Range range) {
            this.lane = lane;
            this.range = range;
            this.own = recorded.getOrDefault(lane, new LongArrayList());
            boolean returned = series.policy().givesAgain();
            long start = ledger.next(lane);
            if (gaps == Gaps.CLOSE && !own.isEmpty()) start = Math.max(start, own.getLong(own.size() - 1) + 1);
            counter = start;
            at = returned ? 0 : start;
        }

        Optional<Long> next() {
            for (; at < series.positions(range); at++) {
                while (passed < own.size() && own.getLong(passed) < at) passed++;
                if (passed < own.size() && own.getLong(passed) == at) continue;
                Optional<Stretch> there = there();
                boolean returned = there.isPresent()
                        && there.get().state() == PositionState.RETURNED
                        && series.policy().givesAgain();
                if (there.isPresent() && !returned) {
                    at = Math.max(at, there.get().to());
                    continue;
                }
                if (there.isEmpty() && at < counter) continue;
                if (series.skippedTo(range, lane, at) >= at) continue;
                return Optional.of(at++);
            }
            return Optional.empty();
        }

        /** What the ledger has at the position. */
        private Optional<Stretch> there() {
            if (at > pageEnd) {
                pageEnd = at + PAGE;
                page = ledger.stretches(lane, at, pageEnd);
            }
            return page.stream()
                    .filter(stretch -> stretch.from() <= at && at <= stretch.to())
                    .findFirst();
        }
    }
}
