package org.youngtally.core.act;

import java.util.Arrays;

/**
 * What a position of a lane is, once it was given or passed over. The codes are in the tables, the words in the
 * journal.
 */
public enum PositionState {
    ISSUED(1, "issued"),
    SKIPPED(2, "skipped"),
    HELD(3, "held"),
    RETURNED(4, "returned"),
    VOIDED(5, "voided"),
    LAPSED(6, "lapsed"),
    RELEASED(7, "released"),
    UNUSED(8, "unused"),
    CLOSED(9, "closed"),
    USED(10, "used"),
    PREEXISTING(11, "pre-existing"),
    GAP_CLOSED(12, "gap-closed"),
    /** It may have been issued by a later state of the ledger that is lost. */
    IN_DOUBT(13, "in-doubt");

    private final byte code;
    private final String word;

    PositionState(int code, String word) {
        this.code = (byte) code;
        this.word = word;
    }

    public byte code() {
        return code;
    }

    public String word() {
        return word;
    }

    public static PositionState of(byte code) {
        return Arrays.stream(values())
                .filter(state -> state.code == code)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no position has the state " + code));
    }

    public static PositionState of(String word) {
        return Arrays.stream(values())
                .filter(state -> state.word.equals(word))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no position is ‘" + word + "’"));
    }

    /** Whether the number stands for something, is set aside for it, or may stand for it. */
    public boolean isLive() {
        return this == HELD || this == ISSUED || this == USED || this == PREEXISTING || this == IN_DOUBT;
    }

    /** Whether it stands for nothing and never will. */
    public boolean isVoid() {
        return !isLive() && this != RETURNED;
    }
}
