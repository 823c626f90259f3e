package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lists that are edited while {@code fill --watch} keeps them numbered. Each test has its own list. */
class WatchedListTest {
    @TempDir
    private static Path folder;

    private static Service service;
    private final List<Process> watching = new ArrayList<>();

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        service.apply("""
                units: [{ key: works }]
                series: [{ key: part, pattern: "P{count 4}", ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }]
                kinds: [{ key: part, fields: [{ name: number }, { name: name }] }]
                routes: [{ kind: part, unit: works, series: part, into: number }]
                """);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @AfterEach
    void stopWatching() throws Exception {
        for (Process each : watching) {
            each.destroyForcibly();
            each.waitFor();
        }
    }

    private Process watch(Path list) throws IOException {
        var builder = new ProcessBuilder(
                        Service.JAVA.toString(),
                        "-jar",
                        Service.jar("cli").toString(),
                        "fill",
                        "--watch",
                        list.toString(),
                        "--kind",
                        "part",
                        "--unit",
                        "works",
                        "--key-column",
                        "Key",
                        "--list",
                        list.getFileName().toString(),
                        "--service",
                        service.address())
                .redirectErrorStream(true)
                .redirectOutput(said(list).toFile());
        builder.environment().put("YOUNGTALLY_TOKEN", service.token());
        Process process = builder.start();
        watching.add(process);
        return process;
    }

    private static Path said(Path list) {
        return list.resolveSibling(list.getFileName() + ".said");
    }

    private static Path list(String name, String rows) throws IOException {
        return Files.writeString(folder.resolve(name), "Key,Number,Name\n" + rows);
    }

    /** Waits until a list has no blank number, and returns what is in it by its keys. */
    private static List<String> numbered(Path list, int rows) throws Exception {
        service.await(() -> Files.readAllLines(list).size() == rows + 1
                && Files.readAllLines(list).stream().noneMatch(row -> row.contains(",,")));
        return Files.readAllLines(list).stream().skip(1).toList();
    }

    private static String number(List<String> rows, String key) {
        return rows.stream()
                .filter(row -> row.startsWith(key + ","))
                .map(row -> row.split(",")[1])
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRowThatIsAddedIsNumberedAndTheOthersKeepTheirs() throws Exception {
        Path list = list("added.csv", "1,,Roller\n2,,Backfall\n");
        watch(list);
        List<String> before = numbered(list, 2);
        Files.writeString(list, Files.readString(list) + "3,,Square\n");
        assertThat(numbered(list, 3)).containsAll(before);
    }

    @Test
    void rowsKeepTheirNumbersWhateverTheirOrderAndNames() throws Exception {
        Path list = list("sorted.csv", "1,,Roller\n2,,Backfall\n");
        watch(list);
        List<String> before = numbered(list, 2);
        // Somebody sorted the list, renamed the rows, and lost the numbers.
        list("sorted.csv", "2,,Square\n1,,Tracker\n");
        List<String> after = numbered(list, 2);
        assertThat(number(after, "2")).isEqualTo(number(before, "2"));
    }

    @Test
    void aRowThatIsGoneIsToldAndItsNumberIsNotUsedAgain() throws Exception {
        Path list = list("gone.csv", "1,,Roller\n2,,Backfall\n");
        watch(list);
        String gone = number(numbered(list, 2), "2");
        list("gone.csv", "1,,Roller\n3,,Square\n");
        numbered(list, 2);
        service.await(() -> Files.readString(said(list)).contains("the row 2 is gone. Its number " + gone));
        assertThat(number(numbered(list, 2), "3")).isNotEqualTo(gone);
    }

    @Test
    void aNumberThatWasCopiedFromAnotherRowIsTold() throws Exception {
        Path list = list("copied.csv", "1,,Roller\n");
        watch(list);
        String number = number(numbered(list, 1), "1");
        list("copied.csv", "1," + number + ",Roller\n2," + number + ",Square\n");
        service.await(() -> Files.readString(said(list)).contains("which belongs to the row 1"));
    }

    @Test
    void aKillAtAnyMomentGivesNoRowASecondNumber() throws Exception {
        Path list = list("killed.csv", "1,,Roller\n2,,Backfall\n3,,Square\n");
        Process first = watch(list);
        // It is killed as soon as the ledger has a number for a row, perhaps before the list has it.
        service.await(
                () -> service.get("/api/v1/identifiers?reference=killed.csv:1").status() == 200);
        first.destroyForcibly();
        first.waitFor();
        watch(list);
        List<String> rows = numbered(list, 3);
        assertThat(service.get("/api/v1/identifiers?reference=killed.csv:1")
                        .json()
                        .at("/0/identifier")
                        .asString())
                .isEqualTo(number(rows, "1"));
    }

    @Test
    void aListWithoutANameIsNotNumbered() throws Exception {
        assertThat(CommandLine.run(
                                folder,
                                service,
                                "fill",
                                list("nameless.csv", "1,,Roller\n").toString(),
                                "--kind",
                                "part",
                                "--unit",
                                "works",
                                "--key-column",
                                "Key")
                        .err())
                .contains("--key-column requires --list");
    }

    @Test
    void aRowThatHasNoKeyIsTold() throws Exception {
        Path list = list("keyless.csv", "1,,Roller\n,,Backfall\n");
        watch(list);
        service.await(() -> Files.readString(said(list)).contains("line 3: not numbered. The row has no key."));
        assertThat(Files.readString(list)).contains(",,Backfall");
    }
}
