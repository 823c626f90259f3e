package org.youngtally.ledger.journal;

import java.io.IOException;
import java.util.List;
import java.util.Optional;

/**
 * The proof of a journal's beginning while the journal grows: that each line follows the one before, that its
 * checkpoints name the lines that are there, and that it leads to an entry that is believed already.
 */
public final class JournalProof {
    private JournalProof() {}

    /** Is told of each line that is proved. */
    public interface Progress {
        void reached(long entry) throws IOException;
    }

    /**
     * @param upTo the entry that it must lead to
     * @throws JournalBroken where the journal is not what was written
     */
    public static void run(Disk disk, CheckpointFile checkpoints, Head upTo, Progress progress)
            throws IOException, JournalBroken {
        try (CheckpointFile.Cursor cursor = checkpoints.cursor()) {
            Journal.lines(disk, Optional.empty(), 0, upTo.seq(), line -> {
                Optional<Checkpoint> noted = cursor.at(line.seq());
                if (noted.isPresent() && !noted.get().head().equals(line.head()))
                    throw new JournalBroken("entry " + line.seq() + " is another one than when it was proved before");
                if (line.seq() == upTo.seq() && !line.head().equals(upTo))
                    throw new JournalBroken("entry " + line.seq() + " is another one than the start found");
                progress.reached(line.seq());
            });
        } catch (JournalBroken e) {
            // Said by the place in its segment, with what can be done, where the chain itself is broken.
            List<String> segments = Segment.sorted(disk.names());
            Scan.of(disk, segments, false);
            throw e;
        }
    }
}
