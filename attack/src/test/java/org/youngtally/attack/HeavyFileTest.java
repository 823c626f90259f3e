package org.youngtally.attack;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Small files that a parser would be busy with for minutes, each answered within the patience of {@link Wire}. */
class HeavyFileTest {
    private static Victim victim;

    @BeforeAll
    static void start() throws Exception {
        victim = Victim.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        victim.close();
    }

    private static String namespaces(int count) {
        return IntStream.range(0, count).mapToObj(i -> " xmlns:a" + i + "='u'").collect(Collectors.joining());
    }

    private static Wire.Answer post(String path, String type, byte[] body) throws IOException {
        return victim.raw(
                "POST " + path,
                "Authorization: Bearer " + Victim.token("hanna") + "\r\nContent-Type: " + type + "\r\nContent-Length: "
                        + body.length + "\r\n",
                body);
    }

    @Test
    void aDrawingWithManyNamespacesIsRefused() throws Exception {
        String drawing = "<svg xmlns='http://www.w3.org/2000/svg'" + namespaces(40_000) + "><text>a</text></svg>";
        String body = "{\"rule\":\"pattern: '{count}'\",\"files\":[{\"name\":\"a.svg\",\"content\":\""
                + Base64.getEncoder().encodeToString(drawing.getBytes(StandardCharsets.UTF_8)) + "\"}]}";
        Wire.Answer answer = post("/api/v1/document-plans", "application/json", body.getBytes(StandardCharsets.UTF_8));
        assertThat(answer.body()).contains("The drawing has more than 256 prefixes of namespaces");
        assertThat(answer.status()).isEqualTo(422);
    }

    /** Wherever it stands in the file: its names may be packed small. */
    @Test
    void aWorkbookWithManyNamespacesIsRefused() throws Exception {
        var file = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(file)) {
            for (String part : new String[] {"[Content_Types].xml", "xl/workbook.xml", "xl/worksheets/sheet1.xml"}) {
                zip.putNextEntry(new ZipEntry(part));
                zip.write(("<worksheet" + namespaces(part.endsWith("1.xml") ? 60_000 : 0) + "/>")
                        .getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        Wire.Answer answer = post("/api/v1/label-tables?name=a.xlsx", "application/octet-stream", file.toByteArray());
        assertThat(answer.body()).contains("The workbook has more than 256 prefixes of namespaces");
        assertThat(answer.status()).isEqualTo(422);
    }
}
