package org.youngtally.core.act;

import java.util.List;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;

/** A step of carrying out a plan for the numbers of a table. */
public sealed interface PlanStep {

    /**
     * State the plan.
     *
     * @param standing how the series stood when the plan was made, see {@link SeriesStanding}
     * @param reason why; gaps are not closed without one
     */
    record Begin(TablePlan plan, String standing, Optional<String> reason) implements PlanStep {}

    /**
     * Record numbers of the table as pre-existing.
     *
     * @param plan the entry that began it
     * @param from how many stretches are recorded already
     */
    record Record(long plan, long from, List<InUse> stretches) implements PlanStep {
        public Record {
            stretches = List.copyOf(stretches);
        }
    }

    /**
     * Numbers in a row that are in use.
     *
     * @param together whether they are kept as one stretch, without their texts
     * @param lines where they are in the table
     */
    record InUse(LaneKey lane, Particulars particulars, long from, long to, boolean together, FileLines lines) {}

    /** Close gaps below the highest numbers of the table, as many as one act may. */
    record CloseGaps(long plan) implements PlanStep {}

    /** Say that all of it is done. */
    record Complete(long plan) implements PlanStep {}

    /**
     * Say that it is not gone on with.
     *
     * @param reason why
     */
    record Abandon(long plan, Optional<String> reason) implements PlanStep {}
}
