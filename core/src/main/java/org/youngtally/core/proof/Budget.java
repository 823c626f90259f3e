package org.youngtally.core.proof;

/**
 * How much a proof may look at, counted in states, combinations and dates and not in time, so that a definition gets
 * the same answer on every machine. What takes memory is counted before it is built: a proof that keeps within the
 * budget needs some 250 MB at the most.
 */
public final class Budget {
    /** Four times what three hundred series in one namespace take; about ten seconds of one core. */
    public static final long USUAL = 200_000_000;

    /** A date's texts or a combination of codes, which are kept until the proof ends. */
    static final int KEPT = 200;

    /** What stands around the count on a date, with the ways in which it is found again; kept as well. */
    static final int FRAME = 400;

    /** A state of two languages that are laid over each other. */
    static final int STATE = 10;

    /** A move from one such state to another. */
    static final int MOVE = 4;

    /** A pair of frames, or a symbol of a text that is read again. */
    static final int COMPARED = 5;

    /** The budget is spent: the proof ends without an answer. */
    static final class Spent extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Spent() {
            super("the budget of the proof is spent", null, false, false);
        }
    }

    private final long whole;
    private long left;

    public Budget(long units) {
        this.whole = units;
        this.left = units;
    }

    /** Before so much is looked at or built. */
    void spend(long units) {
        left -= units;
        if (left < 0) throw new Spent();
    }

    long whole() {
        return whole;
    }

    long spent() {
        return whole - left;
    }
}
