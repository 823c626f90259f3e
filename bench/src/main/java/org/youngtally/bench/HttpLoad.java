package org.youngtally.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.StandardSocketOptions;
import java.nio.ByteBuffer;
import java.nio.channels.SelectionKey;
import java.nio.channels.Selector;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Supplier;

/**
 * Keep-alive HTTP clients that send the same request over and over. One thread serves all of them, as a load program in
 * C does, and reads no more of an answer than its status and where it ends, so that the two cores go to the service.
 */
final class HttpLoad {
    private static final int LARGEST_ANSWER = 1 << 16;
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
            String body = bodies.get(
                    bodies.size() == 1 ? 0 : ThreadLocalRandom.current().nextInt(bodies.size()));
            var text = new StringBuilder(method + " " + path + " HTTP/1.1\r\nHost: 127.0.0.1:" + port
                    + "\r\nAuthorization: Bearer " + token + "\r\n");
            if (keyed)
                text.append("Idempotency-Key: ")
                        .append(HexFormat.of()
                                .toHexDigits(ThreadLocalRandom.current().nextLong()))
                        .append(HexFormat.of()
                                .toHexDigits(ThreadLocalRandom.current().nextLong()))
                        .append("\r\n");
            if (!body.isEmpty())
                text.append("Content-Type: application/json\r\nContent-Length: ")
                        .append(body.length())
                        .append("\r\n");
            return text.append("\r\n").append(body).toString().getBytes(StandardCharsets.US_ASCII);
        }
    }

    /**
     * @param p50 in microseconds
     * @param p99 in microseconds
     */
    record Result(double perSecond, long p50, long p99, long requests) {}

    Result run(Request request, int clients, int seconds) throws IOException {
        return run(() -> List.of(request), clients, seconds);
    }

    /** @param requests those that a client sends one after the other each time, and that count as one */
    Result run(Supplier<List<Request>> requests, int clients, int seconds) throws IOException {
        var all = new ArrayList<Client>();
        long start = System.nanoTime();
        long end = start + seconds * 1_000_000_000L;
        try (var selector = Selector.open()) {
            for (int i = 0; i < clients; i++) all.add(new Client(selector, requests));
            for (Client client : all) client.begin();
            for (int running = clients; running > 0; ) {
                selector.select();
                for (Iterator<SelectionKey> ready = selector.selectedKeys().iterator();
                        ready.hasNext();
                        ready.remove()) {
                    if (!((Client) ready.next().attachment()).goesOn(end)) running--;
                }
            }
        } finally {
            for (Client client : all) client.channel.close();
        }
        double elapsed = (System.nanoTime() - start) / 1e9;
        long[] times = all.stream()
                .flatMapToLong(client -> Arrays.stream(client.times, 0, client.count))
                .sorted()
                .toArray();
        return new Result(
                times.length / elapsed,
                times[times.length / 2] / 1_000,
                times[(int) (times.length * 0.99)] / 1_000,
                times.length);
    }

    /** One connection, and what it is at. */
    private final class Client {
        private final SocketChannel channel;
        private final Supplier<List<Request>> requests;
        private final ByteBuffer answer = ByteBuffer.allocate(LARGEST_ANSWER);
        private Iterator<Request> left = List.<Request>of().iterator();
        private long[] times = new long[1_024];
        private int count;
        private long began;

        Client(Selector selector, Supplier<List<Request>> requests) throws IOException {
            this.requests = requests;
            channel = SocketChannel.open(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
            channel.setOption(StandardSocketOptions.TCP_NODELAY, true);
            channel.configureBlocking(false);
            channel.register(selector, SelectionKey.OP_READ, this);
        }

        void begin() throws IOException {
            left = requests.get().iterator();
            began = System.nanoTime();
            send();
        }

        /** Takes what came. Returns false when the client has finished. */
        boolean goesOn(long end) throws IOException {
            if (channel.read(answer) < 0) throw new IOException("the service closed the connection");
            if (!answer.hasRemaining()) throw new IOException("an answer is longer than " + LARGEST_ANSWER + " bytes");
            if (!HttpAnswer.isWhole(answer)) return true;
            answer.clear();
            if (left.hasNext()) {
                send();
                return true;
            }
            long now = System.nanoTime();
            if (count == times.length) times = Arrays.copyOf(times, count * 2);
            times[count++] = now - began;
            if (now >= end) return false;
            begin();
            return true;
        }

        private void send() throws IOException {
            ByteBuffer bytes = ByteBuffer.wrap(left.next().bytes(port, token));
            while (bytes.hasRemaining()) channel.write(bytes);
        }
    }
}
