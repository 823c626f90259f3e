package org.youngtally.ledger;

import java.io.IOException;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jooq.exception.IntegrityConstraintViolationException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.proof.Prover;
import org.youngtally.ledger.LedgerUnavailable.Kind;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.store.Store;

/**
 * Does batches of acts: it decides act by act, writes the effects into the tables without committing, forces them to
 * the journal and answers everybody. The tables are committed by {@link #commitBehind}, or else before the next batch.
 * For one thread at a time, except where it says otherwise.
 */
final class BatchWork {
    private static final Logger LOG = LoggerFactory.getLogger(BatchWork.class);
    /** After a unique index has objected, so many batches look keys and references up before they decide. */
    private static final int CHECKED_BATCHES = 100;
    /** So often the folder is looked at while nothing is written. */
    private static final long BETWEEN_LOOKS = TimeUnit.MILLISECONDS.toNanos(250);
    /** So often the time is noted for the next start. */
    private static final long BETWEEN_NOTES = TimeUnit.MINUTES.toNanos(10);
    /** So many bytes of the journal a start reads again in less time than anybody notices. */
    private static final long BETWEEN_CHECKPOINTS = 256L << 10;
    /** Who ends a hold whose time is up. */
    static final String CLOCK = "clock";

    /** What an act came to. */
    sealed interface Result {
        /** @param entry absent where nothing had to be done */
        record Done(Optional<Entry> entry) implements Result {}

        record Repeated(long seq) implements Result {}

        /** @param record that there was already */
        record Known(long record) implements Result {}

        record Refused(Refusal refusal) implements Result {}

        /** Definitions are not what they were when the proofs were looked for that it needs; nothing was done. */
        record Unproved() implements Result {}
    }

    /** Brings the tables up to the journal again after a failure. */
    interface Recovery {
        Store recover(Journal journal, Store store) throws IOException, SQLException, JournalBroken;

        /**
         * Tables in memory that can be asked while those on the disk cannot; absent where there is no room for them.
         */
        default Optional<Store> standIn(Journal journal) throws IOException, SQLException, JournalBroken {
            return Optional.empty();
        }
    }

    /** Tells the callers of a batch what came of it. */
    interface Answering {
        /** While the writer goes on; another thread would only be woken to wake a single caller. */
        Answering BESIDE = (callers, answers) -> {
            if (callers == 1) answers.run();
            else Thread.startVirtualThread(answers);
        };

        /** @param callers how many are told */
        void tell(int callers, Runnable answers);
    }

    /** @param prover what definitions are proved by: it knows, and does not look, or everybody would wait */
    record Waiting(Act<?> act, String by, CompletableFuture<Result> answer, Prover prover) {
        Waiting(Act<?> act, String by, CompletableFuture<Result> answer) {
            this(act, by, answer, Prover.LOOKING);
        }
    }

    private final Journal journal;
    private final SteadyClock clock;
    private final ZoneId zone;
    private final Recovery recovery;
    private final Consumer<List<Entry>> forced;
    private final Answering answering;
    private final DiskGuard guard;
    /** Begins with the first entry of this process. */
    private final String epoch;

    private final Pause pause = new Pause();
    private final ReentrantLock tables = new ReentrantLock();
    private final Condition progress = tables.newCondition();
    private volatile Store store;
    /** The last entry that was answered. */
    private volatile Head head;
    /** The last entry that the tables have committed. */
    private volatile long inTables;

    private volatile LedgerSnapshot snapshot;
    private volatile Consumer<String> died = why -> {};
    private volatile String stopped = "";
    private volatile String dateQuestion = "";
    private volatile boolean newestUnknown;
    private boolean epochBegun;
    private WriterState state;
    /** Whether the tables hold what was answered, and have not committed it. */
    private boolean uncommitted;

    private int checkedBatches;
    private volatile long sawAt;
    /** How much of the journal has a checkpoint, in bytes since this process began. */
    private long checkpointAt;

    private long lookedAt = System.nanoTime();

    /**
     * Over a journal and the tables that hold all of it.
     *
     * @param forced is told of entries once they are on disk, before their callers are
     * @param answering tells the callers of a batch what came of it, once it is on disk; the tables are committed
     *     behind
     * @param guard watches over the place that is written to
     * @param epoch that begins with the first entry
     */
    BatchWork(
            Journal journal,
            Store store,
            SteadyClock clock,
            ZoneId zone,
            Recovery recovery,
            Consumer<List<Entry>> forced,
            Answering answering,
            DiskGuard guard,
            String epoch) {
        this.guard = guard;
        this.epoch = epoch;
        this.journal = journal;
        this.store = store;
        this.clock = clock;
        this.zone = zone;
        this.recovery = recovery;
        this.forced = forced;
        this.answering = answering;
        this.head = journal.head();
        this.inTables = journal.head().seq();
        this.state = new WriterState(store.state());
        this.snapshot = snapshot();
        store.state().newest().ifPresent(clock::wasAt);
    }

    String stopped() {
        return stopped;
    }

    /** Why no numbers are given for now; absent while they are. */
    Optional<LedgerUnavailable> paused() {
        return pause.why();
    }

    /** Begins with a pause, since the disk did not take everything when the ledger was opened. */
    void beginPaused(Optional<Shortage> shortage, Throwable failure, boolean tablesInMemory) {
        pause(shortage, failure);
        if (tablesInMemory) pause.losesTables();
    }

    /** Whether the tables can be written at the end. */
    boolean isWritable() {
        if (!stopped.isEmpty() || pause.isOn()) return false;
        try {
            if (guard.lost(journal).isPresent()
                    || guard.shortage(store.unsaved()).isPresent()) return false;
            guard.tryWriting();
            return true;
        } catch (IOException e) {
            LOG.warn("the tables are not written at the end; the next start makes up for it from the journal", e);
            return false;
        }
    }

    /** Whether holds are to stay as they are, because a newer state of the ledger may exist. */
    void holdStill(boolean still) {
        newestUnknown = still;
    }

    /** Nothing is done that goes by the date before somebody has confirmed it. */
    void questionDate(String question) {
        LOG.error("no numbers are allocated until the date is confirmed: {}", question);
        dateQuestion = question;
    }

    /** What is to be confirmed about the date; absent where it is believed. */
    Optional<String> dateQuestion() {
        return Optional.of(dateQuestion).filter(question -> !question.isEmpty());
    }

    void confirmDate() {
        LOG.info("the date was confirmed");
        dateQuestion = "";
        sawAt = 0;
    }

    /** The time, where it can be held against that of the next start. */
    Optional<Instant> believedNow() {
        return dateQuestion.isEmpty() && clock.remark().isEmpty() ? Optional.of(clock.now()) : Optional.empty();
    }

    /** What people should know. */
    List<String> remarks() {
        return clock.remark().isEmpty() ? List.of() : List.of(clock.remark());
    }

    /** No numbers are given until the disk takes what is written. */
    private void pause(Optional<Shortage> shortage, Throwable failure) {
        Optional<String> replaced = guard.replaced(journal);
        if (replaced.isPresent()) {
            lost(new FolderLost(replaced.get(), false));
            return;
        }
        LOG.error(
                "no numbers are allocated for now: {}",
                shortage.map(Shortage::toString).orElseGet(() -> String.valueOf(failure)));
        guard.spendReserve();
        pause.begin(shortage, failure);
        wake();
        if (pause.hasLostTables() && pause.isFirstTime()) standIn();
    }

    Head head() {
        return head;
    }

    Store store() {
        return store;
    }

    /** The ledger as it was answered last. */
    LedgerSnapshot committedSnapshot() {
        return snapshot;
    }

    private LedgerSnapshot snapshot() {
        return LedgerSnapshot.of(state.memory());
    }

    /** Ends the holds whose time is up; it costs nothing where there are none. */
    void lapse() {
        if (!stopped.isEmpty() || pause.isOn() || !dateQuestion.isEmpty() || newestUnknown) return;
        Instant now = clock.now();
        if (state.memory().nextLapse().filter(lapse -> !lapse.isAfter(now)).isEmpty() || !clock.isSteady()) return;
        serve(List.of(new Waiting(new Act.Lapse(now), CLOCK, new CompletableFuture<>())));
    }

    /**
     * Looks after the folder and the tables' file, once what was waited for is answered.
     *
     * @param atRest whether nobody waits
     */
    void tidy(boolean atRest) {
        commitBehind();
        if (!stopped.isEmpty() || !look()) return;
        journal.tend();
        if (pause.isOn()) {
            goOn();
            return;
        }
        try {
            if (store.isSavingDue(atRest)) {
                Optional<Shortage> shortage = guard.shortage(store.unsaved());
                if (shortage.isPresent()) {
                    pause(shortage, null);
                    return;
                }
                guard.tryWriting();
            }
            store.tidy(atRest);
            noteCheckpoint();
            see();
        } catch (IOException e) {
            pause(guard.shortage(0), e);
        } catch (RuntimeException e) {
            LOG.warn("the tables could not be written to their file; they are opened again", e);
            recover();
        }
    }

    /** Now and then, notes up to where a start can trust the journal: where the tables were written, or soon after. */
    private void noteCheckpoint() {
        if (journal.written() - checkpointAt < BETWEEN_CHECKPOINTS) return;
        checkpointAt = journal.written();
        journal.end().ifPresent(guard::proved);
    }

    /** Now and then, notes the time for the next start. */
    private void see() throws IOException {
        long now = System.nanoTime();
        if (head.seq() == 0 || sawAt != 0 && now - sawAt < BETWEEN_NOTES) return;
        sawAt = now;
        Optional<Instant> believed = believedNow();
        if (believed.isPresent()) guard.saw(believed.get(), head.seq());
    }

    /**
     * Now and then, whether the folder is still ours and there is room.
     *
     * @return whether to go on
     */
    private boolean look() {
        long now = System.nanoTime();
        if (now - lookedAt < BETWEEN_LOOKS) return true;
        lookedAt = now;
        Optional<String> lost = guard.lost(journal);
        if (lost.isPresent()) {
            lost(new FolderLost(lost.get(), false));
            return false;
        }
        if (pause.isOn()) return true;
        guard.shortage(store.unsaved()).ifPresent(shortage -> pause(Optional.of(shortage), null));
        return true;
    }

    private void lost(FolderLost what) {
        try {
            rollback();
        } catch (SQLException e) {
            LOG.warn("what was under way could not be rolled back; it was not answered", e);
        }
        stop(what.getMessage(), what);
    }

    /** Gives numbers again if the disk takes what is written. */
    private void goOn() {
        if (!pause.isTimeToTry()) return;
        try {
            if (pause.isUnforced()) {
                journal.forgetUnforced();
                pause.forgotUnforced();
            }
            Optional<Shortage> still = guard.stillShort(pause.hasLostTables() ? 0 : store.unsaved());
            if (still.isPresent()) {
                pause.begin(still, null);
                return;
            }
            if (pause.hasLostTables()) recovered();
            pause.end();
            LOG.info("numbers are allocated again");
        } catch (IOException e) {
            LOG.debug("the disk still accepts nothing", e);
            pause.begin(guard.shortage(0), e);
        } catch (RuntimeException | SQLException | JournalBroken e) {
            notRecovered(e);
        }
    }

    /**
     * Does a batch and answers every act of it. What closes a period, or compares a namespace anew, looks at rows as
     * they stand, and is done by itself.
     */
    void serve(List<Waiting> batch) {
        int from = 0;
        for (int i = 0; i < batch.size(); i++) {
            if (!looksAtRows(batch.get(i).act())) continue;
            if (i > from) together(batch.subList(from, i));
            together(List.of(batch.get(i)));
            from = i + 1;
        }
        if (from < batch.size()) together(batch.subList(from, batch.size()));
    }

    private static boolean looksAtRows(Act<?> act) {
        return act instanceof Act.Close
                || act instanceof Act.Define define
                        && define.drafts().namespaces().stream().anyMatch(draft -> draft.comparison() != null);
    }

    private void together(List<Waiting> batch) {
        commitBehind();
        if (!stopped.isEmpty()) {
            fail(batch, Kind.STOPPED, stopped, null);
            return;
        }
        if (pause.isOn()) goOn();
        Optional<LedgerUnavailable> paused = pause.why();
        if (paused.isPresent()) {
            fail(batch, paused.get());
            return;
        }
        try {
            if (checkedBatches == 0 && optimistically(batch)) return;
            if (checkedBatches > 0) checkedBatches--;
            state.load(batch.stream().map(Waiting::act).toList());
            attempt(batch, false);
        } catch (IntegrityConstraintViolationException e) {
            oneByOne(batch, e);
        } catch (FolderLost e) {
            lost(e);
            if (e.afterAppend()) fail(batch, Kind.OUTCOME_UNKNOWN, e.getMessage(), e);
            else fail(batch, Kind.STOPPED, e.getMessage(), e);
        } catch (AppendFailed e) {
            appendFailed(batch, e);
        } catch (RuntimeException | IOException | SQLException e) {
            LOG.error("a batch of {} acts failed; the tables are brought up to the journal again", batch.size(), e);
            recover();
            fail(
                    batch,
                    Kind.OUTCOME_UNKNOWN,
                    "the disk or the tables failed while this was written; repeat it with the same idempotency key to learn the outcome",
                    e);
        } catch (Error e) {
            fail(
                    batch,
                    Kind.OUTCOME_UNKNOWN,
                    "the service failed while this was written; repeat it with the same idempotency key once it runs again",
                    e);
            end("the writer met an error it cannot recover from (" + e + "); start the service again", e);
        }
    }

    /**
     * The journal did not take a batch. Where what it took of it can be taken away again, nothing was done and the
     * tables can be asked as before.
     */
    private void appendFailed(List<Waiting> batch, AppendFailed failure) {
        LOG.error("the journal did not accept a batch of {} acts", batch.size(), failure);
        Optional<String> lost = guard.replaced(journal);
        if (lost.isPresent()) {
            lost(new FolderLost(lost.get(), true));
            fail(batch, Kind.OUTCOME_UNKNOWN, stopped, failure);
            return;
        }
        boolean undone = false;
        try {
            journal.forgetUnforced();
            undone = true;
        } catch (IOException e) {
            failure.addSuppressed(e);
            pause.leavesUnforced();
        }
        try {
            rollback();
            state = new WriterState(store.state());
        } catch (RuntimeException | SQLException e) {
            failure.addSuppressed(e);
            pause.losesTables();
        }
        pause(guard.shortage(0), failure.getCause());
        if (undone && pause.isOn()) fail(batch, pause.why().orElseThrow());
        else
            fail(
                    batch,
                    Kind.OUTCOME_UNKNOWN,
                    "the disk failed while this was written; repeat it with the same idempotency key to learn the outcome",
                    failure);
    }

    /**
     * Most keys and references are new, so that they are not looked up: the unique indexes object to one that is not.
     * An act that would do nothing may have been done before, and is looked up as well. Nothing was forced or answered
     * then, and the batch begins again.
     *
     * @return whether the batch is done
     */
    private boolean optimistically(List<Waiting> batch) throws IOException, SQLException, FolderLost, AppendFailed {
        try {
            state.begin();
            if (attempt(batch, true)) return true;
        } catch (IntegrityConstraintViolationException e) {
            LOG.debug("a batch of {} acts names a key or reference that is known; it is looked up", batch.size());
            rollback();
        }
        state = new WriterState(store.state());
        checkedBatches = CHECKED_BATCHES;
        return false;
    }

    /** A unique index objected to somebody's effects: each act is tried by itself, so that only that one is refused. */
    private void oneByOne(List<Waiting> batch, IntegrityConstraintViolationException objection) {
        LOG.warn("the tables refused a batch of {} acts; each is tried by itself", batch.size(), objection);
        try {
            rollback();
        } catch (SQLException e) {
            recover();
            fail(
                    batch,
                    Kind.OUTCOME_UNKNOWN,
                    "the tables failed; repeat it with the same idempotency key to learn the outcome",
                    e);
            return;
        }
        state = new WriterState(store.state());
        if (batch.size() > 1) {
            checkedBatches = Math.max(checkedBatches, batch.size());
            for (Waiting one : batch) together(List.of(one));
            return;
        }
        Act<?> act = batch.getFirst().act();
        String series = act instanceof Act.Allocate allocate ? allocate.series() : "";
        batch.getFirst().answer().complete(new Result.Refused(new Refusal.IdentifierTaken(series)));
    }

    /**
     * @param optimistic whether to give up where an act that may have been done before would do nothing now
     * @return whether it is done
     */
    private boolean attempt(List<Waiting> batch, boolean optimistic)
            throws IOException, SQLException, FolderLost, AppendFailed {
        Instant now = clock.now();
        LocalDate today = LocalDate.ofInstant(now, zone);
        var entries = new ArrayList<Entry>();
        var outcomes = new ArrayList<Result>(batch.size());
        for (Waiting waiting : batch) {
            Result outcome = decide(waiting, now, today, entries);
            if (optimistic && !takesEffect(outcome) && mayBeKnown(waiting.act())) return false;
            outcomes.add(outcome);
        }
        if (!entries.isEmpty()) {
            store.write(entries);
            append(entries);
            uncommitted = true;
            epochBegun = true;
            head = journal.head();
            if (entries.stream()
                    .anyMatch(entry -> entry.kind() == Entry.Kind.DEFINE
                            || entry.kind() == Entry.Kind.REMOVE
                            || entry.kind() == Entry.Kind.ACCESS)) snapshot = snapshot();
            else snapshot = snapshot.with(state.memory().counters());
            forced.accept(entries);
        }
        answering.tell(batch.size(), () -> {
            for (int i = 0; i < batch.size(); i++) batch.get(i).answer().complete(outcomes.get(i));
        });
        return true;
    }

    /**
     * Has the tables commit what was answered, where they have not. It is in the journal, of which tables that do not
     * accept it are rebuilt.
     */
    void commitBehind() {
        if (!uncommitted) return;
        try {
            store.commit(head);
            caughtUp();
        } catch (RuntimeException | SQLException e) {
            LOG.error("the tables did not accept what was answered; they are brought up to the journal again", e);
            recover();
        }
    }

    private void caughtUp() {
        uncommitted = false;
        inTables = head.seq();
        wake();
    }

    private void rollback() throws SQLException {
        uncommitted = false;
        store.rollback();
    }

    /** Whether the tables have yet to commit something that was answered. By any thread. */
    boolean isBehind() {
        return inTables < head.seq();
    }

    /** Those who wait for the tables look again. */
    private void wake() {
        tables.lock();
        try {
            progress.signalAll();
        } finally {
            tables.unlock();
        }
    }

    /**
     * Waits until the tables hold an entry that was answered; not while they are away. By any thread but one that is at
     * work.
     */
    void awaitTables(long answered) {
        tables.lock();
        try {
            while (inTables < answered && stopped.isEmpty() && !pause.isOn()) progress.awaitUninterruptibly();
        } finally {
            tables.unlock();
        }
    }

    private static boolean takesEffect(Result outcome) {
        return switch (outcome) {
            case Result.Done done -> done.entry().isPresent();
            case Result.Repeated repeated -> true;
            case Result.Known known -> false;
            case Result.Refused refused -> false;
            case Result.Unproved unproved -> false;
        };
    }

    private void append(List<Entry> entries) throws FolderLost, AppendFailed {
        Optional<String> lost = guard.lost(journal);
        if (lost.isPresent()) throw new FolderLost(lost.get(), false);
        try {
            journal.append(entries);
        } catch (IOException e) {
            throw new AppendFailed(e);
        }
        // The process may have been halted for long between the look and the write.
        Optional<String> lostMeanwhile = guard.lost(journal);
        if (lostMeanwhile.isPresent()) throw new FolderLost(lostMeanwhile.get(), true);
    }

    /** Whether it names a key or a reference, so that it may have been done before. */
    private static boolean mayBeKnown(Act<?> act) {
        return act.known().flatMap(RequestMark::key).isPresent()
                || act instanceof Act.Allocate allocate && allocate.reference().isPresent();
    }

    private Result decide(Waiting waiting, Instant now, LocalDate today, List<Entry> entries) {
        Decision decision;
        try {
            decision = Decider.decide(state.memory(), waiting.act(), now, today, waiting.prover());
        } catch (Proofs.Unproved unproved) {
            return new Result.Unproved();
        }
        return switch (decision) {
            case Decision.Refused refused -> new Result.Refused(refused.refusal());
            case Decision.Repeated repeated -> new Result.Repeated(repeated.seq());
            case Decision.Known known -> new Result.Known(known.record());
            case Decision.Done done when done.effects().isEmpty() -> new Result.Done(Optional.empty());
            case Decision.Done done -> {
                List<Effect> effects = entries.isEmpty() ? beginning(done.effects()) : done.effects();
                var entry = new Entry(
                        journal.head().seq() + entries.size() + 1,
                        now,
                        waiting.by(),
                        Entries.kind(waiting.act()),
                        Entries.request(waiting.act(), done.effects(), state.memory()::laneKey),
                        effects);
                state.take(entry);
                entries.add(entry);
                yield new Result.Done(Optional.of(entry));
            }
        };
    }

    /** The first entry of a process begins its epoch, unless it begins one by itself. */
    private List<Effect> beginning(List<Effect> effects) {
        if (epochBegun || effects.stream().anyMatch(Effect.EpochBegun.class::isInstance)) return effects;
        return Stream.concat(Stream.of(new Effect.EpochBegun(epoch)), effects.stream())
                .toList();
    }

    private void recover() {
        uncommitted = false;
        try {
            recovered();
        } catch (RuntimeException | IOException | SQLException | JournalBroken e) {
            notRecovered(e);
        }
    }

    private void recovered() throws IOException, SQLException, JournalBroken {
        store = recovery.recover(journal, store);
        state = new WriterState(store.state());
        head = journal.head();
        snapshot = snapshot();
        caughtUp();
    }

    /** Where it is for the disk, it is tried again until the disk takes what is written. */
    private void notRecovered(Exception failure) {
        if (!(failure instanceof IOException) && !Store.isAway(failure)) {
            stop(
                    "the ledger could not be brought in order after a failure (" + failure.getMessage()
                            + "); no numbers are allocated until the service is started again",
                    failure);
            return;
        }
        pause.leavesUnforced();
        pause.losesTables();
        pause(guard.shortage(0), failure);
    }

    /** While the tables are away, others in memory answer. */
    private void standIn() {
        try {
            Optional<Store> memory = recovery.standIn(journal);
            if (memory.isEmpty()) return;
            store = memory.get();
            state = new WriterState(store.state());
            caughtUp();
        } catch (RuntimeException | IOException | SQLException | JournalBroken e) {
            LOG.warn("nothing can be read until the disk accepts what is written", e);
        }
    }

    /** Nothing can be done any more by this process, whatever becomes of the disk. */
    void end(String why, Throwable cause) {
        stop(why, cause);
        died.accept(why);
    }

    /** @param listener is told why nothing can be done any more by this process */
    void onDeath(Consumer<String> listener) {
        died = listener;
    }

    /** Nothing is done any more until somebody has looked: what was answered is no longer sure. By any thread. */
    void stop(String why, Throwable cause) {
        LOG.error("numbering stops: {}", why, cause);
        stopped = why;
        wake();
    }

    private static void fail(List<Waiting> batch, Kind kind, String message, Throwable cause) {
        fail(batch, new LedgerUnavailable(kind, message, cause));
    }

    private static void fail(List<Waiting> batch, LedgerUnavailable why) {
        for (Waiting waiting : batch) waiting.answer().completeExceptionally(why);
    }
}
