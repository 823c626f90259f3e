package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.JournalSizes;
import org.youngtally.ledger.store.EntryQueries;

/** Whoever finds nobody at work does its own act; what comes meanwhile is done by the writing thread. */
@Timeout(value = 10, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class LeadingCallerTest {
    @TempDir
    private Path data;

    private LedgerOptions options;
    private Ledger ledger;

    @BeforeEach
    void open() throws IOException {
        // So small that segments are begun all the time.
        options = LedgerOptions.in(data).withSizes(new JournalSizes(2_000, 8_000_000));
        ledger = Ledger.open(options);
        ledger.perform(Acts.define(), "ines");
    }

    @AfterEach
    void close() throws IOException {
        ledger.close();
    }

    private String allocate() {
        return Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")).getFirst();
    }

    private void reopen() throws IOException {
        ledger.close();
        ledger = Ledger.open(options);
    }

    private List<String> audited() {
        return ledger.read(dsl -> Audit.of(ledger.journalDisk(), dsl, Optional.empty(), Head.EMPTY)).findings().stream()
                .map(Object::toString)
                .toList();
    }

    /** Unless it comes just while the writing thread looks after the folder; so it comes until it does. */
    @Test
    void aCallerThatIsAloneDoesItsOwnAct() throws Exception {
        var workers = new ConcurrentLinkedQueue<Thread>();
        ledger.onEntries(entries -> workers.add(Thread.currentThread()));
        Thread caller = Thread.ofVirtual().start(() -> {
            for (int i = 0; i < 1_000 && !workers.contains(Thread.currentThread()); i++) allocate();
        });
        caller.join();
        assertThat(workers).contains(caller);
    }

    /** A caller is held at work until the others wait, who are then done together. */
    @Test
    void whatComesMeanwhileIsDoneAsOneBatch() throws Exception {
        var others = new ArrayList<Thread>();
        var batches = new ConcurrentLinkedQueue<Integer>();
        ledger.onEntries(entries -> {
            batches.add(entries.size());
            if (!others.isEmpty()) return;
            for (int i = 0; i < 5; i++) others.add(Thread.ofPlatform().start(this::allocate));
            for (Thread other : others) while (isAtWork(other)) Thread.onSpinWait();
        });
        allocate();
        for (Thread other : others) other.join();
        assertThat(batches).containsExactly(1, 5);
    }

    private static boolean isAtWork(Thread thread) {
        return thread.getState() != Thread.State.WAITING && thread.getState() != Thread.State.TERMINATED;
    }

    /** Of the journal and of the tables, whose files would close if they were channels. */
    @Test
    void aCallerThatIsInterruptedAtWorkIsAnsweredAndLeavesTheFilesOpen() throws Exception {
        var interrupted = new CompletableFuture<String>();
        Thread.ofPlatform().start(() -> {
            Thread.currentThread().interrupt();
            try {
                for (int i = 1; i < 40; i++) allocate();
                interrupted.complete(allocate());
            } catch (RuntimeException e) {
                interrupted.completeExceptionally(e);
            }
        });
        assertThat(List.of(interrupted.get(), allocate())).containsExactly("LW26-0000040", "LW26-0000041");
    }

    @Test
    void whatAnInterruptedCallerWroteIsTrueAfterTheNextStart() throws Exception {
        Thread caller = Thread.ofPlatform().start(() -> {
            Thread.currentThread().interrupt();
            for (int i = 0; i < 40; i++) allocate();
        });
        caller.join();
        reopen();
        assertThat(audited()).isEmpty();
    }

    /** What it reads lies on the disk, since the ledger was opened again. */
    @Test
    void aReaderThatIsInterruptedLeavesTheTablesOpen() throws Exception {
        for (int i = 0; i < 40; i++) allocate();
        reopen();
        Thread reader = Thread.ofPlatform().start(() -> {
            Thread.currentThread().interrupt();
            audited();
        });
        reader.join();
        assertThat(List.of(audited(), ledger.status().paused())).containsExactly(List.of(), "");
        assertThat(allocate()).isEqualTo("LW26-0000041");
    }

    /**
     * Closes the ledger while callers allocate.
     *
     * @param told what each of them heard at last
     * @return the entries that were answered
     */
    private Queue<Long> closedUnderLoad(Queue<LedgerUnavailable.Kind> told) throws Exception {
        Queue<Long> answered = new ConcurrentLinkedQueue<>();
        var begun = new CountDownLatch(100);
        var callers = new ArrayList<Thread>();
        for (int i = 0; i < 8; i++)
            callers.add(Thread.ofVirtual().start(() -> {
                try {
                    while (true) {
                        answered.add(((Outcome.Taken) ledger.perform(Acts.take(Acts.KEY, 1), "ines"))
                                .taking()
                                .seq());
                        begun.countDown();
                    }
                } catch (LedgerUnavailable stopping) {
                    told.add(stopping.kind());
                }
            }));
        begun.await();
        ledger.close();
        for (Thread caller : callers) caller.join();
        return answered;
    }

    @Test
    void whatWasAnsweredWhileTheLedgerClosedIsThereAfterTheNextStart() throws Exception {
        Queue<Long> answered = closedUnderLoad(new ConcurrentLinkedQueue<>());
        ledger = Ledger.open(options);
        List<Long> lacking = answered.stream()
                .filter(seq -> ledger.read(dsl -> new EntryQueries(dsl).at(seq)).isEmpty())
                .toList();
        assertThat(lacking).isEmpty();
    }

    @Test
    void everyCallerHearsThatTheLedgerCloses() throws Exception {
        Queue<LedgerUnavailable.Kind> told = new ConcurrentLinkedQueue<>();
        closedUnderLoad(told);
        assertThat(told).hasSize(8).isSubsetOf(LedgerUnavailable.Kind.STOPPED, LedgerUnavailable.Kind.OUTCOME_UNKNOWN);
    }
}
