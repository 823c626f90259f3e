package org.youngtally.attack;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.concurrent.ExecutorCompletionService;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is turned away at the door, however it is spelt: nothing behind it is reached, and no body is read. */
class DoorTest {
    private static final String JSON = "Content-Type: application/json\r\n";
    private static Victim victim;

    @BeforeAll
    static void start() throws Exception {
        victim = Victim.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        victim.close();
    }

    /** @param more header lines, each with its end */
    private static Wire.Answer send(String line, String more, String body) throws IOException {
        return victim.raw(line, more, body.getBytes(StandardCharsets.ISO_8859_1));
    }

    private static Socket connected() throws IOException {
        var socket = new Socket(InetAddress.getLoopbackAddress(), victim.port());
        socket.setSoTimeout(Wire.PATIENCE_MILLIS);
        return socket;
    }

    private static String signedIn(String account) {
        return "Authorization: Bearer " + Victim.token(account) + "\r\n";
    }

    /** The length is announced, and nothing of it sent: who waits for it has opened the door. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "/api/%761/session", "/api/v1;x=y/session", "/%61pi/v1/session", "/api//v1/session",
                "//api/v1/session", "/api/./v1/session", "/api/v1/x/../session", "/api/v1\\session",
                "/api/v1/sessio%6E", "/api/v1/session;", "/api/v1%2Fsession", "/api/v1%2fsession",
                "/api/v1%5Csession", "/api/v1/%2e%2e/v1/session", "/api/v1/session%2E", "/%7Eapi/v1/session"
            })
    void anAddressThatIsSpeltOtherwiseIsRefused(String path) throws Exception {
        assertThat(send("POST " + path, JSON + "Content-Length: 19000000\r\n", "")
                        .status())
                .isEqualTo(400);
    }

    @ParameterizedTest
    @CsvSource({"/api/v1/health,200", "/api/v1/series/%C3%A4,404", "/api/v1/series/%c3%a4,404", "/api/v1/series/a~b,404"
    })
    void anAddressInItsOnlySpellingIsRead(String path, int status) throws Exception {
        assertThat(send("GET " + path, signedIn("hanna"), "").status()).isEqualTo(status);
    }

    @ParameterizedTest
    @CsvSource({"POST,/api/v1/session", "POST,/api/v1/checks", "POST,/api/v1/nowhere", "GET,/api/v1/health", "PUT,/"})
    void aStrangersLongBodyIsNotRead(String method, String path) throws Exception {
        assertThat(send(method + " " + path, JSON + "Content-Length: 19000000\r\n", "")
                        .status())
                .isBetween(400, 499);
        String piece = "1000\r\n" + " ".repeat(4096) + "\r\n";
        assertThat(send(method + " " + path, JSON + "Transfer-Encoding: chunked\r\n", piece)
                        .status())
                .isBetween(200, 499);
    }

    @Test
    void whatNoOperationSpeaksOfTakesSixtyFourThousandBytes() throws Exception {
        assertThat(send("POST /api/v1/clock/confirmations", signedIn("hanna") + JSON + "Content-Length: 64001\r\n", "")
                        .status())
                .isEqualTo(413);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Authorization: Bearer tally-demo-hanna",
                "Content-Type: application/json",
                "Idempotency-Key: one",
                "Content-Length: 14"
            })
    void whatIsSaidTwiceIsRefused(String header) throws Exception {
        String all = signedIn("hanna") + JSON + "Idempotency-Key: one\r\nContent-Length: 14\r\n" + header + "\r\n";
        long head = victim.head();
        assertThat(send("POST /api/v1/series/customer/allocations", all, "{\"quantity\":1}")
                        .status())
                .isEqualTo(400);
        assertThat(victim.head()).isEqualTo(head);
    }

    /** A quarter of the 8,192 that there are; from an address of its own, so that nobody else is concerned. */
    @Test
    void oneSourceHoldsAShareOfTheConnections() throws Exception {
        var held = new ArrayList<Socket>();
        InetAddress source = InetAddress.getByName("127.0.0.3");
        try {
            boolean answered = true;
            while (answered && held.size() < 3_000) {
                held.add(new Socket(InetAddress.getLoopbackAddress(), victim.port(), source, 0));
                answered = isAnswered(held.getLast());
            }
            assertThat(held).as("the last is closed, with nothing said").hasSize(2_048 + 1);
            assertThat(send("GET /api/v1/health", "", "").status()).isEqualTo(200);
        } finally {
            for (Socket each : held) each.close();
        }
    }

    private static boolean isAnswered(Socket socket) {
        try {
            socket.setSoTimeout(Wire.PATIENCE_MILLIS);
            socket.getOutputStream()
                    .write(("GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1:" + victim.port() + "\r\n\r\n")
                            .getBytes(StandardCharsets.ISO_8859_1));
            return socket.getInputStream().read() >= 0;
        } catch (IOException closed) {
            return false;
        }
    }

    @Test
    void oneAccountListensWithAShareOfTheStreams() throws Exception {
        var held = new ArrayList<Socket>();
        String listen = "GET /api/v1/events HTTP/1.1\r\nHost: 127.0.0.1:" + victim.port() + "\r\n" + signedIn("ines");
        try {
            for (int i = 0; i < 200; i++) {
                Socket socket = connected();
                held.add(socket);
                socket.getOutputStream().write((listen + "\r\n").getBytes(StandardCharsets.ISO_8859_1));
                assertThat(new String(socket.getInputStream().readNBytes(12), StandardCharsets.ISO_8859_1))
                        .isEqualTo("HTTP/1.1 200");
            }
            assertThat(send("GET /api/v1/events", signedIn("ines"), "").status())
                    .isEqualTo(429);
        } finally {
            for (Socket each : held) each.close();
        }
    }

    /**
     * What stands behind the shorter of two lengths might be taken for a request of its own: the pieces count, and
     * nothing behind them is answered.
     */
    @Test
    void behindABodyThatIsMeasuredInTwoWaysNothingIsRead() throws Exception {
        long head = victim.head();
        String take = "POST /api/v1/series/customer/allocations HTTP/1.1\r\nHost: 127.0.0.1:" + victim.port() + "\r\n"
                + signedIn("hanna") + JSON;
        String twice =
                take + "Content-Length: 4\r\nTransfer-Encoding: chunked\r\n\r\ne\r\n{\"quantity\":1}\r\n0\r\n\r\n"
                        + take + "Content-Length: 14\r\n\r\n{\"quantity\":1}";
        try (Socket socket = connected()) {
            socket.getOutputStream().write(twice.getBytes(StandardCharsets.ISO_8859_1));
            assertThat(new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                    .containsOnlyOnce("HTTP/1.1 ");
        }
        assertThat(victim.head()).isEqualTo(head + 1);
    }

    @Test
    void aParameterThatIsOneValueStandsOnce() throws Exception {
        String path = "GET /api/v1/entries?limit=";
        assertThat(send(path + "1&limit=2", signedIn("hanna"), "").body()).contains("limit", "2 times");
        assertThat(send(path + "1", signedIn("hanna"), "").status()).isEqualTo(200);
    }

    @Test
    void aSecretOfASessionIsNotTakenFromAnAddress() throws Exception {
        var in = victim.send(victim.request("", "/api/v1/session")
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{\"account\":\"hanna\",\"password\":\"larkmoor-hanna\"}"))
                .build());
        String cookie = in.headers().firstValue("Set-Cookie").orElseThrow().split(";")[0];
        String secret = Victim.JSON.readTree(in.body()).get("secret").asString();
        String signedIn = "Cookie: " + cookie + "\r\n" + JSON + "Content-Length: 2\r\n";
        assertThat(send("POST /api/v1/audits?_csrf=" + secret, signedIn, "{}").status())
                .isEqualTo(403);
        assertThat(send("POST /api/v1/audits", signedIn + "X-CSRF-TOKEN: " + secret + "\r\n", "{}")
                        .status())
                .isEqualTo(200);
    }

    /** Bodies that are begun and not sent to their end take memory, of which one account has a share. */
    @Test
    void bodiesOfOneAccountLeaveRoomForThoseOfAnother() throws Exception {
        int many = 12;
        var threads = Executors.newCachedThreadPool();
        var answers = new ExecutorCompletionService<Wire.Answer>(threads);
        String begun = signedIn("hanna") + JSON + "Content-Length: 19000000\r\n";
        for (int i = 0; i < many; i++) answers.submit(() -> send("POST /api/v1/document-plans", begun, "{"));
        // One is being read, for as long as its sender is waited for; all others are answered at once.
        Wire.Answer first = answers.take().get();
        assertThat(first.status()).as(first.body()).isEqualTo(429);
        assertThat(send("POST /api/v1/checks", signedIn("ines") + JSON + "Content-Length: 2\r\n", "{}")
                        .status())
                .isEqualTo(400);
        threads.shutdownNow();
    }
}
