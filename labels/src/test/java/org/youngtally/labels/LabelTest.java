package org.youngtally.labels;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.MultiFormatReader;
import com.google.zxing.NotFoundException;
import com.google.zxing.client.j2se.BufferedImageLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.LabelContent;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.core.label.LayoutDraft.SheetDraft;

/** Labels as they come out: bar codes read by another library, texts read from the PDF. */
class LabelTest {
    private static final Map<String, BarcodeFormat> FORMATS = Map.of(
            "code-128", BarcodeFormat.CODE_128,
            "gs1-128", BarcodeFormat.CODE_128,
            "ean-13", BarcodeFormat.EAN_13,
            "itf-14", BarcodeFormat.ITF,
            "data-matrix", BarcodeFormat.DATA_MATRIX,
            "gs1-data-matrix", BarcodeFormat.DATA_MATRIX,
            "qr", BarcodeFormat.QR_CODE,
            "gs1-qr", BarcodeFormat.QR_CODE);

    private static ItemDraft text(String text, String width, String height) {
        return new ItemDraft(
                text, null, null, null, null, "2", "2", width, height, null, null, null, null, null, null, null, null);
    }

    private static ItemDraft code(String kind, String content, String width, String height, Long turn, String link) {
        return new ItemDraft(
                null, kind, null, null, null, "2", "2", width, height, "7", "center", turn, content, link, null, null,
                null);
    }

    private static Layout layout(String width, String height, SheetDraft sheet, ItemDraft... items) {
        LayoutCheck.Result checked = LayoutCheck.of(
                new LayoutDraft("pipe", "Label of a pipe", width, height, null, null, sheet, null, List.of(items)));
        assertThat(checked.faults()).isEmpty();
        return checked.layout().orElseThrow();
    }

    private static LabelContent content(String identifier, Map<String, String> fields) {
        return new LabelContent(
                identifier, LocalDate.of(2026, 11, 29), Optional.of("foundry"), fields, "17", 3, 500, 1, 2, false);
    }

    private static List<String> faults(Layout layout, String identifier, Map<String, String> fields) {
        return new Drawer(layout)
                .of(content(identifier, fields)).faults().stream()
                        .map(Fault::toString)
                        .toList();
    }

    private static Drawing drawn(Layout layout, String identifier) {
        Drawer.Drawn drawn = new Drawer(layout).of(content(identifier, Map.of()));
        assertThat(drawn.faults()).isEmpty();
        return drawn.drawing();
    }

    private static String decoded(BufferedImage image, String kind) throws NotFoundException {
        var reader = new MultiFormatReader();
        return reader.decode(
                        new BinaryBitmap(new HybridBinarizer(new BufferedImageLuminanceSource(image))),
                        Map.of(
                                DecodeHintType.POSSIBLE_FORMATS,
                                List.of(FORMATS.get(kind)),
                                DecodeHintType.TRY_HARDER,
                                true,
                                DecodeHintType.ASSUME_GS1,
                                kind.startsWith("gs1")))
                .getText();
    }

    private static byte[] pdf(Layout layout, Stream<Drawing> labels) throws IOException {
        try (var pdf = new LabelPdf(layout, Instant.parse("2026-11-29T12:00:00Z"), 100_000)) {
            for (Drawing label : labels.toList()) pdf.add(label);
            var out = new ByteArrayOutputStream();
            pdf.write(out);
            return out.toByteArray();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "code-128 | LW26-00431 | LW26-00431",
                "gs1-128 | (01)09521234543213(10)A1(21)S7 | ]C1010952123454321310A1~21S7",
                "ean-13 | 9521234543213 | 9521234543213",
                "itf-14 | 09521234543213 | 09521234543213",
                "data-matrix | LW26-00431 | LW26-00431",
                "gs1-data-matrix | (01)09521234543213(10)A1(21)S7 | ~010952123454321310A1~21S7",
                "qr | LW26-00431 | LW26-00431",
                "gs1-qr | (01)09521234543213(10)A1(21)S7 | 010952123454321310A1~21S7"
            })
    void everyBarCodeIsReadByAnotherLibrary(String kind, String held, String read) throws Exception {
        Layout layout = layout("90", "34", null, code(kind, "{identifier}", "86", "30", null, null));
        assertThat(decoded(LabelPng.of(drawn(layout, held)), kind).replace(String.valueOf((char) 0x1d), "~"))
                .isEqualTo(read);
    }

    @ParameterizedTest
    @ValueSource(longs = {0, 90, 180, 270})
    void aTurnedBarCodeIsReadInThePdfAsInThePicture(long turn) throws Exception {
        Layout layout = layout("40", "30", null, code("data-matrix", "{identifier}", "26", "26", turn, null));
        Drawing label = drawn(layout, "LW26-00431");
        assertThat(decoded(LabelPng.of(label), "data-matrix")).isEqualTo("LW26-00431");
        try (PDDocument pdf = Loader.loadPDF(pdf(layout, Stream.of(label)))) {
            assertThat(decoded(new PDFRenderer(pdf).renderImageWithDPI(0, 300), "data-matrix"))
                    .isEqualTo("LW26-00431");
        }
    }

    @Test
    void aLinkHoldsTheSameElements() throws Exception {
        Layout layout = layout(
                "60",
                "60",
                null,
                code("qr", "(01)09521234543213(21){identifier}", "50", "50", null, "https://id.larkmoor.example"));
        assertThat(decoded(LabelPng.of(drawn(layout, "S7")), "qr"))
                .isEqualTo("https://id.larkmoor.example/01/09521234543213/21/S7");
    }

    @Test
    void theTextOfThePdfIsRead() throws Exception {
        Layout layout = layout(
                "62",
                "29",
                null,
                text("Stop {field stop}, {date dd.MM.yyyy}\nlabel {number} of {quantity}", "58", "20"));
        Drawing label =
                new Drawer(layout).of(content("P1", Map.of("stop", "Größe"))).drawing();
        try (PDDocument pdf = Loader.loadPDF(pdf(layout, Stream.of(label)))) {
            assertThat(new PDFTextStripper().getText(pdf).lines())
                    .containsExactly("Stop Größe, 29.11.2026", "label 3 of 500");
        }
    }

    @Test
    void aPageIsAsLargeAsItsLabel() throws Exception {
        Layout layout = layout("62", "29", null, text("{identifier}", "50", "6"));
        try (PDDocument pdf = Loader.loadPDF(pdf(layout, Stream.of(drawn(layout, "P1"), drawn(layout, "P2"))))) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(2);
            PDPage page = pdf.getPage(0);
            assertThat(page.getMediaBox().getWidth() * Layout.POINT).isCloseTo(62, offset(0.001));
            assertThat(page.getMediaBox().getHeight() * Layout.POINT).isCloseTo(29, offset(0.001));
        }
    }

    @Test
    void moreThanIsDrawnAtOnceIsRefused() {
        Layout layout = layout("62", "29", null, text("{identifier}", "50", "6"));
        Drawing label = drawn(layout, "P1");
        assertThatThrownBy(() -> pdf(layout, Stream.generate(() -> label).limit(1_000)))
                .isInstanceOf(LabelPdf.TooLarge.class);
    }

    @Test
    void picturesThatAreTooManyDotsTogetherAreAFault() throws Exception {
        var file = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(3_000, 2_000, BufferedImage.TYPE_BYTE_BINARY), "png", file);
        ItemDraft picture = picture(Base64.getEncoder().encodeToString(file.toByteArray()));
        ItemDraft other = new ItemDraft(
                null,
                null,
                null,
                null,
                picture.picture(),
                "3",
                "2",
                "16",
                "16",
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
        assertThat(faults(layout("20", "20", null, picture, other), "P1", Map.of()))
                .singleElement()
                .asString()
                .startsWith("items[1].picture: is not a PNG or JPEG picture of at most 4,000,000 dots");
    }

    @Test
    void labelsFillASheetRowByRow() throws Exception {
        var sheet = new SheetDraft("210", "297", 3L, 8L, "7", "13", "2.5", null);
        Layout layout = layout("63.5", "33.9", sheet, text("{identifier}", "50", "6"));
        try (PDDocument pdf = Loader.loadPDF(
                pdf(layout, Stream.iterate(1, i -> i + 1).limit(25).map(i -> drawn(layout, "P" + i))))) {
            assertThat(pdf.getNumberOfPages()).isEqualTo(2);
            var reader = new PDFTextStripper();
            reader.setSortByPosition(true);
            reader.setEndPage(1);
            assertThat(reader.getText(pdf)
                            .lines()
                            .findFirst()
                            .orElseThrow()
                            .strip()
                            .split("\\s+"))
                    .containsExactly("P1", "P2", "P3");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "LW26-00431 | 10 | 6 | items[0].width: ‘LW26-00431’ is 18.18 mm wide, and its box 10; make it wider, or size at most 4.95",
                "P1 | 10 | 3 | items[0].height: a line of 9 points is 3.81 mm high, and its box 3; make it higher, or the letters smaller",
                "P漢 | 40 | 6 | items[0].text: the font has no ‘漢’ (U+6F22) for ‘P漢’; use another symbol"
            })
    void aTextThatDoesNotFitIsAFault(String identifier, String width, String height, String fault) {
        assertThat(faults(layout("62", "29", null, text("{identifier}", width, height)), identifier, Map.of()))
                .containsExactly(fault);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "gs1-128 | (00)095212340000000013 | 30 | 20 | items[0].width: its modules would be 0.169 mm in whole dots, too small to scan; make the box at least",
                "gs1-128 | (00)095212340000000013 | 80 | 10 | items[0].height: leaves 10 mm for the bars; make it at least 12.7 mm",
                "gs1-128 | (00)095212340000000014 | 80 | 20 | items[0].content: (00) the check digit of ‘095212340000000014’ is wrong; for 09521234000000001 it is 3",
                "gs1-128 | LW26 | 80 | 20 | items[0].content: ‘LW26’ holds no GS1 elements",
                "gs1-qr | (79)1 | 30 | 30 | items[0].content: (79) ‘79’ is not an application identifier",
                "ean-13 | 9521234543214 | 60 | 25 | items[0].content: the check digit of ‘9521234543214’ is wrong; for 952123454321 it is 3",
                "ean-13 | 952 | 60 | 25 | items[0].content: ‘952’ is not 13 digits",
                "code-128 | Größe → | 80 | 25 | items[0].content: ‘Größe →’ cannot be held by code-128"
            })
    void aBarCodeThatCannotBeScannedIsAFault(String kind, String held, String width, String height, String fault) {
        Layout layout = layout("90", "40", null, code(kind, "{identifier}", width, height, null, null));
        assertThat(faults(layout, held, Map.of()))
                .anySatisfy(each -> assertThat(each).startsWith(fault));
    }

    /** What a fault says would do does. */
    @Test
    void aBoxAsWideAsTheFaultSaysIsWideEnough() {
        Layout narrow = layout("90", "40", null, code("gs1-128", "{identifier}", "30", "20", null, null));
        String fault = faults(narrow, "(00)095212340000000013", Map.of()).getFirst();
        String width = fault.replaceFirst(".*at least ([0-9.]+) mm wide.*", "$1");
        Layout wide = layout("90", "40", null, code("gs1-128", "{identifier}", width, "20", null, null));
        assertThat(faults(wide, "(00)095212340000000013", Map.of())).isEmpty();
    }

    @Test
    void modulesAreWholeDots() {
        Layout layout = layout("90", "40", null, code("code-128", "{identifier}", "77", "20", null, null));
        double dot = layout.dot();
        assertThat(drawn(layout, "LW26-00431").parts().getFirst().ink()).allSatisfy(ink -> {
            var bar = (Drawing.Ink.Bar) ink;
            double dots = bar.width() / dot;
            assertThat(Math.abs(dots - Math.rint(dots))).isLessThan(1e-6);
            double left = (2 + bar.x()) / dot;
            assertThat(Math.abs(left - Math.rint(left))).isLessThan(1e-6);
        });
    }

    @Test
    void aPictureIsSeenAndWhatIsNoneIsAFault() throws Exception {
        var file = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(4, 4, BufferedImage.TYPE_BYTE_BINARY), "png", file);
        String base64 = Base64.getEncoder().encodeToString(file.toByteArray());
        BufferedImage image = LabelPng.of(drawn(layout("20", "20", null, picture(base64)), "P1"));
        assertThat(image.getRGB(image.getWidth() / 2, image.getHeight() / 2) & 0xff)
                .isZero();
        assertThat(faults(layout("20", "20", null, picture("bm9uZQ==")), "P1", Map.of()))
                .containsExactly(
                        "items[0].picture: is not a PNG or JPEG picture of at most 10,000,000 dots; write the file in Base64, as base64 -w0 writes it");
    }

    private static ItemDraft picture(String base64) {
        return new ItemDraft(
                null, null, null, null, base64, "2", "2", "16", "16", null, null, null, null, null, null, null, null);
    }

    @Test
    void anSvgHasTheExactSizeAndNoScript() {
        Layout layout = layout("62.5", "29", null, text("<{identifier}>&\"", "50", "6"));
        assertThat(LabelSvg.of(drawn(layout, "P1")))
                .startsWith("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"62.5mm\" height=\"29mm\"")
                .contains("aria-label=\"&lt;P1>&amp;&quot;\"");
    }
}
