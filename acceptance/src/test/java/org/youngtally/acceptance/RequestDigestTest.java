package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.Service.Answer;
import tools.jackson.databind.JsonNode;

/**
 * The digest under which a request is kept with its key: the same request has the same digest in every later build, or
 * a caller who repeats it after an upgrade is refused. The digests are pinned as an earlier build made them, and never
 * change; requests of a new sort are added at the end.
 */
class RequestDigestTest {
    private static final Path PINNED = Path.of("src/test/resources/golden/request-digests.jsonl");
    private static final String DEFINITIONS = """
            units:
              - { key: works, code: WK }
              - { key: care, code: CR }
            codebooks:
              - key: part
                choices:
                  - { name: Wind-chest, code: WC, choices: [ { name: Pallet, code: PL } ] }
            series:
              - { key: invoice, pattern: "A{count 3}", typed: allowed, ranges: [ { first: 1, last: 999, opens: 2026-01-01 } ] }
              - { key: job, pattern: "J{count 3}", typed: allowed, ranges: [ { first: 1, last: 999, opens: 2026-01-01 } ] }
              - key: part
                pattern: "{field group}-{field type}-{count 3}"
                fields: [ { name: group, codebook: part }, { name: type, within: group } ]
                ranges: [ { first: 1, last: 999, opens: 2026-01-01 } ]
            kinds:
              - key: job
                fields: [ { name: number }, { name: name }, { name: dated, type: date } ]
                lines: [ { name: what } ]
                dated-by: dated
            routes:
              - { kind: job, unit: works, series: job }
              - { kind: job, unit: care, series: job }
            """;

    @TempDir
    private static Path folder;

    private static final Map<Integer, String> EXPECTED = new LinkedHashMap<>();
    private static final List<Answer> ANSWERS = new ArrayList<>();
    private static final List<Answer> REPEATS = new ArrayList<>();

    private static Path data() {
        return folder.resolve("data");
    }

    @BeforeAll
    static void ask() throws Exception {
        List<JsonNode> pinned =
                Files.readAllLines(PINNED).stream().map(Service.JSON::readTree).toList();
        for (int i = 0; i < pinned.size(); i++)
            if (pinned.get(i).has("digest"))
                EXPECTED.put(i, pinned.get(i).get("digest").asString());
        int afterwards = (int) pinned.stream()
                .takeWhile(each -> !each.path("restored").asBoolean(false))
                .count();
        try (Service service = Service.serve(data())) {
            assertThat(service.apply(DEFINITIONS).status()).isEqualTo(200);
            ask(service, pinned.subList(0, afterwards));
            backUp();
        }
        restore();
        try (Service service = Service.serve(data())) {
            ask(service, pinned.subList(afterwards, pinned.size()));
        }
    }

    private static void ask(Service service, List<JsonNode> pinned) throws Exception {
        int first = ANSWERS.size();
        for (int i = 0; i < pinned.size(); i++) {
            ANSWERS.add(service.send(request(service, pinned.get(i), first + i)));
            REPEATS.add(service.send(request(service, pinned.get(i), first + i)));
        }
    }

    private static void backUp() throws Exception {
        onData("backup", folder.resolve("backups").toString(), "--without-secret");
    }

    /** What is stated after a loss, and that numbers are allocated again, can be asked of a restored folder alone. */
    private static void restore() throws Exception {
        Files.move(data(), folder.resolve("lost"));
        try (Stream<Path> backups = Files.list(folder.resolve("backups"))) {
            onData("restore", backups.findFirst().orElseThrow().toString());
        }
    }

    private static void onData(String... words) throws Exception {
        var all = new ArrayList<>(List.of(words));
        all.addAll(List.of("--data", data().toString()));
        CommandLine.Result result = CommandLine.onData(all);
        assertThat(result.exit()).as(result.err()).isZero();
    }

    private static HttpRequest.Builder request(Service service, JsonNode pinned, int index) {
        return service.request("/api/v1" + pinned.get("path").asString())
                .header("Idempotency-Key", "pin-" + index)
                .header("If-Match", "*")
                .header("Content-Type", pinned.path("type").asString("application/json"))
                .method(
                        pinned.path("method").asString("POST"),
                        HttpRequest.BodyPublishers.ofString(pinned.get("body").asString()));
    }

    /** By the place of the request. */
    private static Map<Integer, String> kept() throws Exception {
        var kept = new LinkedHashMap<Integer, String>();
        try (Stream<Path> segments = Files.list(data().resolve("journal"))) {
            for (Path segment : segments.sorted().toList())
                for (String line : Files.readAllLines(segment)) {
                    JsonNode entry = Service.JSON.readTree(line);
                    if (entry.path("key").asString("").startsWith("pin-"))
                        kept.put(
                                Integer.valueOf(entry.get("key").asString().substring(4)),
                                entry.get("digest").asString());
                }
        }
        return kept;
    }

    @Test
    void everyRequestIsDone() {
        assertThat(ANSWERS).allSatisfy(answer -> assertThat(answer.status())
                .as(answer.response().request().uri() + " " + answer.response().body())
                .isBetween(200, 201));
    }

    @Test
    void theDigestsAreThoseOfEarlierBuilds() throws Exception {
        assertThat(kept()).isEqualTo(EXPECTED);
    }

    @Test
    void aRepetitionIsKnownByThem() {
        assertThat(REPEATS).allSatisfy(answer -> assertThat(answer.status())
                .as(answer.response().request().uri() + " " + answer.response().body())
                .isEqualTo(200));
    }
}
