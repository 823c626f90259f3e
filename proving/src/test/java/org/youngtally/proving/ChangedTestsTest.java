package org.youngtally.proving;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jacoco.core.data.ExecutionDataStore;
import org.jacoco.core.data.ExecutionDataWriter;
import org.jacoco.core.data.SessionInfoStore;
import org.jacoco.core.instr.Instrumenter;
import org.jacoco.core.runtime.LoggerRuntime;
import org.jacoco.core.runtime.RuntimeData;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which tests a change can break, by what each of them ran. */
class ChangedTestsTest {
    private static final String SOURCE = "proving/src/main/java/org/youngtally/proving/Sample.java";
    private static final Path HERE = Path.of("src/test/java/org/youngtally/proving/Sample.java");

    @TempDir
    private Path folder;

    private final List<String> seconds = new ArrayList<>();

    @BeforeEach
    void record() throws Exception {
        Path classes = Files.createDirectories(folder.resolve("classes/proving/org/youngtally/proving"));
        try (InputStream in = ChangedTestsTest.class.getResourceAsStream("Sample.class")) {
            Files.write(classes.resolve("Sample.class"), in.readAllBytes());
        }
        Files.createDirectories(folder.resolve("coverage"));
        ran("proving", "org.youngtally.proving.OneTest", 1, "one");
        ran("proving", "org.youngtally.proving.TwoTest", 1, "two");
        ran("console", "org.youngtally.acceptance.RecordConsoleTest", 9);
    }

    /** That a class of tests ran these methods. */
    private void ran(String module, String test, double took, String... methods) throws Exception {
        var runtime = new LoggerRuntime();
        var data = new RuntimeData();
        runtime.startup(data);
        byte[] original = Files.readAllBytes(folder.resolve("classes/proving/org/youngtally/proving/Sample.class"));
        byte[] instrumented = new Instrumenter(runtime).instrument(original, "Sample");
        Class<?> sample = new ClassLoader(null) {
            Class<?> defined() {
                return defineClass(Sample.class.getName(), instrumented, 0, instrumented.length);
            }
        }.defined();
        for (String method : methods) {
            var called = sample.getDeclaredMethod(method, int.class);
            called.setAccessible(true);
            called.invoke(null, 1);
        }
        var store = new ExecutionDataStore();
        data.collect(store, new SessionInfoStore(), false);
        runtime.shutdown();
        try (OutputStream out = Files.newOutputStream(folder.resolve("coverage/" + test + ".exec"))) {
            store.accept(new ExecutionDataWriter(out));
        }
        seconds.add(module + " " + test + " " + took);
        Files.write(folder.resolve("seconds"), seconds);
    }

    private static int line(String text) throws IOException {
        List<String> lines = Files.readAllLines(HERE);
        for (int i = 0; i < lines.size(); i++) if (lines.get(i).contains(text)) return i + 1;
        throw new IllegalArgumentException(text);
    }

    private static Change change(String file, Integer... lines) {
        var changed = new TreeMap<String, SortedSet<Integer>>();
        changed.put(file, new TreeSet<>(List.of(lines)));
        return new Change(changed);
    }

    private ChangedTests tests(double most) throws IOException {
        return new ChangedTests(new Recording(folder), most);
    }

    @Test
    void aLineThatWasChangedIsProvedByWhatRanIt() throws IOException {
        assertThat(tests(60).of(change(SOURCE, line("value + 2"))))
                .isEqualTo(Map.of("proving", List.of("org.youngtally.proving.TwoTest")));
    }

    @Test
    void aLineThatNobodyRanIsProvedByWhatRanItsFile() throws IOException {
        assertThat(tests(60).of(change(SOURCE, 1)).get("proving"))
                .containsExactlyInAnyOrder("org.youngtally.proving.OneTest", "org.youngtally.proving.TwoTest");
    }

    @Test
    void whatDoesNotFitIntoTheTimeIsCounted() throws Exception {
        for (int i = 1; i <= 5; i++) ran("proving", "org.youngtally.proving.Slow" + i + "Test", 50, "two");
        ChangedTests tests = tests(60);
        assertThat(tests.of(change(SOURCE, line("value + 2"))).get("proving")).hasSize(3);
        assertThat(tests.told()).singleElement().asString().startsWith("3 more classes ran some of it");
    }

    @Test
    void aTestThatWasChangedIsRun() throws IOException {
        assertThat(tests(60).of(change("core/src/test/java/org/youngtally/core/NewTest.java", 3)))
                .isEqualTo(Map.of("core", List.of("org.youngtally.core.NewTest")));
    }

    @Test
    void aChangeOfThePagesIsProvedInTheBrowser() throws IOException {
        assertThat(tests(60).of(change("console/src/main.tsx", 3)).values())
                .containsExactly(List.of("org.youngtally.acceptance.RecordConsoleTest"));
    }

    @Test
    void whatNoTestIsKnownForIsTold() throws IOException {
        ChangedTests tests = tests(60);
        assertThat(tests.of(change("pom.xml", 3))).isEmpty();
        assertThat(tests.told()).containsExactly("pom.xml: no test is known for it; ./verify runs all");
    }
}
