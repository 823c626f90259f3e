package org.youngtally.bench;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;

/**
 * Keep-alive HTTP clients that send the same request over and over. They read no more of the answer than its status and length,
 * so that the two cores go to the service.
 */
final class HttpLoad {
    private final int port;
    private final String token;

    HttpLoad(int port, String token) {
        this.token = token;
        this.port = port;
    }

    /**
     * A request.
     *
     * @param bodies one of them is sent each time, drawn at random
     * @param keyed whether each one carries an Idempotency-Key of its own
     */
    record Request(String method, String path, List<String> bodies, boolean keyed) {
        byte[] bytes(int port, String token) {
            String body = bodies.get(bodies.size() == 1 ? 0 : ThreadLocalRandom.current().nextInt(bodies.size()));
            var text = new StringBuilder(method + " " + path + " HTTP/1.1\r\nHost: 127.0.0.1:" + port + "\r\nAuthorization: Bearer " + token + "\r\n");
            if (keyed) text.append("Idempotency-Key: ").append(HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextLong())).append(HexFormat.of().toHexDigits(ThreadLocalRandom.current().nextLong())).append("\r\n");
            if (!body.isEmpty()) text.append("Content-Type: application/json\r\nContent-Length: ").append(body.length()).append("\r\n");
            return text.append("\r\n").append(body).toString().getBytes(StandardCharsets.US_ASCII);
        }
    }

    /** @param p50 in microseconds @param p99 in microseconds */
    record Result(double perSecond, long p50, long p99, long requests) {}

    Result run(Request request, int clients, int seconds) throws InterruptedException { return run(() -> List.of(request), clients, seconds); }

    /** @param requests those that a client sends one after the other each time, and that count as one */
    Result run(Supplier<List<Request>> requests, int clients, int seconds) throws InterruptedException {
        var all = new ArrayList<long[]>();
        var failures = new AtomicInteger();
        long end = System.nanoTime() + seconds * 1_000_000_000L;
        long start = System.nanoTime();
        List<Thread> threads = new ArrayList<>();
        for (int i = 0; i < clients; i++) {
            threads.add(Thread.ofVirtual().start(() -> {
                try {
                    long[] times = client(requests, end);
                    synchronized (all) {
                        all.add(times);
                    }
                } catch (IOException e) {
                    failures.incrementAndGet();
                    System.err.println(e.getMessage());
                }
            }));
        }
        for (Thread thread : threads) thread.join();
        if (failures.get() > 0) throw new IllegalStateException(failures + " clients failed");
        double elapsed = (System.nanoTime() - start) / 1e9;
        long[] times = all.stream().flatMapToLong(Arrays::stream).sorted().toArray();
        return new Result(times.length / elapsed, times[times.length / 2] / 1_000, times[(int) (times.length * 0.99)] / 1_000, times.length);
    }

    private long[] client(Supplier<List<Request>> requests, long end) throws IOException {
        long[] times = new long[1_024];
        int count = 0;
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
            socket.setTcpNoDelay(true);
            OutputStream out = socket.getOutputStream();
            InputStream in = new BufferedInputStream(socket.getInputStream(), 4_096);
            for (long now = System.nanoTime(); now < end; ) {
                for (Request request : requests.get()) {
                    out.write(request.bytes(port, token));
                    answer(in);
                }
                long then = System.nanoTime();
                if (count == times.length) times = Arrays.copyOf(times, count * 2);
                times[count++] = then - now;
                now = then;
            }
        }
        return Arrays.copyOf(times, count);
    }

    private static void answer(InputStream in) throws IOException {
        String status = line(in);
        if (!status.startsWith("HTTP/1.1 2")) throw new IOException(status);
        long length = -1;
        for (String header = line(in); !header.isEmpty(); header = line(in)) {
            if (header.regionMatches(true, 0, "Content-Length:", 0, 15)) length = Long.parseLong(header.substring(15).trim());
        }
        if (length >= 0) {
            in.skipNBytes(length);
            return;
        }
        for (int chunk = Integer.parseInt(line(in), 16); ; chunk = Integer.parseInt(line(in), 16)) {
            in.skipNBytes(chunk + 2L);
            if (chunk == 0) return;
        }
    }

    private static String line(InputStream in) throws IOException {
        var text = new StringBuilder(48);
        for (int c = in.read(); c != '\n'; c = in.read()) {
            if (c < 0) throw new IOException("the service closed the connection");
            if (c != '\r') text.append((char) c);
        }
        return text.toString();
    }
}
