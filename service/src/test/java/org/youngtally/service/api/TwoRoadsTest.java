package org.youngtally.service.api;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.slf4j.LoggerFactory;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.service.RunningService;
import org.youngtally.service.access.FirstAccount;
import org.youngtally.service.access.Tokens;
import org.youngtally.service.backup.BackupPlan;
import org.youngtally.service.printing.Printers;
import tools.jackson.databind.json.JsonMapper;

/**
 * The quick road answers what the usual one does, byte for byte. Two services get the same requests in the same order;
 * those of one of them say in other words what they accept, which sends them down the usual road.
 */
class TwoRoadsTest {
    private static final String DEFINITIONS = """
            codebooks:
              - { key: shade, title: Shades, choices: [ { name: Red, code: R }, { name: Blue, code: B } ] }
            series:
              - { key: part, pattern: 'P{count 5}', ranges: [{ first: 1, last: 99999, opens: 2020-01-01 }] }
              - { key: few, pattern: 'F{count 2}', ranges: [{ first: 1, last: 3, opens: 2020-01-01 }] }
              - { key: late, pattern: 'L{count 3}', ranges: [{ first: 1, last: 99, opens: 2099-01-01 }] }
              - { key: shaded, pattern: 'S{field shade}{count 4}', fields: [ { name: shade, codebook: shade } ], ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
              - { key: invoice, pattern: 'I{count 5}', ranges: [{ first: 1, last: 99999, opens: 2020-01-01 }] }
            units: [ { key: works, title: The works } ]
            kinds: [ { key: bill, title: A bill, fields: [ { name: number, title: Number }, { name: to, title: To } ] } ]
            routes: [ { kind: bill, unit: works, series: invoice } ]
            """;
    private static final String USUAL = "Accept: application/json;q=0.9\r\n";
    private static final List<String> WORDS = List.of(
            "{",
            "}",
            "[",
            "]",
            ":",
            ",",
            "\"quantity\"",
            "\"date\"",
            "\"fields\"",
            "\"reference\"",
            "\"typed\"",
            "\"hold\"",
            "\"unit\"",
            "\"nonsense\"",
            "1",
            "2",
            "-1",
            "1.0",
            "1e2",
            "99999999999999999999",
            "\"1\"",
            "\"2026-01-31\"",
            "\"PT5M\"",
            "null",
            "true",
            "\"\\ud83d\"",
            "\"\u00e4\"",
            "\u00ff",
            " ",
            "\t",
            "//");

    @TempDir
    private static Path folder;

    private static RunningService quick;
    private static RunningService usual;
    private static ListAppender<ILoggingEvent> answered;

    @BeforeAll
    static void start() throws IOException {
        quick = service("quick");
        usual = service("usual");
        var logger = (Logger) LoggerFactory.getLogger(QuickRoad.class);
        logger.setLevel(Level.TRACE);
        logger.setAdditive(false);
        answered = new ListAppender<>();
        answered.start();
        logger.addAppender(answered);
    }

    private static RunningService service(String name) throws IOException {
        RunningService service = RunningService.start(
                LedgerOptions.in(folder.resolve(name)),
                "127.0.0.1",
                0,
                false,
                Printers.NONE,
                BackupPlan.NONE,
                () -> {});
        account(service, "hanna", List.of(Right.values()), Scope.ALL);
        String applied = new String(
                sent(service, request("POST /api/v1/definitions", "hanna", "", definitions())), StandardCharsets.UTF_8);
        assertThat(applied).startsWith("HTTP/1.1 20");
        account(service, "clerk", List.of(Right.ALLOCATE), Scope.series("part"));
        account(service, "reader", List.of(Right.READ), Scope.ALL);
        account(service, "nobody", List.of(), Scope.ALL);
        return service;
    }

    private static void account(RunningService service, String name, List<Right> rights, Scope scope) {
        FirstAccount.change(
                service.ledger(),
                "tests",
                name,
                new AccountChange.Open(
                        name,
                        Account.Sort.PROGRAM,
                        Optional.empty(),
                        rights.stream().map(right -> new Grant(right, scope)).toList()),
                "opened");
        for (String token : List.of(name, name + "-revoked", name + "-expired"))
            FirstAccount.change(
                    service.ledger(),
                    "tests",
                    name,
                    new AccountChange.Issue(new Token(
                            token,
                            token,
                            Tokens.hash(token),
                            service.ledger().now(),
                            token.endsWith("-expired") ? LocalDate.of(2020, 1, 1) : LocalDate.of(9999, 1, 1),
                            Optional.empty())),
                    "issued");
        FirstAccount.change(
                service.ledger(),
                "tests",
                name,
                new AccountChange.Revoke(name + "-revoked", service.ledger().now()),
                "revoked");
    }

    private static byte[] definitions() {
        String text = JsonMapper.shared().writeValueAsString(DEFINITIONS);
        return ("{\"files\":[{\"name\":\"test.yaml\",\"text\":" + text + "}]}").getBytes(StandardCharsets.UTF_8);
    }

    @AfterAll
    static void stop() {
        ((Logger) LoggerFactory.getLogger(QuickRoad.class)).detachAppender(answered);
        quick.close();
        usual.close();
    }

    private static byte[] request(String line, String token, String headers, byte[] body) {
        var bytes = new ByteArrayOutputStream();
        bytes.writeBytes((line + " HTTP/1.1\r\nHost: localhost:PORT\r\nConnection: close\r\n"
                        + (token.isEmpty() ? "" : "Authorization: Bearer " + token + "\r\n")
                        + (headers.contains("Content-Type") ? "" : "Content-Type: application/json\r\n")
                        + "Content-Length: " + body.length + "\r\n" + headers + "\r\n")
                .getBytes(StandardCharsets.ISO_8859_1));
        bytes.writeBytes(body);
        return bytes.toByteArray();
    }

    private static byte[] sent(RunningService to, byte[] request) throws IOException {
        try (var socket = new Socket("127.0.0.1", to.port())) {
            socket.getOutputStream().write(addressed(to, request));
            return socket.getInputStream().readAllBytes();
        }
    }

    private static byte[] addressed(RunningService to, byte[] request) {
        return new String(request, StandardCharsets.ISO_8859_1)
                .replaceFirst("PORT", String.valueOf(to.port()))
                .getBytes(StandardCharsets.ISO_8859_1);
    }

    /** An answer, with its headers in order, without what differs between any two answers. */
    private static String told(byte[] answer) {
        String whole = new String(answer, StandardCharsets.ISO_8859_1)
                .replaceFirst("^HTTP/1.1 100 \r\n\r\n", "")
                .replaceAll("localhost:[0-9]+", "localhost:a port");
        int end = whole.indexOf("\r\n\r\n");
        String headers = whole.substring(0, end)
                .lines()
                .skip(1)
                .filter(line -> !line.startsWith("Date: "))
                .map(line -> line.startsWith("Ledger-Receipt: ") ? line.replaceFirst(":.*", ": one") : line)
                .sorted()
                .collect(Collectors.joining("\n"));
        return whole.lines().findFirst().orElseThrow() + "\n" + headers + "\n"
                + whole.substring(end).replaceAll("\"(at|until)\":\"[^\"]*\"", "\"$1\":\"a time\"");
    }

    private static void sameBy(String line, String token, String headers, byte[] body) throws IOException {
        String quickly = told(sent(quick, request(line, token, headers, body)));
        String usually = told(sent(usual, request(line, token, headers + USUAL, body)));
        assertThat(quickly)
                .as("%s as %s with %s: %s", line, token, headers, new String(body, StandardCharsets.ISO_8859_1))
                .isEqualTo(usually);
    }

    private static long answeredQuickly() {
        return answered.list.stream()
                .filter(event -> event.getMessage().startsWith("answered"))
                .count();
    }

    private static final String PART = "POST /api/v1/series/part/allocations";
    private static final String FIND = "GET /api/v1/identifiers?text=";
    private static final String BILL = "POST /api/v1/kinds/bill/allocations";

    /** Line, token, headers, body; what is known to be plain comes first. */
    private static Stream<List<String>> requests() {
        String long201 = "k".repeat(201);
        return Stream.of(
                List.of(PART, "hanna", "", "{}"),
                List.of(PART, "hanna", "", "{\"quantity\":3,\"reference\":\"order 7\"}"),
                List.of(PART, "hanna", "", "{\"quantity\":1,\"reference\":\"order 7\"}"),
                List.of(PART, "hanna", "Idempotency-Key: a\r\n", "{\"quantity\":2}"),
                List.of(PART, "hanna", "Idempotency-Key: a\r\n", "{\"quantity\":2}"),
                List.of(PART, "hanna", "Idempotency-Key: a\r\n", "{\"quantity\":3}"),
                List.of(PART, "hanna", "Idempotency-Key: \r\n", "{}"),
                List.of(PART, "hanna", "Idempotency-Key: " + long201 + "\r\n", "{}"),
                List.of(PART, "hanna", "Idempotency-Key: caf\u00e9\r\n", "{}"),
                List.of(PART, "hanna", "Idempotency-Key: b\r\nIdempotency-Key: c\r\n", "{}"),
                List.of(PART, "hanna", "", "{\"quantity\":0}"),
                List.of(PART, "hanna", "", "{\"quantity\":10001}"),
                List.of(PART, "hanna", "", "{\"quantity\":9223372036854775808}"),
                List.of(PART, "hanna", "", "{\"quantity\":1,\"quantity\":2}"),
                List.of(PART, "hanna", "", "{\"quantity\":1.0}"),
                List.of(PART, "hanna", "", "{\"quantity\":\"1\"}"),
                List.of(PART, "hanna", "", "{\"quantiti\":1}"),
                List.of(PART, "hanna", "", "{\"date\":\"2026-02-30\"}"),
                List.of(PART, "hanna", "", "{\"date\":true}"),
                List.of(PART, "hanna", "", "{\"fields\":{\"shade\":null}}"),
                List.of(PART, "hanna", "", "{\"fields\":{\"shade\":\"Red\"}}"),
                List.of(PART, "hanna", "", "{\"unit\":\"works\"}"),
                List.of(PART, "hanna", "", "{\"unit\":\"elsewhere\"}"),
                List.of(PART, "hanna", "", "{\"hold\":\"PT5M\"}"),
                List.of(PART, "hanna", "", "{\"hold\":\"five\"}"),
                List.of(PART, "hanna", "", "{\"hold\":\"PT5M\",\"typed\":\"P00001\"}"),
                List.of(PART, "hanna", "", "{\"typed\":\"P00900\"}"),
                List.of(PART, "hanna", "", "null"),
                List.of(PART, "hanna", "", ""),
                List.of(PART, "hanna", "", "[]"),
                List.of(PART, "hanna", "", "{} {}"),
                List.of(PART, "hanna", "", "{\"reference\":\"" + "x".repeat(5_000) + "\"}"),
                List.of(PART, "hanna", "", "[".repeat(4_000)),
                List.of(PART, "hanna", "", "{\"reference\":\"\\ud83d\"}"),
                List.of(PART, "hanna", "", "{\"reference\":\"\u00ff\"}"),
                List.of(PART, "hanna", "Content-Type: application/json; charset=UTF-8\r\n", "{}"),
                List.of(PART, "hanna", "Content-Type: application/json; charset=ISO-8859-1\r\n", "{}"),
                List.of(PART, "hanna", "Content-Type: text/plain\r\n", "{}"),
                List.of(PART, "hanna", "Origin: http://elsewhere.example\r\n", "{}"),
                List.of(PART, "hanna", "Cookie: tally-session=none\r\n", "{}"),
                List.of(PART, "hanna", "Ledger-Receipt: nonsense\r\n", "{}"),
                List.of(PART, "hanna", "Expect: 100-continue\r\n", "{}"),
                List.of(PART, "clerk", "", "{}"),
                List.of(PART, "clerk", "", "{\"hold\":\"PT5M\"}"),
                List.of(PART, "reader", "", "{}"),
                List.of(PART, "nobody", "", "{}"),
                List.of(PART, "", "", "{}"),
                List.of(PART, "hanna-revoked", "", "{}"),
                List.of(PART, "hanna-expired", "", "{}"),
                List.of(PART, "stranger", "", "{}"),
                List.of("POST /api/v1/series/few/allocations", "hanna", "", "{\"quantity\":2}"),
                List.of("POST /api/v1/series/few/allocations", "hanna", "", "{\"quantity\":2}"),
                List.of("POST /api/v1/series/few/allocations", "clerk", "", "{}"),
                List.of("POST /api/v1/series/late/allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series/shaded/allocations", "hanna", "", "{\"fields\":{\"shade\":\"Red\"}}"),
                List.of("POST /api/v1/series/shaded/allocations", "hanna", "", "{\"fields\":{\"shade\":\"Grey\"}}"),
                List.of("POST /api/v1/series/shaded/allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series/part%2e/allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series/p%61rt/allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series/pard/allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series//allocations", "hanna", "", "{}"),
                List.of("POST /api/v1/series/part/allocations/", "hanna", "", "{}"),
                List.of("POST /api/v1/series/part/allocations?quantity=2", "hanna", "", "{}"),
                List.of("PUT /api/v1/series/part/allocations", "hanna", "", "{}"),
                List.of(BILL, "hanna", "", "{\"unit\":\"works\",\"fields\":{\"to\":\"the mill\"}}"),
                List.of(BILL, "hanna", "Idempotency-Key: a\r\n", "{\"unit\":\"works\"}"),
                List.of(BILL, "hanna", "Idempotency-Key: bill\r\n", "{\"unit\":\"works\"}"),
                List.of(BILL, "hanna", "Idempotency-Key: bill\r\n", "{\"unit\":\"works\"}"),
                List.of(BILL, "hanna", "", "{\"unit\":\"elsewhere\"}"),
                List.of(BILL, "hanna", "", "{}"),
                List.of(BILL, "hanna", "", "null"),
                List.of(BILL, "clerk", "", "{\"unit\":\"works\"}"),
                List.of(FIND + "P00001", "hanna", "", ""),
                List.of(FIND + "p00001", "reader", "", ""),
                List.of(FIND + "P00001", "clerk", "", ""),
                List.of(FIND + "P99999", "reader", "", ""),
                List.of(FIND + "P99999", "hanna-revoked", "", ""),
                List.of(FIND, "hanna", "", ""),
                List.of(FIND + "P00001&reference=order", "hanna", "", ""),
                List.of(FIND + "P00001&text=P00002", "hanna", "", ""),
                List.of(FIND + "P%30%30001", "hanna", "", ""),
                List.of("GET /api/v1/identifiers", "hanna", "", ""),
                List.of("GET /api/v1/identifiers?reference=order+7", "hanna", "", ""),
                List.of("POST /api/v1/kinds/bell/allocations", "hanna", "", "{\"unit\":\"works\"}"));
    }

    @ParameterizedTest
    @MethodSource("requests")
    void bothRoadsAnswerTheSame(List<String> request) throws IOException {
        sameBy(request.get(0), request.get(1), request.get(2), request.get(3).getBytes(StandardCharsets.ISO_8859_1));
    }

    @Test
    void bothRoadsReadAnyBodyAlike() throws IOException {
        var random = new Random(7);
        for (int i = 0; i < 400; i++) {
            var body = new StringBuilder(random.nextInt(4) == 0 ? "" : "{");
            for (int words = random.nextInt(12); words > 0; words--)
                body.append(WORDS.get(random.nextInt(WORDS.size())));
            if (random.nextInt(3) > 0) body.append('}');
            byte[] bytes = body.toString()
                    .getBytes(
                            random.nextInt(20) == 0
                                    ? StandardCharsets.UTF_16
                                    : random.nextBoolean() ? StandardCharsets.UTF_8 : StandardCharsets.ISO_8859_1);
            sameBy(random.nextInt(5) == 0 ? BILL : PART, "hanna", "", bytes);
        }
    }

    @Test
    void aBodyThatEndsEarlyIsAnsweredTheSame() throws IOException {
        byte[] whole = "{\"quantity\":2}".getBytes(StandardCharsets.UTF_8);
        assertThat(told(sentInPart(quick, request(PART, "hanna", "", whole))))
                .isEqualTo(told(sentInPart(usual, request(PART, "hanna", USUAL, whole))));
    }

    private static byte[] sentInPart(RunningService to, byte[] request) throws IOException {
        try (var socket = new Socket("127.0.0.1", to.port())) {
            byte[] own = addressed(to, request);
            socket.getOutputStream().write(own, 0, own.length - 5);
            socket.shutdownOutput();
            return socket.getInputStream().readAllBytes();
        }
    }

    /** A test that compares one road with itself would find nothing. */
    @Test
    void plainRequestsTakeTheQuickRoadAndOthersDoNot() throws IOException {
        long before = answeredQuickly();
        sent(quick, request(PART, "hanna", "", "{}".getBytes(StandardCharsets.UTF_8)));
        assertThat(answeredQuickly()).isEqualTo(before + 1);
        sent(quick, request(PART, "hanna", USUAL, "{}".getBytes(StandardCharsets.UTF_8)));
        assertThat(answeredQuickly()).isEqualTo(before + 1);
        sent(usual, request(PART, "hanna", USUAL, "{}".getBytes(StandardCharsets.UTF_8)));
        sent(usual, request(PART, "hanna", USUAL, "{}".getBytes(StandardCharsets.UTF_8)));
    }
}
