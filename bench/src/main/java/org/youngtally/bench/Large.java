package org.youngtally.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.concurrent.ThreadLocalRandom;
import org.youngtally.bench.HttpLoad.Request;
import org.youngtally.bench.HttpLoad.Result;

/**
 * Measures a ledger of ten million single numbers and a block of ten million against an empty one, and holding and
 * confirming against plain allocation. Arguments: the service's jar, the seconds for each figure, the file to write
 * (empty for none), how many millions (default 10).
 */
public final class Large {
    private static final int MILLION = 1_000_000;
    private static final int AT_ONCE = 100;
    private static final int STARTS = 5;
    private static final int CLIENTS = 64;
    private static final int WARM_UP_SECONDS = 45;
    private static final Request NOOP = new Request("GET", "/api/v1/noop", List.of(""), false);

    private final Path jar;
    private final int seconds;
    private final Path data;
    private final int rows;
    private final List<String> table = new ArrayList<>(List.of("| what | figure | against |", "|---|---|---|"));

    private Large(Path jar, int seconds, Path data, int rows) {
        this.rows = rows;
        this.jar = jar;
        this.seconds = seconds;
        this.data = data;
    }

    public static void main(String[] args) throws Exception {
        Path folder = Files.createTempDirectory("youngtally-large");
        int millions = args.length > 3 ? Integer.parseInt(args[3]) : 10;
        var large = new Large(
                Path.of(args[0]).toAbsolutePath(),
                Integer.parseInt(args[1]),
                folder.resolve("data"),
                millions * MILLION);
        large.run();
        String text = "Measured on " + LocalDate.now() + ": "
                + Runtime.getRuntime().availableProcessors() + " cores shared by service and load, " + args[1]
                + " s a figure.\n\n" + String.join("\n", large.table) + "\n";
        System.out.print(text);
        if (args.length > 2 && !args[2].isEmpty()) Files.writeString(Path.of(args[2]), text);
        new ProcessBuilder("rm", "-rf", folder.toString()).inheritIO().start().waitFor();
    }

    private void run() throws Exception {
        try (ServiceProcess service = ServiceProcess.start(jar, data)) {
            String series =
                    "{ key: %s, pattern: '%s{count 11}', ranges: [ { first: 1, last: 99999999999, opens: 2020-01-01 } ] }";
            service.post(
                    "/api/v1/definitions",
                    "{\"files\":[{\"name\":\"large.yaml\",\"text\":\"series: ["
                            + String.join(
                                    ", ",
                                    series.formatted("hot", "H"),
                                    series.formatted("fill", "F"),
                                    series.formatted("block", "B"))
                            + "]\"}]}");
            var load = new HttpLoad(service.port(), service.token());
            load.run(Large::hold, CLIENTS, seconds);
            load.run(allocate("hot", "{}"), CLIENTS, WARM_UP_SECONDS);
            Result empty = load.run(allocate("hot", "{}"), CLIENTS, seconds);
            Result held = load.run(Large::hold, CLIENTS, seconds);
            row(
                    "hold and confirm, 64 clients",
                    String.format(Locale.ROOT, "%,.0f pairs a second, p99 %.0f ms", held.perSecond(), held.p99() / 1e3),
                    ratio(
                            held.perSecond(),
                            empty.perSecond(),
                            "× plain allocation, of which " + Math.round(empty.perSecond()) + " a second"));
            fill(service, load);
            Result full = load.run(allocate("hot", "{}"), CLIENTS, seconds);
            row(
                    "single allocation with " + rows / MILLION + " million rows and a block of 10 million",
                    String.format(Locale.ROOT, "%,.0f a second", full.perSecond()),
                    ratio(full.perSecond(), empty.perSecond(), "× the empty ledger"));
            Result nothing = load.run(NOOP, 1, seconds);
            Result found = load.run(
                    () -> List.of(new Request(
                            "GET",
                            "/api/v1/identifiers?text=F"
                                    + "%011d"
                                            .formatted(1
                                                    + ThreadLocalRandom.current()
                                                            .nextInt(rows)),
                            List.of(""),
                            false)),
                    1,
                    seconds);
            row(
                    "find, one client",
                    String.format(Locale.ROOT, "%.2f ms", found.p50() / 1e3),
                    ratio(found.p50(), nothing.p50(), "× the no-op endpoint"));
            Result page = load.run(new Request("GET", "/api/v1/entries?limit=20", List.of(""), false), 1, seconds);
            row(
                    "the newest 20 entries, one client",
                    String.format(Locale.ROOT, "%.2f ms", page.p50() / 1e3),
                    ratio(page.p50(), nothing.p50(), "× the no-op endpoint"));
            Result ledger =
                    load.run(new Request("GET", "/api/v1/entries?series=hot&limit=20", List.of(""), false), 1, seconds);
            row(
                    "the newest 20 entries of a series, one client",
                    String.format(Locale.ROOT, "%.2f ms", ledger.p50() / 1e3),
                    ratio(ledger.p50(), nothing.p50(), "× the no-op endpoint"));
            Result hundred = load.run(allocate("fill", "{\"quantity\":" + AT_ONCE + "}"), 1, seconds);
            row(
                    "100 at a time, one client",
                    String.format(Locale.ROOT, "p50 %.1f ms, p99 %.1f ms", hundred.p50() / 1e3, hundred.p99() / 1e3),
                    ratio(hundred.p99(), hundred.p50(), "× its median"));
            long start = System.nanoTime();
            service.post("/api/v1/audits", "{}");
            row("audit of all of it", String.format(Locale.ROOT, "%.1f s", (System.nanoTime() - start) / 1e9), "");
        }
        starts();
    }

    private void fill(ServiceProcess service, HttpLoad load) throws InterruptedException, IOException {
        Request hundred = allocate("fill", "{\"quantity\":" + AT_ONCE + "}");
        for (long given = 0; given < rows; ) given += load.run(hundred, 4, 2).requests() * AT_ONCE;
        service.post("/api/v1/series/block/blocks", "{\"quantity\":10000000}");
    }

    /** Starts of an empty ledger, after a clean stop and after a kill in turn, and new tables from the journal. */
    private void starts() throws Exception {
        var empty = new ArrayList<Double>();
        var clean = new ArrayList<Double>();
        var killed = new ArrayList<Double>();
        for (int i = 0; i < STARTS; i++) {
            try (ServiceProcess service = ServiceProcess.start(jar, data.resolveSibling("empty"))) {
                empty.add(service.readySeconds());
            }
            try (ServiceProcess service = ServiceProcess.start(jar, data)) {
                clean.add(service.readySeconds());
                new HttpLoad(service.port(), service.token()).run(allocate("hot", "{}"), 16, 2);
                service.process().destroyForcibly().waitFor();
            }
            try (ServiceProcess service = ServiceProcess.start(jar, data)) {
                killed.add(service.readySeconds());
            }
        }
        started("ready after a clean stop", clean, empty);
        started("ready after a kill under load", killed, empty);
        long start = System.nanoTime();
        int exit = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElse("java"),
                        "-jar",
                        jar.toString(),
                        "rebuild",
                        "--data",
                        data.toString())
                .inheritIO()
                .start()
                .waitFor();
        if (exit != 0) throw new IOException("rebuild ended with " + exit);
        row(
                "rebuild of the tables from the journal",
                String.format(Locale.ROOT, "%.0f s", (System.nanoTime() - start) / 1e9),
                "");
    }

    private void started(String what, List<Double> times, List<Double> empty) {
        row(
                what + ", median of " + STARTS,
                String.format(Locale.ROOT, "%.1f s", median(times)),
                ratio(median(times), median(empty), "× an empty ledger"));
    }

    private static double median(List<Double> times) {
        return times.stream().sorted().toList().get(times.size() / 2);
    }

    private static Request allocate(String series, String body) {
        return new Request("POST", "/api/v1/series/" + series + "/allocations", List.of(body), true);
    }

    /** Holds a number for something, and confirms it by that. */
    private static List<Request> hold() {
        String reference = "\"reference\":\"" + UUID.randomUUID() + "\"";
        return List.of(
                allocate("hot", "{\"hold\":\"PT1H\"," + reference + "}"),
                new Request("POST", "/api/v1/series/hot/confirmations", List.of("{" + reference + "}"), true));
    }

    private void row(String what, String figure, String against) {
        String line = "| " + what + " | " + figure + " | " + against + " |";
        System.err.println(line);
        table.add(line);
    }

    private static String ratio(double a, double b, String of) {
        return String.format(Locale.ROOT, "%.2f %s", a / b, of);
    }
}
