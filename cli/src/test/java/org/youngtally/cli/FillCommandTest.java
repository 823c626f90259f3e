package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.cli.StubService.Result;

class FillCommandTest {
    private static final String BLANK = "number,name\n,a\n";
    private static final String FILLED = "number,name\nN1,a\n";

    @TempDir
    private Path folder;

    private StubService service;
    private Path table;

    @BeforeEach
    void start() throws IOException {
        service = new StubService();
        table = Files.writeString(folder.resolve("parts.csv"), BLANK);
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private Result fill(String... more) {
        return service.run(
                Stream.concat(Stream.of("fill", table.toString(), "--kind", "part", "--unit", "works"), Stream.of(more))
                        .toArray(String[]::new));
    }

    @Test
    void theFilledTableIsWrittenBesideTheOneThatWasGiven() {
        service.answering(200, Map.of("Filled", "1", "Kept", "0", "Entry", "7"), FILLED);
        assertThat(fill())
                .isEqualTo(new Result(
                        0,
                        folder.resolve("parts-numbered.csv") + "\n",
                        "1 filled, 0 already had a number; entry 7.\n"));
        assertThat(folder.resolve("parts-numbered.csv")).hasContent(FILLED);
        assertThat(table).hasContent(BLANK);
    }

    @Test
    void allEntriesOfALongTableAreNamed() {
        service.answering(200, Map.of("Filled", "2500", "Kept", "0", "Entry", "7", "Last-Entry", "9"), FILLED);
        assertThat(fill().err()).isEqualTo("2500 filled, 0 already had a number; entries 7 to 9.\n");
    }

    @Test
    void nothingIsSentWhereAFileStandsInTheWay() throws IOException {
        Path there = Files.writeString(folder.resolve("parts-numbered.csv"), "mine");
        Result refused = fill();
        assertThat(refused.err()).contains("already", "Nothing was allocated");
        assertThat(service.asked()).isEmpty();
        assertThat(there).hasContent("mine");
    }

    @Test
    void theTableIsSentAsItIsWithAKey() {
        service.answering(200, FILLED);
        fill("--column", "part no", "--key", "k");
        assertThat(service.asked())
                .contains(new StubService.Asked(
                        "POST", "/kinds/part/tables?unit=works&name=parts.csv&column=part%20no", "k", BLANK));
    }

    @Test
    void aRefusalLeavesNoFile() {
        service.answering(422, "{\"detail\":\"Line 2: no. Nothing was allocated.\"}");
        assertThat(fill()).isEqualTo(new Result(1, "", "Line 2: no. Nothing was allocated.\n"));
        assertThat(folder.resolve("parts-numbered.csv")).doesNotExist();
    }
}
