package org.youngtally.ledger;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.ledger.journal.CheckpointFile;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalProof;
import org.youngtally.ledger.journal.JournalSync;

/**
 * What is done to a journal while numbers are allocated from it: the part that the start did not prove is proved, then
 * segments that are full are compressed. One thread, which rests at least as long as it works, since others wait for
 * the same processor and the same disk.
 */
final class JournalUpkeep implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(JournalUpkeep.class);
    /** Lines that are proved between two rests. */
    private static final int LINES = 5_000;
    /** A segment is compressed in about a second, and is to take a fifth of a processor at the most. */
    private static final int RESTS_AFTER_PACKING = 4;

    private static final long BETWEEN_LOOKS = 5_000_000_000L;

    private final Disk disk;
    private final Head upTo;
    private final CheckpointFile checkpoints;
    private final BooleanSupplier hasRoom;
    private final Consumer<JournalBroken> damaged;
    private final Thread thread;
    private volatile boolean closing;
    private volatile long reached;
    private long workedSince = System.nanoTime();

    /**
     * @param upTo the last entry that the start did not prove; {@link Head#EMPTY} where it proved all
     * @param hasRoom whether there is room on the disk for one more segment
     * @param damaged is told what is wrong with the journal
     */
    JournalUpkeep(
            Disk disk,
            Head upTo,
            CheckpointFile checkpoints,
            BooleanSupplier hasRoom,
            Consumer<JournalBroken> damaged) {
        this.disk = disk;
        this.upTo = upTo;
        this.checkpoints = checkpoints;
        this.hasRoom = hasRoom;
        this.damaged = damaged;
        this.thread = Thread.ofPlatform().name("journal-upkeep").daemon().start(this::run);
    }

    /** How far the journal is proved; absent once all of it is. */
    Optional<Status.Proof> proof() {
        long now = reached;
        return now >= upTo.seq() ? Optional.empty() : Optional.of(new Status.Proof(now, upTo.seq()));
    }

    private void run() {
        try {
            if (upTo.seq() > 0) prove();
            while (!closing) {
                pack();
                rest(BETWEEN_LOOKS);
            }
        } catch (Closing e) {
            LOG.debug("the upkeep of the journal ends", e);
        } catch (JournalBroken e) {
            damaged.accept(e);
        } catch (IOException | RuntimeException e) {
            // The proof stays where it is, which the status says; the next start goes on with it.
            LOG.warn("the upkeep of the journal ended", e);
        }
    }

    /** The service ends. */
    private static final class Closing extends IOException {
        private static final long serialVersionUID = 1L;
    }

    private void prove() throws IOException, JournalBroken {
        JournalProof.run(disk, checkpoints, upTo, entry -> {
            reached = entry;
            if (entry % LINES == 0) restAsLong(1);
        });
        LOG.info("the journal is proved up to entry {}", upTo.seq());
    }

    private void pack() throws IOException {
        List<String> segments = JournalSync.segments(disk);
        for (String segment : segments.subList(0, Math.max(0, segments.size() - 1))) {
            if (!hasRoom.getAsBoolean()) return;
            workedSince = System.nanoTime();
            try {
                disk.pack(segment);
            } catch (IOException e) {
                LOG.warn("{} is not compressed for now", segment, e);
                return;
            }
            restAsLong(RESTS_AFTER_PACKING);
        }
    }

    /** @param times as long as was worked since the last rest */
    private void restAsLong(int times) throws Closing {
        rest((System.nanoTime() - workedSince) * times);
        workedSince = System.nanoTime();
    }

    private void rest(long nanos) throws Closing {
        long until = System.nanoTime() + nanos;
        for (long left = nanos; left > 0 && !closing; left = until - System.nanoTime()) LockSupport.parkNanos(left);
        if (closing) throw new Closing();
    }

    @Override
    public void close() {
        closing = true;
        LockSupport.unpark(thread);
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
