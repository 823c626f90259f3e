package org.youngtally.ledger.journal;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.util.List;
import java.util.Optional;

/**
 * The append-only history of every act, on disk before any act is answered. Files of one JSON object a line, each line
 * chained to the one before by its hash. Used by one thread at a time, except {@link #read}.
 */
public final class Journal implements AutoCloseable {
    /** At which size a segment is followed by a new one. */
    private static final long SEGMENT_BYTES = 64L << 20;

    private final Disk disk;
    private final MessageDigest sha256 = Sha256.fresh();
    private final long dropped;
    private Disk.AppendFile file;
    private String name;
    private Head head;
    /** How long the open segment was when it was last forced: what lies behind was never answered. */
    private long forced;

    private Journal(Disk disk, String name, Disk.AppendFile file, Head head, long forced, long dropped) {
        this.disk = disk;
        this.name = name;
        this.file = file;
        this.head = head;
        this.forced = forced;
        this.dropped = dropped;
    }

    /**
     * Opens a journal, proves it from its first line to its last, and drops an unfinished end.
     *
     * @param known an entry that is known to have been answered, by its sequence number; 0 where none is
     * @param machineWentDown whether the run before may have ended with the machine, and not with the process alone
     * @throws JournalBroken where an entry that was answered is missing or not what was written; the files are left as
     *     they are
     */
    public static Journal open(Disk disk, long known, boolean machineWentDown) throws IOException, JournalBroken {
        List<String> segments = Segment.sorted(disk.names());
        Scan.Result found = Scan.of(disk, segments, machineWentDown);
        if (found.head().seq() < known) throw new JournalEndsEarly(found.head().seq(), known);
        if (found.segment() == null) {
            for (String segment : segments) disk.remove(segment);
            return new Journal(disk, "", null, Head.EMPTY, 0, 0);
        }
        for (String segment : segments) if (segment.compareTo(found.segment()) > 0) disk.remove(segment);
        Disk.AppendFile file = disk.append(found.segment());
        long dropped = Math.max(0, file.size() - found.offset());
        if (dropped > 0) file.truncate(found.offset());
        if (found.feedMissing()) file.append(ByteBuffer.wrap(new byte[] {'\n'}));
        // A process that died may have left its last batch in the system's memory only; from here on it is answered
        // for.
        file.force();
        return new Journal(disk, found.segment(), file, found.head(), found.offset(), dropped);
    }

    /** Whether there is no file of a journal at all. */
    public static boolean isEmpty(Disk disk) throws IOException {
        return Segment.sorted(disk.names()).isEmpty();
    }

    public Head head() {
        return head;
    }

    /** How many bytes all its files have. */
    public long size() throws IOException {
        return size(disk);
    }

    /** How many bytes all files of a journal have. */
    public static long size(Disk disk) throws IOException {
        long size = 0;
        for (String segment : Segment.sorted(disk.names())) size += disk.size(segment);
        return size;
    }

    /** How many bytes of an unfinished end were dropped when it was opened. */
    public long dropped() {
        return dropped;
    }

    /**
     * Appends entries as one batch and returns when they are on disk. After an exception the batch may or may not be
     * there; {@link #forgetUnforced} settles it.
     */
    public void append(List<Entry> batch) throws IOException {
        if (file == null || forced >= SEGMENT_BYTES) startSegment();
        var bytes = new ByteArrayOutputStream(batch.size() * 400);
        Head last = head;
        for (int i = 0; i < batch.size(); i++) {
            Entry entry = batch.get(i);
            if (entry.seq() != last.seq() + 1)
                throw new IllegalStateException("entry " + entry.seq() + " cannot follow " + last.seq());
            last = Line.write(entry, i == batch.size() - 1 ? batch.size() : 0, last.hash(), bytes, sha256);
        }
        file.append(ByteBuffer.wrap(bytes.toByteArray()));
        file.force();
        head = last;
        forced += bytes.size();
    }

    private void startSegment() throws IOException {
        String segment = Segment.name(head.seq() + 1);
        Disk.AppendFile next = disk.append(segment);
        if (next.size() > 0) next.truncate(0);
        if (file != null) file.close();
        file = next;
        name = segment;
        forced = 0;
    }

    /**
     * Takes away what a failed append may have left. When this returns, that batch is not in the journal and never will
     * be.
     */
    public void forgetUnforced() throws IOException {
        if (file != null) file.truncate(forced);
    }

    /**
     * Whether somebody has taken away or replaced the file that is written to.
     *
     * @return what has become of it, in words; absent where all is well
     */
    public Optional<String> replaced() {
        return file == null ? Optional.empty() : file.replaced().map(this::called);
    }

    /** Looks after what is left to do on the disk, between two writes. */
    public void tend() {
        disk.tend();
    }

    /** Whether somebody has cut or lengthened it. */
    public Optional<String> resized() {
        return file == null ? Optional.empty() : file.resized(forced).map(this::called);
    }

    private String called(String what) {
        return "the journal's file " + name + " " + what;
    }

    /** Takes an entry in order, with its head. */
    public interface Reader {
        void take(Entry entry, Head head) throws IOException;
    }

    /**
     * Reads the entries after {@code after} up to {@code to}, both by sequence number, proving the chain on the way.
     *
     * @throws JournalBroken where a line is missing or not what was written
     */
    public static void read(Disk disk, long after, long to, Reader reader) throws IOException, JournalBroken {
        List<String> segments = Segment.sorted(disk.names());
        MessageDigest sha256 = Sha256.fresh();
        Head last = null;
        for (int i = 0; i < segments.size(); i++) {
            boolean allBefore = i + 1 < segments.size() && Segment.firstSeq(segments.get(i + 1)) <= after;
            if (allBefore) continue;
            if (last == null) last = Segment.firstSeq(segments.get(i)) == 1 ? Head.EMPTY : null;
            try (var lines = new LineReader(disk.read(segments.get(i)))) {
                for (byte[] bytes = lines.next();
                        bytes != null && (last == null || last.seq() < to);
                        bytes = lines.next()) {
                    Optional<Line> line = Line.of(bytes);
                    boolean good = line.isPresent()
                            && (last == null
                                    ? line.get().seq() == Segment.firstSeq(segments.get(i))
                                    : line.get().seq() == last.seq() + 1
                                            && line.get().follows(last.hash(), sha256));
                    if (!good)
                        throw new JournalBroken("segment " + segments.get(i) + ", entry "
                                + (last == null ? Segment.firstSeq(segments.get(i)) : last.seq() + 1)
                                + ": the line is not what was written");
                    last = line.get().head();
                    if (last.seq() > after) reader.take(line.get().entry(), last);
                }
            }
        }
        long reached = last == null ? 0 : last.seq();
        if (reached < to) throw new JournalBroken("the journal ends at entry " + reached + ", before " + to);
    }

    /**
     * The head as it was at a sequence number, by the hash that its line states; absent where the journal does not
     * reach.
     */
    public static Optional<Head> headAt(Disk disk, long seq) throws IOException {
        if (seq == 0) return Optional.of(Head.EMPTY);
        List<String> segments = Segment.sorted(disk.names());
        for (int i = segments.size() - 1; i >= 0; i--) {
            if (Segment.firstSeq(segments.get(i)) > seq) continue;
            try (var lines = new LineReader(disk.read(segments.get(i)))) {
                for (byte[] bytes = lines.next(); bytes != null; bytes = lines.next()) {
                    Optional<Line> line = Line.of(bytes);
                    if (line.isPresent() && line.get().seq() == seq)
                        return Optional.of(line.get().head());
                }
            }
            return Optional.empty();
        }
        return Optional.empty();
    }

    @Override
    public void close() throws IOException {
        if (file != null) file.close();
    }
}
