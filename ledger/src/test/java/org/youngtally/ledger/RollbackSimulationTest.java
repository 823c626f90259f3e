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
 * Copies are taken at any step and put back at any later one. A failing seed is named, and runs alone with
 * {@code -Drollback.seed=17}; {@code -Drollback.seeds=1000} runs more, from {@code -Dproof.seed} on.
 */
class RollbackSimulationTest {
    private static final int ACTS_OF_A_SEED = 300;
    private static final long SEEDS = Long.getLong("rollback.seeds", 8);
    private static final long FIRST_SEED = Long.getLong("proof.seed", 0);

    @TempDir
    private Path folder;

    @Test
    @Timeout(value = 60, unit = TimeUnit.MINUTES, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
    void nothingIsIssuedTwiceThatWasNotDeclaredInDoubt() {
        Long only = Long.getLong("rollback.seed");
        LongStream seeds = only != null ? LongStream.of(only) : LongStream.range(FIRST_SEED, FIRST_SEED + SEEDS);
        var putBack = new AtomicLong();
        List<String> failures = seeds.parallel()
                .mapToObj(seed -> failure(seed, true, putBack))
                .flatMap(Optional::stream)
                .limit(5)
                .toList();
        System.out.println("simulated " + putBack + " copies that were put back");
        assertThat(failures).isEmpty();
    }

    /** Where nothing is stated numbers are issued twice, and the simulation must see it. */
    @Test
    void aCopyThatIsPutBackWithoutAWordIsNoticed() {
        assertThat(LongStream.range(0, 8)
                        .mapToObj(seed -> failure(seed, false, new AtomicLong()))
                        .anyMatch(Optional::isPresent))
                .isTrue();
    }

    private Optional<String> failure(long seed, boolean stating, AtomicLong putBack) {
        try {
            var simulation = new RollbackSimulation(seed, folder, stating);
            simulation.run(ACTS_OF_A_SEED);
            putBack.addAndGet(simulation.putBack());
            return Optional.empty();
        } catch (Exception e) {
            var wrong = new StringBuilder("seed " + seed + ": " + e);
            for (StackTraceElement each : e.getStackTrace())
                wrong.append("\n  ").append(each);
            return Optional.of(wrong.toString());
        }
    }
}
