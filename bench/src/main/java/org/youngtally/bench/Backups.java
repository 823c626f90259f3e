package org.youngtally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import org.youngtally.bench.HttpLoad.Request;

/**
 * A backup of a ledger of a million single numbers, what somebody who takes numbers waits meanwhile against what they
 * wait alone, and the restore of it. Argument: the service's jar.
 */
public final class Backups {
    private static final int NUMBERS = 1_000_000;
    private static final int AT_ONCE = 100;
    private static final int CLIENTS = 4;
    private static final long ALONE = TimeUnit.SECONDS.toNanos(10);
    private static final String ALLOCATIONS = "/api/v1/series/hot/allocations";

    private Backups() {}

    public static void main(String[] args) throws Exception {
        Path jar = Path.of(args[0]).toAbsolutePath();
        Path folder = Files.createTempDirectory("youngtally-backups");
        Path passphrase = Files.writeString(folder.resolve("passphrase"), "the wind-chest is tight\n");
        try (ServiceProcess service = ServiceProcess.start(jar, folder.resolve("data"))) {
            service.post(
                    "/api/v1/definitions",
                    "{\"files\":[{\"name\":\"bench.yaml\",\"text\":\"series: [{ key: hot, pattern: 'H{count 9}', ranges: [{ first: 1, last: 999999999, opens: 2020-01-01 }] }]\"}]}");
            var load = new HttpLoad(service.port(), service.token());
            var hundred = new Request("POST", ALLOCATIONS, List.of("{\"quantity\":" + AT_ONCE + "}"), true);
            for (long given = 0; given < NUMBERS; )
                given += load.run(hundred, CLIENTS, 2).requests() * AT_ONCE;
            long[] alone = waited(service, System.nanoTime() + ALONE, null);
            long began = System.nanoTime();
            Process backup = command(
                    jar,
                    "backup",
                    folder.resolve("backups").toString(),
                    "--data",
                    folder.resolve("data").toString(),
                    "--passphrase-file",
                    passphrase.toString());
            long[] meanwhile = waited(service, Long.MAX_VALUE, backup);
            System.out.printf(Locale.ROOT, "backup, opened and audited: %.1f s%n", seconds(began));
            System.out.printf(
                    Locale.ROOT,
                    "a number alone: median %.2f ms, 99 of 100 under %.1f ms; during the backup %.2f and %.1f ms: %.1f × and %.1f ×%n",
                    millis(alone, 0.5),
                    millis(alone, 0.99),
                    millis(meanwhile, 0.5),
                    millis(meanwhile, 0.99),
                    millis(meanwhile, 0.5) / millis(alone, 0.5),
                    millis(meanwhile, 0.99) / millis(alone, 0.99));
        }
        long began = System.nanoTime();
        Process restore = command(
                jar,
                "restore",
                Files.list(folder.resolve("backups")).findFirst().orElseThrow().toString(),
                "--data",
                folder.resolve("restored").toString(),
                "--passphrase-file",
                passphrase.toString());
        if (restore.waitFor() != 0) throw new IllegalStateException("the restore failed");
        System.out.printf(Locale.ROOT, "restore and audit: %.1f s%n", seconds(began));
        Bench.remove(folder);
    }

    /** As {@code ./youngtally} runs it. */
    private static Process command(Path jar, String... words) throws Exception {
        var line = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+UseParallelGC",
                "-jar",
                jar.toString()));
        line.addAll(List.of(words));
        return new ProcessBuilder(line).inheritIO().start();
    }

    /** How long each of somebody's numbers took, in nanoseconds, one after another. */
    private static long[] waited(ServiceProcess service, long until, Process running) throws Exception {
        var times = new ArrayList<Long>();
        while (running == null ? System.nanoTime() < until : running.isAlive()) {
            long began = System.nanoTime();
            service.post(ALLOCATIONS, "{}");
            times.add(System.nanoTime() - began);
        }
        if (running != null && running.waitFor() != 0) throw new IllegalStateException("the backup failed");
        return times.stream().mapToLong(Long::longValue).sorted().toArray();
    }

    private static double millis(long[] sorted, double part) {
        return sorted[(int) Math.min(sorted.length - 1, part * sorted.length)] / 1e6;
    }

    private static double seconds(long began) {
        return (System.nanoTime() - began) / 1e9;
    }
}
