package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.MultiFormatReader;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import java.awt.image.BufferedImage;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What is printed in the demo is read by a scanner that others wrote, and found in the ledger. */
class DemoSheetTest {
    private static final float DOTS = 300;
    private static final double MILLIMETRE = DOTS / 25.4;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static BufferedImage printed(String request) throws Exception {
        long job = service.post("/api/v1/label-jobs", request)
                .json()
                .at("/summary/job")
                .asLong();
        try (HttpClient http = HttpClient.newHttpClient()) {
            byte[] pdf = http.send(
                            service.request("/api/v1/label-jobs/" + job + "/outputs")
                                    .POST(HttpRequest.BodyPublishers.noBody())
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray())
                    .body();
            try (PDDocument document = Loader.loadPDF(pdf)) {
                assertThat(document.getNumberOfPages()).isOne();
                return new PDFRenderer(document).renderImageWithDPI(0, DOTS);
            }
        }
    }

    private static BufferedImage part(BufferedImage of, double left, double top, double width, double height) {
        return of.getSubimage((int) (left * MILLIMETRE), (int) (top * MILLIMETRE), (int) (width * MILLIMETRE), (int)
                (height * MILLIMETRE));
    }

    private static String read(BufferedImage image, BarcodeFormat format, boolean gs1) throws Exception {
        return new MultiFormatReader()
                .decode(
                        new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(image))),
                        Map.of(
                                DecodeHintType.POSSIBLE_FORMATS,
                                List.of(format),
                                DecodeHintType.TRY_HARDER,
                                true,
                                DecodeHintType.ASSUME_GS1,
                                gs1))
                .getText();
    }

    private static JsonNode scanned(String text) throws Exception {
        return service.get("/api/v1/scans?text=" + URLEncoder.encode(text, StandardCharsets.UTF_8))
                .json();
    }

    @Test
    void everyBarCodeOfASheetIsFoundInTheLedger() throws Exception {
        BufferedImage sheet = printed("{\"layout\":\"shelf-label\",\"series\":\"part\",\"quantity\":24}");
        var identifiers = new ArrayList<String>();
        for (int row = 0; row < 8; row++)
            for (int column = 0; column < 3; column++)
                identifiers.add(
                        read(part(sheet, 7 + column * 66, 12.9 + row * 33.9, 64, 33.9), BarcodeFormat.CODE_128, false));
        assertThat(identifiers).doesNotHaveDuplicates().hasSize(24);
        for (String identifier : identifiers)
            assertThat(service.get("/api/v1/identifiers?text=" + identifier)
                            .json()
                            .at("/0/state")
                            .asString())
                    .as(identifier)
                    .isEqualTo("issued");
    }

    @Test
    void bothCodesOfAShippingLabelNameItsCrate() throws Exception {
        BufferedImage label = printed(
                "{\"layout\":\"crate-label\",\"series\":\"crate-code\",\"fields\":{\"site\":\"Saint Aldric, Larkmoor\"}}");
        String bars = read(part(label, 3, 85, 99, 55), BarcodeFormat.CODE_128, true);
        String square = read(part(label, 66, 40, 37, 35), BarcodeFormat.QR_CODE, false);
        assertThat(square).startsWith("https://id.larkmoor.example/00/");
        for (String text : List.of(bars, square))
            assertThat(scanned(text).toString()).as(text).contains("\"layout\":\"crate-label\"", "\"state\":\"sent\"");
    }

    @Test
    void theCodeOfALabelOnARollNamesItsPipe() throws Exception {
        BufferedImage label =
                printed("{\"layout\":\"pipe-label\",\"series\":\"pipe-label\",\"fields\":{\"stop\":\"Gamba\"}}");
        String text = read(part(label, 39, 2, 22.9, 23), BarcodeFormat.DATA_MATRIX, false);
        assertThat(scanned(text).toString()).as(text).contains("\"layout\":\"pipe-label\"", "\"state\":\"sent\"");
    }
}
