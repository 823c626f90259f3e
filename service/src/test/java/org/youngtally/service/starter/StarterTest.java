package org.youngtally.service.starter;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import java.util.Set;
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
        assertThat(Starter.read(set("[A-Z]{2}", "series: %letters%")).filled(Map.of("letters", "BR"), Set.of()))
                .isEqualTo("series: BR\n");
    }

    @Test
    void kindsThatAreNotDefinedYetComeWithIt() {
        Starter starter = Starter.read("starter: one\ndefinitions: 'series: []'\nkinds:\n"
                + "  invoice: '- { key: invoice }'\n  part: '- { key: part }'\n");
        assertThat(starter.filled(Map.of(), Set.of("invoice"))).isEqualTo("series: []\nkinds:\n  - { key: part }\n");
    }

    @Test
    void aValueOfAnotherShapeIsRefused() {
        Starter starter = Starter.read(set("[A-Z]{2}", "series: %letters%"));
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "br"), Set.of()))
                .hasMessageContaining("is not a value of the variable");
    }

    /** Each takes an engine that goes back minutes, or a heap, to say no. */
    @ParameterizedTest
    @ValueSource(strings = {"(z?)(a|a)*b", "(a+)+b", "(a|a)*\\\\d", "[ab]{1000}[ab]{1000}c", "(x+x+)+y"})
    void noShapeTakesLong(String shape) {
        Starter starter = Starter.read(set(shape, "series: %letters%"));
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "a".repeat(200)), Set.of()))
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
        assertThatThrownBy(() -> starter.filled(Map.of("letters", "a".repeat(200)), Set.of()))
                .hasMessageContaining("would have more than");
    }

    @Test
    void aLongTextIsRefusedUnread() {
        assertThatThrownBy(() -> Starter.read("#\n".repeat(600_000))).hasMessageContaining("1,200,000 symbols");
    }
}
