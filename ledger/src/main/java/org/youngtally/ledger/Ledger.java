package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.exception.DataAccessException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.proof.Prover;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.LedgerUnavailable.Kind;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.copy.JournalCopy;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalRewritten;
import org.youngtally.ledger.journal.JournalSync;
import org.youngtally.ledger.receipt.Epoch;
import org.youngtally.ledger.receipt.Receipt;
import org.youngtally.ledger.receipt.Receipts;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.ledger.store.Store;

/**
 * The ledger of one data folder: takes acts, answers them once they are on disk, and is asked what is in it. A ledger
 * whose journal cannot be trusted opens all the same, gives no numbers, and says why.
 */
public final class Ledger implements Committed, AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(Ledger.class);
    /** Tables in memory take some times what their journal does. */
    private static final int HEAP_PER_JOURNAL = 8;
    /** How often definitions may change while others are proved that rest on them. */
    private static final int MOST_PROOFS = 20;

    private final LedgerOptions options;
    private final DataFolder folder;
    private final Journal journal;
    private final Writer writer;
    private final JournalUpkeep upkeep;
    private final Store stoppedStore;
    private final LedgerSnapshot stoppedSnapshot;
    private final String stopped;
    private final List<String> opening;
    private final Optional<JournalCopy> copy;
    private final Receipts receipts;
    private final AtomicBoolean closed = new AtomicBoolean();
    private volatile Optional<PossibleRollback> rollback = Optional.empty();
    private final Proofs proofs = new Proofs();
    private final Answers answers = new Answers(this);
    private final List<Consumer<List<Entry>>> listeners = new CopyOnWriteArrayList<>();
    /** Whether the tables are still to be made on the disk. */
    private volatile boolean inMemory;

    private Ledger(LedgerOptions options, DataFolder folder, Optional<JournalCopy> copy, LedgerOpening opened)
            throws IOException {
        this.options = options;
        this.copy = copy;
        this.folder = folder;
        this.journal = opened.journal();
        this.opening = opened.told();
        this.stopped = opened.stopped();
        this.stoppedStore = stopped.isEmpty() ? null : opened.store();
        this.stoppedSnapshot =
                stopped.isEmpty() ? null : LedgerSnapshot.of(new WriterState(stoppedStore.state()).memory());
        this.inMemory = opened.inMemory();
        this.receipts = stopped.isEmpty() ? receipts(opened) : null;
        if (stopped.isEmpty()) this.rollback = openRollback(opened);
        this.writer = stopped.isEmpty() ? new Writer(work(opened)) : null;
        this.upkeep = stopped.isEmpty()
                ? new JournalUpkeep(
                        options.journal(),
                        journal.provedFrom(),
                        folder.checkpoints(),
                        () -> folder.shortage(options.sizes().segment()).isEmpty(),
                        this::distrust)
                : null;
    }

    /** What the start trusted turns out not to be what was written: the next one looks at all of it. By any thread. */
    private void distrust(JournalBroken broken) {
        writer.work().stop(LedgerOpening.distrust(broken, options), broken);
        // Its checkpoints are all that speaks against a journal that was rewritten.
        if (broken instanceof JournalRewritten) return;
        try {
            folder.checkpoints().forget();
        } catch (IOException e) {
            LOG.error("the next start will trust the journal once more: its checkpoints cannot be deleted", e);
        }
    }

    private Receipts receipts(LedgerOpening opened) throws IOException {
        return new Receipts(
                receiptKey(), firstHash(), journal.head().seq(), opened.store().read(dsl -> new EntryQueries(dsl)
                        .epochs()));
    }

    /** A disk that accepts nothing stops no start: receipts are then good until this process ends. */
    private byte[] receiptKey() {
        try {
            return Secrets.in(options.data()).receiptKey();
        } catch (IOException e) {
            LOG.warn("receipts of this run are not recognised by the next one: the secret cannot be kept or read", e);
            byte[] passing = new byte[32];
            new SecureRandom().nextBytes(passing);
            return passing;
        }
    }

    /** What stands in the folder, unless the ledger went on since by an act of its own. */
    private Optional<PossibleRollback> openRollback(LedgerOpening opened) throws IOException {
        Optional<PossibleRollback> found = PossibleRollback.in(options.data());
        if (found.isEmpty()) return found;
        boolean lacks = found.get()
                .seen()
                .filter(seen -> receipts.meaning(seen) == Receipts.Meaning.BEYOND)
                .isPresent();
        if (copy.filter(JournalCopy::hasProved).isPresent() && !lacks) {
            PossibleRollback.settle(options.data());
            return Optional.empty();
        }
        if (!opened.store()
                .read(dsl -> new EntryQueries(dsl).resumed(found.get().entry()))) return found;
        PossibleRollback.settle(options.data());
        return Optional.empty();
    }

    private BatchWork work(LedgerOpening opened) throws IOException {
        var work = new BatchWork(
                journal,
                opened.store(),
                new SteadyClock(options.clock(), System::nanoTime),
                options.zone(),
                new FromTheJournal(),
                this::tell,
                BatchWork.Answering.BESIDE,
                folder,
                Epoch.fresh(receipts.generation()).toString());
        work.holdStill(rollback.isPresent());
        if (opened.shortage().isPresent() || opened.failing().isPresent())
            work.beginPaused(opened.shortage(), opened.failing().orElse(null), opened.inMemory());
        DateCheck.question(
                        options.clock().instant(),
                        folder.lastSeenAt(),
                        opened.store().state().newest(),
                        options.zone())
                .ifPresent(work::questionDate);
        return work;
    }

    /**
     * Opens the ledger, bringing the tables up to the journal.
     *
     * @throws LedgerInUse where another process has the folder
     */
    public static Ledger open(LedgerOptions options) throws IOException {
        DataFolder folder = DataFolder.own(options);
        Optional<JournalCopy> copy = Optional.empty();
        try {
            folder.keepToOwner();
            copy = copyOf(options, folder);
            LedgerOptions twin =
                    copy.isEmpty() ? options : options.withJournal(copy.get().disk());
            folder.writesTo(twin.journal());
            LedgerOpening opened = LedgerOpening.of(twin, folder, copy);
            return new Ledger(twin, folder, copy, opened);
        } catch (IOException | RuntimeException e) {
            if (copy.isPresent()) copy.get().close();
            folder.close();
            throw e;
        }
    }

    private static Optional<JournalCopy> copyOf(LedgerOptions options, DataFolder folder) throws IOException {
        Optional<CopyPlace> noted = folder.notedCopy();
        if (options.copy().isEmpty() && noted.isPresent())
            throw new IOException("the journal of this folder is copied to "
                    + noted.get().folder() + ". Start with --journal-copy "
                    + noted.get().folder()
                    + ", or with --end-journal-copy to go on without the copy");
        return options.copy().isEmpty()
                ? Optional.empty()
                : Optional.of(JournalCopy.open(options.journal(), options.copy().get(), noted));
    }

    /**
     * Writes into the journal of a folder that nobody uses what a copy of it has more.
     *
     * @return how the two were found: where the copy is shorter, nothing was done
     * @throws JournalBroken where one of them is damaged, or the two went different ways
     */
    public static JournalSync catchUp(LedgerOptions options, Disk copy) throws IOException, JournalBroken {
        try (DataFolder folder = DataFolder.own(options)) {
            if (Journal.isEmpty(options.journal()))
                throw new IOException(
                        "--data: " + options.data() + " has no journal. Restore a backup into a new folder first");
            return JournalSync.catchUp(options.journal(), copy);
        }
    }

    /** The options with the copy that the folder says its journal has. */
    public static LedgerOptions withNotedCopy(LedgerOptions options) throws IOException {
        try (DataFolder folder = DataFolder.own(options)) {
            return options.withCopy(folder.notedCopy());
        }
    }

    /**
     * Ends the copy of a folder's journal: from now on it does not have every number.
     *
     * @param lost whether the copy is lost for good, so that nobody can ever go back to it
     */
    public static void endCopy(LedgerOptions options, boolean lost) throws IOException {
        try (DataFolder folder = DataFolder.own(options)) {
            Optional<CopyPlace> noted = folder.notedCopy();
            if (noted.isEmpty()) return;
            Path place = noted.get().folder();
            try {
                JournalCopy.end(place, folder.knownEntry() + 1);
            } catch (IOException e) {
                if (!lost)
                    throw new IOException(
                            "--end-journal-copy: nothing can be noted in " + place + " (" + e.getMessage()
                                    + "), so that it would still be believed to have every number. Mount the disk; if it is lost for good, add --journal-copy-lost",
                            e);
            }
            folder.forgetCopy();
        }
    }

    /**
     * Makes the tables anew from the journal alone.
     *
     * @return what was done, for people
     */
    public static List<String> rebuild(LedgerOptions options) throws IOException {
        return rebuild(options, Optional.empty());
    }

    /**
     * @param upTo where a journal ends that is shorter than it once was, by somebody who knows what is lost by it;
     *     absent to refuse such a one
     */
    public static List<String> rebuild(LedgerOptions options, Optional<Long> upTo) throws IOException {
        try (DataFolder folder = DataFolder.own(options)) {
            return LedgerOpening.rebuild(options, folder, upTo);
        }
    }

    /** Brings tables up to the journal. */
    private final class FromTheJournal implements BatchWork.Recovery {
        @Override
        public Store recover(Journal failedJournal, Store failed) throws IOException, SQLException, JournalBroken {
            try {
                failed.abandon();
            } catch (SQLException e) {
                LOG.warn("the failed tables did not close in order", e);
            }
            failedJournal.forgetUnforced();
            return replayed(reopened(), failedJournal);
        }

        @Override
        public Optional<Store> standIn(Journal whole) throws IOException, SQLException, JournalBroken {
            if (whole.size() > Runtime.getRuntime().maxMemory() / HEAP_PER_JOURNAL) return Optional.empty();
            return Optional.of(replayed(LedgerOpening.memory(options), whole));
        }
    }

    private Store replayed(Store store, Journal whole) throws IOException, SQLException, JournalBroken {
        try {
            long replayed = Replay.run(options.journal(), whole.head(), store);
            LOG.info("recovered; {} entries were written into the tables again", replayed);
            return store;
        } catch (IOException | RuntimeException | SQLException | JournalBroken e) {
            abandon(store, e);
            throw e;
        }
    }

    /** The tables of the disk; new ones where there are none, or where the failure has damaged them. */
    private Store reopened() throws IOException, SQLException {
        if (inMemory) folder.setTablesAside();
        inMemory = false;
        try {
            return Store.open(options.storeUrl(), Secrets.in(options.data()));
        } catch (SQLException | RuntimeException e) {
            LOG.warn("the tables do not open again, and are rebuilt", e);
            folder.setTablesAside();
            return Store.open(options.storeUrl(), Secrets.in(options.data()));
        }
    }

    private static void abandon(Store store, Exception because) {
        try {
            store.abandon();
        } catch (SQLException e) {
            because.addSuppressed(e);
        }
    }

    private void tell(List<Entry> entries) {
        receipts.forced(entries, firstHash(entries));
        for (Consumer<List<Entry>> listener : listeners) {
            try {
                listener.accept(entries);
            } catch (RuntimeException e) {
                LOG.warn("a listener failed; the entries are kept", e);
            }
        }
    }

    /** The hash of the ledger's first entry, by which it is known, where it is among these. */
    private Optional<String> firstHash(List<Entry> entries) {
        return entries.getFirst().seq() > 1 ? Optional.empty() : firstHash();
    }

    private Optional<String> firstHash() {
        try {
            return Journal.headAt(options.journal(), 1).map(Head::hash);
        } catch (IOException e) {
            LOG.warn("no receipts are made before the next start: the first entry cannot be read back", e);
            return Optional.empty();
        }
    }

    /** The receipt of the newest entry; absent where there is none to make. */
    public Optional<Receipt> receipt() {
        return receipts == null ? Optional.empty() : receipts.newest();
    }

    /**
     * Somebody shows a receipt. If it is genuine and the ledger lacks its entry, no numbers are allocated any more,
     * also after a start.
     */
    public void show(Receipt shown) {
        if (receipts == null || receipts.meaning(shown) != Receipts.Meaning.BEYOND) return;
        synchronized (this) {
            // The one of the latest generation is kept: numbers go on behind it.
            if (rollback.flatMap(PossibleRollback::seen)
                    .filter(known -> known.generation() >= shown.generation())
                    .isPresent()) return;
            var found = new PossibleRollback(
                    "a receipt of entry " + shown.entry() + " was shown, and "
                            + (shown.entry() > receipts.entry()
                                    ? "the ledger ends at entry " + receipts.entry()
                                    : "that entry of the ledger is another one"),
                    rollback.map(PossibleRollback::entry).orElse(receipts.entry()),
                    Optional.of(shown));
            rollback = Optional.of(found);
            writer.work().holdStill(true);
            LOG.error("no numbers are allocated: {}", found.message());
            try {
                found.keep(options.data());
            } catch (IOException e) {
                LOG.error("that the ledger may not be the newest could not be noted for the next start", e);
            }
        }
    }

    /**
     * Whether the ledger has an entry with a hash, as somebody noted it down.
     *
     * @param noted a head that was kept elsewhere
     */
    public boolean reaches(Head noted) throws IOException {
        return noted.seq() <= receipts.entry()
                && Journal.headAt(options.journal(), noted.seq()).equals(Optional.of(noted));
    }

    /**
     * It was proved that this ledger is the newest.
     *
     * @return the receipt of an entry that it lacks all the same, by which nothing is settled; absent where all is well
     */
    public Optional<Receipt> proved() {
        synchronized (this) {
            Optional<Receipt> lacking = rollback.flatMap(PossibleRollback::seen)
                    .filter(seen -> receipts.meaning(seen) == Receipts.Meaning.BEYOND);
            if (lacking.isPresent()) return lacking;
            settle();
            rollback = Optional.empty();
            writer.work().holdStill(false);
            return Optional.empty();
        }
    }

    /** Why it is not known whether this ledger is the newest; absent where nothing speaks against it. */
    public Optional<PossibleRollback> rollback() {
        return rollback;
    }

    /** The series of which it is still to be stated what a lost state of the ledger may have issued. */
    public List<String> unstated() {
        Optional<PossibleRollback> now = rollback;
        if (now.isEmpty()) return List.of();
        Set<String> stated = read(dsl -> new EntryQueries(dsl).stated(now.get().entry()));
        return snapshot().series().values().stream()
                .filter(series -> !series.retired() && !stated.contains(series.key()))
                .map(Series::key)
                .sorted()
                .toList();
    }

    /**
     * Allocates numbers again, once what may have been issued was stated of all series.
     *
     * @param reason why nothing else was issued
     * @param before what is done first, about labels that a lost state may have printed
     */
    public Outcome<Answer.Settlement> resume(
            Optional<String> reason, RequestMark mark, String by, List<Act.ChangeLabels> before) {
        synchronized (this) {
            List<String> open = unstated();
            if (!open.isEmpty())
                throw new IllegalStateException("nothing was stated yet of " + String.join(", ", open));
            for (Act.ChangeLabels act : before) performed(act, by);
            Outcome<Answer.Settlement> outcome =
                    performed(new Act.Resume(Epoch.fresh(nextGeneration()).toString(), reason, mark), by);
            if (outcome instanceof Outcome.Settled) {
                settle();
                rollback = Optional.empty();
                writer.work().holdStill(false);
            }
            return outcome;
        }
    }

    /** Behind every loss that is known of, so that receipts from before this one mean nothing any more. */
    private int nextGeneration() {
        return 1
                + Math.max(
                        receipts.generation(),
                        rollback.flatMap(PossibleRollback::seen)
                                .map(Receipt::generation)
                                .orElse(0));
    }

    private void settle() {
        try {
            PossibleRollback.settle(options.data());
        } catch (IOException e) {
            // The next start finds the act in the journal, and takes the file away.
            LOG.warn("the note that the ledger may not be the newest could not be deleted", e);
        }
    }

    /** What is done although a newer state of the ledger may exist. */
    private static boolean isOfRestoring(Act<?> act) {
        return act instanceof Act.StateHighest || act instanceof Act.ChangeAccount || act instanceof Act.Define;
    }

    /**
     * Tells the listener of every batch of entries once it is on disk. It is called by the writing thread, must be
     * quick, and must not ask the ledger anything: the tables get the entries after it.
     */
    public void onEntries(Consumer<List<Entry>> listener) {
        listeners.add(listener);
    }

    /**
     * Tells the listener why nothing can be done any more by this process: the writer has met an error that it cannot
     * recover from. Whoever supervises the process should start it again.
     */
    public void onDeath(Consumer<String> listener) {
        if (writer != null) writer.work().onDeath(listener);
    }

    /**
     * Performs an act and waits until it is on disk. Definitions are proved by the thread that calls, which takes
     * seconds at the most for each namespace they touch.
     *
     * @throws LedgerUnavailable where the ledger cannot answer
     */
    public <A extends Answer> Outcome<A> perform(Act<A> act, String by) {
        if (writer == null) throw new LedgerUnavailable(Kind.STOPPED, stopped, null);
        Optional<String> question = writer.work().dateQuestion();
        if (question.isPresent() && DateCheck.matters(act))
            throw new LedgerUnavailable(Kind.DATE_UNCONFIRMED, question.get(), null);
        Optional<PossibleRollback> possible = rollback;
        if (possible.isPresent() && !isOfRestoring(act))
            throw new LedgerUnavailable(Kind.NEWEST_UNKNOWN, possible.get().message(), null);
        return performed(act, by);
    }

    private <A extends Answer> Outcome<A> performed(Act<A> act, String by) {
        try {
            for (int i = 0; i < MOST_PROOFS; i++) {
                BatchWork.Result outcome = writer.submit(act, by, proved(act)).join();
                if (!(outcome instanceof BatchWork.Result.Unproved)) return answers.of(act, outcome);
            }
            throw new LedgerUnavailable(Kind.BUSY, "the definitions change faster than they are proved", null);
        } catch (CompletionException e) {
            if (e.getCause() instanceof LedgerUnavailable unavailable) throw unavailable;
            throw e;
        }
    }

    /** Looks for the proofs that an act needs, as the ledger stands; by the time of the act it may need others. */
    private Prover proved(Act<?> act) {
        Proofs.Gathered gathered = proofs.gather();
        if (act instanceof Act.Define) decide(snapshot(), act, gathered.looking());
        return gathered.known();
    }

    /** What the act would come to on the ledger as it stands, without doing it. */
    public Decision decide(Act<?> act) {
        return decide(snapshot(), act);
    }

    /** What the act would have come to on the ledger as it stood. */
    public Decision decide(LedgerSnapshot stood, Act<?> act) {
        return decide(stood, act, proofs.gather().looking());
    }

    private Decision decide(LedgerSnapshot stood, Act<?> act, Prover prover) {
        return read(dsl -> {
            var state = new WriterState(new StateQueries(dsl), stood);
            state.load(List.of(act));
            return Decider.decide(state.memory(), act, options.clock().instant(), today(), prover);
        });
    }

    /** Has the tables commit what was answered, unless others are about to: for whoever has sent an answer. */
    public void commitBehind() {
        if (writer != null) writer.commitBehind();
    }

    @Override
    public <T> T read(Function<DSLContext, T> question) {
        if (writer != null) writer.awaitTables();
        Store asked = store();
        try {
            return asked.read(question);
        } catch (IllegalStateException | DataAccessException e) {
            // A writer that recovers has put a fresh store in the place of the failed one.
            if (store() != asked) return store().read(question);
            if (Store.isCrowded(e)) throw new LedgerUnavailable(Kind.BUSY, "too many questions are asked at once", e);
            if (!Store.isAway(e)) throw e;
            LOG.warn("a question met tables that are away", e);
            throw new LedgerUnavailable(
                    Kind.DISK_FAILING, "the tables cannot be read at the moment; ask again in a second", e);
        }
    }

    private Store store() {
        return writer == null ? stoppedStore : writer.work().store();
    }

    @Override
    public LedgerSnapshot snapshot() {
        return writer == null ? stoppedSnapshot : writer.work().committedSnapshot();
    }

    /** The time by the ledger's clock. */
    public Instant now() {
        return options.clock().instant();
    }

    public LocalDate today() {
        return LocalDate.ofInstant(options.clock().instant(), options.zone());
    }

    public ZoneId zone() {
        return options.zone();
    }

    /** The files that go with records. */
    public Attachments files() {
        return Attachments.in(options.data());
    }

    /** The copy of the journal; absent where none is kept. */
    public Optional<JournalCopy> journalCopy() {
        return copy;
    }

    /** The data folder. */
    public Path data() {
        return options.data();
    }

    public Disk journalDisk() {
        return options.journal();
    }

    public Status status() {
        if (writer == null)
            return new Status(
                    stopped, "", journal == null ? Head.EMPTY : journal.head(), opening, List.of(), Optional.empty());
        BatchWork work = writer.work();
        String paused = work.paused()
                .map(LedgerUnavailable::getMessage)
                .or(() -> rollback.map(PossibleRollback::message))
                .or(work::dateQuestion)
                .orElse("");
        List<String> remarks = Stream.concat(
                        copy.flatMap(each -> each.disk().warning()).stream(), work.remarks().stream())
                .toList();
        return new Status(work.stopped(), paused, work.head(), opening, remarks, upkeep.proof());
    }

    /**
     * Confirms the date that the clock says, where it was in doubt.
     *
     * @return whether it is today's by the ledger's clock; if it is not, nothing was confirmed
     */
    public boolean confirmDate(LocalDate date) {
        if (writer == null || !date.equals(today())) return false;
        writer.work().confirmDate();
        return true;
    }

    /**
     * Answers what waits and closes; nothing is left to do at the next start, unless the disk or the folder is not as
     * it should be: then nothing is written any more, and the next start does the rest. Closing again does nothing.
     */
    @Override
    public void close() throws IOException {
        if (!closed.compareAndSet(false, true)) return;
        var failures = new ArrayList<Exception>();
        if (writer != null) writer.close();
        if (upkeep != null) upkeep.close();
        boolean writes = writer == null || writer.work().isWritable();
        if (writes) close(store(), failures);
        else abandon();
        if (journal != null) close(journal, failures);
        if (failures.isEmpty() && writes && writer != null) {
            Optional<Instant> seen = writer.work().believedNow();
            if (seen.isPresent()) folder.saw(seen.get(), writer.work().head().seq());
            journal.end().ifPresent(folder::proved);
            folder.unmark();
        }
        if (copy.isPresent()) close(copy.get(), failures);
        folder.close();
        if (!failures.isEmpty())
            throw new IOException(
                    "the ledger did not close in order (" + failures.getFirst()
                            + "); the next start will replay the journal",
                    failures.getFirst());
    }

    /** Nothing of it is written any more; what it lacks is in the journal. */
    private void abandon() {
        try {
            store().abandon();
        } catch (SQLException e) {
            LOG.warn("the tables were let go of without writing them", e);
        }
    }

    private static void close(AutoCloseable part, List<Exception> failures) {
        try {
            part.close();
        } catch (Exception e) {
            failures.add(e);
        }
    }
}
