package org.youngtally.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.youngtally.service.web.Problem;

class SignInGateTest {
    private Instant now = Instant.parse("2026-03-02T09:00:00Z");
    private final SignInGate gate = new SignInGate(() -> now);

    /** @return how many seconds one has to wait; 0 where the password is looked at */
    private long tried(String name, String source) {
        try {
            gate.begin(name, source);
            return 0;
        } catch (Problem later) {
            return (Long) later.detail().getProperties().get("retryAfter");
        }
    }

    @Test
    void fourWrongPasswordsAreFree() {
        for (int i = 0; i < 4; i++) assertThat(tried("ines", "a")).isZero();
    }

    @Test
    void theFifthClosesTheDoorForASecond() {
        for (int i = 0; i < 5; i++) tried("ines", "a");
        assertThat(tried("ines", "a")).isEqualTo(1);
    }

    @Test
    void eachFurtherOneClosesItForTwiceAsLong() {
        for (int i = 0; i < 5; i++) tried("ines", "a");
        now = now.plusSeconds(1);
        tried("ines", "a");
        assertThat(tried("ines", "a")).isEqualTo(2);
    }

    @Test
    void itStaysClosedToOneSourceAlone() {
        for (int i = 0; i < 5; i++) tried("ines", "a");
        assertThat(tried("ines", "b")).isZero();
    }

    @Test
    void itStaysClosedForOneNameAlone() {
        for (int i = 0; i < 5; i++) tried("ines", "a");
        assertThat(tried("ruben", "a")).isZero();
    }

    @Test
    void fromWhereThePasswordWasRightItIsNeverClosedForLong() {
        tried("ines", "a");
        gate.right("ines", "a");
        for (int i = 0; i < 20; i++) {
            tried("ines", "a");
            now = now.plusSeconds(2);
        }
        tried("ines", "a");
        assertThat(tried("ines", "a")).isEqualTo(1);
    }

    @Test
    void theRightOneBeginsAnew() {
        for (int i = 0; i < 4; i++) tried("ines", "a");
        gate.right("ines", "a");
        for (int i = 0; i < 4; i++) assertThat(tried("ines", "a")).isZero();
    }

    @Test
    void aSourceHasThirtyWrongOnesAtOnceWhateverTheNames() {
        for (int i = 0; i < 30; i++) assertThat(tried("name-" + i, "a")).isZero();
        assertThat(tried("another", "a")).isEqualTo(2);
    }

    @Test
    void andOneMoreEveryTwoSeconds() {
        for (int i = 0; i < 30; i++) tried("name-" + i, "a");
        now = now.plusSeconds(2);
        assertThat(tried("another", "a")).isZero();
    }

    @Test
    void rightOnesCostASourceNothing() {
        for (int i = 0; i < 100; i++) {
            assertThat(tried("name-" + i, "a")).isZero();
            gate.right("name-" + i, "a");
        }
    }

    @Test
    void afterADayNothingIsLeft() {
        for (int i = 0; i < 5; i++) tried("ines", "a");
        now = now.plus(Duration.ofDays(1)).plusSeconds(1);
        for (int i = 0; i < 4; i++) assertThat(tried("ines", "a")).isZero();
    }
}
