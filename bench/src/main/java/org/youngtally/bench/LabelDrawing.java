package org.youngtally.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.IOUtils;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.youngtally.core.label.LabelContent;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.labels.Drawer;
import org.youngtally.labels.LabelPdf;

/** Ten thousand labels in two copies as PDF, beside PDFBox with the same pages of the same text alone. */
final class LabelDrawing {
    private static final int LABELS = 10_000;
    private static final int COPIES = 2;
    private static final int ROUNDS = 3;
    private static final List<String> TEXTS = List.of(
            "Larkmoor pipe foundry", "{field stop}", "{identifier}", "{date dd.MM.yyyy}  {number} of {quantity}");

    private LabelDrawing() {}

    public static void main(String[] arguments) throws IOException {
        Path file = Files.createTempFile("labels", ".pdf");
        double labels = Double.MAX_VALUE;
        double plain = Double.MAX_VALUE;
        long most = 0;
        for (int round = 0; round < ROUNDS; round++) {
            plain = Math.min(plain, seconds(() -> text(file)));
            long before = used();
            labels = Math.min(labels, seconds(() -> labels(file)));
            most = Math.max(most, peak - before);
        }
        System.out.println("| | s | ratio |\n|---|--:|--:|");
        System.out.printf("| %,d pages of text alone, PDFBox | %.1f | |%n", LABELS * COPIES, plain);
        System.out.printf(
                "| %,d labels in %d copies, text and a bar code | %.1f | %.1f × text alone |%n",
                LABELS, COPIES, labels, labels / plain);
        System.out.printf("| memory that it needs at the most, MB | %d | |%n", most >> 20);
        Files.delete(file);
    }

    private static long peak;

    private static long used() {
        System.gc();
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
    }

    private interface Step {
        void run() throws IOException;
    }

    private static double seconds(Step step) throws IOException {
        long begin = System.nanoTime();
        step.run();
        return (System.nanoTime() - begin) / 1e9;
    }

    private static ItemDraft item(String text, String code, String left, int top, String width, String height) {
        return new ItemDraft(
                text,
                code,
                null,
                null,
                null,
                left,
                String.valueOf(top),
                width,
                height,
                "8",
                null,
                null,
                code == null ? null : "{identifier}",
                null,
                null,
                null,
                null);
    }

    private static void labels(Path file) throws IOException {
        Layout layout = LayoutCheck.of(new LayoutDraft(
                        "pipe-label",
                        null,
                        "62",
                        "29",
                        null,
                        null,
                        null,
                        null,
                        List.of(
                                item(TEXTS.get(0), null, "3", 2, "36", "5"),
                                item(TEXTS.get(1), null, "3", 8, "36", "5"),
                                item(TEXTS.get(2), null, "3", 14, "36", "5"),
                                item(TEXTS.get(3), null, "3", 20, "36", "5"),
                                item(null, "data-matrix", "41", 4, "19", "19"))))
                .layout()
                .orElseThrow();
        var drawer = new Drawer(layout);
        try (var pdf = new LabelPdf(layout, Instant.EPOCH, Long.MAX_VALUE);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            for (int label = 1; label <= LABELS; label++)
                for (int copy = 1; copy <= COPIES; copy++) {
                    Drawer.Drawn drawn = drawer.of(new LabelContent(
                            "26%05d".formatted(label),
                            LocalDate.of(2026, 3, 2),
                            Optional.of("foundry"),
                            Map.of("stop", "Gamba"),
                            "",
                            label,
                            LABELS,
                            copy,
                            COPIES,
                            false));
                    if (!drawn.faults().isEmpty())
                        throw new IllegalStateException(drawn.faults().toString());
                    pdf.add(drawn.drawing());
                }
            pdf.write(out);
            peak = used();
        }
    }

    private static void text(Path file) throws IOException {
        try (var pdf = new PDDocument(IOUtils.createTempFileOnlyStreamCache());
                InputStream letters = PDDocument.class.getResourceAsStream(
                        "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf");
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            TrueTypeFont plain = new TTFParser().parse(new RandomAccessReadBuffer(letters));
            // As labels are written; ligatures would take most of the time.
            plain.setEnableGsub(false);
            pdf.registerTrueTypeFontForClosing(plain);
            PDType0Font font = PDType0Font.load(pdf, plain, true);
            for (int page = 0; page < LABELS * COPIES; page++) {
                var sheet = new PDPage(new PDRectangle(176, 82));
                pdf.addPage(sheet);
                try (var stream = new PDPageContentStream(pdf, sheet)) {
                    for (int i = 0; i < TEXTS.size(); i++) {
                        stream.beginText();
                        stream.setFont(font, 8);
                        stream.newLineAtOffset(9, 70 - 17 * i);
                        stream.showText(i == 2 ? "26%05d".formatted(page) : "Larkmoor pipe foundry");
                        stream.endText();
                    }
                }
            }
            pdf.save(out);
        }
    }
}
