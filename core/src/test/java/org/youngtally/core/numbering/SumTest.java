package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.pattern.PatternException;

class SumTest {
    private static final Map<String, String> ATTRIBUTES = Map.of("division", "3", "Manual no", " 2 ", "name", "Swell");

    @ParameterizedTest
    @CsvSource({
        "1, 1",
        "{division} * 250 + 1, 751",
        "1 + 2 * 3, 7",
        "(1 + 2) * 3, 9",
        "10 - 2 - 3, 5",
        "{division}*({Manual no}-1)*100, 300",
        "100 * ({division} - 4), -100"
    })
    void timesComesBeforePlus(String text, long value) throws Exception {
        assertThat(Sum.parse(text).of(ATTRIBUTES)).isEqualTo(value);
    }

    @ParameterizedTest
    @CsvSource({
        "'', 1, the sum ends too soon",
        "1 +, 4, the sum ends too soon",
        "2 / 3, 3, ‘/’ is none of it",
        "{division, 1, the brace is not closed",
        "{}, 1, the braces name no attribute",
        "(1 + 2, 7, a parenthesis is not closed",
        "1 2, 3, ‘2’ is none of it",
        "1 + 1234567890123456789, 5, the number has more than 18 digits"
    })
    void whatIsWrongIsToldWhereItIs(String text, int column, String problem) {
        assertThatThrownBy(() -> Sum.parse(text)).isInstanceOfSatisfying(PatternException.class, wrong -> {
            assertThat(wrong.column()).isEqualTo(column);
            assertThat(wrong.problem()).isEqualTo(problem);
        });
    }

    @Test
    void deepParenthesesAreRefused() {
        assertThatThrownBy(() -> Sum.parse("(".repeat(30) + "1" + ")".repeat(30)))
                .hasMessageContaining("nested more than 20 deep");
    }

    @ParameterizedTest
    @CsvSource({
        "{name} + 1, '{name} is ‘Swell’, which is no whole number'",
        "{absent}, {absent} has no value",
        "999999999999999999 * 999999999999999999, the sum is larger than can be counted"
    })
    void whatHasNoValueSaysWhy(String text, String problem) {
        assertThatThrownBy(() -> Sum.parse(text).of(ATTRIBUTES))
                .isInstanceOf(Sum.NoValue.class)
                .hasMessage(problem);
    }

    @Test
    void itNamesItsAttributes() {
        assertThat(Sum.parse("{division} * ({Manual no} + {division})").attributes())
                .containsExactly("Manual no", "division");
    }
}
