package org.youngtally.ledger.powercut;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Random;

/**
 * One file as it is seen while the power is on, and as it lies on the disk: what was forced, and of the rest whatever
 * sectors happened to be written back, in any order and not all of them.
 */
final class Platter {
    private static final int SECTOR = 512;

    private byte[] seen = new byte[0];
    private byte[] kept = new byte[0];
    private final BitSet unforced = new BitSet();

    synchronized int size() {
        return seen.length;
    }

    synchronized void write(long position, ByteBuffer bytes) {
        int from = (int) position;
        int length = bytes.remaining();
        if (seen.length < from + length) seen = Arrays.copyOf(seen, from + length);
        bytes.get(seen, from, length);
        unforced.set(from / SECTOR, (from + Math.max(1, length) - 1) / SECTOR + 1);
    }

    synchronized void truncate(long size) {
        if (size < seen.length) {
            seen = Arrays.copyOf(seen, (int) size);
            unforced.set((int) size / SECTOR);
        }
    }

    synchronized byte[] content() {
        return seen.clone();
    }

    synchronized void force() {
        unforced.stream().forEach(this::keep);
        kept = Arrays.copyOf(kept, seen.length);
        unforced.clear();
    }

    /** Some of the unforced sectors reach the disk, as the system sees fit. */
    synchronized void writeBack(Random random, double share) {
        for (int sector : unforced.stream().toArray()) {
            if (random.nextDouble() >= share) continue;
            keep(sector);
            unforced.clear(sector);
        }
    }

    private void keep(int sector) {
        int from = sector * SECTOR;
        int to = Math.min(from + SECTOR, seen.length);
        if (to <= from) return;
        if (kept.length < to) kept = Arrays.copyOf(kept, to);
        System.arraycopy(seen, from, kept, from, to - from);
    }

    /** The file as it is found when the power is back. */
    synchronized byte[] found(Random random) {
        writeBack(random, random.nextDouble());
        boolean lengthReached = random.nextBoolean();
        return lengthReached ? Arrays.copyOf(kept, seen.length) : kept.clone();
    }
}
