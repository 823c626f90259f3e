package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class FileLinesTest {
    private static final FileLines LINES = FileLines.of(2, 3, 4, 9, 7, 8);

    @Test
    void linesInARowAreKeptAsOne() {
        assertThat(LINES.written()).isEqualTo("2-4,9,7-8");
    }

    @Test
    void whatWasWrittenIsReadAgain() {
        assertThat(FileLines.read(LINES.written())).isEqualTo(LINES);
        assertThat(FileLines.read(FileLines.NONE.written())).isEqualTo(FileLines.NONE);
    }

    @Test
    void eachNumberHasItsLine() {
        assertThat(new long[] {LINES.lineAt(0), LINES.lineAt(2), LINES.lineAt(3), LINES.lineAt(5), LINES.lineAt(6)})
                .containsExactly(2, 4, 9, 8, 0);
    }

    @Test
    void aPartHasTheLinesOfItsNumbers() {
        assertThat(LINES.between(1, 4).written()).isEqualTo("3-4,9,7");
    }
}
