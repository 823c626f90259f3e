package org.youngtally.proving;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** What a difference says was changed. */
class ChangeTest {
    private static Change read(String... diff) {
        return Change.read(List.of(diff), List.of());
    }

    @Test
    void linesThatWereReplacedAreThoseOfThen() {
        assertThat(read("--- a/core/src/main/java/A.java", "+++ b/core/src/main/java/A.java", "@@ -7,3 +7 @@ class A {")
                        .lines())
                .containsEntry("core/src/main/java/A.java", new TreeSet<>(List.of(7, 8, 9)));
    }

    @Test
    void whatIsPutInTouchesTheLinesAroundIt() {
        assertThat(read("--- a/A.java", "+++ b/A.java", "@@ -4,0 +5,2 @@").lines())
                .containsEntry("A.java", new TreeSet<>(List.of(4, 5)));
    }

    @Test
    void aFileThatIsNewHasNoLinesOfThen() {
        assertThat(Change.read(List.of(), List.of("A.java")).lines()).containsEntry("A.java", new TreeSet<>());
    }

    @Test
    void aFileThatIsGoneIsKnownByItsNameOfThen() {
        assertThat(read("--- a/A.java", "+++ /dev/null", "@@ -1,2 +0,0 @@").lines())
                .containsEntry("A.java", new TreeSet<>(List.of(1, 2)));
    }
}
