package org.youngtally.ledger.journal;

import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The checkpoints of a journal, in a file beside it: one JSON object a line, chained as the journal's lines are
 * ({@link Line}). It saves a start the proof of what an earlier one proved; whatever is wrong with it, the journal is
 * proved as a whole instead. Not forced, and the lack of its end costs time alone. For one thread at a time.
 */
public final class CheckpointFile {
    /** So much of its end is read, in bytes: several lines. */
    private static final int END = 4096;

    private static final Pattern LINE = Pattern.compile("\\{\"seq\":[0-9]{1,18},\"entry\":([0-9]{1,18}),"
            + "\"head\":\"([0-9a-f]{64})\",\"segment\":\"([0-9]{18}\\.jsonl)\","
            + "\"start\":([0-9]{1,18}),\"end\":([0-9]{1,18}),\"hash\":\"[0-9a-f]{64}\"\\}");

    private final Path file;

    public CheckpointFile(Path file) {
        this.file = file;
    }

    /** @param end of the last whole line in the file, in bytes */
    private record Last(Line line, long end) {}

    /** The newest one; absent where there is none that follows the one before it. */
    public Optional<Checkpoint> newest() throws IOException {
        return last().flatMap(last -> checkpoint(last.line()));
    }

    private Optional<Last> last() throws IOException {
        if (!Files.exists(file)) return Optional.empty();
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            long from = Math.max(0, in.length() - END);
            var bytes = new byte[(int) (in.length() - from)];
            in.seek(from);
            in.readFully(bytes);
            return last(bytes, from);
        }
    }

    private static Optional<Last> last(byte[] bytes, long from) {
        String previous = from == 0 ? Head.EMPTY.hash() : null;
        Optional<Last> last = Optional.empty();
        int start = 0;
        for (int i = 0; i < bytes.length; i++) {
            if (bytes[i] != '\n') continue;
            Optional<Line> line = Line.of(Arrays.copyOfRange(bytes, start, i));
            start = i + 1;
            // What the cut left of a line begins no chain, and its hash is read all the same.
            if (line.isEmpty() && previous == null) continue;
            if (line.isEmpty()) return last;
            if (previous != null) {
                if (!line.get().follows(previous, Sha256.fresh())) return last;
                last = Optional.of(new Last(line.get(), from + start));
            }
            previous = line.get().hash();
        }
        return last;
    }

    private static Optional<Checkpoint> checkpoint(Line line) {
        Matcher said = LINE.matcher(new String(line.bytes(), StandardCharsets.US_ASCII));
        if (!said.matches()) return Optional.empty();
        long start = Long.parseLong(said.group(4));
        long end = Long.parseLong(said.group(5));
        return end <= start
                ? Optional.empty()
                : Optional.of(new Checkpoint(
                        new Head(Long.parseLong(said.group(1)), said.group(2)), said.group(3), start, end));
    }

    /** Writes one behind the newest. */
    public void add(Checkpoint checkpoint) throws IOException {
        Optional<Last> last = last();
        long seq = last.map(each -> each.line().seq()).orElse(0L) + 1;
        String body = "{\"seq\":" + seq + ",\"entry\":" + checkpoint.head().seq() + ",\"head\":\""
                + checkpoint.head().hash() + "\",\"segment\":\"" + checkpoint.segment() + "\",\"start\":"
                + checkpoint.start() + ",\"end\":" + checkpoint.end();
        String previous = last.map(each -> each.line().hash()).orElse(Head.EMPTY.hash());
        String hash =
                HexFormat.of().formatHex(Sha256.fresh().digest((previous + body).getBytes(StandardCharsets.US_ASCII)));
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            long end = last.map(Last::end).orElse(0L);
            channel.truncate(end).position(end);
            ByteBuffer line =
                    ByteBuffer.wrap((body + ",\"hash\":\"" + hash + "\"}\n").getBytes(StandardCharsets.US_ASCII));
            while (line.hasRemaining()) channel.write(line);
        }
    }

    /** Has the next start prove the journal as a whole. */
    public void forget() throws IOException {
        Files.deleteIfExists(file);
    }

    /** Reads them in order, as their chain holds. */
    Cursor cursor() throws IOException {
        return new Cursor(Files.exists(file) ? Files.newInputStream(file) : InputStream.nullInputStream());
    }

    /** Goes along the checkpoints with somebody who goes along the journal. Where their chain breaks, it ends. */
    static final class Cursor implements AutoCloseable {
        private final LineReader lines;
        private String previous = Head.EMPTY.hash();
        private Optional<Checkpoint> current;

        private Cursor(InputStream in) throws IOException {
            lines = new LineReader(in);
            current = next();
        }

        private Optional<Checkpoint> next() throws IOException {
            Optional<Line> line = Optional.ofNullable(lines.next()).flatMap(Line::of);
            if (line.filter(each -> each.follows(previous, Sha256.fresh())).isEmpty()) return Optional.empty();
            previous = line.get().hash();
            return checkpoint(line.get());
        }

        /** The checkpoint of an entry; absent where it has none. Entries are asked for in order. */
        Optional<Checkpoint> at(long seq) throws IOException {
            while (current.isPresent() && current.get().head().seq() < seq) current = next();
            return current.filter(checkpoint -> checkpoint.head().seq() == seq);
        }

        @Override
        public void close() throws IOException {
            lines.close();
        }
    }
}
