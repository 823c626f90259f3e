package org.youngtally.printers;

import java.util.List;

/**
 * How it is with a job at the printer.
 *
 * @param pages that came out
 * @param reasons for its state, as RFC 8011, 5.3.8 and its registry write them
 */
public record JobStatus(State state, int pages, List<String> reasons) {
    public JobStatus {
        reasons = List.copyOf(reasons);
    }

    /** RFC 8011, 5.3.7. */
    public enum State {
        /** It waits for the printer. */
        PENDING,
        PROCESSING,
        /** The printer stopped in the middle of it, and goes on when somebody has seen to it. */
        STOPPED,
        /** All of it is printed. */
        COMPLETED,
        /** It ended before, and the rest is not printed. */
        ENDED
    }

    public boolean isOver() {
        return state == State.COMPLETED || state == State.ENDED;
    }
}
