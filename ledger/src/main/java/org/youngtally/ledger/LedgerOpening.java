package org.youngtally.ledger;

import java.io.IOException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jooq.exception.DataAccessException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.Store;

/**
 * What opening a ledger came to.
 *
 * @param stopped why it must give no numbers; empty if it may
 * @param journal null where it cannot be trusted
 * @param told what was found and done, for people
 */
record LedgerOpening(Store store, Journal journal, String stopped, List<String> told) {
    private static final Logger LOG = LoggerFactory.getLogger(LedgerOpening.class);

    static LedgerOpening of(LedgerOptions options, DataFolder folder) throws IOException {
        var told = new ArrayList<String>();
        boolean unclean = folder.endedUncleanly();
        boolean doubtful = folder.machineMayHaveGoneDown();
        // A torn file of H2 is not even opened: H2 can spin for ever in one, and what it says would prove nothing.
        Store store = doubtful ? null : openOrNull(options, told);
        long known;
        try {
            known = store == null ? folder.knownEntry() : store.applied().seq();
            if (store != null && unclean && !store.isWhole()) {
                told.add(
                        "the tables hold a part of what was under way when the service ended, so they are made anew from the journal");
                abandon(store);
                store = null;
            }
        } catch (RuntimeException e) {
            LOG.warn("the tables cannot be read", e);
            abandon(store);
            store = null;
            known = folder.knownEntry();
        }
        Journal journal;
        try {
            journal = Journal.open(options.journal(), known);
        } catch (JournalBroken e) {
            return stopped(
                    options,
                    store,
                    "the journal cannot be trusted: " + e.getMessage()
                            + ". Restore it from a copy; no numbers are given until then",
                    told);
        }
        if (journal.dropped() > 0)
            told.add(journal.dropped()
                    + " bytes of an unfinished, never answered write were dropped from the journal's end");
        folder.mark(journal.head().seq());
        try {
            if (store == null) {
                if (doubtful)
                    told.add(
                            "the machine went down while the tables were in use, so they are made anew from the journal");
                store = anew(options, folder);
            }
            long replayed;
            try {
                replayed = Replay.run(options.journal(), journal.head(), store);
            } catch (DataAccessException e) {
                LOG.warn("the tables object to what they lack", e);
                told.add("the tables hold something else than the journal says, so they are made anew from it");
                abandon(store);
                store = anew(options, folder);
                replayed = Replay.run(options.journal(), journal.head(), store);
            }
            if (unclean || replayed > 0)
                told.add((unclean ? "the service was not stopped in order; " : "") + replayed
                        + (replayed == 1 ? " entry was" : " entries were")
                        + " replayed from the journal, which ends at entry "
                        + journal.head().seq());
        } catch (JournalBroken e) {
            journal.close();
            return stopped(
                    options,
                    store,
                    "the journal cannot be trusted: " + e.getMessage()
                            + ". Restore it from a copy; no numbers are given until then",
                    told);
        } catch (SQLException e) {
            throw new IOException("the tables could not be made anew from the journal", e);
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
                            + options.data().resolve("secret") + " from a copy; no numbers are given until then",
                    told);
        }
        return new LedgerOpening(store, journal, "", told);
    }

    /** Empty tables in place of those that are there, which are kept beside. */
    private static Store anew(LedgerOptions options, DataFolder folder) throws IOException, SQLException {
        folder.setTablesAside();
        return Store.open(options.storeUrl(), Secrets.in(options.data()));
    }

    static List<String> rebuild(LedgerOptions options, DataFolder folder) throws IOException {
        try (Journal journal = Journal.open(options.journal(), 0)) {
            try (Store store = anew(options, folder)) {
                long replayed = Replay.run(options.journal(), journal.head(), store);
                return List.of(
                        replayed + " entries were written into new tables",
                        "head " + journal.head(),
                        "the old tables are kept beside the new ones, under aside-");
            }
        } catch (JournalBroken e) {
            throw new IOException(
                    "the journal cannot be trusted, and the tables were left as they are: " + e.getMessage(), e);
        } catch (SQLException e) {
            throw new IOException("the tables could not be written: " + e.getMessage(), e);
        }
    }

    /** The tables, or null where the file is damaged: it can be thrown away as long as the journal is whole. */
    private static Store openOrNull(LedgerOptions options, List<String> told) {
        try {
            return Store.open(options.storeUrl(), Secrets.in(options.data()));
        } catch (SQLException | RuntimeException e) {
            LOG.warn("the tables cannot be opened and will be made anew from the journal", e);
            told.add("the tables could not be opened ("
                    + e.getMessage().lines().findFirst().orElse("") + "), so they are made anew from the journal");
            return null;
        }
    }

    private static LedgerOpening stopped(LedgerOptions options, Store store, String why, List<String> told)
            throws IOException {
        LOG.error("numbering stops: {}", why);
        try {
            // What the tables hold can still be asked; where there are none, an empty set in memory answers.
            return new LedgerOpening(
                    store != null
                            ? store
                            : Store.open(
                                    "jdbc:h2:mem:stopped-" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1",
                                    Secrets.in(options.data())),
                    null,
                    why,
                    told);
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
