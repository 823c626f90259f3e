package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;

/**
 * Too little room on a disk.
 *
 * @param place a folder on it
 * @param left bytes that are left
 * @param needed bytes that must be left before anything is written
 */
public record Shortage(Path place, long left, long needed) {
    /** Whether a disk has refused a write for want of room. */
    static boolean saidBy(IOException failure) {
        String said = String.valueOf(failure.getMessage());
        return said.contains("No space left on device") || said.contains("Disk quota exceeded");
    }

    @Override
    public String toString() {
        return "the disk of " + place + " is full: %,d bytes are left, %,d are needed".formatted(left, needed);
    }
}
