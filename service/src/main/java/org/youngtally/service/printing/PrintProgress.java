package org.youngtally.service.printing;

import java.util.Locale;
import java.util.Optional;
import org.youngtally.printers.PrinterAddress;

/**
 * How it is with a job at its printer.
 *
 * @param problem what the printer said, or what went wrong; a clause for people that follows the name of the printer
 */
public record PrintProgress(PrinterAddress printer, State state, Optional<String> problem) {
    /** How far it is. */
    public enum State {
        /** Others are printed before. */
        QUEUED,
        PRINTING,
        /** The printer stopped in the middle, and goes on when somebody has seen to it. */
        STOPPED,
        /** It ended before everything was printed. */
        FAILED,
        DONE;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    boolean isOver() {
        return state == State.FAILED || state == State.DONE;
    }
}
