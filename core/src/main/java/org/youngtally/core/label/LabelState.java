package org.youngtally.core.label;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** How it is with one label of a job. The words are in the journal, the codes in the tables. */
public enum LabelState {
    /** It was not sent to a printer yet. */
    WAITING(0),
    /** It was sent, and nothing was heard of it yet. */
    SENT(1),
    /** The printer or a person said that it is printed. */
    PRINTED(2),
    /** The connection or the printer failed while it was on its way. */
    UNCONFIRMED(3),
    /** It is of no use. */
    SPOILED(4),
    /** It is never printed. */
    CANCELLED(5);

    private final byte code;

    LabelState(int code) {
        this.code = (byte) code;
    }

    /** By this the tables know it; it never changes. */
    public byte code() {
        return code;
    }

    public static LabelState of(byte code) {
        return Arrays.stream(values())
                .filter(state -> state.code == code)
                .findFirst()
                .orElseThrow();
    }

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<LabelState> of(String word) {
        return Arrays.stream(values())
                .filter(state -> state.word().equals(word))
                .findFirst();
    }

    /** Whether there is such a label, or is to be one. */
    public boolean isLive() {
        return this != SPOILED && this != CANCELLED;
    }

    /** Whether it may be out of the printer. */
    public boolean isOut() {
        return this == SENT || this == PRINTED || this == UNCONFIRMED;
    }
}
