package org.youngtally.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.service.starter.Starter;
import org.youngtally.service.web.Problem;

/** Lines by which a file of some megabytes would be read for minutes. */
class LongLineTest {
    private static final String LONG = "x".repeat(4_000_000);

    @ParameterizedTest
    @ValueSource(strings = {"# ", "key: ", "key: '", "key: \""})
    void aLongCommentWordOrTextIsToldByItsLine(String before) {
        assertThat(DefinitionFile.read("a.yaml", "series:\n  - key: a\n" + before + LONG)
                        .faults())
                .singleElement()
                .satisfies(fault -> {
                    assertThat(fault.line()).isEqualTo(3);
                    assertThat(fault.problem()).matches("the line has 4,000,00[0-9] symbols");
                });
    }

    @Test
    void ofAStarterSetToo() {
        assertThatThrownBy(() -> Starter.read("starter: a\n# " + "a".repeat(70_000)))
                .isInstanceOf(Problem.class)
                .hasMessage("Line 2 of the starter set has 70,002 symbols.");
    }

    @Test
    void manyShortLinesAreRead() {
        assertThat(DefinitionFile.read("a.yaml", "# a line\n".repeat(50_000) + "series: []\n")
                        .faults())
                .isEmpty();
    }
}
