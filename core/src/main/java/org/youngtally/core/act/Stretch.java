package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.List;

/**
 * Positions of a lane in a row that share one state and one origin.
 *
 * @param from the first position
 * @param to the last position, included
 * @param changed the entry that changed the state last; 0 where it is as it was given
 * @param block the block that the positions belong to, by the entry that made it; 0 for numbers that stand alone
 */
public record Stretch(long from, long to, PositionState state, long changed, long block, Origin origin) {

    public long quantity() {
        return to - from + 1;
    }

    public Stretch settled(PositionState now, long seq) {
        return new Stretch(from, to, now, seq, block, origin);
    }

    public Stretch inBlock(long newBlock) {
        return new Stretch(from, to, state, changed, newBlock, origin);
    }

    /** The part of it between two positions, which must lie in it at least in part. */
    public Stretch between(long lowest, long highest) {
        return new Stretch(Math.max(from, lowest), Math.min(to, highest), state, changed, block, origin);
    }

    /** What is left of it without the positions between two. */
    public List<Stretch> without(long lowest, long highest) {
        var rest = new ArrayList<Stretch>(2);
        if (from < lowest) rest.add(between(from, lowest - 1));
        if (to > highest) rest.add(between(highest + 1, to));
        return rest;
    }
}
