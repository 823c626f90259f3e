package org.youngtally.proving;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.youngtally.proving.Recording.TestClass;

/**
 * Names the classes of tests that a change can break: those that ran what was changed, by the recording of a whole run.
 * Of a file that runs in many the ones that ran the most of it in the least time, until the time is used up; the others
 * are counted. What no test can be named for is told.
 */
final class ChangedTests {
    private static final Pattern JAVA = Pattern.compile("([a-z]+)/src/(main|test)/java/(.*\\.java)");
    private static final Pattern IN_MODULE = Pattern.compile("([a-z]+)/(src/.*|pom\\.xml)");
    private static final Pattern CONSOLE = Pattern.compile("console/(src|public|scripts)/.*");
    /** Of what people read, and of the demo. */
    private static final List<String> READERS = List.of(
            "org.youngtally.acceptance.GlossaryTest",
            "org.youngtally.acceptance.WalkTest",
            "org.youngtally.service.definitions.ReferenceTest");

    private static final List<String> DEMO = List.of(
            "org.youngtally.acceptance.ExampleTest",
            "org.youngtally.acceptance.DemoSheetTest",
            "org.youngtally.acceptance.WalkTest");
    private static final String PAGES = "ConsoleTest";
    /** So many classes run each changed file at least, if so many ran it. */
    private static final int LEAST = 3;

    private final SortedMap<String, TestClass> tests;
    private final Recording recording;
    private final double most;
    private final Set<String> chosen = new LinkedHashSet<>();
    private final Set<String> left = new LinkedHashSet<>();
    private final List<String> told = new ArrayList<>();

    /** @param most seconds that the chosen may take, as far as each changed file is run by some */
    ChangedTests(Recording recording, double most) throws IOException {
        this.recording = recording;
        this.tests = recording.tests();
        this.most = most;
    }

    /** The chosen, by module. */
    Map<String, List<String>> of(Change change) throws IOException {
        for (Map.Entry<String, SortedSet<Integer>> file : change.lines().entrySet())
            choose(file.getKey(), file.getValue());
        left.removeAll(chosen);
        var modules = new LinkedHashMap<String, List<String>>();
        for (String test : chosen)
            modules.computeIfAbsent(moduleOf(test), module -> new ArrayList<>()).add(test);
        return modules;
    }

    /** What is to be said of the choice. */
    List<String> told() {
        var all = new ArrayList<>(told);
        if (!left.isEmpty())
            all.add(left.size() + " more classes ran some of it; ./verify runs them: "
                    + String.join(", ", left.stream().map(ChangedTests::simple).toList()));
        return all;
    }

    private String moduleOf(String test) {
        TestClass known = tests.get(test);
        return known != null ? known.module() : newTests.get(test);
    }

    private final Map<String, String> newTests = new HashMap<>();

    private void choose(String file, SortedSet<Integer> lines) throws IOException {
        Matcher java = JAVA.matcher(file);
        Matcher module = IN_MODULE.matcher(file);
        if (java.matches()) {
            String name = java.group(3).replace(".java", "").replace('/', '.');
            boolean test = java.group(2).equals("test");
            if (test && name.endsWith("Test")) {
                newTests.put(name, java.group(1));
                chosen.add(name);
            } else ran(file, recording.whoRan(java.group(1), java.group(3), lines));
        } else if (CONSOLE.matcher(file).matches())
            tests.keySet().stream().filter(each -> each.endsWith(PAGES)).forEach(chosen::add);
        else if (file.startsWith("docs/") || file.endsWith(".md")) chosen.addAll(known(READERS));
        else if (file.startsWith("demo/")) chosen.addAll(known(DEMO));
        else if (module.matches())
            tests.values().stream()
                    .filter(each -> each.module().equals(module.group(1)))
                    .forEach(each -> chosen.add(each.name()));
        else told.add(file + ": no test is known for it; ./verify runs all");
    }

    private List<String> known(List<String> names) {
        return names.stream().filter(tests::containsKey).toList();
    }

    private void ran(String file, Map<String, Integer> whoRan) {
        if (whoRan.isEmpty()) {
            told.add(file + ": no test ran it; ./verify runs all");
            return;
        }
        List<String> best = whoRan.keySet().stream()
                .filter(tests::containsKey)
                .sorted(Comparator.<String>comparingDouble(test -> -worth(test, whoRan))
                        .thenComparing(test -> test))
                .toList();
        for (int i = 0; i < best.size(); i++)
            if (i < LEAST || seconds() + tests.get(best.get(i)).seconds() <= most) chosen.add(best.get(i));
            else left.add(best.get(i));
    }

    private double worth(String test, Map<String, Integer> whoRan) {
        return whoRan.get(test) / (1 + tests.get(test).seconds());
    }

    private double seconds() {
        return chosen.stream()
                .filter(tests::containsKey)
                .mapToDouble(test -> tests.get(test).seconds())
                .sum();
    }

    private static String simple(String name) {
        return name.substring(name.lastIndexOf('.') + 1);
    }

    /** Arguments: the folder of a recording, and the seconds that may be used. Prints a module and its tests a line. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        var recording = new Recording(Path.of(arguments[0]));
        var choice = new ChangedTests(recording, Double.parseDouble(arguments[1]));
        var change = Change.read(
                git("diff", "-U0", "--no-renames", "--no-color", "--no-ext-diff", recording.commit()),
                git("ls-files", "--others", "--exclude-standard"));
        choice.of(change).forEach((module, tests) -> System.out.println(module + " " + String.join(",", tests)));
        choice.told().forEach(System.err::println);
    }

    private static List<String> git(String... words) throws IOException, InterruptedException {
        var command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(words));
        Process git = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        List<String> lines = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
                .lines()
                .toList();
        if (git.waitFor() != 0) throw new IOException("git " + String.join(" ", words) + " left " + git.exitValue());
        return lines;
    }
}
