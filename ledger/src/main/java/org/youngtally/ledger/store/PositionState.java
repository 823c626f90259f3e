package org.youngtally.ledger.store;

/** What a position is. The codes stand in the tables. */
public enum PositionState {
    ISSUED(1), SKIPPED(2);

    private final byte code;

    PositionState(int code) {
        this.code = (byte) code;
    }

    public byte code() { return code; }

    public static PositionState of(byte code) {
        for (PositionState state : values()) if (state.code == code) return state;
        throw new IllegalArgumentException("no position has the state " + code);
    }
}
