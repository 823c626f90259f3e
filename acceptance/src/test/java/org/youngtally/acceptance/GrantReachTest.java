package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** How far a grant reaches: not over what a definition draws in, and no longer than it lasts. */
class GrantReachTest {
    private static final AtomicInteger ACCOUNTS = new AtomicInteger();
    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    /** Somebody with these grants, such as {@code define unit care}, and their token. */
    private record Somebody(String name, String token, String tokenId) {
        static Somebody with(String... grants) throws Exception {
            String name = "somebody-" + ACCOUNTS.incrementAndGet();
            List<Map<String, String>> all = List.of(grants).stream()
                    .map(grant -> Map.of("right", grant.split(" ", 2)[0], "scope", grant.split(" ", 2)[1]))
                    .toList();
            service.post(
                    "/api/v1/accounts",
                    Service.JSON.writeValueAsString(Map.of("name", name, "sort", "program", "grants", all)));
            Service.Answer token = service.post("/api/v1/accounts/" + name + "/tokens", "{\"name\":\"tests\"}");
            return new Somebody(name, token.text("token"), token.text("id"));
        }

        Service.Answer send(String method, String path, String body) throws Exception {
            return service.send(service.stranger(path)
                    .header("Authorization", Service.bearer(token))
                    .header("Content-Type", "application/json")
                    .header("If-Match", "*")
                    .method(method, HttpRequest.BodyPublishers.ofString(body)));
        }

        Service.Answer apply(String yaml) throws Exception {
            return send(
                    "POST",
                    "/api/v1/definitions?dryRun=true",
                    Service.JSON.writeValueAsString(
                            Map.of("files", List.of(Map.of("name", "test.yaml", "text", yaml)))));
        }
    }

    private static void assertRefused(Service.Answer answer, String detail) {
        assertThat(answer.status() + " " + answer.response().body())
                .startsWith("403")
                .contains(detail);
    }

    @Test
    void whoDefinesInAUnitRoutesNoSeriesOfAnother() throws Exception {
        assertRefused(
                Somebody.with("define unit care")
                        .send(
                                "PUT",
                                "/api/v1/routes/pipe-label/care",
                                "{\"series\":\"invoice-works\",\"into\":\"serial\"}"),
                "define for series invoice-works");
    }

    @Test
    void norByAFile() throws Exception {
        assertRefused(
                Somebody.with("define unit care")
                        .apply("routes: [{ kind: pipe-label, unit: care, series: invoice-works, into: serial }]"),
                "define for series invoice-works");
    }

    @Test
    void theirOwnSeriesTheyRoute() throws Exception {
        assertThat(Somebody.with("define unit care")
                        .apply(
                                "routes: [{ kind: pipe-label, unit: care, series: care-label, into: serial }]\nseries: [{ key: care-label, pattern: 'CL{count 5}', ranges: [{ first: 1, last: 999, opens: 2026-01-01 }] }]")
                        .status())
                .isEqualTo(200);
    }

    @Test
    void whoDefinesInAUnitDoesNotMoveItBelowAnother() throws Exception {
        assertRefused(
                Somebody.with("define unit care").apply("units: [{ key: care, title: Care, below: works }]"),
                "define for unit works");
    }

    @Test
    void whoDefinesInAUnitDrawsInNoCodebookThatTheyMayNotRead() throws Exception {
        assertRefused(
                Somebody.with("define unit foundry")
                        .apply(
                                "routes: [{ kind: component, unit: foundry, series: f, into: number }]\nseries: [{ key: f, pattern: 'F{field group}{count 5}', fields: [{ name: group, codebook: component }], ranges: [{ first: 1, last: 999, opens: 2026-01-01 }] }]"),
                "may not use the codebook");
    }

    @Test
    void aCodebookIsSeenByWhoMayReadWhatUsesIt() throws Exception {
        assertThat(Somebody.with("read series crate-code")
                        .send("GET", "/api/v1/codebooks/component", "")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aTokenIssuesNoneForItsOwnAccount() throws Exception {
        Somebody keeper = Somebody.with("access all");
        assertRefused(
                keeper.send("POST", "/api/v1/accounts/" + keeper.name() + "/tokens", "{\"name\":\"more\"}"),
                "A token does not issue further tokens");
    }

    @Test
    void aNewPasswordEndsTheTokens() throws Exception {
        String password =
                service.post("/api/v1/accounts", "{\"name\":\"packer\"}").text("password");
        String token = service.tokenOf("packer", password);
        service.post("/api/v1/accounts/packer/passwords", "{}");
        assertThat(service.send(service.stranger("/api/v1/session")
                                .header("Authorization", Service.bearer(token))
                                .GET())
                        .status())
                .isEqualTo(401);
    }

    @Test
    void aStreamOfEventsEndsWithItsToken() throws Exception {
        Somebody reader = Somebody.with("read all");
        HttpResponse<InputStream> stream = HttpClient.newHttpClient()
                .send(
                        service.stranger("/api/v1/events")
                                .header("Authorization", Service.bearer(reader.token()))
                                .GET()
                                .build(),
                        HttpResponse.BodyHandlers.ofInputStream());
        service.send(service.request("/api/v1/accounts/" + reader.name() + "/tokens/" + reader.tokenId())
                .DELETE());
        assertThat(CompletableFuture.supplyAsync(() -> ended(stream.body())).get(30, TimeUnit.SECONDS))
                .isTrue();
    }

    private static boolean ended(InputStream stream) {
        try (stream) {
            stream.readAllBytes();
            return true;
        } catch (IOException e) {
            return true;
        }
    }

    @Test
    void whoManagesAUnitSeesOfOthersWhatTheyMayDoThere() throws Exception {
        Somebody keeper = Somebody.with("access unit care");
        assertThat(keeper.send("GET", "/api/v1/accounts", "").json().findValuesAsString("scope"))
                .isNotEmpty()
                .allMatch(scope -> scope.equals("unit care"));
    }

    @Test
    void whoManagesAUnitRenewsNoPasswordOfAnAccountWithoutGrants() throws Exception {
        service.post("/api/v1/accounts", "{\"name\":\"nobody-yet\"}");
        assertRefused(
                Somebody.with("access unit care").send("POST", "/api/v1/accounts/nobody-yet/passwords", "{}"),
                "access for all");
    }

    @Test
    void whoMayTakeNumbersReadsNoRecordByChangingIt() throws Exception {
        assertRefused(
                Somebody.with("allocate all").send("PUT", "/api/v1/records/1", "{\"fields\":{}}"), "may not read this");
    }

    @Test
    void aRecordThatIsKnownIsNamedToWhoMayReadIt() throws Exception {
        String record =
                "{\"kind\":\"customer\",\"unit\":\"works\",\"fields\":{\"name\":\"Reed & Daughters\",\"tax-number\":\"EX-4711\"}}";
        assertThat(service.post("/api/v1/records", record).status()).isIn(200, 201);
        Service.Answer answer = Somebody.with("allocate all").send("POST", "/api/v1/records", record);
        assertThat(answer.status() + " " + answer.response().body())
                .startsWith("409")
                .contains("/problems/known-already")
                .doesNotContain("Reed");
    }
}
