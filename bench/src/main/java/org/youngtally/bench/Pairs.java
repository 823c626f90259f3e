package org.youngtally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * Two builds in turn, each in a process of its own and on an empty ledger: single allocations, one hot series, keyed.
 * What is told is the ratio of each pair, since the machine may be slower a minute later. Where the other build is
 * called {@code one-journal}, it is this build without a copy of its journal, and this one has one.
 */
public final class Pairs {
    private static final int WARM_UP_SECONDS = 6;
    private static final int PAIRS = 10;

    private Pairs() {}

    /** Arguments: the jar of this build, seconds a figure, the jar of the other build, and how many clients. */
    public static void main(String[] args) throws Exception {
        Path mine = Path.of(args[0]);
        int seconds = Integer.parseInt(args[1]);
        boolean copying = args[2].equals("one-journal");
        Path other = copying ? mine : Path.of(args[2]);
        int clients = args.length > 3 ? Integer.parseInt(args[3]) : 64;
        double[] ratios = new double[PAIRS];
        for (int i = 0; i < PAIRS; i++) {
            // Whoever comes second finds the machine warmer.
            double first = perSecond(i % 2 == 0 ? mine : other, copying && i % 2 == 0, clients, seconds);
            double second = perSecond(i % 2 == 0 ? other : mine, copying && i % 2 != 0, clients, seconds);
            double here = i % 2 == 0 ? first : second;
            double there = i % 2 == 0 ? second : first;
            ratios[i] = here / there;
            System.out.printf(Locale.ROOT, "%,.0f against %,.0f a second: %.3f ×%n", here, there, ratios[i]);
        }
        Arrays.sort(ratios);
        System.out.printf(
                Locale.ROOT,
                "%d clients, %d pairs of %d s: median %.3f ×, %.3f to %.3f in the middle eight%n",
                clients,
                PAIRS,
                seconds,
                (ratios[PAIRS / 2 - 1] + ratios[PAIRS / 2]) / 2,
                ratios[1],
                ratios[PAIRS - 2]);
    }

    private static double perSecond(Path jar, boolean copying, int clients, int seconds) throws Exception {
        Path folder = Files.createTempDirectory("pairs-");
        String[] options =
                copying ? new String[] {"--journal-copy", folder.resolve("copy").toString()} : new String[0];
        try (ServiceProcess service = ServiceProcess.start(jar, folder.resolve("data"), options)) {
            service.post(
                    "/api/v1/definitions",
                    "{\"files\":[{\"name\":\"bench.yaml\",\"text\":\"series: [{ key: hot, pattern: 'HO{date yy}-{count 9}', restarts: [year], ranges: [{ first: 1, last: 999999999, opens: 2020-01-01 }] }]\"}]}");
            var load = new HttpLoad(service.port(), service.token());
            var request = new HttpLoad.Request("POST", "/api/v1/series/hot/allocations", List.of("{}"), true);
            load.run(request, clients, WARM_UP_SECONDS);
            return load.run(request, clients, seconds).perSecond();
        } finally {
            Bench.remove(folder);
        }
    }
}
