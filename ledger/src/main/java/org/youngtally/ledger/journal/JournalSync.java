package org.youngtally.ledger.journal;

import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Brings a journal and its copy to the same end, byte for byte. The longer one wins where the other is its beginning;
 * where each has entries that the other lacks, neither is touched.
 *
 * @param main the journal's head, as it was found
 * @param copy the copy's head, as it was found
 */
public record JournalSync(Head main, Head copy) {
    private static final int PIECE = 1 << 20;
    /** Two files of one size whose ends are alike hold the same chain. */
    private static final int END = 4096;

    /** Entries that the journal lacked and has from the copy now. */
    public long recovered() {
        return Math.max(0, copy.seq() - main.seq());
    }

    /** Entries that the copy lacked and has now. */
    public long copied() {
        return Math.max(0, main.seq() - copy.seq());
    }

    /**
     * @param machineWentDown whether the run before may have ended with the machine, and not with the process alone
     * @param proved up to where the journal was proved before; absent to prove all of both
     * @return absent where the two are alike already
     * @throws JournalBroken where one of them is damaged, or the two went different ways
     */
    public static Optional<JournalSync> run(Disk main, Disk copy, boolean machineWentDown, Optional<Checkpoint> proved)
            throws IOException, JournalBroken {
        if (areAlike(main, copy)) return Optional.empty();
        Scan.Result ours = ended(main, Scan.of(main, Segment.sorted(main.names()), machineWentDown, proved));
        Scan.Result theirs = ended(copy, scannedCopy(copy, machineWentDown, proved));
        boolean forward = ours.head().seq() >= theirs.head().seq();
        Head shorter = forward ? theirs.head() : ours.head();
        Optional<Head> met = Journal.headAt(forward ? main : copy, shorter.seq());
        if (!met.equals(Optional.of(shorter)))
            throw new JournalBroken(
                    "the journal and its copy went different ways: entry " + shorter.seq() + " is not the same in both",
                    "Two ledgers have allocated numbers behind the same beginning. Find out which one people use, put the other one aside, and settle its numbers with ‘restore state’",
                    Head.EMPTY);
        if (forward) write(main, ours, copy, theirs);
        else write(copy, theirs, main, ours);
        return Optional.of(new JournalSync(ours.head(), theirs.head()));
    }

    private static Scan.Result scannedCopy(Disk copy, boolean machineWentDown, Optional<Checkpoint> proved)
            throws IOException, JournalBroken {
        try {
            return Scan.of(copy, Segment.sorted(copy.names()), machineWentDown, proved);
        } catch (JournalBroken e) {
            throw new JournalBroken(
                    "its copy: " + e.getMessage(),
                    "Put the copy aside and start again: a new one is made, which proves nothing of what was before",
                    Head.EMPTY);
        }
    }

    /** Writes the last line feed where it alone is missing: whatever opens the two later treats them alike. */
    private static Scan.Result ended(Disk disk, Scan.Result found) throws IOException {
        if (!found.feedMissing()) return found;
        try (Disk.AppendFile file = disk.append(found.segment())) {
            file.append(new byte[] {'\n'});
            file.force();
        }
        return new Scan.Result(found.head(), found.segment(), found.start(), found.offset(), false, found.from());
    }

    /** Whether both have the same files of the same sizes with the same end. */
    private static boolean areAlike(Disk main, Disk copy) throws IOException {
        List<String> segments = Segment.sorted(main.names());
        if (segments.isEmpty() || !segments.equals(Segment.sorted(copy.names()))) return false;
        for (String segment : segments) if (main.size(segment) != copy.size(segment)) return false;
        return Arrays.equals(end(main, segments.getLast()), end(copy, segments.getLast()));
    }

    private static byte[] end(Disk disk, String segment) throws IOException {
        try (InputStream in = disk.read(segment)) {
            in.skipNBytes(Math.max(0, disk.size(segment) - END));
            return in.readAllBytes();
        }
    }

    private static void write(Disk from, Scan.Result whole, Disk to, Scan.Result part) throws IOException {
        for (String segment : Segment.sorted(to.names())) {
            if (part.segment() == null || segment.compareTo(part.segment()) > 0) to.remove(segment);
            else if (segment.equals(part.segment())) cut(to, segment, part.offset());
        }
        for (String segment : Segment.sorted(from.names())) {
            if (whole.segment() == null || segment.compareTo(whole.segment()) > 0) break;
            boolean last = segment.equals(whole.segment());
            long size = last ? whole.offset() - (whole.feedMissing() ? 1 : 0) : from.size(segment);
            extend(from, to, segment, size, Long.MAX_VALUE);
        }
        if (whole.feedMissing() && to.size(whole.segment()) < whole.offset()) ended(to, whole);
    }

    private static void cut(Disk disk, String segment, long size) throws IOException {
        if (disk.size(segment) <= size) return;
        try (Disk.AppendFile file = disk.append(segment)) {
            file.truncate(size);
        }
    }

    /**
     * Writes into one disk what a file has more on another; it is on disk when this returns.
     *
     * @param size up to which it is written, in bytes
     * @param most bytes to write
     * @return how many were written
     */
    public static long extend(Disk from, Disk to, String segment, long size, long most) throws IOException {
        boolean there = to.names().contains(segment);
        long start = there ? to.size(segment) : 0;
        if (there && start >= size) return 0;
        try (Disk.AppendFile file = to.append(segment);
                InputStream in = from.read(segment)) {
            in.skipNBytes(start);
            long left = Math.min(most, size - start);
            long written = 0;
            while (written < left) {
                byte[] piece = in.readNBytes((int) Math.min(PIECE, left - written));
                if (piece.length == 0) throw new IOException(segment + " ends before it was said to");
                file.append(piece);
                written += piece.length;
            }
            file.force();
            return written;
        }
    }

    /**
     * Copies a journal to an empty place.
     *
     * @param to the last entry to copy
     */
    public static void copyUpTo(Disk from, Disk copy, Head to) throws IOException {
        List<String> segments = Segment.sorted(from.names());
        for (int i = 0; i < segments.size() && Segment.firstSeq(segments.get(i)) <= to.seq(); i++) {
            boolean last = i + 1 == segments.size() || Segment.firstSeq(segments.get(i + 1)) > to.seq();
            String segment = segments.get(i);
            extend(from, copy, segment, last ? end(from, segment, to) : from.size(segment), Long.MAX_VALUE);
        }
    }

    /** Where the line of an entry ends, in bytes from the start of its segment. */
    private static long end(Disk disk, String segment, Head to) throws IOException {
        try (var lines = new LineReader(disk.read(segment))) {
            for (byte[] bytes = lines.next(); bytes != null; bytes = lines.next()) {
                Optional<Line> line = Line.of(bytes);
                if (line.isPresent() && line.get().seq() == to.seq()) {
                    if (!line.get().head().equals(to)) break;
                    return lines.offset();
                }
            }
        }
        throw new IOException("the journal does not have the entry " + to);
    }

    /**
     * Writes into a journal what a copy has more; the copy is left as it is.
     *
     * @return how they were found: where the copy is shorter, nothing was done
     * @throws JournalBroken where one of them is damaged, or the two went different ways
     */
    public static JournalSync catchUp(Disk main, Disk copy) throws IOException, JournalBroken {
        Scan.Result ours = ended(main, Scan.of(main, Segment.sorted(main.names()), false));
        Scan.Result theirs = scannedCopy(copy, true, Optional.empty());
        boolean longer = theirs.head().seq() >= ours.head().seq();
        Head shorter = longer ? ours.head() : theirs.head();
        if (!Journal.headAt(longer ? copy : main, shorter.seq()).equals(Optional.of(shorter)))
            throw new JournalBroken("the journal and the copy went different ways: entry " + shorter.seq()
                    + " is not the same in both");
        if (longer) write(copy, theirs, main, ours);
        return new JournalSync(ours.head(), theirs.head());
    }

    /** The newest entry that a journal has on its disk as a whole, proved from its first line on. */
    public static Head head(Disk disk) throws IOException, JournalBroken {
        return Scan.of(disk, Segment.sorted(disk.names()), false).head();
    }

    /** The names of the files of a journal, in order. */
    public static List<String> segments(Disk disk) throws IOException {
        return Segment.sorted(disk.names());
    }
}
