package org.youngtally.ledger.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every line that an earlier build wrote is written by this one to the byte, its hash included. */
class GoldenLineTest {
    static Stream<Path> segments() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("src/test/resources/golden"))) {
            return files.filter(file -> file.toString().endsWith(".jsonl")).sorted().toList().stream();
        }
    }

    @ParameterizedTest
    @MethodSource("segments")
    void isWrittenAsItWas(Path segment) throws IOException {
        String previous = Head.EMPTY.hash();
        for (String text : Files.readAllLines(segment)) {
            Line line = Line.of(text.getBytes(StandardCharsets.UTF_8)).orElseThrow();
            var written = new ByteArrayOutputStream();
            previous = Line.write(line.entry(), line.batch(), previous, written, Sha256.fresh())
                    .hash();
            assertThat(written.toString(StandardCharsets.UTF_8)).isEqualTo(text + "\n");
        }
    }
}
