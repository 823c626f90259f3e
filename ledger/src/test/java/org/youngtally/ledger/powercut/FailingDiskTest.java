package org.youngtally.ledger.powercut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;

/** A write, a force or a commit fails while the machine goes on. */
class FailingDiskTest {
    @TempDir
    private Path data;

    private final Power power = new Power(1, Long.MAX_VALUE, true);

    private Ledger open() throws Exception {
        String tables = data.resolve("tables").toString();
        PlatterPath.plug(tables, power);
        return Ledger.open(LedgerOptions.in(data)
                .withJournal(new PlatterDisk(power))
                .withStoreUrl("jdbc:h2:platter:" + tables + "/tally;DB_CLOSE_ON_EXIT=FALSE;WRITE_DELAY=0"));
    }

    private static List<String> take(Ledger ledger, String key) {
        return ((Outcome.Taken) ledger.perform(PowerCutTest.take(key, 1), "c"))
                .taking()
                .identifiers();
    }

    /** Callers repeat with the same key whatever they are not told, as they are asked to. */
    private static List<String> takeUntilAnswered(Ledger ledger, String key, AtomicInteger unknown) {
        while (true) {
            try {
                return take(ledger, key);
            } catch (LedgerUnavailable e) {
                assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.OUTCOME_UNKNOWN);
                unknown.incrementAndGet();
            }
        }
    }

    @ParameterizedTest
    @EnumSource(
            value = Power.Kind.class,
            names = {"JOURNAL_WRITE", "JOURNAL_FORCE"})
    void noCallerIsToldYesAndAfterwardsLedgerAndCallersAgree(Power.Kind kind) throws Exception {
        var answers = new ConcurrentHashMap<String, List<String>>();
        var unknown = new AtomicInteger();
        try (Ledger ledger = open()) {
            ledger.perform(PowerCutTest.define(), "ines");
            var callers = new ArrayList<Thread>();
            for (int caller : IntStream.range(0, 8).toArray())
                callers.add(
                        Thread.ofVirtual().start(() -> IntStream.range(0, 60).forEach(i -> {
                            if (caller == 0 && i % 12 == 5) power.failNext(kind);
                            answers.put(caller + "/" + i, takeUntilAnswered(ledger, caller + "/" + i, unknown));
                        })));
            for (Thread caller : callers) caller.join();
            assertThat(unknown.get()).isPositive();
            assertThat(answers.values().stream().flatMap(List::stream))
                    .hasSize(480)
                    .doesNotHaveDuplicates();
            var report = Audit.of(ledger, Optional.empty(), Head.EMPTY);
            assertThat(report.findings()).isEmpty();
            assertThat(report.positions()).isEqualTo(480);
        }
    }

    @Test
    void anAppendThatFailedIsNotInTheJournal() throws Exception {
        try (Ledger ledger = open()) {
            ledger.perform(PowerCutTest.define(), "ines");
            Head before = ledger.status().head();
            power.failNext(Power.Kind.JOURNAL_FORCE);
            try {
                take(ledger, "k");
            } catch (LedgerUnavailable e) {
                assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.OUTCOME_UNKNOWN);
            }
            assertThat(take(ledger, "other")).containsExactly("N-000001");
            assertThat(Journal.headAt(new PlatterDisk(power), before.seq() + 1))
                    .contains(ledger.status().head());
        }
    }

    /**
     * Once the journal is forced the act is done, whatever happens to the commit: the caller hears that the outcome is
     * unknown, and a repetition finds it.
     */
    @Test
    void aCommitThatFailsIsMadeUpFromTheJournal() throws Exception {
        try (Ledger ledger = open()) {
            ledger.perform(PowerCutTest.define(), "ines");
            var unknown = new AtomicInteger();
            for (int i = 0; i < 40; i++) {
                if (i % 8 == 3) power.failNext(Power.Kind.TABLES);
                assertThat(takeUntilAnswered(ledger, "k" + i, unknown)).containsExactly("N-%06d".formatted(i + 1));
            }
            assertThat(unknown.get()).isPositive();
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    @Test
    void aJournalThatCannotBeMendedStopsNumbering() throws Exception {
        Ledger ledger = open();
        ledger.perform(PowerCutTest.define(), "ines");
        power.cut();
        assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.OUTCOME_UNKNOWN);
        assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.STOPPED);
        assertThat(ledger.status().stopped()).contains("could not be brought in order");
        assertThatThrownBy(ledger::close).hasMessageContaining("did not close in order");
    }

    private static LedgerUnavailable.Kind kindOf(Ledger ledger) {
        try {
            take(ledger, "k");
            return null;
        } catch (LedgerUnavailable e) {
            return e.kind();
        }
    }
}
