package org.youngtally.core.numbering;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.pattern.PatternException;

class WritingTest {
    private static final Map<String, String> ATTRIBUTES = Map.of("net", "K7");

    @ParameterizedTest
    @CsvSource({
        "{new}, 101",
        "{old} – {new}, Pipe – 101",
        "{new} {old}, 101 Pipe",
        "{{{new}}} {net}, {101} K7",
        "{new}/{absent}, 101/"
    })
    void bracesAreFilled(String template, String written) {
        assertThat(Writing.parse(template).of("Pipe", "101", ATTRIBUTES)).isEqualTo(written);
    }

    @ParameterizedTest
    @CsvSource({"{old} – {new}", "{new} {old}", "{net}: {old} ({new})", "{old}{new}"})
    void whatWasThereIsFoundAgain(String template) {
        Writing writing = Writing.parse(template);
        for (String old : new String[] {"Pipe", "", "101", "Pipe – 101"})
            assertThat(writing.old(writing.of(old, "101", ATTRIBUTES), "101", ATTRIBUTES))
                    .isEqualTo(Optional.of(old));
    }

    @Test
    void ofANumberAloneNobodyKnowsWhatWasThere() {
        assertThat(Writing.NUMBER.old("101", "101", ATTRIBUTES)).isEmpty();
    }

    @Test
    void whatWasWrittenOtherwiseIsNotTakenApart() {
        assertThat(Writing.parse("{old} – {new}").old("Pipe 101", "101", ATTRIBUTES))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "{old}, 6, the number is written nowhere",
        "{new} {new}, 7, {new} occurs twice",
        "{old} {new, 7, the brace is not closed",
        "new}, 4, a brace is closed that was not opened",
        "{} {new}, 1, the braces name nothing"
    })
    void whatIsWrongIsToldWhereItIs(String template, int column, String problem) {
        assertThatThrownBy(() -> Writing.parse(template)).isInstanceOfSatisfying(PatternException.class, wrong -> {
            assertThat(wrong.column()).isEqualTo(column);
            assertThat(wrong.problem()).isEqualTo(problem);
        });
    }
}
