package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The writer meets an error that it cannot recover from: whoever runs the ledger is told, and ends. */
class DeathTest {
    @TempDir
    private Path data;

    private Ledger ledger;
    private final CompletableFuture<String> told = new CompletableFuture<>();

    @BeforeEach
    void open() throws IOException {
        ledger = Ledger.open(LedgerOptions.in(data));
        ledger.perform(Acts.define(), "ines");
        ledger.onDeath(told::complete);
        ledger.onEntries(entries -> {
            throw new StackOverflowError("made for a test");
        });
    }

    @AfterEach
    void close() throws IOException {
        ledger.close();
    }

    @Test
    void whoWaitsHearsThatTheOutcomeIsUnknown() {
        assertThatThrownBy(() -> ledger.perform(Acts.take(Acts.KEY, 1, "one", null), "ines"))
                .isInstanceOf(LedgerUnavailable.class)
                .hasMessageContaining("repeat it with the same idempotency key");
    }

    @Test
    void whoRunsItIsTold() throws Exception {
        assertThatThrownBy(() -> ledger.perform(Acts.take(Acts.KEY, 1, "one", null), "ines"))
                .isInstanceOf(LedgerUnavailable.class);
        assertThat(told.get(10, TimeUnit.SECONDS)).contains("StackOverflowError");
    }
}
