package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/**
 * Random acts of every sort on a machine that dies, held against a simple model. A failing seed is named, and runs
 * alone with {@code -Dsimulation.seed=17}; {@code -Dsimulation.acts=10000000} runs more, from {@code -Dproof.seed} on.
 */
class SimulationTest {
    private static final int ACTS_OF_A_SEED = 2_500;
    private static final long ACTS = Long.getLong("simulation.acts", 20_000);
    private static final long FIRST_SEED = Long.getLong("proof.seed", 0);

    @TempDir
    private Path folder;

    @Test
    @Timeout(value = 60, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void theLedgerDoesWhatTheModelSays() {
        Long only = Long.getLong("simulation.seed");
        LongStream seeds =
                only != null ? LongStream.of(only) : LongStream.range(FIRST_SEED, FIRST_SEED + ACTS / ACTS_OF_A_SEED);
        var acts = new AtomicLong();
        var restarts = new AtomicLong();
        List<String> failures = seeds.parallel()
                .mapToObj(seed -> failure(seed, true, acts, restarts))
                .flatMap(Optional::stream)
                .limit(5)
                .toList();
        System.out.println("simulated " + acts + " acts and " + restarts + " restarts");
        assertThat(failures).isEmpty();
    }

    /** A journal that is not forced loses what was answered, and the simulation must see it. */
    @Test
    void aJournalThatIsNotForcedIsNoticed() {
        assertThat(LongStream.range(0, 6)
                        .mapToObj(seed -> failure(seed, false, new AtomicLong(), new AtomicLong()))
                        .anyMatch(Optional::isPresent))
                .isTrue();
    }

    private Optional<String> failure(long seed, boolean forcing, AtomicLong acts, AtomicLong restarts) {
        try {
            var simulation = new Simulation(seed, folder, forcing);
            simulation.run(ACTS_OF_A_SEED);
            acts.addAndGet(simulation.acts());
            restarts.addAndGet(simulation.restarts());
            return Optional.empty();
        } catch (Exception e) {
            var wrong = new StringBuilder("seed " + seed + ": " + e);
            for (Throwable cause = e.getCause(); cause != null; cause = cause.getCause())
                wrong.append(", caused by ").append(cause).append(" at ").append(cause.getStackTrace()[0]);
            for (StackTraceElement each : e instanceof Simulation.Wrong ? new StackTraceElement[0] : e.getStackTrace())
                wrong.append("\n  ").append(each);
            return Optional.of(wrong.toString());
        }
    }
}
