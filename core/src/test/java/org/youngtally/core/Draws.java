package org.youngtally.core;

import java.util.SplittableRandom;

/** Cases that are drawn: a tenth of an evening's, or the share that {@code -Ddraws} says in percent. */
public final class Draws {
    private static final int SHARE = Integer.getInteger("draws", 10);
    private static final long FIRST_SEED = Long.getLong("proof.seed", 0);

    private Draws() {}

    /** How many of an evening's cases are tried. */
    public static int of(int evening) {
        return Math.max(1, evening * SHARE / 100);
    }

    /** Their seeds, other ones for each commit; far apart, as neighbouring seeds of a generator begin alike. */
    public static long[] seeds(int evening) {
        return new SplittableRandom(FIRST_SEED).longs(of(evening)).toArray();
    }
}
