package org.youngtally.service.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.service.RunningService;
import org.youngtally.service.backup.BackupPlan;
import org.youngtally.service.printing.Printers;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.core.util.Separators;
import tools.jackson.databind.ObjectWriter;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes the description of the interface from the code, and holds what is served against it. With
 * {@code -Dopenapi.write} it is written anew.
 */
class DescriptionTest {
    /** The console is built on it before there is a service, so that it is kept. */
    private static final Path KEPT = Path.of("../console/openapi.json");

    private static final JsonMapper JSON = JsonMapper.shared();
    private static final ObjectWriter LINE_BY_LINE = JSON.writer()
            .with(new DefaultPrettyPrinter(Separators.createDefaultInstance()
                            .withObjectNameValueSpacing(Separators.Spacing.AFTER)
                            .withObjectEmptySeparator("")
                            .withArrayEmptySeparator(""))
                    .withArrayIndenter(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE));

    @Test
    void theInterfaceIsDescribedAsItIs(@TempDir Path folder) throws Exception {
        String made;
        try (var service = RunningService.start(
                        LedgerOptions.in(folder.resolve("data")),
                        "127.0.0.1",
                        0,
                        false,
                        Printers.NONE,
                        BackupPlan.NONE,
                        () -> {});
                var http = HttpClient.newHttpClient()) {
            HttpResponse<String> answer = http.send(
                    HttpRequest.newBuilder(URI.create(service.address() + "/api/made.json"))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
            made = LINE_BY_LINE.writeValueAsString(JSON.readTree(answer.body())) + "\n";
        }
        if (Boolean.getBoolean("openapi.write")) Files.writeString(KEPT, made);
        assertThat(JSON.readTree(Files.readString(KEPT))).isEqualTo(JSON.readTree(made));
    }
}
