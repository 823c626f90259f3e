package org.youngtally.proving;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jacoco.core.analysis.Analyzer;
import org.jacoco.core.analysis.CoverageBuilder;
import org.jacoco.core.analysis.IClassCoverage;
import org.jacoco.core.analysis.ICounter;
import org.jacoco.core.tools.ExecFileLoader;

/**
 * A run of all tests, as it was recorded: a folder with {@code coverage} (of each class of tests what it ran),
 * {@code classes} (of each module the classes that were tested), {@code seconds} (a line for each class of tests: its
 * module, its name, its seconds) and {@code commit}.
 */
record Recording(Path folder) {

    /** @param seconds that it took */
    record TestClass(String module, String name, double seconds) {}

    String commit() throws IOException {
        return Files.readString(folder.resolve("commit")).strip();
    }

    /** By their names. */
    SortedMap<String, TestClass> tests() throws IOException {
        var tests = new TreeMap<String, TestClass>();
        for (String line : Files.readAllLines(folder.resolve("seconds"))) {
            String[] words = line.split(" ");
            tests.put(words[1], new TestClass(words[0], words[1], Double.parseDouble(words[2])));
        }
        return tests;
    }

    /**
     * Which tests ran any of these lines.
     *
     * @param module of the source file
     * @param source its path among the sources, such as {@code org/youngtally/core/Range.java}
     * @param lines of then; none for the whole file
     * @return by the name of the class of tests how many of the lines it ran, the whole file's where it ran none of
     *     them and no other did
     */
    Map<String, Integer> whoRan(String module, String source, SortedSet<Integer> lines) throws IOException {
        var ranLines = new HashMap<String, Integer>();
        var ranFile = new HashMap<String, Integer>();
        List<Path> classes = classes(module, source);
        if (classes.isEmpty()) return Map.of();
        try (Stream<Path> files = Files.list(folder.resolve("coverage"))) {
            for (Path file : files.sorted().toList()) {
                String test = file.getFileName().toString().replace(CoverageRecorder.ENDING, "");
                var data = new ExecFileLoader();
                data.load(file.toFile());
                var covered = new CoverageBuilder();
                var analyzer = new Analyzer(data.getExecutionDataStore(), covered);
                for (Path each : classes)
                    try (InputStream in = Files.newInputStream(each)) {
                        analyzer.analyzeClass(in, each.toString());
                    }
                for (IClassCoverage each : covered.getClasses())
                    for (int line = each.getFirstLine(); line > 0 && line <= each.getLastLine(); line++)
                        if ((each.getLine(line).getStatus() & ICounter.FULLY_COVERED) != 0) {
                            ranFile.merge(test, 1, Integer::sum);
                            if (lines.contains(line)) ranLines.merge(test, 1, Integer::sum);
                        }
            }
        }
        return ranLines.isEmpty() ? ranFile : ranLines;
    }

    private List<Path> classes(String module, String source) throws IOException {
        Path place = folder.resolve("classes").resolve(module).resolve(source);
        String name = place.getFileName().toString().replace(".java", "");
        if (!Files.isDirectory(place.getParent())) return List.of();
        try (Stream<Path> all = Files.list(place.getParent())) {
            return all.filter(each -> each.getFileName()
                            .toString()
                            .matches(java.util.regex.Pattern.quote(name) + "(\\$.*)?\\.class"))
                    .toList();
        }
    }
}
