package org.youngtally.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.youngtally.bench.HttpLoad.Request;
import org.youngtally.bench.HttpLoad.Result;

/**
 * This build, the former release and PostgreSQL in turns on one machine: single allocations, one hot series, keyed. All
 * of them run from the beginning to the end, and each turn asks every one for some seconds, so that a machine that gets
 * slower is slower for all. What is told are the medians of the turns, and of the ratios within each turn.
 *
 * <p>Each service is warmed by a number of requests rather than by a time: on a slow day it would else be measured
 * while it is still compiled.
 */
public final class Turns {
    private static final int[] CLIENTS = {1, 16, 64, 256};
    private static final int TURNS = 10;
    private static final long WARM_UP = 150_000;
    private static final int SLICE_SECONDS = 5;
    private static final String MINE = "this build";
    private static final String FORMER = "former release";
    private static final String NOTHING = "no-op endpoint";
    private static final String ROW = "PostgreSQL, counter row";
    private static final String SEQUENCE = "PostgreSQL, sequence (leaves gaps)";

    private final Path folder;
    private final int seconds;
    private final Map<String, ServiceProcess> services = new LinkedHashMap<>();
    private final Map<String, HttpLoad> loads = new LinkedHashMap<>();

    private Turns(Path folder, int seconds) {
        this.folder = folder;
        this.seconds = seconds;
    }

    /** Arguments: the jar of this build, seconds of each turn, the folder that keeps former releases by version. */
    public static void main(String[] args) throws Exception {
        Path folder = Files.createTempDirectory("youngtally-turns");
        new ProcessBuilder("chmod", "755", folder.toString())
                .inheritIO()
                .start()
                .waitFor();
        var turns = new Turns(folder, Integer.parseInt(args[1]));
        try (Postgres postgres = Postgres.startIfInstalled(folder)) {
            turns.start(MINE, Path.of(args[0]).toAbsolutePath());
            Path former = newest(Path.of(args[2]).toAbsolutePath());
            turns.start(FORMER, former);
            System.out.println("Measured on " + LocalDate.now() + ": "
                    + Runtime.getRuntime().availableProcessors() + " cores shared by service and load, " + TURNS
                    + " turns of " + args[1] + " s each; the former release is that of "
                    + former.getParent().getFileName() + ".");
            System.out.println();
            System.out.println("| clients | what | a second | p50 ms | p99 ms | this build against it |");
            System.out.println("|--:|---|--:|--:|--:|--:|");
            for (int clients : CLIENTS) turns.measure(clients, postgres);
        } finally {
            for (ServiceProcess service : turns.services.values()) service.close();
            Bench.remove(folder);
        }
    }

    /** The jar of the version that comes last by its name. */
    private static Path newest(Path releases) throws IOException {
        try (Stream<Path> files = Files.walk(releases, 2)) {
            return files.filter(file -> file.getFileName().toString().matches("youngtally-service-.*\\.jar"))
                    .max(Path::compareTo)
                    .orElseThrow(() -> new IOException(
                            releases + " keeps no release; keep one with: bench/run --keep " + releases + " NAME"));
        }
    }

    private void start(String name, Path jar) throws Exception {
        var service = ServiceProcess.start(jar, folder.resolve(name.replace(' ', '-')));
        services.put(name, service);
        service.post(
                "/api/v1/definitions",
                "{\"files\":[{\"name\":\"bench.yaml\",\"text\":\"series: [{ key: hot, pattern: 'HO{date yy}-{count 11}', restarts: [year], ranges: [{ first: 1, last: 99999999999, opens: 2020-01-01 }] }]\"}]}");
        var load = new HttpLoad(service.port(), service.token());
        loads.put(name, load);
        for (long left = WARM_UP; left > 0; )
            left -= load.run(allocate(), 64, SLICE_SECONDS).requests();
        for (long left = WARM_UP / 30; left > 0; )
            left -= load.run(allocate(), 1, SLICE_SECONDS).requests();
        for (long left = WARM_UP / 3; left > 0; )
            left -= load.run(noop(), 64, SLICE_SECONDS).requests();
    }

    private static Request allocate() {
        return new Request("POST", "/api/v1/series/hot/allocations", List.of("{}"), true);
    }

    private static Request noop() {
        return new Request("GET", "/api/v1/noop", List.of(""), false);
    }

    private void measure(int clients, Postgres postgres) throws Exception {
        var results = new LinkedHashMap<String, List<Result>>();
        for (int turn = 0; turn < TURNS; turn++) {
            var asked = new ArrayList<>(List.of(MINE, FORMER, NOTHING));
            if (postgres != null) asked.addAll(List.of(ROW, SEQUENCE));
            // Whoever comes after another finds the machine as that one left it.
            Collections.rotate(asked, turn);
            for (String what : asked)
                results.computeIfAbsent(what, first -> new ArrayList<>()).add(result(what, clients, postgres));
        }
        List<Result> mine = results.get(MINE);
        for (String what : List.of(MINE, FORMER, NOTHING, ROW, SEQUENCE)) {
            List<Result> own = results.get(what);
            if (own == null) continue;
            double[] ratios = new double[own.size()];
            for (int i = 0; i < ratios.length; i++)
                ratios[i] = mine.get(i).perSecond() / own.get(i).perSecond();
            System.out.printf(
                    Locale.ROOT,
                    "| %d | %s | %,.0f | %.2f | %.2f | %s |%n",
                    clients,
                    what,
                    median(own.stream().mapToDouble(Result::perSecond).toArray()),
                    median(own.stream().mapToDouble(Result::p50).toArray()) / 1e3,
                    median(own.stream().mapToDouble(Result::p99).toArray()) / 1e3,
                    what.equals(MINE) ? "" : String.format(Locale.ROOT, "%.2f ×", median(ratios)));
        }
    }

    private Result result(String what, int clients, Postgres postgres) throws Exception {
        return switch (what) {
            case NOTHING -> loads.get(MINE).run(noop(), clients, seconds);
            case ROW -> postgres.counterRow(clients, seconds);
            case SEQUENCE -> postgres.sequence(clients, seconds);
            default -> loads.get(what).run(allocate(), clients, seconds);
        };
    }

    private static double median(double[] all) {
        Arrays.sort(all);
        int middle = all.length / 2;
        return all.length % 2 == 1 ? all[middle] : (all[middle - 1] + all[middle]) / 2;
    }
}
