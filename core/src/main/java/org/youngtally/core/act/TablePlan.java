package org.youngtally.core.act;

import java.util.Map;
import org.youngtally.core.series.LaneKey;

/**
 * What is to be done with the numbers of a table, as the ledger states it before any of it is done.
 *
 * @param version of the series by which the table was read
 * @param file the name of the table
 * @param fileDigest SHA-256 of the table's bytes, in small hexadecimal digits
 * @param digest SHA-256 of the plan, in small hexadecimal digits; by it the plan is kept
 * @param ends of each lane the first position behind the highest number of the table
 * @param preexisting how many numbers of the table are recorded as pre-existing
 * @param stretches in how many stretches they are recorded
 * @param rows how many rows get a new number
 */
public record TablePlan(
        String series,
        int version,
        String file,
        String fileDigest,
        String digest,
        Gaps gaps,
        Map<LaneKey, Long> ends,
        long preexisting,
        long stretches,
        long rows) {
    public TablePlan {
        ends = Map.copyOf(ends);
    }

    /** What becomes of the gaps between the numbers of a table. */
    public enum Gaps {
        /** They are allocated from now on, the lowest first. */
        KEEP("keep"),
        /** They become void, and counting goes on behind the highest number. */
        CLOSE("close");

        private final String word;

        Gaps(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /**
     * A plan that is begun and not ended.
     *
     * @param seq the entry that began it
     * @param recorded how many stretches are recorded by now
     * @param numbered how many rows have their number by now
     */
    public record Open(long seq, TablePlan plan, long recorded, long numbered) {
        /** Whether gaps below the highest numbers of the table are still to be closed. */
        public boolean leavesGaps(Counters counters) {
            return plan.gaps() == Gaps.CLOSE
                    && plan.ends().entrySet().stream()
                            .anyMatch(end -> counters.lanes().get(end.getKey()) == null
                                    || counters.lanes().get(end.getKey()).next() < end.getValue());
        }

        Open advanced(long nowRecorded, long nowNumbered) {
            return new Open(seq, plan, nowRecorded, nowNumbered);
        }
    }
}
