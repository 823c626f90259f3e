package org.youngtally.printers;

import java.io.IOException;

/** A printer did not do what was asked of it. The message is a clause for people that follows its name. */
public final class PrinterException extends IOException {
    private static final long serialVersionUID = 1;

    /** What went wrong. */
    public enum Reason {
        /** It cannot be reached, or the connection broke: whether it did anything is not known. */
        UNREACHABLE,
        /** What it answered is no answer of a printer: whether it did anything is not known. */
        NONSENSE,
        /** It said that it does not do it. */
        REFUSED,
        /** It knows no such job. */
        UNKNOWN_JOB
    }

    private final Reason reason;

    PrinterException(Reason reason, String message) {
        super(message);
        this.reason = reason;
    }

    PrinterException(Reason reason, String message, Throwable cause) {
        super(message, cause);
        this.reason = reason;
    }

    public Reason reason() {
        return reason;
    }
}
