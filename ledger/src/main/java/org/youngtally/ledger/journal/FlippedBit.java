package org.youngtally.ledger.journal;

import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Optional;

/**
 * One bit of a line that a disk or a memory has turned over: found again by trying each, since the line says what its
 * hash must be.
 *
 * @param place of the byte from the start of the line, from 0
 * @param was the byte as it was written
 */
record FlippedBit(int place, int was) {
    /** Trying the bits of a longer line would take long. */
    private static final int LONGEST = 4_096;

    /**
     * @param tail what is in the place of the line, up to the end of the segment
     * @param before the entry that the line follows
     * @return absent where no single bit makes the line right
     */
    static Optional<FlippedBit> in(byte[] tail, Head before, MessageDigest sha256) {
        byte[] tried = Arrays.copyOf(tail, Math.min(tail.length, LONGEST));
        for (int place = 0; place < tried.length; place++) {
            byte found = tried[place];
            for (int bit = 0; bit < Byte.SIZE; bit++) {
                tried[place] = (byte) (found ^ 1 << bit);
                int end = end(tried);
                if (end < 0 || place > end) continue;
                Optional<Line> line = Line.of(Arrays.copyOf(tried, end));
                if (line.isPresent()
                        && line.get().seq() == before.seq() + 1
                        && line.get().follows(before.hash(), sha256))
                    return Optional.of(new FlippedBit(place, tried[place] & 0xff));
            }
            tried[place] = found;
        }
        return Optional.empty();
    }

    private static int end(byte[] bytes) {
        for (int i = 0; i < bytes.length; i++) if (bytes[i] == '\n') return i;
        return -1;
    }

    /** @param offset of the line in its segment, in bytes */
    String wayOut(String segment, long offset) {
        return "One bit was turned over: byte " + (offset + place) + ", counted from 0, was " + was
                + ". With the service stopped, put it back in the folder of the journal: printf '\\%03o'".formatted(was)
                + " | dd of=" + segment + " bs=1 seek=" + (offset + place) + " conv=notrunc";
    }
}
