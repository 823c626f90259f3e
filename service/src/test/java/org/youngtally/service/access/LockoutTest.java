package org.youngtally.service.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.service.web.Problem;

class LockoutTest {
    private Instant now = Instant.parse("2026-03-02T09:00:00Z");
    private final Lockout lockout = new Lockout(() -> now);

    private boolean mayTry() {
        try {
            lockout.begin("ada");
            return true;
        } catch (Problem later) {
            return false;
        }
    }

    /**
     * Wrong passwords, each as soon as one may be tried.
     *
     * @return how long one has to wait for the next
     */
    private Duration waitAfter(int wrong) {
        for (int i = 0; i < wrong; i++) {
            while (!mayTry()) now = now.plusSeconds(1);
        }
        Instant begun = now;
        while (!mayTry()) now = now.plusSeconds(1);
        return Duration.between(begun, now);
    }

    @ParameterizedTest
    @CsvSource({"1, 0", "4, 0", "5, 1", "6, 2", "7, 4", "10, 32", "14, 512", "15, 900", "20, 900"})
    void theWaitGrowsWithEachWrongPassword(int wrong, int seconds) {
        assertThat(waitAfter(wrong)).isEqualTo(Duration.ofSeconds(seconds));
    }

    @Test
    void theRightPasswordAndADayBeginAnew() {
        waitAfter(8);
        lockout.right("ada");
        assertThat(waitAfter(4)).isZero();
        waitAfter(8);
        now = now.plus(Duration.ofHours(25));
        assertThat(waitAfter(4)).isZero();
    }

    @Test
    void whatIsTriedMeanwhileIsToldHowLongAndNotCounted() {
        for (int i = 0; i < 5; i++) lockout.begin("ada");
        for (int i = 0; i < 1_000; i++)
            assertThatExceptionOfType(Problem.class)
                    .isThrownBy(() -> lockout.begin("ada"))
                    .withMessageContaining("can be tried again in a second");
        now = now.plusSeconds(1);
        lockout.begin("ada");
        assertThatExceptionOfType(Problem.class)
                .isThrownBy(() -> lockout.begin("ada"))
                .withMessageContaining("in 2 seconds")
                .satisfies(later ->
                        assertThat(later.headers().getFirst("Retry-After")).isEqualTo("2"));
    }

    @Test
    void manyAtOnceGetNoMoreTriesThanOneAfterTheOther() throws Exception {
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            int tried = 0;
            for (var each : threads.invokeAll(IntStream.range(0, 500)
                    .<Callable<Boolean>>mapToObj(i -> this::mayTry)
                    .toList())) tried += each.get() ? 1 : 0;
            assertThat(tried).isEqualTo(5);
        }
    }
}
