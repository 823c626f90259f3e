package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Documents over HTTP: two at once, what was changed since, and files that are made to do harm. */
class DocumentInterfaceTest {
    private static final String OWN = "pattern: \"{count 3}\"\n";

    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply(
                                "series: [{ key: wire, pattern: 'W-{count 5}', ranges: [{ first: 1, last: 99999, opens: 2020-01-01 }] }]")
                        .response()
                        .body())
                .doesNotContain("faults");
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static String svg(String content) {
        return "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 100 100'>" + content + "</svg>";
    }

    private static String texts(int texts) {
        return svg(IntStream.range(0, texts)
                .mapToObj(i -> "<text id='t" + i + "' x='" + i + "' y='5'>?</text>")
                .reduce("", String::concat));
    }

    /** @param files names and contents, one behind the other */
    private static ObjectNode request(String rule, String... files) {
        ObjectNode request = Service.JSON.createObjectNode().put("rule", rule);
        var list = request.putArray("files");
        for (int i = 0; i < files.length; i += 2)
            list.addObject()
                    .put("name", files[i])
                    .put("content", Base64.getEncoder().encodeToString(files[i + 1].getBytes(StandardCharsets.UTF_8)));
        return request;
    }

    private static JsonNode plan(ObjectNode request) throws Exception {
        return service.post("/api/v1/document-plans", request.toString()).json();
    }

    private static JsonNode number(ObjectNode request) throws Exception {
        return service.post("/api/v1/document-numberings", request.toString()).json();
    }

    private static String content(JsonNode answer) {
        return new String(
                Base64.getDecoder().decode(answer.at("/files/0/content").asString()), StandardCharsets.UTF_8);
    }

    private static String series(String document) {
        return "series: wire\ndocument: " + document + "\n";
    }

    @Test
    void twoAtOnceHaveTheSameNumbersForTheSameItems() throws Exception {
        ObjectNode request = request(series("at once"), "a.svg", texts(30));
        var together = new CountDownLatch(1);
        try (ExecutorService threads = Executors.newFixedThreadPool(4)) {
            List<Future<JsonNode>> answers = Stream.generate(() -> threads.submit(() -> {
                        together.await();
                        return number(request);
                    }))
                    .limit(4)
                    .toList();
            together.countDown();
            String first = content(answers.getFirst().get());
            assertThat(first).contains("W-");
            for (Future<JsonNode> each : answers)
                assertThat(content(each.get())).isEqualTo(first);
        }
    }

    @Test
    void aRepeatedRequestAllocatesNothing() throws Exception {
        ObjectNode request = request(series("repeated"), "a.svg", texts(3));
        JsonNode first = number(request);
        JsonNode second = number(request);
        assertThat(content(second)).isEqualTo(content(first));
        assertThat(first.at("/allocations/0/entry").isNumber()).isTrue();
        assertThat(second.at("/allocations").isEmpty()).isTrue();
    }

    @Test
    void aPlanIsRefusedOnceAFileChanged() throws Exception {
        String plan = plan(request(OWN, "a.svg", texts(3))).at("/plan").asString();
        assertThat(number(request(OWN, "a.svg", texts(3)).put("plan", plan)).at("/changes"))
                .hasSize(3);
        assertThat(number(request(OWN, "a.svg", texts(4)).put("plan", plan))
                        .at("/type")
                        .asString())
                .isEqualTo("/problems/document-changed");
    }

    @Test
    void placesThatTheFileDoesNotSayAreThoseOfTheRequest() throws Exception {
        String drawing =
                svg("<path id='p' d='M0 0H9'/><text><textPath href='#p'><tspan id='a'>?</tspan></textPath></text>"
                        + "<text id='b' x='50' y='5'>?</text>");
        ObjectNode request = request("order: [{ by: x }]\n" + OWN, "a.svg", drawing);
        assertThat(plan(request).at("/faults/0/problem").asString()).isEqualTo("has no place on a sheet");
        request.putObject("places").putObject("1:a").put("x", 80).put("y", 5);
        assertThat(plan(request).at("/changes/1/item").asString()).isEqualTo("1:a");
    }

    @Test
    void aRuleIsReadWithTheDrawingWhateverIsWrongWithIt() throws Exception {
        JsonNode plan = plan(request("pattern: \"{count\"", "a.svg", texts(2)).put("items", true));
        assertThat(plan.at("/faults/0/line").asInt()).isEqualTo(1);
        assertThat(plan.at("/items")).hasSize(2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "<!DOCTYPE svg [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'><text>&e;</text></svg> | entity",
                "<svg xmlns='http://www.w3.org/2000/svg'><g transform='scale(0)'><text>a</text></g></svg> | leaves it no area",
                "<svg xmlns='http://www.w3.org/2000/svg'><g transform='spin(1)'><text>a</text></g></svg> | is no transform",
                "<svg xmlns='http://www.w3.org/2000/svg'><text>a</svg> | no XML that can be read",
                "<html/> | no SVG drawing"
            })
    void whatCannotBeReadIsNamedWithItsFile(String drawing, String problem) throws Exception {
        JsonNode answer = plan(request(OWN, "bad.svg", drawing));
        assertThat(answer.at("/type").asString()).isEqualTo("/problems/document-faulty");
        assertThat(answer.at("/detail").asString()).startsWith("bad.svg: ").contains(problem);
    }

    @Test
    void aDrawingOfDeepGroupsIsRefused() throws Exception {
        String deep = svg("<g>".repeat(5_000) + "</g>".repeat(5_000));
        assertThat(plan(request(OWN, "deep.svg", deep)).at("/detail").asString())
                .contains("more than 256 elements within each other");
    }

    @Test
    void whatIsUsedWithinItselfEnds() throws Exception {
        assertThat(plan(request(
                                OWN,
                                "a.svg",
                                svg("<g id='a'><text x='1' y='1'>?</text><use href='#a'/></g><use href='#a'/>")))
                        .at("/changes"))
                .hasSize(1);
    }

    @Test
    void aSeriesThatTheAccountMayNotUseIsRefused() throws Exception {
        JsonNode refused = plan(request("series: none\ndocument: a\n", "a.svg", texts(1)));
        assertThat(refused.at("/type").asString()).isEqualTo("/problems/unknown-series");
    }

    @Test
    void moreItemsThanOneActMayNumberAreRefused() throws Exception {
        JsonNode refused = number(request(series("many"), "a.svg", texts(5_001)));
        assertThat(refused.at("/type").asString()).isEqualTo("/problems/quantity-out-of-bounds");
    }

    @Test
    void howFilesAreReadIsAskedForWithoutThem() throws Exception {
        assertThat(plan(request(OWN + "into: No\n").put("reading", true))
                        .at("/reading/into")
                        .asString())
                .isEqualTo("No");
    }

    @Test
    void nothingIsNumberedWithoutAFile() throws Exception {
        assertThat(number(request(OWN).put("reading", true)).at("/type").asString())
                .isEqualTo("/problems/malformed");
    }
}
