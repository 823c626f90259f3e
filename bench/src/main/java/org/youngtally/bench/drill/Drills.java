package org.youngtally.bench.drill;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Runs drills: faults on a service that gives numbers to callers who never pause. */
final class Drills {
    private static final String DEFINITION =
            "{\"files\":[{\"name\":\"drill.yaml\",\"text\":\"series: [{ key: drill, pattern: \\\"D{count 7}\\\", ranges: [{ first: 1, last: 9999999, opens: 2000-01-01 }] }]\"}]}";
    private static final long BEFORE = 500;
    private static final String DISK_SIZE = "160m";
    private static final String BEGIN = "<!-- made by ./drill -->\n";
    private static final String END = "<!-- end -->\n";

    private Drills() {}

    /** Arguments: the service's jar, the file whose table is written or -, then the names of drills. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        List<Drill> wanted = wanted(List.of(arguments).subList(2, arguments.length));
        var rows = new LinkedHashMap<Drill, Map<String, String>>();
        boolean all = true;
        for (Drill drill : wanted) {
            long began = System.nanoTime();
            var told = new LinkedHashMap<String, String>();
            try {
                run(drill, Path.of(arguments[0]), told);
                System.out.printf("%s: passed in %.0f s%n", drill.word(), (System.nanoTime() - began) / 1e9);
                rows.put(drill, told);
            } catch (IOException e) {
                all = false;
                System.out.println(drill.word() + ": FAILED: " + e.getMessage());
            }
            told.forEach((about, what) -> System.out.println("  " + about + ": " + what));
        }
        if (all && !arguments[1].equals("-")) write(Path.of(arguments[1]), rows);
        if (!all) System.exit(1);
    }

    private static List<Drill> wanted(List<String> names) {
        if (names.contains("all")) return List.of(Drill.values());
        var wanted = new ArrayList<Drill>();
        for (String name : names)
            wanted.add(Arrays.stream(Drill.values())
                    .filter(drill -> drill.word().equals(name))
                    .findFirst()
                    .orElseGet(() -> unknown(name)));
        if (wanted.isEmpty()) unknown("");
        return wanted;
    }

    private static Drill unknown(String name) {
        System.err.println((name.isEmpty() ? "Name a drill" : "Drill ‘" + name + "’ not found. Known") + ": all, "
                + Arrays.stream(Drill.values()).map(Drill::word).collect(Collectors.joining(", ")));
        System.exit(2);
        throw new IllegalStateException("the process has stopped");
    }

    private static void run(Drill drill, Path jar, Map<String, String> told) throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("youngtally-drill");
        Path disk = Files.createDirectory(folder.resolve("disk"));
        if (drill.needsADisk())
            Instance.run(List.of("mount", "-t", "tmpfs", "-o", "size=" + DISK_SIZE, "tmpfs", disk.toString()));
        try (var service = new Instance(jar, disk.resolve("data"), folder.resolve("service.log"))) {
            Scene.setClock(folder, "+0d");
            service.start(drill == Drill.CLOCK_BACK ? Scene.settableClock(folder) : Map.of());
            HttpResponse<String> defined = service.post("/definitions", DEFINITION, "");
            if (defined.statusCode() != 200) throw new IOException(defined.body());
            try (var callers = new Callers(service)) {
                Instance.awaitTrue(
                        "numbers are allocated", () -> callers.answered().size() > BEFORE);
                var scene = new Scene(jar, folder, disk, service, callers, told);
                drill.run(scene);
                scene.proved();
            }
            if (service.stop() != 0) throw new IOException("the service did not stop in order");
        } finally {
            remove(folder);
        }
    }

    static void remove(Path folder) throws IOException, InterruptedException {
        for (String mounted : List.of("disk", "disk", "kept")) {
            Path place = folder.resolve(mounted);
            if (Files.exists(place)
                    && Files.getFileStore(place).type().equals("tmpfs")
                    && !Files.getFileStore(place).equals(Files.getFileStore(folder)))
                Instance.run(List.of("umount", "-l", place.toString()));
        }
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
        }
    }

    /** Puts what the drills came to between the two marks of a page. */
    private static void write(Path page, Map<Drill, Map<String, String>> rows) throws IOException {
        String text = Files.readString(page);
        var made = new StringBuilder();
        rows.forEach((drill, told) -> {
            made.append("### ")
                    .append(drill.word())
                    .append("\n\n")
                    .append(Character.toUpperCase(drill.what().charAt(0)))
                    .append(drill.what().substring(1))
                    .append(" (")
                    .append(LocalDate.now(ZoneOffset.UTC))
                    .append(").\n\n| | |\n|---|---|\n");
            told.forEach((about, what) -> made.append("| ")
                    .append(about)
                    .append(" | ")
                    .append(what.replace("|", "\\|").replaceAll("/tmp/youngtally-drill[0-9]+", "…"))
                    .append(" |\n"));
            made.append("\n");
        });
        int from = text.indexOf(BEGIN) + BEGIN.length();
        Files.writeString(page, text.substring(0, from) + "\n" + made + text.substring(text.indexOf(END)));
    }
}
