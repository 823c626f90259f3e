package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.printers.SimulatedPrinter;
import tools.jackson.databind.JsonNode;

/**
 * The service is killed ten times in the middle of a job that is printed: it goes on by itself, no number comes out
 * twice, and of what is not known to be printed the ledger says so.
 */
class LabelPrintingKillTest {
    private static final int KILLS = Integer.getInteger("kills", 2);
    private static final int LABELS = 600 + 300 * KILLS;
    private static final String DEFINITIONS = """
            series: [{ key: pipe, pattern: 'P-{count 6}', ranges: [{ first: 1, last: 999999, opens: 2020-01-01 }] }]
            layouts:
              - { key: label, width: 40, height: 20, items: [{ text: "{identifier}", left: 1, top: 1, width: 38, height: 8 }] }
            """;

    @TempDir
    private Path data;

    @Test
    void everyLabelComesOutOnceOrIsUnconfirmed() throws Exception {
        try (SimulatedPrinter printer = SimulatedPrinter.start(0, 1)) {
            String address = printer.address().toString();
            Service service = Service.process(data, "--printer", address);
            assertThat(service.apply(DEFINITIONS).status()).isEqualTo(200);
            long job = service.post(
                            "/api/v1/label-jobs",
                            "{\"layout\":\"label\",\"series\":\"pipe\",\"quantity\":" + LABELS + ",\"printer\":\""
                                    + address + "\"}")
                    .json()
                    .at("/summary/job")
                    .asLong();
            for (int kill = 1; kill <= KILLS; kill++) {
                int enough = printer.jobs().size() + kill % 3;
                service.await(() -> printer.jobs().size() > enough);
                service.kill();
                service = Service.process(data, "--printer", address);
            }
            try (Service last = service) {
                last.await(() -> shown(last, job).at("/summary/states/waiting").asInt(0) == 0
                        && shown(last, job).at("/printing").isMissingNode());
                assertThat(shown(last, job).at("/summary/states/sent").asInt(0)).isZero();
                List<String> pages = PrintedPages.lines(printer, "P-");
                assertThat(pages).doesNotHaveDuplicates();
                var unknown = new HashSet<String>();
                states(last, job).forEach((identifier, state) -> {
                    if (!state.equals("printed")) {
                        assertThat(state).as(identifier).isEqualTo("unconfirmed");
                        unknown.add(identifier);
                    } else assertThat(pages).contains(identifier);
                });
                // Each kill leaves what was on its way then, and no more.
                assertThat(unknown).isNotEmpty().hasSizeLessThanOrEqualTo(KILLS * 200);
                assertThat(last.post("/api/v1/audits", "{}").json().get("findings"))
                        .isEmpty();
            }
        }
    }

    private static JsonNode shown(Service service, long job) throws Exception {
        return service.get("/api/v1/label-jobs/" + job).json();
    }

    private static Map<String, String> states(Service service, long job) throws Exception {
        var states = new HashMap<String, String>();
        for (int from = 1; from <= LABELS; from += 1_000)
            for (JsonNode label : service.get("/api/v1/label-jobs/" + job + "/labels?most=1000&from=" + from)
                    .json())
                states.put(
                        label.get("identifier").asString(), label.get("state").asString());
        assertThat(states).hasSize(LABELS);
        return states;
    }
}
