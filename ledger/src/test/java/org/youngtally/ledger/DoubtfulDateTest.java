package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RequestMark;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;

/** A clock that is wrong when the ledger is opened, or is set while it runs. */
class DoubtfulDateTest {
    private static final Instant NOW = Instant.parse("2026-03-02T09:00:00Z");

    @TempDir
    private Path data;

    private Instant now = NOW;

    private Ledger open() throws IOException {
        return Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC));
    }

    private static String take(Ledger ledger) {
        return Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")).getFirst();
    }

    @BeforeEach
    void fill() throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(Acts.define(), "ines");
            take(ledger);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {-400, -2, 2, 400, 4_000})
    void noNumberIsGivenBeforeTheDateIsConfirmed(int days) throws IOException {
        now = NOW.plus(Duration.ofDays(days));
        try (Ledger ledger = open()) {
            assertThatThrownBy(() -> take(ledger))
                    .isInstanceOfSatisfying(LedgerUnavailable.class, e -> assertThat(e.kind())
                            .isEqualTo(LedgerUnavailable.Kind.DATE_UNCONFIRMED))
                    .hasMessageContaining("./youngtally clock confirm " + ledger.today());
            assertThat(ledger.status().running()).isFalse();
        }
    }

    @Test
    void numbersAreGivenOnceTheDateIsConfirmed() throws IOException {
        now = NOW.plus(Duration.ofDays(400));
        try (Ledger ledger = open()) {
            assertThat(ledger.confirmDate(LocalDate.of(2026, 3, 2)))
                    .as("another date than the clock's")
                    .isFalse();
            assertThat(ledger.confirmDate(ledger.today())).isTrue();
            assertThat(take(ledger)).isEqualTo("LW26-0000002");
        }
        try (Ledger ledger = open()) {
            assertThat(take(ledger)).as("at the next start").isEqualTo("LW26-0000003");
        }
    }

    @Test
    void whatWasNotConfirmedIsAskedAgainAtTheNextStart() throws IOException {
        now = NOW.plus(Duration.ofDays(400));
        try (Ledger ledger = open()) {
            ledger.perform(Acts.define(), "ines");
        }
        try (Ledger ledger = open()) {
            assertThat(ledger.status().paused()).contains("the clock says 2027-04-06 09:00");
        }
    }

    @Test
    void aNightOffIsNoReasonToAsk() throws IOException {
        now = NOW.plus(Duration.ofHours(23));
        try (Ledger ledger = open()) {
            assertThat(take(ledger)).isEqualTo("LW26-0000002");
        }
    }

    /** It is the time when it ran last that counts, and not that of its newest entry. */
    @Test
    void aLedgerThatRanWithoutAnEntryIsNotAskedFor() throws IOException {
        for (int day = 1; day < 6; day++) {
            now = NOW.plus(Duration.ofHours(20L * day));
            open().close();
        }
        try (Ledger ledger = open()) {
            assertThat(take(ledger)).isEqualTo("LW26-0000002");
        }
    }

    @Test
    void aLedgerOfAnEarlierReleaseIsHeldAgainstItsNewestEntry() throws IOException {
        Files.delete(data.resolve("last-seen"));
        now = NOW.plus(Duration.ofDays(3));
        try (Ledger ledger = open()) {
            assertThat(ledger.status().paused()).contains("the ledger last ran at 2026-03-02 09:00");
        }
    }

    @Test
    void aHoldDoesNotLapseByAWrongDate() throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(
                    new Act.Allocate(
                            Acts.KEY,
                            Optional.of(LocalDate.of(2026, 3, 2)),
                            1,
                            new Act.Form.Held(Duration.ofHours(1)),
                            Optional.empty(),
                            new RequestMark("ines", Optional.empty(), "hold")),
                    "ines");
        }
        now = NOW.plus(Duration.ofDays(400));
        long before;
        try (Ledger ledger = open()) {
            before = ledger.status().head().seq();
        }
        now = NOW.plusSeconds(60);
        try (Ledger ledger = open()) {
            assertThat(ledger.status().head().seq()).isEqualTo(before);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).states()).containsEntry(PositionState.HELD, 1L);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {-48, 48})
    void aClockThatIsSetWhileTheLedgerRunsIsRemarkedOn(int hours) throws IOException {
        try (Ledger ledger = open()) {
            take(ledger);
            now = NOW.plus(Duration.ofHours(hours));
            take(ledger);
            assertThat(ledger.status().remarks())
                    .singleElement()
                    .asString()
                    .contains("the clock was set " + (hours < 0 ? "back" : "forward") + ", from 2026-03-02T09:00");
        }
    }
}
