package org.youngtally.ledger;

import java.io.IOException;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.exception.DataAccessException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.copy.JournalCopy;
import org.youngtally.ledger.copy.TwinDisk;
import org.youngtally.ledger.journal.Checkpoint;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalEndsEarly;
import org.youngtally.ledger.journal.JournalSync;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.Store;

/**
 * What opening a ledger came to.
 *
 * @param stopped why it must give no numbers; empty if it may
 * @param journal null where it cannot be trusted
 * @param inMemory whether the tables are in memory alone, because there is no room for them on the disk
 * @param shortage of room, found at the start
 * @param failing what the disk said when the folder was to be marked as in use; absent where it took the mark
 * @param told what was found and done, for people
 */
record LedgerOpening(
        Store store,
        Journal journal,
        String stopped,
        boolean inMemory,
        Optional<Shortage> shortage,
        Optional<IOException> failing,
        List<String> told) {
    private static final Logger LOG = LoggerFactory.getLogger(LedgerOpening.class);

    /** Nothing in it needs more room on the disk than there is. */
    static LedgerOpening of(LedgerOptions options, DataFolder folder, Optional<JournalCopy> copy) throws IOException {
        var told = new ArrayList<String>();
        Optional<Shortage> shortage = folder.shortage(0);
        if (shortage.isPresent()) {
            folder.spendReserve();
            told.add(shortage.get() + ", so no numbers are allocated yet");
        }
        boolean unclean = folder.endedUncleanly();
        boolean doubtful = folder.machineMayHaveGoneDown();
        // A torn file of H2 is not even opened: H2 can spin for ever in one, and what it says would prove nothing.
        Store store = doubtful ? null : openOrNull(options, told);
        long known = folder.knownEntry();
        try {
            if (store != null) known = Math.max(known, store.applied().seq());
            if (store != null && unclean && !store.isWhole()) {
                told.add(
                        "the tables hold a part of what was under way when the service ended, so they are rebuilt from the journal");
                abandon(store);
                store = null;
            }
        } catch (RuntimeException e) {
            LOG.warn("the tables cannot be read", e);
            abandon(store);
            store = null;
        }
        Journal journal;
        Optional<Checkpoint> proved = doubtful ? Optional.empty() : folder.provedBefore();
        try {
            if (copy.isPresent()) sync(copy.get(), options, doubtful, proved, told);
            List<String> traces = Journal.isEmpty(options.journal()) ? folder.traces() : List.of();
            if (known == 0 && !traces.isEmpty())
                throw new JournalBroken("the journal is gone, while " + String.join(" and ", traces));
            journal = Journal.open(
                    options.journal(), known, doubtful, proved, options.sizes().segment());
        } catch (JournalBroken e) {
            return stopped(options, upTo(e.proved(), options, store), distrust(e, options), told);
        }
        if (journal.dropped() > 0)
            told.add(journal.dropped()
                    + " bytes of an unfinished, never answered write were dropped from the journal's end");
        if (copy.isPresent()) {
            copy.get().note(journal.head());
            folder.noteCopy(copy.get().place());
        }
        folder.beginCheckpoints(journal);
        Optional<IOException> failing = mark(folder, journal);
        boolean inMemory = false;
        try {
            if (store == null) {
                if (doubtful)
                    told.add(
                            "the machine went down while the tables were in use, so they are rebuilt from the journal");
                inMemory = shortage.isPresent();
                if (inMemory) told.add("the tables are kept in memory until there is room for them");
                store = inMemory ? memory(options) : anew(options, folder);
            }
            long replayed;
            try {
                replayed = Replay.run(options.journal(), journal.head(), near(proved, journal), store);
            } catch (DataAccessException e) {
                LOG.warn("the tables object to what they lack", e);
                told.add("the tables differ from the journal, so they are rebuilt from it");
                abandon(store);
                inMemory = shortage.isPresent();
                store = inMemory ? memory(options) : anew(options, folder);
                replayed = Replay.run(options.journal(), journal.head(), store);
            }
            if (unclean || replayed > 0)
                told.add((unclean ? "the service was not stopped in order; " : "") + replayed
                        + (replayed == 1 ? " entry was" : " entries were")
                        + " replayed from the journal, which ends at entry "
                        + journal.head().seq());
        } catch (JournalBroken e) {
            journal.close();
            return stopped(options, store, distrust(e, options), told);
        } catch (SQLException e) {
            throw new IOException("the tables could not be rebuilt from the journal: " + e.getMessage(), e);
        }
        List<String> sealed = store.state().series().stream()
                .filter(series -> series.order().isSealed())
                .map(Series::key)
                .toList();
        if (!sealed.isEmpty()) {
            journal.close();
            return stopped(
                    options,
                    store,
                    "the secret of this data folder is missing or is another one, so that the scattered series "
                            + String.join(", ", sealed) + " cannot go on. Restore the file "
                            + options.data().resolve("secret") + " from a copy; no numbers are allocated until then",
                    told);
        }
        return new LedgerOpening(store, journal, "", inMemory, shortage, failing, told);
    }

    /** The checkpoint that the journal turned out to have. */
    private static Optional<Checkpoint> near(Optional<Checkpoint> proved, Journal journal) {
        return proved.filter(place -> place.head().equals(journal.provedFrom()));
    }

    /**
     * Brings the journal and its copy to the same end. Where the journal had to catch up from a copy that may lack
     * numbers itself, nobody knows whether it is the newest.
     */
    private static void sync(
            JournalCopy copy, LedgerOptions options, boolean doubtful, Optional<Checkpoint> proved, List<String> told)
            throws IOException, JournalBroken {
        TwinDisk twin = copy.disk();
        if (twin.warning().isPresent()) {
            told.add(twin.warning().get());
            return;
        }
        Optional<JournalSync> sync = JournalSync.run(twin.main(), twin.copy(), doubtful, proved);
        long recovered = sync.map(JournalSync::recovered).orElse(0L);
        long copied = sync.map(JournalSync::copied).orElse(0L);
        if (copied > 0)
            told.add((copy.isNew() ? "a journal copy was begun in " : "the journal copy caught up in ") + twin.place()
                    + " with " + copied + (copied == 1 ? " entry" : " entries"));
        if (copied == 0 && copy.proves()) copy.found();
        if (recovered == 0) return;
        String lacked = "the journal lacked the entries from "
                + (sync.orElseThrow().main().seq() + 1) + " to "
                + sync.get().copy().seq() + ", which its copy in " + twin.place() + " has";
        told.add(lacked + "; they were copied from there");
        if (!copy.proves())
            new PossibleRollback(
                            lacked + ", and that copy was not written under the policy ‘stop’ throughout",
                            sync.get().copy().seq(),
                            Optional.empty())
                    .keep(options.data());
    }

    /** What can be asked of a ledger whose journal is damaged: all that is proved of it. */
    private static Store upTo(Head proved, LedgerOptions options, Store store) throws IOException {
        try {
            Store asked = store != null ? store : memory(options);
            if (asked.applied().seq() < proved.seq()) Replay.run(options.journal(), proved, asked);
            return asked;
        } catch (SQLException | JournalBroken | DataAccessException e) {
            LOG.warn("what was written before the damage cannot be asked", e);
            return store;
        }
    }

    /** What is wrong with the journal, and what to do. */
    static String distrust(JournalBroken broken, LedgerOptions options) {
        return "the journal in " + options.data().resolve("journal") + " cannot be trusted: " + broken.getMessage()
                + ". No numbers are allocated until it is in order. " + wayOut(broken, options);
    }

    private static String wayOut(JournalBroken broken, LedgerOptions options) {
        if (!(broken instanceof JournalEndsEarly early) || early.reached() == 0) return broken.wayOut();
        return "If this folder is a copy that was made while the service ran (the journal before the tables), run: ./youngtally rebuild --data "
                + options.data() + " --up-to " + early.reached()
                + "; it rebuilds the tables from the journal. What the entries from " + (early.reached() + 1) + " to "
                + early.known()
                + " did is then unknown in the copy, and their numbers would be issued again: never do it with the folder that numbers are allocated from. Restore the journal of that one from a newer copy";
    }

    /** @return what the disk said, where it did not take the mark */
    private static Optional<IOException> mark(DataFolder folder, Journal journal) {
        try {
            folder.mark(journal.head().seq());
            folder.keepReserve();
            return Optional.empty();
        } catch (IOException e) {
            LOG.warn("the folder could not be marked as in use", e);
            return Optional.of(e);
        }
    }

    /** Empty tables in place of those that are there, which are kept beside. */
    private static Store anew(LedgerOptions options, DataFolder folder) throws IOException, SQLException {
        folder.setTablesAside();
        return Store.open(options.storeUrl(), Secrets.in(options.data()));
    }

    static Store memory(LedgerOptions options) throws SQLException {
        return Store.inMemory(Secrets.in(options.data()));
    }

    /**
     * Makes the tables anew.
     *
     * @param upTo the last entry of a journal that is shorter than it once was, for an administrator who knows what is
     *     lost; absent to refuse such a one
     */
    static List<String> rebuild(LedgerOptions options, DataFolder folder, Optional<Long> upTo) throws IOException {
        long known = Math.max(folder.knownEntry(), applied(options, folder));
        try (Journal journal = Journal.open(options.journal(), upTo.orElse(known), folder.machineMayHaveGoneDown())) {
            if (upTo.isPresent() && upTo.get() != journal.head().seq())
                throw new IOException(
                        "--up-to: the journal ends at entry " + journal.head().seq() + ", not at " + upTo.get());
            folder.mark(journal.head().seq());
            long replayed;
            Optional<Instant> seen = folder.lastSeenAt();
            try (Store store = anew(options, folder)) {
                replayed = Replay.run(options.journal(), journal.head(), store);
                if (seen.isEmpty()) seen = store.state().newest();
            }
            if (seen.isPresent()) folder.saw(seen.get(), journal.head().seq());
            folder.unmark();
            return List.of(
                    replayed + " entries were written into new tables",
                    "head " + journal.head(),
                    "the old tables are kept beside the new ones, under aside-");
        } catch (JournalBroken e) {
            throw new IOException(distrust(e, options) + ". The tables were left as they are", e);
        } catch (SQLException e) {
            throw new IOException("the tables could not be written: " + e.getMessage(), e);
        }
    }

    /** The last entry that the tables hold; 0 where they cannot be believed. */
    private static long applied(LedgerOptions options, DataFolder folder) throws IOException {
        if (folder.machineMayHaveGoneDown()) return 0;
        Store store = openOrNull(options, new ArrayList<>());
        if (store == null) return 0;
        try {
            return store.applied().seq();
        } catch (DataAccessException e) {
            LOG.warn("the tables cannot be read", e);
            return 0;
        } finally {
            abandon(store);
        }
    }

    /** The tables, or null where the file is damaged: it can be thrown away as long as the journal is whole. */
    private static Store openOrNull(LedgerOptions options, List<String> told) throws IOException {
        try {
            return Store.open(options.storeUrl(), Secrets.in(options.data()));
        } catch (SQLException | RuntimeException e) {
            if (Store.isBusy(e)) throw LedgerInUse.tables(options.data());
            LOG.warn("the tables cannot be opened and will be rebuilt from the journal", e);
            told.add("the tables could not be opened ("
                    + e.getMessage().lines().findFirst().orElse("") + "), so they are rebuilt from the journal");
            return null;
        }
    }

    private static LedgerOpening stopped(LedgerOptions options, Store store, String why, List<String> told)
            throws IOException {
        LOG.error("numbering stops: {}", why);
        try {
            // What the tables hold can still be asked; where there are none, an empty set in memory answers.
            Store asked = store != null ? store : memory(options);
            return new LedgerOpening(asked, null, why, false, Optional.empty(), Optional.empty(), told);
        } catch (SQLException e) {
            throw new IOException(why, e);
        }
    }

    private static void abandon(Store store) {
        try {
            store.abandon();
        } catch (SQLException e) {
            LOG.warn("the doubtful tables did not close in order", e);
        }
    }
}
