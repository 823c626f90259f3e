package org.youngtally.printers;

import com.hp.jipp.model.JobState;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;

/** A job at the simulated printer, which keeps the pages that came out. */
final class SimulatedJob {
    private final int id;
    private final String name;
    private final String user;
    private final byte[] document;
    private final int pages;
    private int printed;
    private JobState state = JobState.pending;

    /** @throws IOException where the document is no PDF */
    SimulatedJob(int id, String name, String user, byte[] document) throws IOException {
        this.id = id;
        this.name = name;
        this.user = user;
        this.document = document;
        try (PDDocument pdf = Loader.loadPDF(document)) {
            pages = pdf.getNumberOfPages();
        }
    }

    SimulatedPrinter.Job look() {
        return new SimulatedPrinter.Job(id, name, user, pages, printed, state.getName());
    }

    int id() {
        return id;
    }

    int printed() {
        return printed;
    }

    JobState state() {
        return state;
    }

    boolean isOver() {
        return state.equals(JobState.completed) || state.equals(JobState.canceled);
    }

    void printPage() {
        printed++;
        state = printed == pages ? JobState.completed : JobState.processing;
    }

    void stop() {
        state = JobState.processingStopped;
    }

    void goOn() {
        if (state.equals(JobState.processingStopped)) state = JobState.processing;
    }

    void cancel() {
        state = JobState.canceled;
    }

    /** What came out, as PDF; nothing for no page. */
    byte[] output() {
        try (PDDocument pdf = Loader.loadPDF(document)) {
            for (int page = pages - 1; page >= printed; page--) pdf.removePage(page);
            var out = new ByteArrayOutputStream();
            pdf.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("a document that was read before cannot be read", e);
        }
    }
}
