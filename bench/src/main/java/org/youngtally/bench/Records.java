package org.youngtally.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.youngtally.bench.HttpLoad.Request;
import org.youngtally.bench.HttpLoad.Result;

/** Measures records that are saved with their numbers against numbers alone, and the filling of a large table. */
final class Records {
    private static final int ROWS = 100_000;
    private static final int CLIENTS = 64;
    private static final int TABLES = 3;
    private static final String DEFINED = "units: [{ key: group }, { key: works, below: group }]\\n"
            + "kinds: [{ key: thing, fields: [{ name: number }, { name: name, required: true }, { name: note }] }]\\n"
            + "routes: [{ kind: thing, unit: group, series: thing }]\\n"
            + "series: [{ key: thing, pattern: 'T{date yy}-{count 11}', restarts: [year], ranges: [{ first: 1, last: 99999999999, opens: 2020-01-01 }] }]";

    /** Takes a row of the table of results. */
    interface Row {
        void add(String what, int clients, Result result, String against);
    }

    private final Path jar;
    private final Path data;
    private final int seconds;

    Records(Path jar, Path data, int seconds) {
        this.jar = jar;
        this.data = data;
        this.seconds = seconds;
    }

    void measure(int warmUpSeconds, Row row, Starts.Report report) throws IOException, InterruptedException {
        try (ServiceProcess service = ServiceProcess.start(jar, data)) {
            service.post(
                    "/api/v1/definitions", "{\"files\":[{\"name\":\"records.yaml\",\"text\":\"" + DEFINED + "\"}]}");
            var load = new HttpLoad(service.port(), service.token());
            var save = new Request(
                    "POST",
                    "/api/v1/records",
                    List.of(
                            "{\"kind\":\"thing\",\"unit\":\"works\",\"fields\":{\"name\":\"Pallet of the great\",\"note\":\"low C\"}}"),
                    true);
            var take = new Request("POST", "/api/v1/series/thing/allocations", List.of("{}"), true);
            load.run(take, CLIENTS, warmUpSeconds);
            load.run(save, CLIENTS, warmUpSeconds);
            Result alone = load.run(take, CLIENTS, seconds);
            Result kept = load.run(save, CLIENTS, seconds);
            row.add(
                    "record saved with its number, keyed",
                    CLIENTS,
                    kept,
                    String.format(
                            Locale.ROOT, "%.2f × a number alone, beside it", kept.perSecond() / alone.perSecond()));
            String table = IntStream.range(0, ROWS)
                    .mapToObj(i -> ",Pallet " + i + ",low C")
                    .collect(Collectors.joining("\n", "number,name,note\n", "\n"));
            double best = Double.MAX_VALUE;
            double most = 0;
            for (int i = 0; i < TABLES; i++) {
                long start = System.nanoTime();
                service.post("/api/v1/kinds/thing/tables?unit=works&name=things.csv", table);
                double took = (System.nanoTime() - start) / 1e9;
                best = Math.min(best, took);
                most = Math.max(most, took);
            }
            report.figure(
                    "a table of 100,000 blank rows filled, one commit",
                    "%.1f s, and %.1f s at the slowest of %d",
                    best,
                    most,
                    TABLES);
        }
    }
}
