package org.youngtally.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.youngtally.bench.HttpLoad.Request;
import org.youngtally.bench.HttpLoad.Result;

/**
 * Measures the service and, where it is installed, PostgreSQL on the same machine in the same run, and prints a table.
 * Arguments: the service's jar, the seconds for each figure, the file to write (optional).
 */
public final class Bench {
    private static final int[] CLIENTS = {1, 16, 64, 256};
    /**
     * The machine compiles the service's code on the same two cores; a service that runs for months has that behind it.
     */
    private static final int WARM_UP_SECONDS = 120;

    private static final int BLOCKS = 500;
    private static final Request NOOP = new Request("GET", "/api/v1/noop", List.of(""), false);
    private static final String SERIES =
            "{\"key\":\"%s\",\"pattern\":\"%s{date yy}-{count 11}\",\"restarts\":[\"year\"],\"ranges\":[{\"first\":1,\"last\":99999999999,\"opens\":\"2020-01-01\"}]}";
    private static final String LANES =
            SERIES.replace("{date yy}", "{date yyMMdd}").replace("[\"year\"]", "[\"day\"]");

    private final Path jar;
    private final int seconds;
    private final Path folder;
    private final List<String> table = new ArrayList<>();

    private Bench(Path jar, int seconds, Path folder) {
        this.jar = jar;
        this.seconds = seconds;
        this.folder = folder;
    }

    public static void main(String[] args) throws Exception {
        Path folder = Files.createTempDirectory(
                Path.of(args.length > 3 ? args[3] : System.getProperty("java.io.tmpdir")), "youngtally-bench");
        run(List.of("chmod", "755", folder.toString()));
        var bench = new Bench(Path.of(args[0]).toAbsolutePath(), Integer.parseInt(args[1]), folder);
        bench.run();
        String text = String.join("\n", bench.table) + "\n";
        System.out.print(text);
        if (args.length > 2 && !args[2].isEmpty()) Files.writeString(Path.of(args[2]), text);
    }

    private static void run(List<String> command) throws IOException, InterruptedException {
        new ProcessBuilder(command).inheritIO().start().waitFor();
    }

    private void run() throws Exception {
        table.add("Measured on " + LocalDate.now() + ": " + Runtime.getRuntime().availableProcessors()
                + " cores shared by service and load, " + System.getProperty("os.name") + ", Java "
                + Runtime.version().feature() + ", " + seconds + " s a figure.");
        table.add("");
        table.add("| what | clients | a second | p50 ms | p99 ms | ratio |");
        table.add("|---|--:|--:|--:|--:|---|");
        Path data = folder.resolve("data");
        try (ServiceProcess service = ServiceProcess.start(jar, data);
                Postgres postgres = Postgres.startIfInstalled(folder)) {
            for (String key : List.of("hot", "batch", "warm")) define(service, key);
            define(service, "lanes", LANES);
            var load = new HttpLoad(service.port(), service.token());
            load.run(allocate("warm", "{}"), 64, WARM_UP_SECONDS);
            load.run(NOOP, 64, WARM_UP_SECONDS / 4);
            if (postgres == null) table.add("| PostgreSQL is not installed here | | | | | |");
            double bytesBefore = size(data);
            long numbers = 0;
            for (int clients : CLIENTS) numbers += singles(load, postgres, clients);
            text("bytes on disk a single allocation, while running", "%,.0f", (size(data) - bytesBefore) / numbers);
            Result lanes = load.run(new Request("POST", "/api/v1/series/lanes/allocations", days(), true), 64, seconds);
            row("single allocation across 1,000 lanes at random, keyed", 64, lanes, "");
            Result hundreds = load.run(allocate("batch", "{\"quantity\":100}"), 16, seconds);
            row(
                    "100 at a time (requests)",
                    16,
                    hundreds,
                    String.format(Locale.ROOT, "%,.0f numbers a second", hundreds.perSecond() * 100));
        }
        new Records(jar, folder.resolve("records"), seconds).measure(WARM_UP_SECONDS / 2, this::row, this::text);
        blocks(folder.resolve("blocks"));
        new Sums(this::text).measure();
        new Starts(jar, folder.resolve("start"), this::text).measure();
        remove(folder);
    }

    /**
     * One client count of everything that is compared, one right after the other: the machine may be slower a minute
     * later.
     */
    private long singles(HttpLoad load, Postgres postgres, int clients) throws Exception {
        Result nothing = load.run(NOOP, clients, seconds);
        row("no-op endpoint", clients, nothing, "");
        Result one = load.run(allocate("hot", "{}"), clients, seconds);
        row(
                "single allocation, one hot series, keyed",
                clients,
                one,
                ratio(one.perSecond(), nothing.perSecond(), "× no-op"));
        if (postgres != null) {
            String name = "PostgreSQL " + postgres.version();
            Result counter = postgres.counterRow(clients, seconds);
            row(
                    name + ", counter row and insert",
                    clients,
                    counter,
                    ratio(one.perSecond(), counter.perSecond(), "× service / PostgreSQL"));
            Result sequence = postgres.sequence(clients, seconds);
            row(
                    name + ", sequence and insert (leaves gaps)",
                    clients,
                    sequence,
                    ratio(one.perSecond(), sequence.perSecond(), "× service / PostgreSQL"));
        }
        return one.requests();
    }

    private static void define(ServiceProcess service, String key) throws IOException, InterruptedException {
        define(service, key, SERIES);
    }

    private static void define(ServiceProcess service, String key, String series)
            throws IOException, InterruptedException {
        String text = series.formatted(key, key.substring(0, 2).toUpperCase(Locale.ROOT) + key.length());
        service.post(
                "/api/v1/definitions",
                "{\"files\":[{\"name\":\"bench.yaml\",\"text\":\"series: [" + text.replace("\"", "\\\"") + "]\"}]}");
    }

    private static List<String> days() {
        return IntStream.range(0, 1_000)
                .mapToObj(day -> "{\"date\":\"" + LocalDate.of(2024, 1, 1).plusDays(day) + "\"}")
                .toList();
    }

    private static Request allocate(String series, String body) {
        return new Request("POST", "/api/v1/series/" + series + "/allocations", List.of(body), true);
    }

    /**
     * Blocks in a folder of their own. Their storage is the growth between two clean stops, so that what H2 gives back
     * on closing is not counted.
     */
    private void blocks(Path data) throws IOException, InterruptedException {
        try (ServiceProcess service = ServiceProcess.start(jar, data)) {
            define(service, "block");
            for (int i = 0; i < BLOCKS; i++) block(service);
        }
        double before = size(data);
        var times = new ArrayList<Long>();
        try (ServiceProcess service = ServiceProcess.start(jar, data)) {
            for (int i = 0; i < BLOCKS; i++) {
                long start = System.nanoTime();
                block(service);
                times.add((System.nanoTime() - start) / 1_000);
            }
        }
        times.sort(null);
        table.add(String.format(
                Locale.ROOT,
                "| a block of 10,000,000 | 1 | | %.2f | %.2f | %,.0f bytes each, after a clean stop |",
                times.get(BLOCKS / 2) / 1e3,
                times.get(BLOCKS * 99 / 100) / 1e3,
                (size(data) - before) / BLOCKS));
    }

    private static void block(ServiceProcess service) throws IOException, InterruptedException {
        service.post("/api/v1/series/block/blocks", "{\"quantity\":10000000}");
    }

    private void text(String what, String format, Object... values) {
        String line = "| " + what + " | | " + String.format(Locale.ROOT, format, values) + " | | | |";
        System.err.println(line);
        table.add(line);
    }

    private static String ratio(double a, double b, String of) {
        return String.format(Locale.ROOT, "%.2f %s", a / b, of);
    }

    private void row(String what, int clients, Result result, String ratio) {
        String line = String.format(
                Locale.ROOT,
                "| %s | %d | %,.0f | %.2f | %.2f | %s |",
                what,
                clients,
                result.perSecond(),
                result.p50() / 1e3,
                result.p99() / 1e3,
                ratio);
        System.err.println(line);
        table.add(line);
    }

    private static double size(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            double size = 0;
            for (Path file : files.filter(Files::isRegularFile).toList()) size += Files.size(file);
            return size;
        }
    }

    static void remove(Path folder) throws IOException, InterruptedException {
        run(List.of("rm", "-rf", folder.toString()));
    }
}
