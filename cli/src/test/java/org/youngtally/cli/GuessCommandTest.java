package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A definition is guessed on this machine, without the service. */
class GuessCommandTest {
    @TempDir
    private Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int guess(String table, String... options) throws Exception {
        Path file = Files.writeString(folder.resolve("table.csv"), table);
        var arguments = new String[options.length + 3];
        arguments[0] = "table";
        arguments[1] = "guess";
        arguments[2] = file.toString();
        System.arraycopy(options, 0, arguments, 3, options.length);
        return Main.run(
                new Surroundings(Map.of(), new ByteArrayInputStream(new byte[0])),
                new PrintWriter(out),
                new PrintWriter(err),
                arguments);
    }

    @Test
    void theAnswerIsADefinitionFile() throws Exception {
        assertThat(guess("Part no,name\nP-0010,a\nP-0020,b\nP-0040,c\nbad,d\n", "--column", "part no"))
                .isZero();
        assertThat(out.toString())
                .contains("# Reads 3 of 4 different numbers. Not read: lines 5.")
                .contains("""
                        series:
                          - key: part-no
                            title: "Part no"
                            pattern: "P-{count 4}"
                            ranges:
                              - { first: 10, last: 9990, step: 10, opens:""");
    }

    @Test
    void codesOfAColumnAreACodebook() throws Exception {
        guess("no,group\nWX1,Wind-chest\nAQ2,Action\nWX3,Wind-chest\nAQ4,Action\n", "--column", "no");
        assertThat(out.toString())
                .contains("# The field group is filled from the column ‘group’.")
                .contains("      - { name: group, codebook: group }")
                .contains("      - { name: \"Wind-chest\", code: \"WX\" }");
    }

    @Test
    void anExistingFileIsNotOverwritten() throws Exception {
        Path to = Files.writeString(folder.resolve("series.yaml"), "mine");
        assertThat(guess("no\nA1\nA2\n", "--column", "no", "--output", to.toString()))
                .isEqualTo(1);
        assertThat(Files.readString(to)).isEqualTo("mine");
    }

    @Test
    void aColumnThatIsNotThereIsTold() throws Exception {
        assertThat(guess("no,name\nA1,a\n", "--column", "nr")).isEqualTo(1);
        assertThat(err.toString()).contains("Column ‘nr’ not found. Accepted: one of no, name.");
    }

    @Test
    void wordsAreNoNumbers() throws Exception {
        assertThat(guess("wood\noak\npine\ntin\nzinc\n", "--column", "wood")).isEqualTo(1);
        assertThat(err.toString()).contains("No definition explains half of the numbers in ‘wood’.");
    }

    @Test
    void aKeyThatIsNoneIsWrongUsage() throws Exception {
        assertThat(guess("no\nA1\n", "--column", "no", "--key", "No 1")).isEqualTo(2);
    }
}
