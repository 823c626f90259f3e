package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * What comes from those who may not: no token, a revoked or expired one, wrong passwords, forged cookies, pages from
 * elsewhere.
 */
class StrangerTest {
    private static final String TAKE = "/api/v1/series/customer/allocations";
    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static HttpRequest.Builder taking() {
        return service.stranger(TAKE)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{}"));
    }

    private static Service.Answer signIn(String account, String password) throws Exception {
        return service.send(service.stranger("/api/v1/session")
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(
                        Service.JSON.writeValueAsString(Map.of("account", account, "password", password)))));
    }

    /** A session: its cookie and its secret. */
    private record Session(String cookie, String secret) {
        static Session of(String account) throws Exception {
            Service.Answer answer = signIn(account, Service.demoPassword(account));
            assertThat(answer.status()).as(answer.response().body()).isEqualTo(200);
            return new Session(
                    answer.response().headers().firstValue("Set-Cookie").orElseThrow(), answer.text("secret"));
        }

        String shown() {
            return cookie.replaceFirst(";.*", "");
        }
    }

    private static void refused(Service.Answer answer, int status, String type, String... words) {
        assertThat(answer.status()).as(answer.response().body()).isEqualTo(status);
        assertThat(answer.text("type")).isEqualTo("/problems/" + type);
        for (String word : words) assertThat(answer.response().body()).contains(word);
    }

    @Test
    void withoutATokenNothingIsDone() throws Exception {
        refused(service.send(taking()), 401, "sign-in-needed");
        assertThat(service.send(taking()).response().headers().firstValue("WWW-Authenticate"))
                .contains("Bearer");
        assertThat(service.send(service.stranger("/api/v1/health").GET()).status())
                .isEqualTo(200);
        assertThat(service.send(service.stranger("/").GET())
                        .response()
                        .headers()
                        .map())
                .containsKeys("content-security-policy", "x-content-type-options", "referrer-policy");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "Bearer tally-demo-nobody",
                "Bearer ",
                "Bearer",
                "Basic aGFubmE6bGFya21vb3ItaGFubmE=",
                "tally-demo-hanna"
            })
    void aTokenThatIsNoneIsNotTaken(String shown) throws Exception {
        refused(service.send(taking().header("Authorization", shown)), 401, "sign-in-needed");
    }

    @Test
    void aRevokedTokenIsNotTakenAnyMore() throws Exception {
        Service.Answer issued = service.post("/api/v1/accounts/shop/tokens", "{\"name\":\"second till\"}");
        String token = Service.bearer(issued.text("token"));
        assertThat(service.send(taking().header("Authorization", token)).status())
                .isEqualTo(201);
        assertThat(service.send(service.request("/api/v1/accounts/shop/tokens/" + issued.text("id"))
                                .DELETE())
                        .status())
                .isEqualTo(204);
        refused(
                service.send(taking().header("Authorization", token)),
                401,
                "sign-in-needed",
                "second till",
                "was revoked on 2026-03-02");
    }

    /** It would have an heir that outlives it. */
    @Test
    void aTokenIssuesNoneForItsOwnAccount() throws Exception {
        refused(
                service.send(service.stranger("/api/v1/accounts/tobin/tokens")
                        .header("Authorization", Service.bearer(Service.demoToken("tobin")))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString("{\"name\":\"heir\"}"))),
                403,
                "grant-missing",
                "would be valid longer than itself");
    }

    @Test
    void anExpiredTokenIsNotTakenAnyMore() throws Exception {
        refused(
                service.post("/api/v1/accounts/shop/tokens", "{\"name\":\"old\",\"expires\":\"2026-03-01\"}"),
                400,
                "malformed",
                "2026-03-02 to 2029-03-06");
        // The demo's clock is in March 2026, and a ledger of today finds its tokens long expired.
        try (Service aged = aged()) {
            refused(
                    aged.send(aged.stranger("/api/v1/session")
                            .header("Authorization", Service.bearer(token))
                            .GET()),
                    401,
                    "sign-in-needed",
                    "expired on 2026-03-02");
        }
    }

    @TempDir
    private static Path data;

    private static String token;

    /** A folder of the demo in which a token was issued for one day; days later. */
    private static Service aged() throws Exception {
        try (Service young = Service.demo(data)) {
            token = young.post("/api/v1/accounts/shop/tokens", "{\"name\":\"for a day\",\"expires\":\"2026-03-02\"}")
                    .text("token");
            assertThat(young.send(young.stranger("/api/v1/session")
                                    .header("Authorization", Service.bearer(token))
                                    .GET())
                            .status())
                    .isEqualTo(200);
        }
        // Started again, the demo goes on with what is there.
        try (Service again = Service.demo(data)) {
            assertThat(again.get("/api/v1/accounts/shop/tokens").json()).hasSize(2);
        }
        return Service.serve(data);
    }

    @Test
    void aWrongPasswordAThousandTimesOpensNothingAndClosesTheDoorForAWhile() throws Exception {
        Map<Integer, Long> answers = IntStream.range(0, 1_000)
                .parallel()
                .mapToObj(i -> {
                    try {
                        return signIn("ruben", "wrong-" + i).status();
                    } catch (Exception e) {
                        throw new IllegalStateException(e);
                    }
                })
                .collect(Collectors.groupingBy(status -> status, Collectors.counting()));
        assertThat(answers.keySet()).as("never let in").containsOnly(401, 429);
        assertThat(answers.get(401)).as("few are looked at: %s", answers).isLessThan(20);
        Service.Answer right = signIn("ruben", Service.demoPassword("ruben"));
        refused(right, 429, "sign-in-later", "Try again in");
        assertThat(right.response().headers().firstValue("Retry-After")).isPresent();
        assertThat(service.send(service.stranger("/api/v1/session")
                                .header("Authorization", Service.bearer(Service.demoToken("ruben")))
                                .GET())
                        .status())
                .as("tokens are not concerned")
                .isEqualTo(200);
        assertThat(signIn("mara", Service.demoPassword("mara")).status())
                .as("nor is anybody else")
                .isEqualTo(200);
    }

    @Test
    void whoDoesNotExistIsToldNoOtherThanWhoTypedWrong() throws Exception {
        Service.Answer unknown = signIn("nobody-here", "larkmoor-nobody");
        Service.Answer wrong = signIn("odile", "larkmoor-odilo");
        refused(unknown, 401, "sign-in-refused");
        assertThat(unknown.response().body()).isEqualTo(wrong.response().body());
        refused(signIn("shop", "larkmoor-shop"), 401, "sign-in-refused");
        refused(signIn("odile", "x".repeat(100)), 401, "sign-in-refused");
        refused(signIn("", "x"), 400, "malformed");
    }

    @Test
    void theCookieIsForTheServiceAlone() throws Exception {
        String cookie = Session.of("hanna").cookie();
        assertThat(Arrays.stream(cookie.split("; *")).toList()).contains("HttpOnly", "SameSite=Strict", "Path=/");
        assertThat(cookie).startsWith("tally-session-").doesNotContain("hanna");
    }

    @ParameterizedTest
    @ValueSource(strings = {"0123456789ABCDEF0123456789ABCDEF", "hanna", ""})
    void aForgedCookieIsNobodys(String value) throws Exception {
        String cookie = Session.of("mara").shown().replaceFirst("=.*", "=") + value;
        refused(service.send(taking().header("Cookie", cookie)), 401, "sign-in-needed");
    }

    @Test
    void aSessionThatWasBegunForSomebodyElseIsNotGoneOnWith() throws Exception {
        String planted = Session.of("mara").shown();
        Service.Answer answer = service.send(service.stranger("/api/v1/session")
                .header("Content-Type", "application/json")
                .header("Cookie", planted)
                .POST(HttpRequest.BodyPublishers.ofString("{\"account\":\"hanna\",\"password\":\"larkmoor-hanna\"}")));
        assertThat(answer.response().headers().firstValue("Set-Cookie").orElseThrow())
                .doesNotContain(planted);
        refused(
                service.send(service.stranger("/api/v1/session")
                        .header("Cookie", planted)
                        .GET()),
                401,
                "sign-in-needed");
    }

    @Test
    void aPostFromAPageElsewhereIsRefused() throws Exception {
        Session session = Session.of("hanna");
        refused(service.send(taking().header("Cookie", session.shown())), 403, "session-forged");
        refused(
                service.send(taking().header("Cookie", session.shown())
                        .header("X-CSRF-TOKEN", Session.of("tobin").secret())),
                403,
                "session-forged");
        refused(
                service.send(taking().header("Cookie", session.shown())
                        .header("X-CSRF-TOKEN", session.secret())
                        .header("Origin", "http://evil.example")),
                403,
                "foreign-request");
        for (String method : List.of("PUT", "DELETE"))
            refused(
                    service.send(service.stranger("/api/v1/routes/invoice/works")
                            .header("Content-Type", "application/json")
                            .header("Cookie", session.shown())
                            .method(method, HttpRequest.BodyPublishers.ofString("{\"series\":\"invoice-care\"}"))),
                    403,
                    "session-forged");
        assertThat(service.send(taking().header("Cookie", session.shown())
                                .header("X-CSRF-TOKEN", session.secret())
                                .header("Origin", service.address()))
                        .status())
                .as("the console's own")
                .isEqualTo(201);
    }

    @Test
    void aNewPasswordASignOutAndAClosingEndSessions() throws Exception {
        Session one = Session.of("ines");
        Session other = Session.of("ines");
        HttpRequest.Builder change = HttpRequest.newBuilder(URI.create(service.address() + "/api/v1/session/password"))
                .header("Content-Type", "application/json")
                .header("Cookie", one.shown())
                .header("X-CSRF-TOKEN", one.secret());
        refused(
                service.send(change.copy()
                        .PUT(HttpRequest.BodyPublishers.ofString(
                                "{\"current\":\"larkmoor-ines\",\"password\":\"short\"}"))),
                400,
                "malformed",
                "10 symbols or more");
        refused(
                service.send(change.copy()
                        .PUT(HttpRequest.BodyPublishers.ofString(
                                "{\"current\":\"wrong\",\"password\":\"larkmoor-ines-2\"}"))),
                401,
                "sign-in-refused");
        assertThat(service.send(change.copy()
                                .PUT(HttpRequest.BodyPublishers.ofString(
                                        "{\"current\":\"larkmoor-ines\",\"password\":\"larkmoor-ines-2\"}")))
                        .status())
                .isEqualTo(204);
        assertThat(whoHas(one)).isEqualTo(200);
        assertThat(whoHas(other)).isEqualTo(401);
        assertThat(service.post("/api/v1/accounts/ines/closings", "{}").status())
                .isEqualTo(200);
        assertThat(whoHas(one)).isEqualTo(401);
        refused(signIn("ines", "larkmoor-ines-2"), 401, "sign-in-refused");
        refused(
                service.send(service.stranger("/api/v1/session")
                        .header("Authorization", Service.bearer(Service.demoToken("ines")))
                        .GET()),
                401,
                "sign-in-needed",
                "was revoked");
        assertThat(service.post("/api/v1/accounts/ines/reopenings", "{}").status())
                .isEqualTo(200);
        Session mara = Session.of("mara");
        assertThat(service.send(service.stranger("/api/v1/session")
                                .header("Cookie", mara.shown())
                                .header("X-CSRF-TOKEN", mara.secret())
                                .DELETE())
                        .status())
                .isEqualTo(204);
        assertThat(whoHas(mara)).isEqualTo(401);
    }

    private static int whoHas(Session session) throws Exception {
        return service.send(service.stranger("/api/v1/session")
                        .header("Cookie", session.shown())
                        .GET())
                .status();
    }

    /** Nobody, an auditor included, ever reads what a password or a token was turned into. */
    @Test
    void noAnswerHoldsAPasswordOrATokensHash() throws Exception {
        for (String path : List.of(
                "/api/v1/accounts",
                "/api/v1/accounts/hanna",
                "/api/v1/accounts/hanna/tokens",
                "/api/v1/entries?limit=1000",
                "/api/v1/session",
                "/api/v1/definitions",
                "/api/v1/status"))
            assertThat(service.get(path).response().body())
                    .as(path)
                    .doesNotContain("$2a$", "$2b$", "$2y$", "\"hash\"")
                    .doesNotContainPattern("\"[0-9a-f]{64}\"");
    }
}
