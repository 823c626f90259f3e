package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class NaturalOrderTest {
    @Test
    void digitsAreComparedAsTheNumberThatTheyWrite() {
        var texts = new ArrayList<>(List.of("W10", "W9", "w 2", "W2b", "W2", "W02", "", "W12345678901234567890", "Ä1"));
        texts.sort(NaturalOrder.INSTANCE);
        assertThat(texts).containsExactly("", "w 2", "W02", "W2", "W2b", "W9", "W10", "W12345678901234567890", "Ä1");
    }

    /** A sort may fail, or fall into an order of its own, where a comparison contradicts itself. */
    @RepeatedTest(20)
    void itIsAnOrder(RepetitionInfo repetition) {
        var random = new Random(repetition.getCurrentRepetition());
        var texts = new ArrayList<String>();
        for (int i = 0; i < 60; i++) {
            var text = new StringBuilder();
            int length = random.nextInt(6);
            for (int at = 0; at < length; at++) text.append("0019aAbÄß-".charAt(random.nextInt(10)));
            texts.add(text.toString());
        }
        for (String one : texts)
            for (String other : texts) {
                int compared = Integer.signum(NaturalOrder.INSTANCE.compare(one, other));
                assertThat(Integer.signum(NaturalOrder.INSTANCE.compare(other, one)))
                        .as(one + " " + other)
                        .isEqualTo(-compared);
                assertThat(compared == 0).as(one + " " + other).isEqualTo(one.equals(other));
                for (String third : texts)
                    if (compared < 0 && NaturalOrder.INSTANCE.compare(other, third) < 0)
                        assertThat(NaturalOrder.INSTANCE.compare(one, third))
                                .as(one + " " + other + " " + third)
                                .isNegative();
            }
        var shuffled = new ArrayList<>(texts);
        Collections.shuffle(shuffled, random);
        texts.sort(NaturalOrder.INSTANCE);
        shuffled.sort(NaturalOrder.INSTANCE);
        assertThat(shuffled).isEqualTo(texts);
    }
}
