package org.youngtally.ledger;

import java.io.IOException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.ledger.journal.Checkpoint;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.store.Store;

/** Writes into the tables what the journal holds and they lack. */
final class Replay {
    private static final int BATCH = 1_000;

    private Replay() {}

    /** @return how many entries were written */
    static long run(Disk disk, Head journal, Store store) throws IOException, SQLException, JournalBroken {
        return run(disk, journal, Optional.empty(), store);
    }

    /**
     * @param near a place that the journal has
     * @return how many entries were written
     */
    static long run(Disk disk, Head journal, Optional<Checkpoint> near, Store store)
            throws IOException, SQLException, JournalBroken {
        Head applied = store.applied();
        if (applied.equals(journal)) return 0;
        Head then = Journal.headAt(disk, near, applied.seq())
                .orElseThrow(() -> new JournalBroken(
                        "the tables hold entries up to " + applied.seq() + ", the journal ends at " + journal.seq()));
        if (!then.equals(applied))
            throw new JournalBroken("entry " + applied.seq()
                    + " of the journal is not the one that the tables hold: they belong to different ledgers");
        List<Entry> batch = new ArrayList<>();
        Journal.read(disk, near, applied.seq(), journal.seq(), (entry, head) -> {
            batch.add(entry);
            if (batch.size() == BATCH || head.seq() == journal.seq()) {
                write(store, batch, head);
                batch.clear();
            }
        });
        return journal.seq() - applied.seq();
    }

    private static void write(Store store, List<Entry> batch, Head head) throws IOException {
        try {
            store.write(batch);
            store.commit(head);
        } catch (SQLException e) {
            throw new IOException("the tables could not be written at entry " + head.seq(), e);
        }
    }
}
