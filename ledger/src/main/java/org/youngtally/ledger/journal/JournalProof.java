package org.youngtally.ledger.journal;

import java.io.IOException;
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
                boolean changed =
                        noted.filter(place -> !place.head().equals(line.head())).isPresent();
                if (changed || line.seq() == upTo.seq() && !line.head().equals(upTo))
                    throw new JournalRewritten(line.seq(), Head.EMPTY);
                progress.reached(line.seq());
            });
        } catch (JournalRewritten e) {
            throw e;
        } catch (JournalBroken e) {
            // Said by the place in its segment, with what can be done.
            Scan.of(disk, Segment.sorted(disk.names()), false);
            throw e;
        }
    }
}
