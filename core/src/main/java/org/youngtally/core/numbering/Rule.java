package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Pattern;

/**
 * How the items of a document are numbered.
 *
 * @param choice which
 * @param order in what order
 * @param grid over each sheet, by which {@code column} and {@code row} are attributes
 * @param restarts the attributes with each of whose values the count begins again
 * @param same the attribute by which items are the same thing and share a number; those without a value stand alone
 * @param which of those that are chosen get a number
 * @param count where the numbers come from; absent for a series of the ledger
 * @param writing how the number is written
 * @param repeats whether a number may occur in several groups
 */
public record Rule(
        Choice choice,
        Order order,
        Optional<Grid> grid,
        List<String> restarts,
        Optional<String> same,
        Which which,
        Optional<Count> count,
        Writing writing,
        boolean repeats) {
    /** The number of the sheet, from 1, as an attribute. */
    public static final String SHEET = "sheet";
    /** The column of the grid. */
    public static final String COLUMN = "column";
    /** The row of the grid. */
    public static final String ROW = "row";

    public Rule {
        restarts = List.copyOf(restarts);
    }

    /**
     * The document's own count.
     *
     * @param start the first value of each group
     * @param step between two values
     */
    public record Count(Pattern pattern, Sum start, long step) {
        public Count {
            if (step < 1) throw new IllegalArgumentException("a step of " + step);
        }
    }

    /** What is wrong with it whatever the document. */
    public List<Fault> faults() {
        var faults = new ArrayList<Fault>();
        for (String name : count.map(each -> each.start().attributes()).orElse(Set.of()))
            if (!restarts.contains(name))
                faults.add(new Fault(
                        "start",
                        "follows from {" + name + "}, and the count does not begin again with it",
                        "add " + name + " to restarts"));
        boolean byGrid = restarts.contains(COLUMN) || restarts.contains(ROW);
        if (byGrid && grid.isEmpty())
            faults.add(new Fault("restarts", "name a column or row, and there is no grid", "add a grid"));
        if (count.isEmpty() && which == Which.ALL)
            faults.add(new Fault(
                    "number",
                    "would allocate second numbers of a series for what has one",
                    "number: missing; or undo first"));
        if (count.isEmpty() && which == Which.NONE)
            faults.add(new Fault(
                    "number",
                    "would leave numbers of a series without their item",
                    "undo, which voids or returns them"));
        if (count.isEmpty() && !restarts.isEmpty())
            faults.add(new Fault("restarts", "are those of the series", "remove restarts, or the series"));
        return faults;
    }

    /** Which of those that are chosen get a number. */
    public enum Which {
        /** Those without: they follow behind the greatest number of their group. */
        MISSING,
        /** All, from the start. */
        ALL,
        /** None: what was there before is put back. */
        NONE
    }
}
