package org.youngtally.ledger.audit;

import java.util.Map;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;

/**
 * A sum over the positions of a lane that depends neither on the order in which they are added nor on how they are cut
 * into stretches, by which two accounts of the lane are compared without keeping either in memory. Each position has a
 * weight, the difference of a cubic polynomial modulo 2^64, so that a stretch is added by its ends. It finds damage and
 * mistakes; it is no seal, which is what the journal's hashes are.
 */
final class LaneDigest {
    private long sum;

    void add(Stretch stretch) {
        sum += whole(stretch);
    }

    /** A position that was returned is given anew. */
    void giveAgain(Stretch formerly, Stretch now) {
        sum += whole(now) - whole(formerly);
    }

    void settle(long from, long to, PositionState was, long since, PositionState now, long seq) {
        sum += (state(now, seq) - state(was, since)) * weight(from, to);
    }

    void hand(long from, long to, long was, long now) {
        sum += (block(now) - block(was)) * weight(from, to);
    }

    private static long whole(Stretch stretch) {
        return (origin(stretch.origin()) + state(stretch.state(), stretch.changed()) + block(stretch.block()))
                * weight(stretch.from(), stretch.to());
    }

    private static long origin(Origin origin) {
        long mixed = mix(origin.seq());
        mixed = mix(mixed ^ origin.version());
        mixed = mix(mixed ^ origin.particulars().date().toEpochDay());
        mixed = mix(mixed ^ (origin.ahead() ? 1 : 0));
        if (origin.until().isPresent())
            mixed = mix(mix(mixed ^ origin.until().get().getEpochSecond())
                    ^ origin.until().get().getNano());
        for (Map.Entry<String, String> field : origin.particulars().fields().entrySet())
            mixed = mix(
                    mix(mixed ^ field.getKey().hashCode()) ^ field.getValue().hashCode());
        if (origin.text().isPresent())
            for (int i = 0; i < origin.text().get().length(); i++)
                mixed = mix(mixed ^ origin.text().get().charAt(i));
        return mixed;
    }

    private static long state(PositionState state, long changed) {
        return mix(mix(state.code() + 0x51L) ^ changed);
    }

    private static long block(long block) {
        return mix(block ^ 0xb10cL);
    }

    private static long weight(long from, long to) {
        return cubic(to + 1) - cubic(from);
    }

    private static long cubic(long n) {
        return ((n * 0x9e3779b97f4a7c15L + 0xbf58476d1ce4e5b9L) * n + 0x94d049bb133111ebL) * n;
    }

    /** The finisher of SplitMix64 (Steele, Lea and Flood, 2014). */
    private static long mix(long z) {
        z += 0x9e3779b97f4a7c15L;
        z = (z ^ (z >>> 30)) * 0xbf58476d1ce4e5b9L;
        z = (z ^ (z >>> 27)) * 0x94d049bb133111ebL;
        return z ^ (z >>> 31);
    }

    boolean agrees(LaneDigest other) {
        return sum == other.sum;
    }
}
