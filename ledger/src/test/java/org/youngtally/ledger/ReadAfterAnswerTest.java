package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;

/** The tables are committed behind the answer: whoever asks waits for what was answered by then. */
@Timeout(value = 1, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class ReadAfterAnswerTest {
    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void open() throws IOException {
        ledger = Ledger.open(LedgerOptions.in(data));
        ledger.perform(Acts.define(), "ines");
    }

    @AfterEach
    void close() throws IOException {
        ledger.close();
    }

    private boolean hasEntry(long seq) {
        return ledger.read(dsl -> new EntryQueries(dsl).at(seq)).isPresent();
    }

    private static boolean isAtWork(Thread thread) {
        return thread.getState() != Thread.State.WAITING && thread.getState() != Thread.State.TERMINATED;
    }

    /** The writer is held between the journal and the commit until the reader has asked. */
    @Test
    void aQuestionThatComesBeforeTheCommitWaitsForIt() throws Exception {
        var asked = new CompletableFuture<Boolean>();
        ledger.onEntries(entries -> {
            long seq = entries.getLast().seq();
            Thread reader = Thread.ofPlatform().start(() -> asked.complete(hasEntry(seq)));
            while (isAtWork(reader)) Thread.onSpinWait();
        });
        ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        assertThat(asked.get()).isTrue();
    }

    @Test
    void everyAnswerIsReadBackByWhoeverGotIt() throws Exception {
        var lacking = new CompletableFuture<Long>();
        var callers = new Thread[8];
        for (int i = 0; i < callers.length; i++)
            callers[i] = Thread.ofVirtual().start(() -> {
                for (int j = 0; j < 100; j++) {
                    long seq = ((Outcome.Taken) ledger.perform(Acts.take(Acts.KEY, 1), "ines"))
                            .taking()
                            .seq();
                    if (!hasEntry(seq)) lacking.complete(seq);
                }
            });
        for (Thread caller : callers) caller.join();
        assertThat(Optional.ofNullable(lacking.getNow(null))).isEmpty();
    }

    private boolean isFound(String text) {
        return !ledger.read(dsl -> new IdentifierQueries(dsl).find(text)).isEmpty();
    }

    /** That there was no block is not remembered longer than it is true. */
    @Test
    void aBlockIsFoundByWhoeverAskedBeforeItWasThere() {
        assertThat(isFound("LW26-0000007")).isFalse();
        ledger.perform(Acts.block(Acts.KEY, 10), "ines");
        assertThat(isFound("LW26-0000007")).isTrue();
    }

    @Test
    void everyBlockIsFoundByWhoeverGotItWhileOthersAskAndAllocate() throws Exception {
        var lacking = new CompletableFuture<String>();
        var callers = new Thread[8];
        for (int i = 0; i < callers.length; i++) {
            boolean blocks = i % 2 == 0;
            callers[i] = Thread.ofVirtual().start(() -> {
                for (int j = 0; j < 50; j++) {
                    Taking taking = ((Outcome.Taken)
                                    ledger.perform(blocks ? Acts.block(Acts.KEY, 3) : Acts.take(Acts.KEY, 1), "ines"))
                            .taking();
                    String last = taking.identifiers().getLast();
                    if (!isFound(last)) lacking.complete(last);
                }
            });
        }
        for (Thread caller : callers) caller.join();
        assertThat(lacking).isNotDone();
    }
}
