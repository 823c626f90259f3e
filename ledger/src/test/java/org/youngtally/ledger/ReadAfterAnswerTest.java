package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;

/** The tables are committed behind the answer: whoever asks waits for what was answered by then. */
@Timeout(value = 10, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
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

    /** Eight callers at once; fails where one of them does. */
    private static void eightCallers(IntConsumer caller) throws Exception {
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            List<? extends Future<?>> all = IntStream.range(0, 8)
                    .mapToObj(i -> threads.submit(() -> caller.accept(i)))
                    .toList();
            for (Future<?> each : all) each.get();
        }
    }

    private Taking taking(Act.Allocate act) {
        return ((Outcome.Taken) ledger.perform(act, "ines")).taking();
    }

    @Test
    void everyAnswerIsReadBackByWhoeverGotIt() throws Exception {
        var lacking = new CompletableFuture<Long>();
        eightCallers(caller -> {
            for (int i = 0; i < 100; i++) {
                long seq = taking(Acts.take(Acts.KEY, 1)).seq();
                if (!hasEntry(seq)) lacking.complete(seq);
            }
        });
        assertThat(lacking).isNotDone();
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
        eightCallers(caller -> {
            for (int i = 0; i < 50; i++) {
                String last = taking(caller % 2 == 0 ? Acts.block(Acts.KEY, 3) : Acts.take(Acts.KEY, 1))
                        .last();
                if (!isFound(last)) lacking.complete(last);
            }
        });
        assertThat(lacking).isNotDone();
    }
}
