package org.youngtally.acceptance;

import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.youngtally.printers.SimulatedPrinter;

/** What came out of the simulated printer, read back from its pages. */
final class PrintedPages {
    private PrintedPages() {}

    /** The lines that begin so, in the order in which they were printed. */
    static List<String> lines(SimulatedPrinter printer, String beginning) {
        return printer.jobs().reversed().stream()
                .flatMap(job -> printer.output(job.id()).stream())
                .flatMap(PrintedPages::lines)
                .filter(line -> line.startsWith(beginning))
                .toList();
    }

    private static Stream<String> lines(byte[] pdf) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document).lines();
        } catch (IOException e) {
            throw new IllegalStateException("what came out cannot be read", e);
        }
    }
}
