package org.youngtally.core.repair;

import java.time.LocalDate;
import java.util.Set;
import org.youngtally.core.act.TablePlan.Gaps;

/**
 * How a table is repaired.
 *
 * @param keep of rows with the same number, which one keeps it
 * @param chosen lines of rows that keep their number, whatever the rule says
 * @param fixed lines whose cell is not written over; their numbers are recorded all the same
 * @param date of numbers that are allocated to rows without a date of their own
 */
public record Choices(Gaps gaps, Keep keep, Set<Long> chosen, Set<Long> fixed, LocalDate date) {
    public Choices {
        chosen = Set.copyOf(chosen);
        fixed = Set.copyOf(fixed);
    }

    /** Which of several rows with the same number keeps it. */
    public enum Keep {
        FIRST("first"),
        OLDEST("oldest");

        private final String word;

        Keep(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }
}
