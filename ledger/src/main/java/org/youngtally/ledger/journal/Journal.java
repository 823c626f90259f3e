package org.youngtally.ledger.journal;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.security.MessageDigest;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipException;

/**
 * The append-only history of every act, on disk before any act is answered. Files of one JSON object a line, each line
 * chained to the one before by its hash. Used by one thread at a time, except {@link #read}.
 */
public final class Journal implements AutoCloseable {
    private final Disk disk;
    private final MessageDigest sha256 = Sha256.fresh();
    private final long dropped;
    private final long segmentBytes;
    private final Head provedFrom;
    private Disk.AppendFile file;
    private String name;
    private Head head;
    /** How long the open segment was when it was last forced: what lies behind was never answered. */
    private long forced;

    private long written;
    /** Where the last whole batch ends; null while there is none. */
    private volatile Checkpoint end;

    private Journal(Disk disk, Scan.Result found, Disk.AppendFile file, long dropped, long segmentBytes) {
        this.disk = disk;
        this.file = file;
        this.head = found.head();
        this.provedFrom = found.from();
        this.forced = found.offset();
        this.name = found.segment() == null ? "" : found.segment();
        this.end = found.segment() == null ? null : found.end();
        this.dropped = dropped;
        this.segmentBytes = segmentBytes;
    }

    /** Opens a journal of usual segments and proves all of it. */
    public static Journal open(Disk disk, long known, boolean machineWentDown) throws IOException, JournalBroken {
        return open(disk, known, machineWentDown, Optional.empty(), JournalSizes.USUAL.segment());
    }

    /**
     * Opens a journal, proves it to its last line, and drops an unfinished end.
     *
     * @param known an entry that is known to have been answered, by its sequence number; 0 where none is
     * @param machineWentDown whether the run before may have ended with the machine, and not with the process alone
     * @param proved up to where it was proved before, so that it is proved from there on; absent to prove all of it
     * @param segmentBytes at which size a segment is followed by a new one
     * @throws JournalBroken where an entry that was answered is missing or not what was written; the files are left as
     *     they are
     */
    public static Journal open(
            Disk disk, long known, boolean machineWentDown, Optional<Checkpoint> proved, long segmentBytes)
            throws IOException, JournalBroken {
        List<String> segments = Segment.sorted(disk.names());
        Scan.Result found = Scan.of(disk, segments, machineWentDown, proved);
        if (found.head().seq() < known) throw new JournalEndsEarly(found.head().seq(), known);
        if (found.segment() == null) {
            for (String segment : segments) disk.remove(segment);
            return new Journal(disk, found, null, 0, segmentBytes);
        }
        for (String segment : segments) if (segment.compareTo(found.segment()) > 0) disk.remove(segment);
        Disk.AppendFile file = disk.append(found.segment());
        long dropped = Math.max(0, file.size() - found.offset());
        if (dropped > 0) file.truncate(found.offset());
        if (found.feedMissing()) file.append(new byte[] {'\n'});
        // A process that died may have left its last batch in the system's memory only; from here on it is answered
        // for.
        file.force();
        return new Journal(disk, found, file, dropped, segmentBytes);
    }

    /** Whether there is no file of a journal at all. */
    public static boolean isEmpty(Disk disk) throws IOException {
        return Segment.sorted(disk.names()).isEmpty();
    }

    public Head head() {
        return head;
    }

    /** The last entry that was not proved again when it was opened; {@link Head#EMPTY} where all of it was. */
    public Head provedFrom() {
        return provedFrom;
    }

    /** How many bytes were appended since it was opened. */
    public long written() {
        return written;
    }

    /** Where its last whole batch ends; absent while there is none. */
    public Optional<Checkpoint> end() {
        return Optional.ofNullable(end);
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
        if (file == null || forced >= segmentBytes) startSegment();
        var bytes = new ByteArrayOutputStream(batch.size() * 400);
        Head last = head;
        int start = 0;
        for (int i = 0; i < batch.size(); i++) {
            start = bytes.size();
            Entry entry = batch.get(i);
            if (entry.seq() != last.seq() + 1)
                throw new IllegalStateException("entry " + entry.seq() + " cannot follow " + last.seq());
            last = Line.write(entry, i == batch.size() - 1 ? batch.size() : 0, last.hash(), bytes, sha256);
        }
        file.append(bytes.toByteArray());
        file.force();
        head = last;
        end = new Checkpoint(last, name, forced + start, forced + bytes.size());
        forced += bytes.size();
        written += bytes.size();
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
        read(disk, Optional.empty(), after, to, reader);
    }

    /** @param near a place that the journal has: it is read from there where that is not behind {@code after} */
    public static void read(Disk disk, Optional<Checkpoint> near, long after, long to, Reader reader)
            throws IOException, JournalBroken {
        lines(disk, near.filter(place -> place.head().seq() <= after), after, to, line -> {
            if (line.seq() > after) reader.take(line.entry(), line.head());
        });
    }

    /** Takes a proved line, in order. */
    interface LineReading {
        void take(Line line) throws IOException, JournalBroken;
    }

    /** @param from where to begin; absent for the segment that holds the entry behind {@code after} */
    static void lines(Disk disk, Optional<Checkpoint> from, long after, long to, LineReading reader)
            throws IOException, JournalBroken {
        List<String> segments = Segment.sorted(disk.names());
        MessageDigest sha256 = Sha256.fresh();
        Head last = from.map(Checkpoint::head).orElse(null);
        for (int i = 0; i < segments.size(); i++) {
            String segment = segments.get(i);
            if (from.isPresent() && segment.compareTo(from.get().segment()) < 0) continue;
            boolean allBefore = i + 1 < segments.size() && Segment.firstSeq(segments.get(i + 1)) <= after;
            if (from.isEmpty() && allBefore) continue;
            if (last == null) last = Segment.firstSeq(segment) == 1 ? Head.EMPTY : null;
            long start = from.filter(place -> place.segment().equals(segment))
                    .map(Checkpoint::end)
                    .orElse(0L);
            try (var lines = LineReader.from(disk.read(segment), start)) {
                for (byte[] bytes = lines.next();
                        bytes != null && (last == null || last.seq() < to);
                        bytes = lines.next()) {
                    Optional<Line> line = Line.of(bytes);
                    boolean good = line.isPresent()
                            && (last == null
                                    ? line.get().seq() == Segment.firstSeq(segment)
                                    : line.get().seq() == last.seq() + 1
                                            && line.get().follows(last.hash(), sha256));
                    if (!good)
                        throw new JournalBroken("segment " + segment + ", entry "
                                + (last == null ? Segment.firstSeq(segment) : last.seq() + 1)
                                + ": the line is not what was written");
                    last = line.get().head();
                    reader.take(line.get());
                }
            } catch (ZipException | EOFException e) {
                throw Segment.notUnpacked(segment, e, last == null ? Head.EMPTY : last);
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
        return headAt(disk, Optional.empty(), seq);
    }

    /** @param near a place that the journal has: it is looked for from there where it is not before it */
    public static Optional<Head> headAt(Disk disk, Optional<Checkpoint> near, long seq) throws IOException {
        if (seq == 0) return Optional.of(Head.EMPTY);
        if (near.filter(place -> place.head().seq() == seq).isPresent()) return near.map(Checkpoint::head);
        List<String> segments = Segment.sorted(disk.names());
        for (int i = segments.size() - 1; i >= 0; i--) {
            String segment = segments.get(i);
            if (Segment.firstSeq(segment) > seq) continue;
            long start = near.filter(place ->
                            place.segment().equals(segment) && place.head().seq() < seq)
                    .map(Checkpoint::end)
                    .orElse(0L);
            try (var lines = LineReader.from(disk.read(segment), start)) {
                for (byte[] bytes = lines.next(); bytes != null; bytes = lines.next()) {
                    Optional<Line> line = Line.of(bytes);
                    if (line.isPresent() && line.get().seq() == seq)
                        return Optional.of(line.get().head());
                }
            } catch (ZipException | EOFException e) {
                throw new IOException("segment " + segment + Segment.PACKED + " cannot be unpacked", e);
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
