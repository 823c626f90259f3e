package org.youngtally.ledger.journal;

/**
 * A place in a journal up to which it was proved once: where the last line of a whole batch stands.
 *
 * @param head the entry of that line
 * @param segment the file that has it
 * @param start where the line begins, in bytes from the start of its segment
 * @param end where it ends, its line feed included
 */
public record Checkpoint(Head head, String segment, long start, long end) {
    public Checkpoint {
        if (!Segment.is(segment) || start < 0 || end <= start)
            throw new IllegalArgumentException("no place in a journal: " + segment + " from " + start + " to " + end);
    }
}
