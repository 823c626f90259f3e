package org.youngtally.ledger.copy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.JournalSync;

/**
 * A journal's disk and that of its copy as one: what is appended is forced to the first, then written and forced to the
 * second. Read from the first alone. What becomes of a copy that takes nothing is said by the policy.
 */
public final class TwinDisk implements Disk {
    private static final Logger LOG = LoggerFactory.getLogger(TwinDisk.class);
    /** So often it is tried to write to a copy that took nothing. */
    private static final long BETWEEN_TRIES = TimeUnit.SECONDS.toNanos(2);
    /** So much a copy catches up at a time: others wait meanwhile. */
    private static final long PIECE = 8L << 20;

    private final Disk main;
    private final Disk copy;
    private final String place;
    private final CopyPolicy policy;
    private Twin open;
    private long triedAt;
    /** Why the copy is not written, and since when; null while it is. */
    private volatile String away;

    /** @param place what the copy's place is called, for people */
    public TwinDisk(Disk main, Disk copy, String place, CopyPolicy policy) {
        this.main = main;
        this.copy = copy;
        this.place = place;
        this.policy = policy;
    }

    public Disk main() {
        return main;
    }

    public Disk copy() {
        return copy;
    }

    public CopyPolicy policy() {
        return policy;
    }

    public String place() {
        return place;
    }

    /** What people must know while numbers are allocated without the copy; absent while it is written. */
    public Optional<String> warning() {
        return Optional.ofNullable(away);
    }

    /** The copy could not even be opened. */
    public void startsWithout(IOException why) {
        leave(why);
    }

    private void leave(IOException why) {
        if (away == null) LOG.error("the journal copy in {} cannot be written; policy {}", place, policy.word(), why);
        away = "the journal copy in " + place + " has not been written since "
                + Instant.now().truncatedTo(ChronoUnit.SECONDS) + " (" + said(why)
                + "); numbers are allocated without it, and one disk alone has the newest of them";
    }

    private static String said(IOException why) {
        return why.getMessage() == null ? why.toString() : why.getMessage();
    }

    @Override
    public List<String> names() throws IOException {
        return main.names();
    }

    @Override
    public InputStream read(String name) throws IOException {
        return main.read(name);
    }

    @Override
    public long size(String name) throws IOException {
        return main.size(name);
    }

    @Override
    public boolean isPacked(String name) throws IOException {
        return main.isPacked(name);
    }

    /** In the copy as well, once it has all of it. */
    @Override
    public void pack(String name) throws IOException {
        main.pack(name);
        if (away == null && copy.names().contains(name) && copy.size(name) == main.size(name)) copy.pack(name);
    }

    @Override
    public AppendFile append(String name) throws IOException {
        AppendFile first = main.append(name);
        try {
            open = new Twin(name, first);
            if (away == null) open.join();
        } catch (IOException e) {
            if (policy == CopyPolicy.STOP) {
                first.close();
                throw e;
            }
            leave(e);
        }
        return open;
    }

    @Override
    public void remove(String name) throws IOException {
        main.remove(name);
        if (away == null && copy.names().contains(name)) copy.remove(name);
    }

    @Override
    public void tryWriting() throws IOException {
        main.tryWriting();
        if (policy != CopyPolicy.STOP) return;
        copy.tryWriting();
        if (away != null) rejoin(Long.MAX_VALUE);
    }

    /** Now and then, whether a copy that took nothing takes something again; for the one that writes. */
    @Override
    public void tend() {
        long now = System.nanoTime();
        if (away == null || policy == CopyPolicy.STOP || triedAt != 0 && now - triedAt < BETWEEN_TRIES) return;
        triedAt = now;
        try {
            copy.tryWriting();
            if (rejoin(PIECE)) LOG.info("the journal copy in {} is written again", place);
            else triedAt = 0;
        } catch (IOException e) {
            LOG.debug("the journal copy in {} still accepts nothing", place, e);
        }
    }

    /**
     * Writes into the copy what it lacks.
     *
     * @return whether it lacks nothing any more
     */
    private boolean rejoin(long most) throws IOException {
        long left = most;
        for (String segment : JournalSync.segments(main)) {
            left -= JournalSync.extend(main, copy, segment, main.size(segment), left);
            if (left <= 0) return false;
        }
        for (String segment : new ArrayList<>(JournalSync.segments(copy))) {
            if (!main.names().contains(segment)) copy.remove(segment);
            else if (copy.size(segment) > main.size(segment)) cut(segment, main.size(segment));
        }
        if (open != null) open.join();
        away = null;
        return true;
    }

    private void cut(String segment, long size) throws IOException {
        try (AppendFile file = copy.append(segment)) {
            file.truncate(size);
        }
    }

    /** A file and its copy. */
    private final class Twin implements AppendFile {
        private final String name;
        private final AppendFile first;
        private AppendFile second;
        /** How long the copy was left. */
        private long size;
        /** What is appended to the first and not yet to the second. */
        private final ByteArrayOutputStream pending = new ByteArrayOutputStream();

        Twin(String name, AppendFile first) {
            this.name = name;
            this.first = first;
        }

        private void join() throws IOException {
            part();
            second = copy.append(name);
            size = second.size();
            pending.reset();
        }

        private void part() {
            if (second == null) return;
            try {
                second.close();
            } catch (IOException e) {
                LOG.debug("the file of a copy that accepts nothing did not close in order", e);
            }
            second = null;
        }

        @Override
        public long size() throws IOException {
            return first.size();
        }

        @Override
        public void append(byte[] bytes) throws IOException {
            pending.writeBytes(bytes);
            first.append(bytes);
        }

        @Override
        public void force() throws IOException {
            first.force();
            byte[] bytes = pending.toByteArray();
            pending.reset();
            if (away != null && policy == CopyPolicy.GO_ON) return;
            try {
                if (second == null) throw new IOException("the copy of " + name + " is not open");
                Optional<String> changed = second.replaced().or(() -> second.resized(size));
                if (changed.isPresent()) throw new IOException("the file " + name + " " + changed.get());
                second.append(bytes);
                second.force();
                size += bytes.length;
            } catch (IOException e) {
                part();
                leave(e);
                if (policy == CopyPolicy.STOP)
                    throw new IOException("the journal copy in " + place + " cannot be written: " + said(e), e);
            }
        }

        @Override
        public Optional<String> replaced() {
            return first.replaced();
        }

        @Override
        public Optional<String> resized(long now) {
            return first.resized(now);
        }

        /** Under the policy to stop, what was not answered is in neither of the two when this returns. */
        @Override
        public void truncate(long to) throws IOException {
            pending.reset();
            first.truncate(to);
            if (second == null) {
                if (policy == CopyPolicy.STOP) rejoin(Long.MAX_VALUE);
                return;
            }
            try {
                if (second.size() > to) second.truncate(to);
                size = second.size();
            } catch (IOException e) {
                part();
                leave(e);
                if (policy == CopyPolicy.STOP) throw e;
            }
        }

        @Override
        public void close() throws IOException {
            try {
                first.close();
            } finally {
                part();
            }
        }
    }
}
