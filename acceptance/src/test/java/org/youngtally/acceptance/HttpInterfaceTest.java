package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class HttpInterfaceTest {
    private static final String ALLOCATIONS = "/api/v1/series/invoice/allocations";

    @TempDir
    private static Path data;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(data);
        assertThat(service.apply("""
                series:
                  - { key: invoice, pattern: "LW{date yy}-{count 5}", restarts: [year], ranges: [ { first: 1, last: 99999, opens: 2025-01-01, closes: 2027-12-31 } ] }
                  - { key: short, pattern: "S{count 2}", ranges: [ { first: 1, last: 3, opens: 2026-01-01, closes: 2026-06-30 }, { first: 11, last: 13, opens: 2026-07-01 } ] }
                """).status()).isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static void assertProblem(Service.Answer answer, int status, String type, String field, String detail) {
        assertThat(answer.status()).as(answer.response().body()).isEqualTo(status);
        assertThat(answer.response().headers().firstValue("Content-Type").orElse(""))
                .startsWith("application/problem+json");
        assertThat(answer.text("type")).isEqualTo("/problems/" + type);
        assertThat(answer.text("detail")).contains(detail);
        assertThat(answer.text("field")).isEqualTo(field);
        assertThat(answer.text("accepted")).isNotBlank();
    }

    @Test
    void anAnswerGoesOutWholeWithItsLength() throws Exception {
        Service.Answer taken = service.post(ALLOCATIONS, "{}");
        assertThat(taken.response().headers().firstValueAsLong("Content-Length"))
                .hasValue(taken.response().body().getBytes(StandardCharsets.UTF_8).length);
        assertThat(taken.response().headers().firstValue("Transfer-Encoding")).isEmpty();
    }

    /** Operations are told apart by the ends of their paths, which are written in one way. */
    @Test
    void aPathMeansOneOperationAndIsNotWrittenOtherwise() throws Exception {
        Service.Answer coded = service.post("/api/v1/series/invoice/%61llocations", "{}");
        assertThat(coded.status()).isEqualTo(400);
        assertThat(coded.text("detail")).isEqualTo("The path of the address has ‘%61’ for ‘a’.");
        assertThat(service.post("/api/v1/series/invoice/allocation", "{}").status())
                .isEqualTo(404);
        assertThat(service.put("/api/v1/series/invoice/allocations", "{}").status())
                .isEqualTo(405);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "invoice; {\"date\":\"2030-01-01\"}; 422; date-not-served; date; Series ‘invoice’ has no active range on 2030-01-01",
                "invoice; {\"quantity\":0}; 422; quantity-out-of-bounds; quantity; 0 is less than 1",
                "invoice; {\"quantity\":10001}; 422; quantity-out-of-bounds; quantity; more than 10000",
                "invioce; {}; 404; unknown-series; series; Did you mean ‘invoice’?",
                "short; {\"quantity\":5,\"date\":\"2026-03-02\"}; 422; exhausted; quantity; has 3 numbers left for 2026-03-02, 5 were requested. Nothing was allocated. The next range opens on 2026-07-01.",
                "invoice; {\"quantity\":; 400; malformed; body; The body is not JSON",
                "invoice; {\"quantitty\":2}; 400; malformed; quantitty; Did you mean ‘quantity’?",
                "invoice; {\"quantity\":\"two\"}; 400; malformed; quantity; ‘quantity’ has a value of the wrong type",
                "invoice; {\"quantity\":1.5}; 400; malformed; quantity; ‘quantity’ has a value of the wrong type",
                "invoice; {\"date\":\"2026-02-30\"}; 400; malformed; date; not a date of the calendar",
                "invoice; {\"reference\":\"\"}; 400; malformed; reference; is empty",
                "invoice; [1]; 400; malformed; ``; The body has a value of the wrong type",
            })
    void aBadRequestIsRefusedByFieldAndTakesNothing(
            String series, String body, int status, String type, String field, String detail) throws Exception {
        String before = service.get("/api/v1/status").text("head");
        assertProblem(service.post("/api/v1/series/" + series + "/allocations", body), status, type, field, detail);
        assertThat(service.get("/api/v1/status").text("head")).isEqualTo(before);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "pattern: 'A{count 2}', ranges: [{first: 1, last: 100, opens: 2026-01-01}]; ranges[0].last; wider than the count",
                "pattern: 'A{count}', ranges: [{first: 1, last: 10, step: 2, opens: 2026-01-01}]; ranges[0].last; not reached from 1",
                "pattern: 'A{count 2', ranges: [{first: 1, last: 9, opens: 2026-01-01}]; pattern; column 2",
                "pattern: 'A{count 2}', restarts: [year], ranges: [{first: 1, last: 9, opens: 2026-01-01}]; pattern; ‘A01’ would arise in two ways",
                "pattern: 'A{count 2}', ranges: [{first: 1, last: 9, opens: 2026-01-01}, {first: 5, last: 12, opens: 2026-05-01}]; pattern; ‘A05’ would arise in two ways",
                "pattern: 'S{count 2}', namespace: short, ranges: [{first: 1, last: 9, opens: 2026-01-01}]; pattern; in the namespace ‘short’",
                "patern: 'A{count 2}', ranges: [{first: 1, last: 9, opens: 2026-01-01}]; patern; is not a property",
                "pattern: 'A{count 2}', ranges: [{first: one, last: 9, opens: 2026-01-01}]; ranges[0].first; ‘one’ is not a whole number",
                "pattern: 'A{count 2}', ranges: 5; ranges; is not a list",
            })
    void aFaultyFileIsRefusedWithItsLineAndDefinesNothing(String properties, String path, String problem)
            throws Exception {
        Service.Answer answer = service.apply(
                "series:\n  - { key: good, pattern: 'G{count 2}', ranges: [{first: 1, last: 9, opens: 2026-01-01}] }\n  - { key: bad, "
                        + properties + " }\n");
        assertThat(answer.status()).isEqualTo(422);
        JsonNode fault = answer.json().get("faults").get(0);
        assertThat(fault.get("path").asString()).isEqualTo(path);
        assertThat(fault.get("problem").asString()).contains(problem);
        assertThat(fault.get("file").asString()).isEqualTo("test.yaml");
        assertThat(fault.get("line").asInt()).isEqualTo(3);
        assertThat(service.get("/api/v1/series/good").status()).isEqualTo(404);
    }

    @Test
    void aFileThatIsNoYamlIsRefusedWithItsLine() throws Exception {
        JsonNode fault =
                service.apply("series:\n  - key: [\n").json().get("faults").get(0);
        assertThat(fault.get("problem").asString()).contains("the file is not YAML");
        assertThat(fault.get("line").asInt()).isEqualTo(3);
    }

    @Test
    void aKeyIsAnsweredOnceAndRepeatedEver() throws Exception {
        Service.Answer first =
                service.post(ALLOCATIONS, "{\"quantity\":2,\"date\":\"2026-03-02\"}", "Idempotency-Key", "a-key");
        Service.Answer again =
                service.post(ALLOCATIONS, "{\"date\":\"2026-03-02\", \"quantity\":2}", "Idempotency-Key", "a-key");
        assertThat(List.of(first.status(), again.status())).containsExactly(201, 200);
        assertThat(again.json().get("identifiers")).isEqualTo(first.json().get("identifiers"));
        assertThat(again.json().get("repeated").asBoolean()).isTrue();
        assertProblem(
                service.post(ALLOCATIONS, "{\"quantity\":3}", "Idempotency-Key", "a-key"),
                422,
                "key-reused",
                "Idempotency-Key",
                "belongs to another request");
    }

    @Test
    void aReferenceIsUniqueInItsSeries() throws Exception {
        String date = service.post(ALLOCATIONS, "{\"reference\":\"ORDER-1\"}")
                .json()
                .get("date")
                .stringValue();
        assertThat(service.post(ALLOCATIONS, "{\"reference\":\"ORDER-1\"}").status())
                .isEqualTo(200);
        assertThat(service.post(ALLOCATIONS, "{\"reference\":\"ORDER-1\",\"date\":\"" + date + "\"}")
                        .status())
                .as("the same in other words")
                .isEqualTo(200);
        assertProblem(
                service.post(ALLOCATIONS, "{\"reference\":\"ORDER-1\",\"quantity\":2}"),
                409,
                "reference-reused",
                "reference",
                "belongs to another request");
    }

    @Test
    void anIdentifierIsFoundInAnyCase() throws Exception {
        String identifier = service.post(ALLOCATIONS, "{\"reference\":\"FIND-ME\",\"date\":\"2027-05-05\"}")
                .text("first");
        assertThat(identifier).startsWith("LW27-");
        JsonNode found = service.get("/api/v1/identifiers?text=" + identifier.toLowerCase(Locale.ROOT))
                .json()
                .get(0);
        assertThat(List.of(
                        found.get("identifier").asString(),
                        found.get("reference").asString(),
                        found.get("by").asString(),
                        found.get("lane").asString()))
                .containsExactly(identifier, "FIND-ME", "administrator", "2027");
        assertProblem(
                service.get("/api/v1/identifiers?text=LW99-00001"),
                404,
                "unknown-identifier",
                "text",
                "was never issued");
    }

    @Test
    void entriesAreReadPageByPage() throws Exception {
        for (int i = 0; i < 5; i++) service.post(ALLOCATIONS, "{}");
        Service.Answer page = service.get("/api/v1/entries?series=invoice&limit=3");
        assertThat(page.json()).hasSize(3);
        String next = page.response().headers().firstValue("Link").orElseThrow().replaceAll("^<|>; rel=\"next\"$", "");
        JsonNode older = service.get(next).json();
        assertThat(older.get(0).get("seq").asLong())
                .isLessThan(page.json().get(2).get("seq").asLong());
    }

    @ParameterizedTest
    @CsvSource({
        "series/invoice/definition, invoice",
        "codebooks/hue, hue",
        "routes/invoice/works, invoice",
    })
    void whatIsReplacedIsNamedWithItsVersion(String path, String key) throws Exception {
        assertProblem(
                service.put("/api/v1/" + path, path.startsWith("routes") ? "{}" : "{\"key\":\"" + key + "\"}"),
                428,
                "version-needed",
                "If-Match",
                "Nothing was done");
    }

    @Test
    void aSeriesIsChangedOnTheVersionThatWasSeen() throws Exception {
        String form =
                "{\"key\":\"edited\",\"pattern\":\"E{count 3}\",\"title\":\"%s\",\"ranges\":[{\"first\":1,\"last\":9,\"opens\":\"2026-01-01\"}]}";
        String path = "/api/v1/series/edited/definition";
        assertThat(service.put(path, form.formatted("one"), "If-None-Match", "*")
                        .status())
                .isEqualTo(201);
        assertProblem(
                service.put(path, form.formatted("two"), "If-None-Match", "*"),
                412,
                "version-moved",
                "key",
                "The series ‘edited’ already exists");
        String tag = service.get(path).response().headers().firstValue("ETag").orElseThrow();
        assertThat(service.put(path, form.formatted("two"), "If-Match", tag).status())
                .isEqualTo(200);
        assertProblem(
                service.put(path, form.formatted("three"), "If-Match", tag),
                412,
                "version-moved",
                "If-Match",
                "has version 2");
        assertThat(service.get(path).text("title")).isEqualTo("two");
    }

    @Test
    void aPreviewShowsTheNextTenAndChangesNothing() throws Exception {
        String before = service.get("/api/v1/status").text("head");
        String asked =
                "{\"series\":{\"key\":\"new\",\"pattern\":\"N{date yy}-{count 3}\",\"ranges\":[{\"first\":995,\"last\":1,\"step\":%d,\"opens\":\"2026-01-01\"}]},\"date\":\"2026-03-02\"}";
        assertThat(service.post("/api/v1/previews", asked.formatted(-9))
                        .json()
                        .get("faults")
                        .get(0)
                        .get("problem")
                        .asString())
                .contains("not reached");
        JsonNode preview = service.post("/api/v1/previews", asked.formatted(-2)).json();
        assertThat(preview.get("next").valueStream().map(next -> next.get("identifier")
                        .asString()))
                .containsExactlyElementsOf(IntStream.range(0, 10)
                        .mapToObj(i -> "N26-" + (995 - 2 * i))
                        .toList());
        assertThat(service.get("/api/v1/status").text("head")).isEqualTo(before);
    }

    @Test
    void aBlockIsTakenAndTheCountGoesOnBehindIt() throws Exception {
        service.apply(
                "series: [{key: blocks, pattern: 'B{count 9}', ranges: [{first: 1, last: 999999999, opens: 2026-01-01}]}]");
        JsonNode block = service.post("/api/v1/series/blocks/blocks", "{\"quantity\":10000000}")
                .json();
        assertThat(List.of(block.get("first").asString(), block.get("last").asString()))
                .containsExactly("B000000001", "B010000000");
        assertThat(service.post("/api/v1/series/blocks/allocations", "{}").text("first"))
                .isEqualTo("B010000001");
        assertThat(service.get("/api/v1/identifiers?text=b005000000")
                        .json()
                        .get(0)
                        .get("block")
                        .asBoolean())
                .isTrue();
        assertProblem(
                service.post("/api/v1/series/blocks/blocks", "{}"),
                400,
                "malformed",
                "quantity",
                "quantity of the block is missing");
    }

    /**
     * What a browser would send from a page elsewhere, written by hand: the usual clients do not let one choose these
     * headers.
     */
    @ParameterizedTest
    @CsvSource({
        "evil.example, '', Host",
        "localhost, http://evil.example, Origin",
        "localhost, null, Origin",
        "localhost, https://localhost, Origin",
        "127.0.0.1.evil.example, '', Host"
    })
    void aRequestFromElsewhereIsRefused(String host, String origin, String field) throws Exception {
        String answer = raw("POST " + ALLOCATIONS + " HTTP/1.1\r\nHost: " + host + ":" + service.port() + "\r\n"
                + (origin.isEmpty() ? "" : "Origin: " + origin + "\r\n")
                + "Content-Type: application/json\r\nContent-Length: 2\r\nConnection: close\r\n\r\n{}");
        assertThat(answer)
                .startsWith("HTTP/1.1 403")
                .contains("/problems/foreign-request")
                .contains("\"field\":\"" + field + "\"");
    }

    @Test
    void itsOwnPagesMayAsk() throws Exception {
        assertThat(raw("GET /api/v1/health HTTP/1.1\r\nHost: localhost:" + service.port()
                        + "\r\nOrigin: http://localhost:" + service.port() + "\r\nConnection: close\r\n\r\n"))
                .startsWith("HTTP/1.1 200");
    }

    private static String raw(String request) throws IOException {
        try (var socket = new Socket("127.0.0.1", service.port())) {
            socket.getOutputStream().write(request.getBytes(StandardCharsets.US_ASCII));
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void theDescriptionOfTheInterfaceIsTheOneThatTheConsoleIsBuiltOn() throws Exception {
        JsonNode served = service.get("/api/openapi.json").json();
        assertThat(served.get("openapi").asString()).startsWith("3.1");
        assertThat(served).isEqualTo(Service.JSON.readTree(Files.readString(Path.of("../console/openapi.json"))));
    }

    @Test
    void everyTypeOfProblemExplainsItself() throws Exception {
        URI type = URI.create(service.post(ALLOCATIONS, "{\"quantity\":0}").text("type"));
        assertThat(service.get(type.toString()).response().body()).contains("1 to 10,000 single numbers");
        assertProblem(service.get("/api/v1/identifiers"), 400, "malformed", "text", "is missing");
        assertThat(service.get("/api/v1/nothing").status()).isEqualTo(404);
    }

    @Test
    void theSchemaOfDefinitionFilesTakesTheDemoAndNothingElse() throws Exception {
        JsonSchema schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(service.get("/api/v1/definition-schema").response().body());
        assertThat(schema.validate(Files.readString(Path.of("../demo/larkmoor.yaml")), InputFormat.YAML))
                .isEmpty();
        String good = "series: [{key: a, pattern: 'A{count}', ranges: [{first: 1, last: 9, opens: '2026-01-01'}]}]";
        assertThat(schema.validate(good, InputFormat.YAML)).isEmpty();
        for (String bad : List.of(
                good.replace("key: a", "key: A"),
                good.replace("key: a, ", ""),
                good.replace("first: 1", "first: one"),
                good.replace("opens", "open"),
                good.replace("ranges", "restarts: [fortnight], ranges")))
            assertThat(schema.validate(bad, InputFormat.YAML)).as(bad).isNotEmpty();
    }

    @Test
    void aClashIsToldWithBothWays() throws Exception {
        Service.Answer refused = service.apply(
                "series: [{key: b, pattern: 'lw{count 2 alphanumeric}-00001', namespace: invoice, ranges: [{first: 0, last: 1295, opens: 2026-01-01}]}]");
        assertThat(refused.status()).isEqualTo(422);
        JsonNode clash = refused.json().get("faults").get(0).get("clash");
        assertThat(clash.get("one").get("series").asString()).isEqualTo("invoice");
        assertThat(clash.get("one").get("value").asLong()).isEqualTo(1);
        assertThat(clash.get("other").get("series").asString()).isEqualTo("b");
    }

    @Test
    void aNumberOfABlockIsFoundByItsTextAndNotWithAWrongCheckDigit() throws Exception {
        assertThat(service.apply(
                                "series: [{key: crate, pattern: '09521234{count 9}{check gs1}', longest: 18, symbols: digits, ranges: [{first: 1, last: 999999999, opens: 2026-01-01}]}]")
                        .status())
                .isEqualTo(200);
        Service.Answer block =
                service.post("/api/v1/series/crate/blocks", "{\"quantity\":1000,\"date\":\"2026-03-02\"}");
        assertThat(block.text("first")).isEqualTo("095212340000000013");
        assertThat(service.get("/api/v1/identifiers?text=095212340000000020")
                        .json()
                        .get(0)
                        .get("series")
                        .asString())
                .isEqualTo("crate");
        assertThat(service.get("/api/v1/identifiers?text=095212340000000021").status())
                .isEqualTo(404);
    }

    @Test
    void eachDayAndFiscalYearIsALaneOfItsOwn() throws Exception {
        assertThat(service.apply("""
                series:
                  - { key: melt, pattern: "{date ddMMMyy}-{count 1 upper}", locale: de, restarts: [day], ranges: [ { first: 0, last: 25, opens: 2026-01-01 } ] }
                  - { key: contract, pattern: "CT{fiscal yy}{fiscal-end yy}-{count 3}", fiscal-year-starts: 4, restarts: [fiscal-year], ranges: [ { first: 1, last: 999, opens: 2026-01-01 } ] }
                """).status()).isEqualTo(200);
        assertThat(first("melt", "2026-03-02")).isEqualTo("02März26-A");
        assertThat(first("melt", "2026-03-02")).isEqualTo("02März26-B");
        assertThat(first("melt", "2026-03-03")).isEqualTo("03März26-A");
        assertThat(first("contract", "2026-03-31")).isEqualTo("CT2526-001");
        assertThat(first("contract", "2026-04-01")).isEqualTo("CT2627-001");
        assertThat(first("contract", "2026-03-31")).isEqualTo("CT2526-002");
    }

    private static String first(String series, String date) throws Exception {
        return service.post("/api/v1/series/" + series + "/allocations", "{\"date\":\"" + date + "\"}")
                .text("first");
    }

    private static final String BOOK = """
            codebooks: [{ key: colour, choices: [{ name: Red, code: R, choices: [{ name: Dark, code: D }] }, { name: Blue, code: B, choices: [{ name: Pale, code: P }] }] }]
            series:
              - key: paint
                pattern: "{field colour}{field shade}-{count 3}"
                fields: [{ name: colour, codebook: colour }, { name: shade, within: colour }]
                restarts: [field colour]
                ranges: [{ first: 1, last: 999, opens: 2026-01-01 }]
            """;

    @Test
    void fieldsAreTakenKeptAndPartOfTheRequest() throws Exception {
        assertThat(service.apply(BOOK)
                        .json()
                        .get("codebooks")
                        .get(0)
                        .get("change")
                        .asString())
                .isIn("new", "unchanged");
        String path = "/api/v1/series/paint/allocations";
        Service.Answer taken = service.post(
                path,
                "{\"fields\":{\"colour\":\"red\",\"shade\":\"Dark\"},\"date\":\"2026-03-02\"}",
                "Idempotency-Key",
                "paint-1");
        assertThat(taken.text("first")).startsWith("RD-");
        assertThat(taken.json().get("fields").toString()).isEqualTo("{\"colour\":\"R\",\"shade\":\"D\"}");
        assertThat(service.get("/api/v1/identifiers?text=" + taken.text("first"))
                        .json()
                        .get(0)
                        .get("fields")
                        .get("shade")
                        .asString())
                .isEqualTo("D");
        assertProblem(
                service.post(
                        path,
                        "{\"fields\":{\"colour\":\"Blue\",\"shade\":\"Pale\"},\"date\":\"2026-03-02\"}",
                        "Idempotency-Key",
                        "paint-1"),
                422,
                "key-reused",
                "Idempotency-Key",
                "belongs to another request");
        assertProblem(
                service.post(path, "{\"fields\":{\"colour\":\"Blue\",\"shade\":\"Dark\"}}"),
                422,
                "field-faulty",
                "fields.shade",
                "‘Dark’ is not a choice of the field ‘shade’");
        assertProblem(
                service.post(path, "{\"unit\":\"works\",\"fields\":{\"colour\":\"Blue\",\"shade\":\"Pale\"}}"),
                422,
                "field-faulty",
                "fields.unit",
                "Series ‘paint’ has no field ‘unit’");
        assertProblem(
                service.post(path, "{\"fields\":{\"colour\":null}}"), 400, "malformed", "fields.colour", "wrong type");
        assertProblem(service.get("/api/v1/series/paint?field=colour"), 400, "malformed", "field", "is not a field");
        JsonNode shown = service.get("/api/v1/series/paint?date=2026-03-02&coming=1&field=colour=B&field=shade=P")
                .json();
        assertThat(shown.get("next").get(0).asString()).startsWith("BP-");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "/previews; POST; {\"series\":{\"fields\":[null]}}; series.fields[0]",
                "/previews; POST; {\"series\":{\"ranges\":[null]}}; series.ranges[0]",
                "/previews; POST; {\"series\":{\"skips\":{\"values\":[null]}}}; series.skips.values[0]",
                "/codebooks/x; PUT; {\"key\":\"x\",\"choices\":[{\"choices\":[null]}]}; choices[0].choices[0]",
                "/definitions; POST; {\"files\":[null]}; files[0]",
            })
    void nothingInAListIsNull(String path, String method, String body, String field) throws Exception {
        assertProblem(
                method.equals("PUT")
                        ? service.put("/api/v1" + path, body, "If-None-Match", "*")
                        : service.post("/api/v1" + path, body),
                400,
                "malformed",
                field,
                "wrong type");
    }

    @Test
    void aLaneThatRunsLowIsSaidOfTheWholeSeries() throws Exception {
        service.apply(BOOK.replace("colour", "tint")
                .replace("paint", "glaze")
                .replace("last: 999", "last: 9, warn-when-left: 3"));
        String take = "{\"fields\":{\"tint\":\"%s\",\"shade\":\"%s\"},\"quantity\":6,\"date\":\"2026-03-02\"}";
        service.post("/api/v1/series/glaze/allocations", take.formatted("R", "D"));
        assertThat(service.get("/api/v1/series/glaze?date=2026-03-02")
                        .json()
                        .get("low")
                        .asBoolean())
                .isFalse();
        service.post(
                "/api/v1/series/glaze/allocations",
                take.formatted("R", "D").replace("\"quantity\":6", "\"quantity\":1"));
        assertThat(service.get("/api/v1/series/glaze?date=2026-03-02")
                        .json()
                        .get("low")
                        .asBoolean())
                .isTrue();
        assertProblem(
                service.post("/api/v1/series/glaze/allocations", take.formatted("R", "D")),
                422,
                "exhausted",
                "quantity",
                "has 2 numbers left");
        assertThat(service.post("/api/v1/series/glaze/allocations", take.formatted("B", "P"))
                        .status())
                .as("another lane")
                .isEqualTo(201);
    }

    @Test
    void aCodebookIsChangedOnTheVersionThatWasSeenAndNeverLosesACode() throws Exception {
        service.apply(BOOK.replace("colour", "hue").replace("paint", "varnish"));
        String path = "/api/v1/codebooks/hue";
        Service.Answer found = service.get(path);
        String tag = found.response().headers().firstValue("ETag").orElseThrow();
        String more = found.response()
                .body()
                .replace(
                        "\"choices\":[{\"name\":\"Red\"",
                        "\"choices\":[{\"name\":\"Green\",\"code\":\"G\"},{\"name\":\"Red\"");
        assertThat(service.put(path, more, "If-Match", tag).status()).isEqualTo(200);
        assertProblem(
                service.put(path, more, "If-Match", tag),
                412,
                "version-moved",
                "If-Match",
                "this change was made on version");
        assertProblem(
                service.put(
                        path, "{\"key\":\"hue\",\"choices\":[{\"name\":\"Green\",\"code\":\"G\"}]}", "If-Match", "*"),
                422,
                "definitions-faulty",
                "choices",
                "the code ‘R’ of Red is gone");
        assertThat(service.get("/api/v1/codebooks").json().findValuesAsString("key"))
                .contains("hue");
        assertProblem(
                service.get("/api/v1/codebooks/huee"), 404, "unknown-codebook", "codebook", "Did you mean ‘hue’?");
    }

    @Test
    void faultsOfACodebookAreToldWithTheirLine() throws Exception {
        String file = """
                namespaces:
                  - { key: m, repeats: perhaps }
                codebooks:
                  - key: twins
                    choices:
                      - { name: One, code: A }
                      - { name: Two, code: a }
                """;
        JsonNode faults = service.apply(file).json().get("faults");
        assertThat(faults).hasSize(2);
        assertThat(List.of(
                        faults.get(0).get("what").asString(),
                        faults.get(0).get("line").asInt(),
                        faults.get(0).get("path").asString()))
                .isEqualTo(List.<Object>of("namespace", 2, "repeats"));
        assertThat(List.of(
                        faults.get(1).get("what").asString(),
                        faults.get(1).get("line").asInt(),
                        faults.get(1).get("path").asString()))
                .isEqualTo(List.<Object>of("codebook", 7, "choices[1].code"));
    }

    @Test
    void aPreviewShowsFieldsAndWhereCheckSymbolsStand() throws Exception {
        service.apply(BOOK);
        String asked =
                "{\"series\":{\"key\":\"new\",\"pattern\":\"{field colour}{count 3}{check luhn}\",\"fields\":[{\"name\":\"colour\",\"codebook\":\"colour\"}],\"ranges\":[{\"first\":1,\"last\":99,\"opens\":\"2026-01-01\"}]},\"date\":\"2026-03-02\"%s}";
        JsonNode blue = service.post("/api/v1/previews", asked.formatted(",\"fields\":{\"colour\":\"Blue\"}"))
                .json();
        assertThat(blue.get("next").get(0).get("identifier").asString()).isEqualTo("B0018");
        assertThat(blue.get("next").get(0).get("checks").toString()).isEqualTo("[{\"from\":4,\"to\":5}]");
        assertThat(service.post("/api/v1/previews", asked.formatted("")).json().get("next"))
                .as("the first choices stand for what is not given")
                .hasSize(10);
        assertThat(service.post("/api/v1/previews", asked.formatted(",\"fields\":{\"colour\":\"Beige\"}"))
                        .text("fieldFault"))
                .contains("‘Beige’ is not a choice");
    }
}
