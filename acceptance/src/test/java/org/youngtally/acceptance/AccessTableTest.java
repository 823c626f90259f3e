package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Every operation as every account of the demo in every unit: what must be allowed is, and nothing else. */
class AccessTableTest {
    private static final List<String> CHANGES_OF_RECORDS =
            List.of("editRecord", "renumberRecord", "deleteRecord", "shareRecord", "fixRecord", "attachFile");

    private static Service service;
    private static List<AccessTable.Described> operations;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
        operations = AccessTable.described(service.get("/api/openapi.json").json());
        for (String unit : AccessTable.UNITS)
            assertThat(service.post(
                                    "/api/v1/records",
                                    AccessTable.rule("saveRecord").body(unit, "hanna"))
                            .json()
                            .get("record")
                            .get("record")
                            .asInt())
                    .isEqualTo(AccessTable.FIRST_RECORD + AccessTable.UNITS.indexOf(unit));
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @Test
    void everyOperationHasARuleAndSaysTheSame() {
        assertThat(operations)
                .extracting(AccessTable.Described::operation)
                .containsExactlyInAnyOrderElementsOf(AccessTable.operations());
        for (AccessTable.Described each : operations) {
            AccessTable.Rule rule = AccessTable.rule(each.operation());
            assertThat(each.open()).as(each.operation()).isEqualTo(rule.who() == AccessTable.For.STRANGERS_TOO);
            // For oneself it takes no right but a session; by a token, as it is tried here, it takes the right to
            // manage the account.
            if (rule.right().isEmpty() || each.operation().equals("issueToken"))
                assertThat(each.rights()).as(each.operation()).isEmpty();
            else assertThat(each.rights()).as(each.operation()).contains(rule.right());
        }
    }

    @Test
    void theDocumentationHasTheTable() throws Exception {
        assertThat(Files.readString(AccessTable.PAGE))
                .isEqualTo(AccessTable.page(service.get("/api/openapi.json").json()));
    }

    /** An answer as far as it matters here; a stream of events does not end by itself. */
    private record Reached(int status, String body) {
        /** By a missing grant, or as something that one may not know of. */
        boolean refuses() {
            return status == 403
                    || status == 404
                            && (body.contains("/problems/unknown-series")
                                    || body.contains("/problems/unknown-identifier"));
        }

        static Reached by(HttpRequest request) throws Exception {
            HttpResponse<InputStream> response = HTTP.send(request, HttpResponse.BodyHandlers.ofInputStream());
            try (InputStream body = response.body()) {
                boolean endless = response.headers()
                        .firstValue("Content-Type")
                        .filter(type -> type.startsWith("text/event-stream"))
                        .isPresent();
                return new Reached(
                        response.statusCode(), endless ? "" : new String(body.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
    }

    private static final HttpClient HTTP = HttpClient.newHttpClient();

    private static HttpRequest.Builder request(AccessTable.Described operation, String unit, String role) {
        AccessTable.Rule rule = AccessTable.rule(operation.operation());
        String body = rule.body(unit, role);
        return service.stranger("/api/v1" + rule.path(unit, role))
                .header("Content-Type", "application/json")
                .header("If-Match", "*")
                .method(
                        operation.method(),
                        body.isEmpty()
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofString(body));
    }

    @Test
    void everyAccountMayDoWhatItsGrantsSayAndNothingElse() throws Exception {
        var wrong = new ArrayList<String>();
        int tried = 0;
        for (AccessTable.Described operation : operations) {
            AccessTable.Rule rule = AccessTable.rule(operation.operation());
            for (String unit : rule.units()) {
                for (String role : AccessTable.ROLES) {
                    Reached reached = Reached.by(request(operation, unit, role)
                            .header("Authorization", Service.bearer(Service.demoToken(role)))
                            .build());
                    tried++;
                    boolean refused = reached.refuses();
                    // The demo's one block is the foundry's, whatever the unit that one comes from.
                    boolean allowed = operation.operation().equals("splitBlock")
                            ? rule.allows("foundry", role)
                            : rule.allows(unit, role);
                    if (refused == allowed || reached.status() == 401 || reached.status() >= 500)
                        wrong.add(role + " in " + unit + ", " + operation.operation() + ": " + reached);
                    else if (refused
                            && reached.status() == 403
                            && !(reached.body().contains("/problems/grant-missing")
                                    && (reached.body().contains("\"right\":\"" + rule.right() + "\"")
                                            || CHANGES_OF_RECORDS.contains(operation.operation())
                                                    && reached.body().contains("\"right\":\"read\""))))
                        wrong.add(role + " in " + unit + ", " + operation.operation()
                                + ", refused without the missing grant: " + reached.body());
                }
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(tried).isGreaterThan(700);
    }

    /**
     * The least that there is: an account with one right in one unit. It may do that there, and nothing elsewhere or of
     * another sort.
     */
    @Test
    void oneRightInOneUnitIsThatAndNoMore() throws Exception {
        var wrong = new ArrayList<String>();
        for (String right : AccessTable.MAY.keySet()) {
            for (String home : AccessTable.UNITS) {
                String name = right + "-" + home;
                service.post(
                        "/api/v1/accounts",
                        "{\"name\":\"" + name + "\",\"sort\":\"program\",\"grants\":[{\"right\":\"" + right
                                + "\",\"scope\":\"unit " + home + "\"}]}");
                String token = service.post("/api/v1/accounts/" + name + "/tokens", "{\"name\":\"tried\"}")
                        .text("token");
                for (AccessTable.Described operation : operations) {
                    AccessTable.Rule rule = AccessTable.rule(operation.operation());
                    // Who changes a record may read it as well.
                    if (rule.right().isEmpty() || CHANGES_OF_RECORDS.contains(operation.operation())) continue;
                    for (String unit : rule.units()) {
                        Reached reached = Reached.by(request(operation, unit, name)
                                .header("Authorization", Service.bearer(token))
                                .build());
                        boolean here =
                                switch (rule.who()) {
                                    case UNIT ->
                                        operation.operation().equals("splitBlock")
                                                ? home.equals("foundry")
                                                : home.equals(unit);
                                    case CLOSING -> false;
                                    // Of one unit are not all; but who manages a unit manages an account that may do
                                    // nothing elsewhere, such as this one.
                                    case ALL ->
                                        right.equals("access")
                                                && !operation.operation().endsWith("Grants")
                                                && !List.of("openAccount", "issueToken")
                                                        .contains(operation.operation());
                                    case SOMEWHERE -> true;
                                    case EVERYBODY_KNOWN, STRANGERS_TOO ->
                                        throw new IllegalStateException("these need no right");
                                };
                        boolean allowed = here && rule.right().equals(right);
                        if (reached.refuses() == allowed || reached.status() == 401 || reached.status() >= 500)
                            wrong.add(name + " in " + unit + ", " + operation.operation() + ": " + reached);
                    }
                }
            }
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void aStrangerMaySignInAndNothingElse() throws Exception {
        for (AccessTable.Described operation : operations) {
            Reached reached = Reached.by(request(operation, "works", "hanna").build());
            assertThat(reached.status() == 401)
                    .as("%s: %s", operation.operation(), reached)
                    .isEqualTo(!operation.open());
        }
    }

    /**
     * The series that somebody may read, worked out by hand from what they are; of those in routes and those granted by
     * name.
     */
    private static final Map<String, Set<String>> READABLE = Map.of(
            "ines", Set.of("invoice-works", "customer", "part", "drawing", "host", "component", "project", "voucher"),
            "tobin",
                    Set.of(
                            "invoice-care",
                            "customer",
                            "customer-school",
                            "part",
                            "drawing",
                            "host",
                            "component",
                            "visit",
                            "order",
                            "contract"),
            "mara", Set.of("invoice-works", "customer", "part", "drawing", "host", "component"),
            "ruben", Set.of("pipe-label", "customer", "part", "drawing", "host", "component", "cast"),
            "shop", Set.of("customer", "customer-school"));

    @Test
    void listsShowNoMoreThanMayBeRead() throws Exception {
        Set<String> all = keys("hanna", "/series", "key");
        assertThat(all).contains("invoice-works", "invoice-care", "pipe-label", "melt");
        for (Map.Entry<String, Set<String>> role : READABLE.entrySet()) {
            assertThat(keys(role.getKey(), "/series", "key")).as(role.getKey()).isEqualTo(role.getValue());
            assertThat(keys(role.getKey(), "/calendar", "series"))
                    .as(role.getKey())
                    .isEqualTo(role.getValue());
            for (String list : List.of("/entries?limit=1000", "/holds", "/blocks", "/voids", "/routes"))
                assertThat(role.getValue())
                        .as("%s, %s", role.getKey(), list)
                        .containsAll(keys(role.getKey(), list, "series"));
            Reached entries = get(role.getKey(), "/entries?limit=1000");
            Service.JSON.readTree(entries.body()).forEach(entry -> {
                if (entry.has("defined"))
                    entry.get("defined").forEach(key -> assertThat(role.getValue())
                            .as(role.getKey())
                            .contains(key.asString()));
            });
        }
    }

    private static Reached get(String role, String path) throws Exception {
        return Reached.by(service.stranger("/api/v1" + path)
                .header("Authorization", Service.bearer(Service.demoToken(role)))
                .GET()
                .build());
    }

    private static Set<String> keys(String role, String path, String property) throws Exception {
        var keys = new HashSet<String>();
        for (JsonNode each : Service.JSON.readTree(get(role, path).body()))
            if (each.has(property)) keys.add(each.get(property).asString());
        return keys;
    }

    /** Whoever has no grant at a series cannot tell by an answer whether there is one. */
    @Test
    void aSeriesThatOneMayNotKnowIsLikeOneThatThereIsNot() throws Exception {
        for (AccessTable.Described operation : operations) {
            AccessTable.Rule rule = AccessTable.rule(operation.operation());
            if (rule.who() != AccessTable.For.UNIT || !(rule.path() + rule.body()).contains("{series}")) continue;
            // What a route leads to is part of what is defined, and told by it.
            if (operation.operation().equals("applyDefinitions")) continue;
            assertThat(asRuben(operation, "invoice-works"))
                    .as(operation.operation())
                    .isEqualTo(asRuben(operation, "invoice-nobody").replace("invoice-nobody", "invoice-works"));
        }
    }

    private static String asRuben(AccessTable.Described operation, String series) throws Exception {
        AccessTable.Rule rule = AccessTable.rule(operation.operation());
        var named = new AccessTable.Rule(
                rule.right(),
                rule.who(),
                rule.path().replace("{series}", series),
                rule.body().replace("{series}", series));
        String body = named.body("works", "ruben");
        return Reached.by(service.stranger("/api/v1" + named.path("works", "ruben"))
                        .header("Content-Type", "application/json")
                        .header("Authorization", Service.bearer(Service.demoToken("ruben")))
                        .method(
                                operation.method(),
                                body.isEmpty()
                                        ? HttpRequest.BodyPublishers.noBody()
                                        : HttpRequest.BodyPublishers.ofString(body))
                        .build())
                .toString();
    }

    /**
     * A clerk of one unit voids and gives back what was taken for it, also of a series that others share, and nothing
     * of theirs.
     */
    @Test
    void ofASharedSeriesEachUnitSettlesItsOwn() throws Exception {
        assertThat(service.post(
                                "/api/v1/accounts/tobin/grants",
                                "{\"grants\":[{\"right\":\"void\",\"scope\":\"unit care\"}]}")
                        .status())
                .isEqualTo(200);
        String own = taken("tobin", "care");
        String other = taken("ines", "works");
        assertThat(settle("tobin", "voids", own).status()).isEqualTo(200);
        assertThat(settle("tobin", "voids", other))
                .satisfies(refused -> assertThat(refused.body()).contains("grant-missing", "void for unit works"));
        assertThat(settle("ines", "returns", other).status()).isEqualTo(200);
        assertThat(service.get("/api/v1/entries?series=customer&limit=1")
                        .json()
                        .get(0)
                        .get("by")
                        .asString())
                .as("the true actor")
                .isEqualTo("ines");
        assertThat(service.post(
                                "/api/v1/accounts/tobin/withdrawals",
                                "{\"grants\":[{\"right\":\"void\",\"scope\":\"unit care\"}]}")
                        .status())
                .isEqualTo(200);
        assertThat(settle("tobin", "voids", taken("tobin", "care")).status()).isEqualTo(403);
    }

    private static String taken(String role, String unit) throws Exception {
        Reached taken = Reached.by(service.stranger("/api/v1/series/customer/allocations")
                .header("Content-Type", "application/json")
                .header("Authorization", Service.bearer(Service.demoToken(role)))
                .POST(HttpRequest.BodyPublishers.ofString("{\"unit\":\"" + unit + "\"}"))
                .build());
        return Service.JSON.readTree(taken.body()).get("first").asString();
    }

    private static Reached settle(String role, String act, String identifier) throws Exception {
        return Reached.by(service.stranger("/api/v1/series/customer/" + act)
                .header("Content-Type", "application/json")
                .header("Authorization", Service.bearer(Service.demoToken(role)))
                .POST(HttpRequest.BodyPublishers.ofString(
                        "{\"identifiers\":[\"" + identifier + "\"],\"reason\":\"tried\"}"))
                .build());
    }

    /**
     * Who manages access in a unit gives grants for it, and cannot reach for more, not by way of somebody else's
     * password either.
     */
    @Test
    void whoManagesAUnitStaysInIt() throws Exception {
        service.post("/api/v1/accounts/tobin/grants", "{\"grants\":[{\"right\":\"access\",\"scope\":\"unit care\"}]}");
        assertThat(as(
                                "tobin",
                                "/accounts",
                                "{\"name\":\"temp\",\"grants\":[{\"right\":\"allocate\",\"scope\":\"unit care\"}]}")
                        .status())
                .isEqualTo(201);
        assertThat(as(
                                "tobin",
                                "/accounts/temp/grants",
                                "{\"grants\":[{\"right\":\"read\",\"scope\":\"series customer-school\"}]}")
                        .status())
                .isEqualTo(200);
        for (String scope : List.of("all", "unit works", "unit larkmoor", "kind invoice", "series customer"))
            assertThat(as(
                                    "tobin",
                                    "/accounts/temp/grants",
                                    "{\"grants\":[{\"right\":\"read\",\"scope\":\"" + scope + "\"}]}")
                            .status())
                    .as(scope)
                    .isEqualTo(403);
        assertThat(as("tobin", "/accounts/temp/passwords", "{}").status()).isEqualTo(200);
        for (String act : List.of("passwords", "closings", "tokens"))
            assertThat(as("tobin", "/accounts/hanna/" + act, "{\"name\":\"mine\"}")
                            .status())
                    .as(act)
                    .isEqualTo(403);
        assertThat(as("hanna", "/accounts/hanna/closings", "{}"))
                .satisfies(refused -> assertThat(refused.body()).contains("the last account with the right access"));
        service.post(
                "/api/v1/accounts/tobin/withdrawals", "{\"grants\":[{\"right\":\"access\",\"scope\":\"unit care\"}]}");
        assertThat(as("tobin", "/accounts/temp/passwords", "{}").status()).isEqualTo(403);
    }

    private static Reached as(String role, String path, String body) throws Exception {
        return Reached.by(service.stranger("/api/v1" + path)
                .header("Content-Type", "application/json")
                .header("Authorization", Service.bearer(Service.demoToken(role)))
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build());
    }

    @Test
    void aKeyIsOfTheAccountThatSentIt() throws IOException {
        assertThat(firstFor("hanna")).isEqualTo(firstFor("hanna")).isNotEqualTo(firstFor("tobin"));
    }

    private static String firstFor(String account) throws IOException {
        return service.post(
                        "/api/v1/series/customer/allocations",
                        "{\"unit\":\"care\"}",
                        "Authorization",
                        Service.bearer(Service.demoToken(account)),
                        "Idempotency-Key",
                        "one key")
                .text("first");
    }
}
