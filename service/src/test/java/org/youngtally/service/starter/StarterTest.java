package org.youngtally.service.starter;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.service.web.Problem;

class StarterTest {
    private static String set(String shape, String definitions) {
        return "starter: one\nvariables:\n  - { name: letters, meaning: two letters, shape: '" + shape
                + "' }\ndefinitions: |\n  " + definitions + "\n";
    }

    @Test
    void aValueOfItsShapeIsFilledIn() {
        assertThat(Starter.read(set("[A-Z]{2}", "series: %letters%")).filled(Map.of("letters", "BR")))
                .isEqualTo("series: BR\n");
    }

    @Test
    void aValueOfAnotherShapeIsRefused() {
        Starter starter = Starter.read(set("[A-Z]{2}", "series: %letters%"));
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "br")))
                .hasMessageContaining("cannot be the variable");
    }

    /** Each takes an engine that goes back minutes, or a heap, to say no. */
    @ParameterizedTest
    @ValueSource(strings = {"(z?)(a|a)*b", "(a+)+b", "(a|a)*\\\\d", "[ab]{1000}[ab]{1000}c", "(x+x+)+y"})
    void noShapeTakesLong(String shape) {
        Starter starter = Starter.read(set(shape, "series: %letters%"));
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "a".repeat(200))))
                .isInstanceOf(Problem.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"(a)\\1", "(?=a)b", "((a{1000}){1000}){1000}", "(.*a){20}b", "["})
    void aShapeThatCouldIsRefused(String shape) {
        assertThatThrownBy(() -> Starter.read(set(shape, "series: %letters%"))).isInstanceOf(Problem.class);
    }

    @Test
    void whatItIsFilledToIsBounded() {
        Starter starter = Starter.read(set(".*", "%letters%".repeat(6_000)));
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "a".repeat(200))))
                .hasMessageContaining("would be filled to more than");
    }

    @Test
    void aLongTextIsRefusedUnread() {
        assertThatThrownBy(() -> Starter.read("#\n".repeat(600_000))).hasMessageContaining("1,200,000 symbols");
    }
}
