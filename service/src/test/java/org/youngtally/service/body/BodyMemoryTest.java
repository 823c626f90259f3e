package org.youngtally.service.body;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class BodyMemoryTest {
    private final BodyMemory memory = new BodyMemory(1_000);

    @Test
    void oneHasAQuarterAndTheOthersTheRest() {
        assertThat(memory.take("a", 200)).isTrue();
        assertThat(memory.take("a", 51)).isFalse();
        assertThat(memory.take("a", 50)).isTrue();
        assertThat(memory.take("b", 250)).isTrue();
        assertThat(memory.take("c", 250)).isTrue();
        assertThat(memory.take("d", 250)).isTrue();
        assertThat(memory.take("e", 1)).isFalse();
    }

    @Test
    void whatIsGivenBackCanBeTaken() {
        memory.take("a", 200);
        memory.giveBack("a", 200);
        assertThat(memory.take("a", 250)).isTrue();
        memory.giveBack("a", 100);
        assertThat(memory.take("a", 101)).isFalse();
    }

    @Test
    void oneBodyAloneIsLetInWhateverItsLength() {
        assertThat(memory.take("a", 5_000)).isTrue();
        assertThat(memory.take("a", 1)).isFalse();
        assertThat(memory.take("b", 1)).isFalse();
        memory.giveBack("a", 5_000);
        assertThat(memory.take("b", 1)).isTrue();
    }
}
