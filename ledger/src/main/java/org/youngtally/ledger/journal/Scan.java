package org.youngtally.ledger.journal;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipException;

/**
 * Reads a whole journal at start: proves the chain, finds the last whole batch, and tells an unfinished end, which was
 * never answered and may be dropped, from damage to what was answered.
 *
 * <p>A batch is written by one call, and answered once it is forced. A process that ends in between leaves the first
 * part of a batch: whole lines, and perhaps the beginning of one more. A machine that goes down leaves any sectors of
 * it, and zeros in the place of others. Whatever else stands behind the last whole batch was answered and has changed
 * since.
 */
final class Scan {
    /** Of what stands behind the last good line, so much is kept to be looked at. */
    private static final int LONGEST_TAIL = 1 << 20;

    private final Disk disk;
    private final boolean machineWentDown;
    private final MessageDigest sha256 = Sha256.fresh();
    private Head head = Head.EMPTY;
    private Head wholeHead = Head.EMPTY;
    private int inBatch;
    private String wholeSegment;
    private long wholeStart;
    private long wholeOffset;
    private boolean feedMissing;
    private Break broken;
    /** After a break: the line before, to recognise a run of lines that still hang together. */
    private Line strayLine;

    private int strayRun;

    /**
     * Where the chain ends that can be proved.
     *
     * @param offset where the line begins, in bytes
     * @param line its number in the segment, from 1
     * @param tail what stands there up to the end of the segment
     * @param ended whether its last byte is a line feed
     */
    private record Break(String segment, long offset, int line, ByteArrayOutputStream tail, boolean ended) {
        Break(String segment, long offset, int line) {
            this(segment, offset, line, new ByteArrayOutputStream(), false);
        }

        Break with(byte[] bytes, boolean feed) {
            if (tail.size() < LONGEST_TAIL) tail.writeBytes(bytes);
            if (feed && tail.size() < LONGEST_TAIL) tail.write('\n');
            return new Break(segment, offset, line, tail, feed);
        }
    }

    /**
     * What was found.
     *
     * @param head of the last whole batch
     * @param segment the segment where it ends; null for an empty journal
     * @param start where its last line begins
     * @param offset the bytes of that segment up to its end
     * @param feedMissing whether the line feed behind it is still to be written
     * @param from the last entry that was not proved again; {@link Head#EMPTY} where the whole journal was
     */
    record Result(Head head, String segment, long start, long offset, boolean feedMissing, Head from) {
        Checkpoint end() {
            return new Checkpoint(head, segment, start, offset);
        }
    }

    private Scan(Disk disk, boolean machineWentDown) {
        this.disk = disk;
        this.machineWentDown = machineWentDown;
    }

    /** @param machineWentDown whether the run before may have ended with the machine, and not with the process alone */
    static Result of(Disk disk, List<String> segments, boolean machineWentDown) throws IOException, JournalBroken {
        return new Scan(disk, machineWentDown).scan(segments);
    }

    /**
     * The same, without what was proved before.
     *
     * @param proved where to begin; what is damaged behind it is looked for from the first line, to be told exactly
     */
    static Result of(Disk disk, List<String> segments, boolean machineWentDown, Optional<Checkpoint> proved)
            throws IOException, JournalBroken {
        if (proved.isPresent() && holds(disk, segments, proved.get())) {
            try {
                return new Scan(disk, machineWentDown).scan(segments, proved.get());
            } catch (JournalBroken e) {
                // Said again from the first line on, by its number in its segment.
                return of(disk, segments, machineWentDown);
            }
        }
        return of(disk, segments, machineWentDown);
    }

    /** Whether a journal has the line that a checkpoint names. */
    private static boolean holds(Disk disk, List<String> segments, Checkpoint checkpoint) throws IOException {
        if (!segments.contains(checkpoint.segment())
                || Segment.firstSeq(segments.getFirst()) != 1
                || disk.size(checkpoint.segment()) < checkpoint.end()) return false;
        try (InputStream in = disk.read(checkpoint.segment())) {
            in.skipNBytes(checkpoint.start());
            byte[] bytes = in.readNBytes(Math.toIntExact(checkpoint.end() - checkpoint.start()));
            return bytes[bytes.length - 1] == '\n'
                    && Line.of(Arrays.copyOf(bytes, bytes.length - 1))
                            .map(Line::head)
                            .equals(Optional.of(checkpoint.head()));
        } catch (ZipException | EOFException e) {
            // Whoever reads the segment from its first line says what is wrong with it.
            return false;
        }
    }

    private Result scan(List<String> segments) throws IOException, JournalBroken {
        return scan(segments, Head.EMPTY);
    }

    private Result scan(List<String> segments, Checkpoint from) throws IOException, JournalBroken {
        head = from.head();
        wholeHead = head;
        wholeSegment = from.segment();
        wholeStart = from.start();
        wholeOffset = from.end();
        read(from.segment(), from.end());
        return scan(
                segments.stream()
                        .filter(segment -> segment.compareTo(from.segment()) > 0)
                        .toList(),
                from.head());
    }

    private Result scan(List<String> segments, Head from) throws IOException, JournalBroken {
        for (String segment : segments) {
            if (broken != null || inBatch > 0) nothingMayFollow(segment);
            else if (Segment.firstSeq(segment) != wholeHead.seq() + 1) doesNotFollow(segment);
            else read(segment, 0);
        }
        if (broken != null) judge();
        return new Result(wholeHead, wholeSegment, wholeStart, wholeOffset, feedMissing, from);
    }

    private void doesNotFollow(String segment) throws JournalBroken {
        long expected = wholeHead.seq() + 1;
        if (Segment.firstSeq(segment) > expected)
            throw new JournalBroken("the entries from " + expected + " to " + (Segment.firstSeq(segment) - 1)
                    + " are missing: no segment holds them");
        throw new JournalBroken("segment " + segment + " does not follow entry " + wholeHead.seq());
    }

    /** A segment begins once the one before is on disk as a whole. */
    private void nothingMayFollow(String segment) throws IOException, JournalBroken {
        try (var bytes = disk.read(segment)) {
            if (bytes.read() < 0) return;
        }
        if (broken == null)
            throw new JournalBroken("segment " + wholeSegment + " ends inside a batch, after entry " + head.seq()
                    + ", and segment " + segment + " follows it");
        throw damage("whole entries follow it, in segment " + segment);
    }

    private void read(String segment, long from) throws IOException, JournalBroken {
        try (var lines = LineReader.from(disk.read(segment), from)) {
            for (byte[] bytes = lines.next(); bytes != null; bytes = lines.next()) {
                Optional<Line> line = Line.of(bytes);
                if (broken == null && !follows(line)) broken = new Break(segment, lines.start(), lines.number());
                if (broken == null) {
                    follow(line.orElseThrow(), segment, lines.offset());
                } else {
                    broken = broken.with(bytes, true);
                    afterBreak(line);
                }
            }
            if (lines.rest().length > 0) rest(segment, lines);
        } catch (ZipException | EOFException e) {
            if (broken == null) throw Segment.notUnpacked(segment, e, wholeHead);
            throw damage("the segment cannot be unpacked behind it");
        }
    }

    private boolean follows(Optional<Line> line) {
        return line.isPresent()
                && line.get().seq() == head.seq() + 1
                && line.get().follows(head.hash(), sha256);
    }

    private void follow(Line line, String segment, long offset) throws JournalBroken {
        head = line.head();
        inBatch++;
        if (line.batch() == 0) return;
        if (line.batch() != inBatch)
            throw new JournalBroken("segment " + segment + ", entry " + head.seq() + ": the batch has " + inBatch
                    + " lines instead of " + line.batch());
        inBatch = 0;
        wholeHead = head;
        wholeSegment = segment;
        wholeStart = offset - line.bytes().length - 1;
        wholeOffset = offset;
    }

    /** What stands behind the last line feed. */
    private void rest(String segment, LineReader lines) throws JournalBroken {
        if (broken != null) {
            broken = broken.with(lines.rest(), false);
            return;
        }
        Optional<Line> line = Line.of(lines.rest());
        if (follows(line) && line.get().batch() == inBatch + 1) {
            // All of the batch is there but its last line feed: it is kept, since it may have been answered.
            follow(line.get(), segment, lines.offset() + lines.rest().length + 1);
            feedMissing = true;
            return;
        }
        broken = new Break(segment, lines.offset(), lines.number() + 1).with(lines.rest(), false);
    }

    /** A batch is only written once the one before is on disk, so that nothing whole can follow an unfinished one. */
    private void afterBreak(Optional<Line> line) throws IOException, JournalBroken {
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
            throw damage("whole entries follow it up to " + now.seq());
    }

    /** Whether what stands behind the last good line is an unfinished write, or throws because it is damage. */
    private void judge() throws IOException, JournalBroken {
        byte[] tail = broken.tail().toByteArray();
        if (isLineWithAnotherEnd(tail)) throw damage("its line feed was replaced by another byte");
        if (machineWentDown && (!broken.ended() || hasZeros(tail))) return;
        if (!broken.ended() && isBeginningOfALine(tail)) return;
        throw damage("no write that was interrupted leaves it so");
    }

    private boolean isLineWithAnotherEnd(byte[] tail) {
        return tail.length > 1 && !broken.ended() && follows(Line.of(Arrays.copyOf(tail, tail.length - 1)));
    }

    private static boolean hasZeros(byte[] tail) {
        for (byte each : tail) if (each == 0) return true;
        return false;
    }

    /** What one interrupted call leaves of a line. */
    private boolean isBeginningOfALine(byte[] tail) {
        for (byte each : tail) if (each >= 0 && each < ' ') return false;
        byte[] start = Line.start(head.seq() + 1);
        int common = Math.min(start.length, tail.length);
        return Arrays.equals(start, 0, common, tail, 0, common);
    }

    private JournalBroken damage(String why) throws IOException {
        boolean packed = disk.isPacked(broken.segment());
        String file = broken.segment() + (packed ? Segment.PACKED : "");
        String line = "line " + broken.line() + " of " + file + " (entry " + (head.seq() + 1)
                + ") is not what was written: " + why;
        Optional<String> flipped = packed
                ? Optional.empty()
                : FlippedBit.in(broken.tail().toByteArray(), head, sha256)
                        .map(flip -> flip.wayOut(broken.segment(), broken.offset()));
        return new JournalBroken(line, flipped.orElseGet(() -> Segment.wayOut(file, head)), wholeHead);
    }
}
