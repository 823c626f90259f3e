package org.youngtally.ledger.powercut;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;

/**
 * The machine's power goes off at any disk operation, while several callers take numbers. What is found afterwards is
 * what was forced and a random, torn part of the rest. Every number that was answered must be there, and none twice. A
 * failing seed is named and can be run alone: {@code -Dpowercut.seed=17}; {@code -Dpowercut.seeds} says how many there
 * are, from {@code -Dproof.seed} on.
 */
class PowerCutTest {
    private static final int SEEDS = Integer.getInteger("powercut.seeds", 6);
    private static final long FIRST_SEED = Long.getLong("proof.seed", 0);
    private static final int CALLERS = 4;
    /** H2 reuses the space of freed pages at once, so that a torn image mixes old pages with new ones. */
    private static final String REUSE = ";DB_CLOSE_ON_EXIT=FALSE;RETENTION_TIME=0;WRITE_DELAY=1";

    @TempDir
    private Path folder;

    @Test
    @Timeout(value = 10, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void whatWasAnsweredSurvivesAPowerCut() {
        Long only = Long.getLong("powercut.seed");
        LongStream seeds = only != null ? LongStream.of(only) : LongStream.range(FIRST_SEED, FIRST_SEED + SEEDS);
        var answered = new AtomicInteger();
        List<String> failures = seeds.parallel()
                .mapToObj(seed -> failure(seed, true, answered))
                .flatMap(Optional::stream)
                .toList();
        assertThat(failures).isEmpty();
        assertThat(answered.get()).as("numbers answered before the cuts").isGreaterThan(only == null ? 10 * SEEDS : 0);
    }

    /**
     * The same machine with a journal that is never forced must lose numbers, or the test above would prove nothing.
     */
    @Test
    void theSimulationNoticesAJournalThatIsNotForced() {
        assertThat(LongStream.range(0, 12)
                        .mapToObj(seed -> failure(seed, false, new AtomicInteger()))
                        .anyMatch(Optional::isPresent))
                .isTrue();
    }

    private Optional<String> failure(long seed, boolean forcingWorks, AtomicInteger answeredInAll) {
        var random = new Random(seed);
        try {
            var power = new Power(seed, 40 + random.nextInt(random.nextBoolean() ? 400 : 4_000), forcingWorks);
            Path machine = Files.createDirectory(folder.resolve((forcingWorks ? "m" : "u") + seed));
            ConcurrentLinkedQueue<String> answered = run(machine, power);
            answeredInAll.addAndGet(answered.size());
            Path found = folder.resolve((forcingWorks ? "f" : "g") + seed);
            leaveOnDisk(machine, power, found);
            Optional<String> wrong = check(found, answered);
            remove(machine);
            remove(found);
            return wrong.map(what -> "seed " + seed + ": " + what);
        } catch (IOException e) {
            return Optional.of("seed " + seed + ": " + e);
        }
    }

    /**
     * Callers take numbers until the power goes off.
     *
     * @return the identifiers that were answered
     */
    private static ConcurrentLinkedQueue<String> run(Path machine, Power power) throws IOException {
        String tables = machine.resolve("tables").toString();
        PlatterPath.plug(tables, power);
        var answered = new ConcurrentLinkedQueue<String>();
        var options = LedgerOptions.in(machine)
                .withJournal(new PlatterDisk(power))
                .withStoreUrl("jdbc:h2:platter:" + tables + "/tally" + REUSE)
                .withMachineRun("before");
        try (Ledger ledger = Ledger.open(options)) {
            ledger.perform(define(), "ines");
            List<Thread> callers = IntStream.range(0, CALLERS)
                    .mapToObj(caller -> Thread.ofVirtual().start(() -> call(ledger, power, caller, answered)))
                    .toList();
            for (Thread caller : callers) caller.join();
        } catch (IOException | RuntimeException e) {
            // Opening, defining and closing fail like everything else once the power is off, and only then.
            if (!power.isOff()) throw e;
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
        power.cut();
        PlatterPath.unplug(tables);
        return answered;
    }

    private static void call(Ledger ledger, Power power, int caller, ConcurrentLinkedQueue<String> answered) {
        for (int i = 0; !power.isOff(); i++) {
            try {
                if (ledger.perform(take("c" + caller + "-" + i, 1 + i % 3), "c" + caller)
                        instanceof Outcome.Taken taken)
                    answered.addAll(taken.taking().identifiers());
            } catch (LedgerUnavailable e) {
                if (e.kind() == LedgerUnavailable.Kind.STOPPED) return;
            }
        }
    }

    private static void leaveOnDisk(Path machine, Power power, Path found) throws IOException {
        Files.createDirectories(found.resolve("journal"));
        Files.createDirectories(found.resolve("tables"));
        for (Map.Entry<String, Platter> file : power.files().entrySet())
            Files.write(found.resolve(file.getKey()), file.getValue().found(power.random()));
        if (Files.exists(machine.resolve("in-use"))) Files.copy(machine.resolve("in-use"), found.resolve("in-use"));
    }

    private static Optional<String> check(Path found, ConcurrentLinkedQueue<String> answered) throws IOException {
        try (Ledger ledger =
                Ledger.open(LedgerOptions.in(found).withMachineRun("after").withPatience(Duration.ZERO))) {
            if (!ledger.status().running())
                return Optional.of("stopped: " + ledger.status().stopped());
            var times = new TreeMap<String, Integer>();
            for (String text : answered) times.merge(text, 1, Integer::sum);
            for (Map.Entry<String, Integer> text : times.entrySet()) {
                if (text.getValue() > 1) return Optional.of(text.getKey() + " was answered twice");
                int rows = ledger.read(
                        dsl -> new IdentifierQueries(dsl).find(text.getKey()).size());
                if (rows != 1) return Optional.of(text.getKey() + " was answered and is found " + rows + " times");
            }
            ledger.perform(define(), "ines");
            List<String> next = ((Outcome.Taken) ledger.perform(take("after", 3), "after"))
                    .taking()
                    .identifiers();
            if (next.stream().anyMatch(times::containsKey)) return Optional.of(next + " were given again");
            var report = Audit.of(ledger, Optional.empty(), Head.EMPTY);
            return report.passed()
                    ? Optional.empty()
                    : Optional.of(report.findings().toString());
        }
    }

    static Act<?> define() {
        return new Act.Define(
                List.of(SeriesDraft.of("n", "N-{count 6}")
                        .with(
                                SeriesProperties.RANGES,
                                List.of(new RangeDraft(1L, 999_999L, null, "2026-01-01", null, null)))),
                Optional.empty());
    }

    static Act<?> take(String key, long quantity) {
        return new Act.Allocate(
                "n",
                Optional.of(LocalDate.of(2026, 3, 2)),
                quantity,
                Act.Form.SINGLES,
                Optional.of("ref-" + key),
                new RequestMark("c", Optional.of(key), key + quantity));
    }

    private static void remove(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
        }
    }
}
