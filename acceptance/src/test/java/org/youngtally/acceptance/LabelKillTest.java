package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * The service is killed again and again while labels are printed: no number is on labels of two jobs, and none is lost.
 */
class LabelKillTest {
    private static final int KILLS = Integer.getInteger("kills", 2);
    private static final int LABELS = 40;
    private static final String DEFINITIONS = """
            series: [{ key: pipe, pattern: 'P-{count 6}', ranges: [{ first: 1, last: 999999, opens: 2020-01-01 }] }]
            layouts:
              - { key: label, width: 40, height: 20, items: [{ text: "{identifier}", left: 1, top: 1, width: 38, height: 8 }] }
            """;
    private static final String REQUEST = "{\"layout\":\"label\",\"series\":\"pipe\",\"quantity\":" + LABELS + "}";

    @TempDir
    private Path data;

    /** Of each job, by the number of its request: what came out of the printer. */
    private final Map<Integer, List<String>> printed = new HashMap<>();

    private int request;

    @Test
    void noNumberIsOnTwoLabelsAndNoneIsUnaccountedFor() throws Exception {
        Service service = Service.process(data);
        assertThat(service.apply(DEFINITIONS).status()).isEqualTo(200);
        for (int kill = 1; kill <= KILLS; kill++) {
            var enough = new CountDownLatch(1 + kill % 4);
            Service running = service;
            Thread desk = Thread.ofVirtual().start(() -> printUntilKilled(running, enough));
            enough.await();
            service.kill();
            desk.join();
            service = Service.process(data);
        }
        try (Service last = service) {
            // What was under way is asked for again, with the same keys.
            print(last);
            Set<String> all = new HashSet<>();
            for (List<String> identifiers : printed.values())
                for (String identifier : identifiers)
                    assertThat(all.add(identifier)).as(identifier).isTrue();
            JsonNode jobs = last.get("/api/v1/label-jobs?most=200").json();
            assertThat(jobs).hasSize(printed.size());
            for (JsonNode job : jobs)
                assertThat(job.at("/states/sent").asInt()).as(job.toString()).isEqualTo(LABELS);
            JsonNode audit = last.post("/api/v1/audits", "{}").json();
            assertThat(audit.get("findings")).isEmpty();
            assertThat(audit.get("positions").asLong()).isEqualTo(all.size());
        }
    }

    private void printUntilKilled(Service service, CountDownLatch enough) {
        try {
            while (true) {
                print(service);
                request++;
                enough.countDown();
            }
        } catch (IOException killed) {
            // The connection ends with the process; the request is repeated to the next one.
            enough.countDown();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void print(Service service) throws IOException, InterruptedException {
        long job = service.post("/api/v1/label-jobs", REQUEST, "Idempotency-Key", "job " + request)
                .json()
                .at("/summary/job")
                .asLong();
        try (HttpClient http = HttpClient.newHttpClient()) {
            HttpResponse<byte[]> answer = http.send(
                    service.request("/api/v1/label-jobs/" + job + "/outputs")
                            .header("Idempotency-Key", "output " + request)
                            .POST(HttpRequest.BodyPublishers.noBody())
                            .build(),
                    HttpResponse.BodyHandlers.ofByteArray());
            try (PDDocument document = Loader.loadPDF(answer.body())) {
                printed.put(
                        request,
                        new PDFTextStripper()
                                .getText(document)
                                .lines()
                                .filter(line -> line.startsWith("P-"))
                                .toList());
            }
        }
    }
}
