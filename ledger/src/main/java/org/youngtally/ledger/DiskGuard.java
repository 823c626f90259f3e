package org.youngtally.ledger;

import java.io.IOException;
import java.time.Instant;
import java.util.Optional;
import org.youngtally.ledger.journal.Checkpoint;
import org.youngtally.ledger.journal.Journal;

/** What the writer asks of the place that it writes to, before it writes. */
interface DiskGuard {

    /**
     * Whether the folder, its lock or the journal has become something else than was opened, so that another process
     * may be writing.
     *
     * @return what is wrong, in words; absent where all is well
     */
    Optional<String> lost(Journal journal);

    /** The same, without looking how long the journal is: after a write to it that failed. */
    Optional<String> replaced(Journal journal);

    /**
     * Whether there is too little room to go on.
     *
     * @param unsaved bytes of the tables that are in memory alone
     */
    Optional<Shortage> shortage(long unsaved);

    /** The room is short: what was kept for that is given up. */
    void spendReserve();

    /**
     * Whether what is written is taken again, after it was not.
     *
     * @return what is still wanting; absent where it is taken
     * @throws IOException where the disk takes nothing
     */
    Optional<Shortage> stillShort(long unsaved) throws IOException;

    /** A byte is written and forced, so that a disk that takes nothing says so before the tables meet it. */
    void tryWriting() throws IOException;

    /** Notes a time that is believed, and the newest entry on disk, for the next start. */
    void saw(Instant now, long entry) throws IOException;

    /** Notes up to where the journal is proved, for the next start. */
    void proved(Checkpoint upTo);

    /** A place where nothing goes wrong. */
    DiskGuard NONE = new DiskGuard() {
        @Override
        public Optional<String> lost(Journal journal) {
            return Optional.empty();
        }

        @Override
        public Optional<String> replaced(Journal journal) {
            return Optional.empty();
        }

        @Override
        public Optional<Shortage> shortage(long unsaved) {
            return Optional.empty();
        }

        @Override
        public void spendReserve() {}

        @Override
        public Optional<Shortage> stillShort(long unsaved) {
            return Optional.empty();
        }

        @Override
        public void tryWriting() {}

        @Override
        public void saw(Instant now, long entry) {}

        @Override
        public void proved(Checkpoint upTo) {}
    };
}
