package org.youngtally.ledger.journal;

import java.io.IOException;
import java.security.MessageDigest;
import java.util.List;
import java.util.Optional;

/**
 * Reads a whole journal at start: proves the chain, finds the last whole batch, and tells an unfinished end, which was
 * never answered and may be dropped, from a break in what was answered.
 */
final class Scan {
    private final MessageDigest sha256 = Sha256.fresh();
    private Head head = Head.EMPTY;
    private Head wholeHead = Head.EMPTY;
    private int inBatch;
    private String breakage;
    private String wholeSegment;
    private long wholeOffset;
    /** After a break: the line before, to recognise a run of lines that still hang together. */
    private Line strayLine;

    private int strayRun;

    /**
     * What was found.
     *
     * @param head of the last whole batch
     * @param segment the segment where it ends; null for an empty journal
     * @param offset the bytes of that segment up to its end
     */
    record Result(Head head, String segment, long offset) {}

    static Result of(Disk disk, List<String> segments) throws IOException, JournalBroken {
        return new Scan().scan(disk, segments);
    }

    private Result scan(Disk disk, List<String> segments) throws IOException, JournalBroken {
        for (String segment : segments) {
            if (breakage == null && Segment.firstSeq(segment) != wholeHead.seq() + 1) {
                if (inBatch > 0 || Segment.firstSeq(segment) <= wholeHead.seq() + 1)
                    breakage = "segment " + segment + " does not follow entry " + wholeHead.seq();
                else
                    throw new JournalBroken("the entries from " + (wholeHead.seq() + 1) + " to "
                            + (Segment.firstSeq(segment) - 1) + " are missing: no segment holds them");
            }
            try (var lines = new LineReader(disk.read(segment))) {
                for (byte[] bytes = lines.next(); bytes != null; bytes = lines.next()) {
                    Optional<Line> line = Line.of(bytes);
                    if (breakage == null) follow(line, segment, lines.offset());
                    else afterBreak(line, segment);
                }
            }
        }
        return new Result(wholeHead, wholeSegment, wholeOffset);
    }

    private void follow(Optional<Line> line, String segment, long offset) throws JournalBroken {
        if (line.isEmpty() || line.get().seq() != head.seq() + 1 || !line.get().follows(head.hash(), sha256)) {
            breakage = "segment " + segment + ", entry " + (head.seq() + 1) + ": the line is not what was written";
            afterBreak(line, segment);
            return;
        }
        head = line.get().head();
        inBatch++;
        if (line.get().batch() == 0) return;
        if (line.get().batch() != inBatch)
            throw new JournalBroken("segment " + segment + ", entry " + head.seq() + ": the batch has " + inBatch
                    + " lines instead of " + line.get().batch());
        inBatch = 0;
        wholeHead = head;
        wholeSegment = segment;
        wholeOffset = offset;
    }

    /**
     * A break inside the last batch is an unfinished write. It is a break in what was answered where a later batch is
     * whole, for a batch is only written once the one before is on disk.
     */
    private void afterBreak(Optional<Line> line, String segment) throws JournalBroken {
        if (line.isEmpty()) {
            strayLine = null;
            return;
        }
        Line now = line.get();
        boolean linked = strayLine != null && now.seq() == strayLine.seq() + 1 && now.follows(strayLine.hash(), sha256);
        strayRun = linked ? strayRun + 1 : 1;
        strayLine = now;
        boolean startsAfterTheBreak = now.batch() > 0 && now.seq() - now.batch() > head.seq();
        // The first line of a run cannot be checked, so it takes the batch's other lines, or one line more, to vouch
        // for it.
        if (startsAfterTheBreak && (now.batch() == 1 || strayRun >= now.batch()))
            throw new JournalBroken(breakage + "; whole entries follow it in " + segment + " up to " + now.seq());
    }
}
