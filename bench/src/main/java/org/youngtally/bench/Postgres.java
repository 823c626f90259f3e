package org.youngtally.bench;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A PostgreSQL server of its own, with default settings, for comparison; driven by its own load program over a socket.
 */
final class Postgres implements AutoCloseable {
    private static final String COLUMNS =
            "seq, at, account_id, kind, series_id, business_date, quantity, request_key, digest, lane_id, position, state, version, text, text_key, namespace_id";
    private static final String VALUES =
            "now(), 1, 1, 1, '2026-03-02', 1, md5(random()::text || clock_timestamp()::text), 'aGVsbG8gd29ybGQgMTIzNA', 1, n, 1, 1, 'LW26-' || lpad(n::text, 7, '0'), 'lw26-' || lpad(n::text, 7, '0'), 1";
    private final Path bin;
    private final Path data;

    private Postgres(Path bin, Path data) {
        this.bin = bin;
        this.data = data;
    }

    /** Starts a server, or returns null where none is installed. */
    static Postgres startIfInstalled(Path folder) throws IOException, InterruptedException {
        Path bin = null;
        try (var versions = Files.newDirectoryStream(Path.of("/usr/lib/postgresql"))) {
            for (Path version : versions)
                if (Files.isExecutable(version.resolve("bin/initdb"))) bin = version.resolve("bin");
        } catch (IOException e) {
            return null;
        }
        if (bin == null) return null;
        Path data = folder.resolve("postgres");
        Files.createDirectories(data);
        if (System.getProperty("user.name").equals("root")) run(List.of("chown", "-R", "postgres", data.toString()));
        var server = new Postgres(bin, data);
        server.as(bin + "/initdb", "-D", data + "/db", "--auth=trust", "-U", "postgres");
        server.as(
                bin + "/pg_ctl",
                "-D",
                data + "/db",
                "-w",
                "-o",
                "-c listen_addresses='' -c unix_socket_directories=" + data + " -c max_connections=300",
                "-l",
                data + "/log",
                "start");
        server.sql(
                "create table counter (id int primary key, next bigint not null); insert into counter values (1, 0); create sequence numbers;"
                        + "create table number (seq bigint primary key, at timestamptz, account_id int, kind smallint, series_id int, business_date date, quantity bigint, reference varchar(200), request_key varchar(200), digest varchar(22),"
                        + " lane_id int, position bigint, state smallint, version int, text varchar(400), text_key varchar(400), namespace_id int);"
                        + "create unique index on number (request_key, account_id); create unique index on number (reference, series_id); create index on number (series_id, seq);"
                        + "create unique index on number (lane_id, position); create unique index on number (text_key, namespace_id);");
        return server;
    }

    /** One number a transaction from a counter row. */
    HttpLoad.Result counterRow(int clients, int seconds) throws IOException, InterruptedException {
        return load(
                "counter",
                "with c as (update counter set next = next + 1 where id = 1 returning next as n) insert into number ("
                        + COLUMNS + ") select n, " + VALUES + " from c;",
                clients,
                seconds);
    }

    /** One number a transaction from a sequence, which leaves gaps. */
    HttpLoad.Result sequence(int clients, int seconds) throws IOException, InterruptedException {
        return load(
                "sequence",
                "insert into number (" + COLUMNS + ") select n, " + VALUES
                        + " from (select nextval('numbers') as n) as s;",
                clients,
                seconds);
    }

    private HttpLoad.Result load(String name, String statement, int clients, int seconds)
            throws IOException, InterruptedException {
        sql("truncate number; update counter set next = 0; alter sequence numbers restart; checkpoint;");
        Path script = data.resolve(name + ".sql");
        Files.writeString(script, statement + "\n");
        Path log = Files.createDirectories(data.resolve("pgbench"));
        if (System.getProperty("user.name").equals("root")) run(List.of("chown", "-R", "postgres", data.toString()));
        as(
                bin + "/pgbench",
                "-h",
                data.toString(),
                "-U",
                "postgres",
                "-n",
                "-M",
                "prepared",
                "-c",
                Integer.toString(clients),
                "-j",
                "2",
                "-T",
                Integer.toString(seconds),
                "-f",
                script.toString(),
                "-l",
                "--log-prefix=" + log + "/" + name + clients,
                "postgres");
        List<Long> times = new ArrayList<>();
        try (var files = Files.newDirectoryStream(log, name + clients + ".*")) {
            // Each line: client, transaction, latency in microseconds, script, seconds, microseconds.
            for (Path file : files) {
                for (String line : Files.readAllLines(file)) times.add(Long.valueOf(line.split(" ")[2]));
                Files.delete(file);
            }
        }
        // On a slow machine a turn can be over before the first transaction is.
        if (times.isEmpty()) return load(name, statement, clients, seconds * 2);
        times.sort(null);
        return new HttpLoad.Result(
                times.size() / (double) seconds,
                times.get(times.size() / 2),
                times.get((int) (times.size() * 0.99)),
                times.size());
    }

    private void sql(String statements) throws IOException, InterruptedException {
        as(bin + "/psql", "-q", "-h", data.toString(), "-U", "postgres", "-v", "ON_ERROR_STOP=1", "-c", statements);
    }

    private String as(String... command) throws IOException, InterruptedException {
        var whole = new ArrayList<String>();
        if (System.getProperty("user.name").equals("root")) whole.addAll(List.of("runuser", "-u", "postgres", "--"));
        whole.addAll(List.of(command));
        return run(whole);
    }

    private static String run(List<String> command) throws IOException, InterruptedException {
        Path output = Files.createTempFile("command", ".out");
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(output.toFile())
                .directory(Path.of("/").toFile())
                .start();
        int exit = process.waitFor();
        String said = Files.readString(output, StandardCharsets.UTF_8);
        Files.delete(output);
        if (exit != 0) throw new IOException(String.join(" ", command) + " failed: " + said);
        return said;
    }

    String version() throws IOException, InterruptedException {
        Matcher matcher = Pattern.compile("[0-9]+(\\.[0-9]+)?").matcher(as(bin + "/postgres", "--version"));
        return matcher.find() ? matcher.group() : "?";
    }

    @Override
    public void close() throws IOException, InterruptedException {
        as(bin + "/pg_ctl", "-D", data + "/db", "-m", "immediate", "stop");
    }
}
