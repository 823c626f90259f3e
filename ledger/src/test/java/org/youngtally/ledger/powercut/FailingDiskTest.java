package org.youngtally.ledger.powercut;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.youngtally.core.act.Decision;
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

    /** With H2 writing at each commit, so that a commit can meet a bad disk. */
    private Ledger open() throws Exception {
        return open(";WRITE_DELAY=0");
    }

    /** As it is run for real. */
    private Ledger reopen() throws Exception {
        return open("");
    }

    private Ledger open(String setting) throws Exception {
        String tables = data.resolve("tables").toString();
        PlatterPath.plug(tables, power);
        return Ledger.open(LedgerOptions.in(data)
                .withRoom(power::room)
                .withJournal(new PlatterDisk(power))
                .withStoreUrl("jdbc:h2:platter:" + tables + "/tally;DB_CLOSE_ON_EXIT=FALSE" + setting));
    }

    /** What can be wrong with a disk for a while. */
    enum Trouble {
        FULL(LedgerUnavailable.Kind.DISK_FULL) {
            @Override
            void set(Power power, boolean on) {
                power.fill(on);
            }
        },
        READ_ONLY(LedgerUnavailable.Kind.OUTCOME_UNKNOWN) {
            @Override
            void set(Power power, boolean on) {
                power.freeze(on);
            }
        };

        private final LedgerUnavailable.Kind kind;

        Trouble(LedgerUnavailable.Kind kind) {
            this.kind = kind;
        }

        abstract void set(Power power, boolean on);
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
                assertThat(e.kind())
                        .isIn(
                                LedgerUnavailable.Kind.OUTCOME_UNKNOWN,
                                LedgerUnavailable.Kind.DISK_FAILING,
                                LedgerUnavailable.Kind.DISK_FULL);
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
                assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.DISK_FAILING);
            }
            assertThat(takeUntilAnswered(ledger, "other", new AtomicInteger())).containsExactly("N-000001");
            assertThat(Journal.headAt(new PlatterDisk(power), before.seq() + 1))
                    .contains(ledger.status().head());
        }
    }

    /** Once the journal is forced the act is done and answered, whatever happens to the commit behind the answer. */
    @Test
    void aCommitThatFailsIsMadeUpFromTheJournal() throws Exception {
        try (Ledger ledger = open()) {
            ledger.perform(PowerCutTest.define(), "ines");
            var unknown = new AtomicInteger();
            for (int i = 0; i < 40; i++) {
                if (i % 8 == 3) power.failNext(Power.Kind.TABLES);
                assertThat(takeUntilAnswered(ledger, "k" + i, unknown)).containsExactly("N-%06d".formatted(i + 1));
            }
            assertThat(power.hasFailed()).isTrue();
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    /** The batch may be there or not, and nobody can look: that is what the first caller hears. */
    @Test
    void aDiskThatTakesNothingIsSaidToFail() throws Exception {
        Ledger ledger = open();
        ledger.perform(PowerCutTest.define(), "ines");
        // Not at once: the writer looks after its tables meanwhile, and might meet the disk before the caller does.
        power.cutAtNext(Power.Kind.JOURNAL_FORCE);
        assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.OUTCOME_UNKNOWN);
        assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.DISK_FAILING);
        assertThat(ledger.status().paused()).contains("the disk accepts nothing (the power is off)");
        ledger.close();
    }

    @Test
    void onAFullDiskNothingIsDoneAndItIsSaidWhereRoomIsWanting() throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            power.fill(true);
            assertThatThrownBy(() -> take(ledger, "k")).isInstanceOfSatisfying(LedgerUnavailable.class, e -> {
                assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.DISK_FULL);
                assertThat(e.shortage().orElseThrow().place()).isEqualTo(data);
                assertThat(e.shortage().orElseThrow().left()).isZero();
            });
        }
    }

    @Test
    void onAFullDiskWhatIsKnownCanBeAsked() throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            take(ledger, "earlier");
            power.fill(true);
            assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.DISK_FULL);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
            assertThat(ledger.decide(PowerCutTest.take("x", 1))).isInstanceOf(Decision.Done.class);
        }
    }

    @Test
    void whatWasAnsweredIsAnsweredAgainOnAFullDisk() throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            List<String> answer = take(ledger, "k");
            power.fill(true);
            assertThat(take(ledger, "k")).isEqualTo(answer);
        }
    }

    @ParameterizedTest
    @EnumSource(Trouble.class)
    void numbersGoOnByThemselvesAfterwards(Trouble trouble) throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            assertThat(take(ledger, "before")).containsExactly("N-000001");
            trouble.set(power, true);
            assertThat(kindOf(ledger)).isEqualTo(trouble.kind);
            trouble.set(power, false);
            CompletableFuture.runAsync(() -> {
                        while (!ledger.status().running()) Thread.onSpinWait();
                    })
                    .get(30, TimeUnit.SECONDS);
            assertThat(take(ledger, "after")).containsExactly("N-000002");
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    /** Nobody asks for anything, and the tables' own writing does not meet the full disk. */
    @ParameterizedTest
    @EnumSource(Trouble.class)
    void theTablesOutliveIt(Trouble trouble) throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            for (int i = 0; i < 50; i++) take(ledger, "k" + i);
            trouble.set(power, true);
            CompletableFuture.runAsync(() -> {
                        while (ledger.status().running()) Thread.onSpinWait();
                    })
                    .get(30, TimeUnit.SECONDS);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).positions())
                    .isEqualTo(50);
        }
    }

    @Test
    void aStartOnAFullDiskAnswersAndGivesNumbersOnceThereIsRoom() throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            take(ledger, "k");
        }
        power.fill(true);
        try (Ledger ledger = reopen()) {
            assertThat(ledger.status().paused()).contains("is full");
            assertThat(kindOf(ledger)).isEqualTo(LedgerUnavailable.Kind.DISK_FULL);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).positions())
                    .isEqualTo(1);
            power.fill(false);
            assertThat(takeUntilAnswered(ledger, "after", new AtomicInteger())).containsExactly("N-000002");
        }
    }

    /** The tables are not even opened, and there is no room to make them anew. */
    @Test
    void aStartOnAFullDiskAfterTheMachineWentDownAnswersFromMemory() throws Exception {
        try (Ledger ledger = reopen()) {
            ledger.perform(PowerCutTest.define(), "ines");
            take(ledger, "k");
        }
        Files.writeString(data.resolve("in-use"), "another run of the machine\n1\n");
        power.fill(true);
        try (Ledger ledger = reopen()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("kept in memory"));
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).positions())
                    .isEqualTo(1);
            power.fill(false);
            assertThat(takeUntilAnswered(ledger, "after", new AtomicInteger())).containsExactly("N-000002");
        }
        try (Ledger ledger = reopen()) {
            assertThat(ledger.status().opening()).isEmpty();
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).positions())
                    .isEqualTo(2);
        }
    }

    /** The tables' own writing has met the full disk, and H2 has closed them for it. */
    @ParameterizedTest
    @EnumSource(Trouble.class)
    void tablesThatAreLostAreAnsweredForFromMemory(Trouble trouble) throws Exception {
        try (Ledger ledger = open()) {
            ledger.perform(PowerCutTest.define(), "ines");
            take(ledger, "k");
            trouble.set(power, true);
            // H2 writes at each commit here, so that the batch fails in the tables.
            assertThat(kindOf(ledger, "another")).isNotNull();
            CompletableFuture.runAsync(() -> {
                        while (!answers(ledger)) Thread.onSpinWait();
                    })
                    .get(30, TimeUnit.SECONDS);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).positions())
                    .isPositive();
            trouble.set(power, false);
            assertThat(takeUntilAnswered(ledger, "after", new AtomicInteger())).hasSize(1);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    private static boolean answers(Ledger ledger) {
        try {
            return ledger.read(dsl -> true);
        } catch (LedgerUnavailable e) {
            return false;
        }
    }

    private static LedgerUnavailable.Kind kindOf(Ledger ledger) {
        return kindOf(ledger, "k");
    }

    private static LedgerUnavailable.Kind kindOf(Ledger ledger, String key) {
        try {
            take(ledger, key);
            return null;
        } catch (LedgerUnavailable e) {
            return e.kind();
        }
    }
}
