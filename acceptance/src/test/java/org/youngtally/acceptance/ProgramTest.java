package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.CommandLine.Result;

/** The engraving program of the demo, and one that is too large to be sent. */
class ProgramTest {
    private static final Path DEMO = Path.of("..", "demo").toAbsolutePath().normalize();
    private static final String PLATES = "stop-plates.nc";
    private static final Pattern ENGRAVED = Pattern.compile("L1 \"(LW[^ ]+) ([0-9A-Z]{7})\"");

    @TempDir
    private static Path folder;

    private static Service service;

    private Path work;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void copy() throws Exception {
        work = Files.createTempDirectory(folder, "work");
        for (String each : List.of("programs/stop-plates.nc", "programs/stop-plates.csv", "rules/stop-plates.yaml"))
            Files.copy(DEMO.resolve(each), work.resolve(DEMO.resolve(each).getFileName()));
    }

    private Result run(String... arguments) throws Exception {
        String[] here = Stream.of(arguments)
                .map(word ->
                        Files.exists(work.resolve(word)) ? work.resolve(word).toString() : word)
                .toArray(String[]::new);
        return CommandLine.run(folder, service, here);
    }

    private Result plates(String order, String... more) throws Exception {
        String[] command = {
            "number", "stop-plates.yaml", PLATES, "--table", "stop-plates.csv", "--value", "order=" + order
        };
        return run(Stream.of(command, more).flatMap(Stream::of).toArray(String[]::new));
    }

    /** The serials that a program engraves, in their order. */
    private List<String> serials(String file) throws Exception {
        return ENGRAVED.matcher(Files.readString(work.resolve(file)))
                .results()
                .map(found -> found.group(2))
                .toList();
    }

    private static long newestEntry() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    @Test
    void fortyEightPlatesHaveASerialEach() throws Exception {
        assertThat(plates("LW26-1").exit()).isZero();
        assertThat(new HashSet<>(serials("LW26-1 stop-plates.nc"))).hasSize(48);
    }

    @Test
    void everyOtherByteStays() throws Exception {
        plates("LW26-2");
        String[] expected = Files.readString(work.resolve(PLATES))
                .replace("<<ORDER>>", "LW26-2")
                .replace("<<PART>>", "P-100250")
                .split("<<(STOP|SERIAL)>>");
        String written = Files.readString(work.resolve("LW26-2 stop-plates.nc"));
        int at = 0;
        for (String each : expected) {
            assertThat(written.indexOf(each, at)).isBetween(at, at + 20);
            at = written.indexOf(each, at) + each.length();
        }
        assertThat(at).isEqualTo(written.length());
    }

    @Test
    void aSecondRunHasTheSameSerialsAndSaysSo() throws Exception {
        plates("LW26-3");
        long entry = newestEntry();
        assertThat(plates("LW26-3").err()).endsWith("The files were numbered so already.\n");
        assertThat(newestEntry()).isEqualTo(entry);
    }

    @Test
    void aSecondRunAfterTheFileIsLostWritesTheSame() throws Exception {
        plates("LW26-4");
        List<String> before = serials("LW26-4 stop-plates.nc");
        Files.delete(work.resolve("LW26-4 stop-plates.nc"));
        plates("LW26-4");
        assertThat(serials("LW26-4 stop-plates.nc")).isEqualTo(before);
    }

    @Test
    void anotherOrderHasOtherSerials() throws Exception {
        plates("LW26-5");
        plates("LW26-6");
        assertThat(serials("LW26-5 stop-plates.nc")).doesNotContainAnyElementsOf(serials("LW26-6 stop-plates.nc"));
    }

    @Test
    void everyLineThatChangesIsShownBefore() throws Exception {
        long entry = newestEntry();
        Result shown = plates("LW26-7", "--dry-run", "--all");
        assertThat(shown.out().lines().filter(line -> line.contains("<<"))).hasSize(97);
        assertThat(newestEntry()).isEqualTo(entry);
        assertThat(work.resolve("LW26-7 stop-plates.nc")).doesNotExist();
    }

    @Test
    void anExistingFileOfThatNameIsLeftAlone() throws Exception {
        Files.writeString(work.resolve("LW26-8 stop-plates.nc"), "other");
        long entry = newestEntry();
        assertThat(plates("LW26-8").err()).contains("already exists");
        assertThat(newestEntry()).isEqualTo(entry);
        assertThat(work.resolve("LW26-8 stop-plates.nc")).hasContent("other");
    }

    @Test
    void undoneTheWrittenFileGoesAndTheSerialsAreVoid() throws Exception {
        plates("LW26-9");
        String serial = serials("LW26-9 stop-plates.nc").getFirst();
        assertThat(run("number", "undo", "LW26-9 stop-plates.nc.undo.json", "--reason", "cancelled")
                        .exit())
                .isZero();
        assertThat(work.resolve("LW26-9 stop-plates.nc")).doesNotExist();
        assertThat(run("find", serial).out()).contains("void");
    }

    @Test
    void anOrderThatNobodySaidIsAskedFor() throws Exception {
        Result result = run("number", "stop-plates.yaml", PLATES, "--table", "stop-plates.csv");
        assertThat(result.exit()).isEqualTo(1);
        assertThat(result.err()).contains("line 2: the mark ‘<<ORDER>>’ is replaced by order, which has no value");
    }

    @Test
    void serialsMayComeFromTheTableAlone() throws Exception {
        Files.writeString(work.resolve("own.nc"), "(P) #S\n(P) #S\n");
        Files.writeString(work.resolve("own.csv"), "serial\nA-1\nA-2\n");
        Files.writeString(
                work.resolve("own.yaml"),
                "marks: [{ text: \"(P)\", begins: piece }, { text: \"#S\", replaced-by: serial }]\n");
        assertThat(run("number", "own.yaml", "own.nc", "--table", "own.csv").exit())
                .isZero();
        assertThat(work.resolve("own-numbered.nc")).hasContent("(P) A-1\n(P) A-2\n");
    }

    /** The command reads and writes it by itself, and the service allocates the same. */
    @Test
    void aProgramThatIsTooLargeToBeSentIsNumberedAsWell() throws Exception {
        String filling = "G1 X1.000 Y2.000 F600\r\n".repeat(420_000);
        Path large = work.resolve(PLATES);
        String template = Files.readString(large);
        try (Writer out = Files.newBufferedWriter(large, StandardCharsets.UTF_8)) {
            out.append(filling).append(template).append(filling);
        }
        assertThat(plates("LW26-10").exit()).isZero();
        String written = Files.readString(work.resolve("LW26-10 stop-plates.nc"));
        assertThat(written).startsWith(filling).endsWith(filling);
        assertThat(ENGRAVED.matcher(written).results().map(MatchResult::group).distinct())
                .hasSize(48);
        assertThat(plates("LW26-10").err()).endsWith("The files were numbered so already.\n");
    }
}
