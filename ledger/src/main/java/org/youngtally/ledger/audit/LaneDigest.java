package org.youngtally.ledger.audit;

import java.util.Map;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.ledger.store.PositionState;

/**
 * A sum over the stretches of a lane that does not depend on their order, by which two accounts of the lane are compared without
 * keeping either in memory. It finds damage and mistakes; it is no seal, which is what the journal's hashes are.
 */
final class LaneDigest {
    private long sum;
    private long stretches;

    /** @param text of a single number; absent for a block and for what was skipped */
    void add(PositionState state, long from, long to, long seq, int version, Particulars particulars, String text) {
        long mixed = mix(from + 1);
        mixed = mix(mixed ^ to);
        mixed = mix(mixed ^ seq);
        mixed = mix(mixed ^ version);
        mixed = mix(mixed ^ particulars.date().toEpochDay());
        mixed = mix(mixed ^ state.code());
        for (Map.Entry<String, String> field : particulars.fields().entrySet()) mixed = mix(mix(mixed ^ field.getKey().hashCode()) ^ field.getValue().hashCode());
        if (text != null) for (int i = 0; i < text.length(); i++) mixed = mix(mixed ^ text.charAt(i));
        sum += mixed;
        stretches++;
    }

    /** The finisher of SplitMix64 (Steele, Lea and Flood, 2014). */
    private static long mix(long z) {
        z += 0x9e3779b97f4a7c15L;
        z = (z ^ (z >>> 30)) * 0xbf58476d1ce4e5b9L;
        z = (z ^ (z >>> 27)) * 0x94d049bb133111ebL;
        return z ^ (z >>> 31);
    }

    boolean agrees(LaneDigest other) { return sum == other.sum && stretches == other.stretches; }
}
