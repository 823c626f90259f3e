package org.youngtally.service.printing;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.labels.Drawer;
import org.youngtally.labels.LabelPdf;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.printers.JobTicket;
import org.youngtally.service.label.FieldRows;
import org.youngtally.service.label.FieldTables;
import org.youngtally.service.label.PrintedLabels;

/** Writes labels of a job as PDF, for whoever prints them. */
@Component
public final class LabelFile {
    private static final long MOST_BYTES = 400_000_000;
    /** So many are read at once. */
    private static final int CHUNK = 1_000;

    private final Ledger ledger;
    private final FieldTables tables;

    LabelFile(Ledger ledger, FieldTables tables) {
        this.ledger = ledger;
        this.tables = tables;
    }

    /** A label of a job cannot be drawn any more. */
    public static final class Unprintable extends RuntimeException {
        private static final long serialVersionUID = 1;
        private final transient PrintedLabels.Label label;
        private final transient Fault fault;

        private Unprintable(PrintedLabels.Label label, Fault fault) {
            super("label " + (label.place() + 1) + " (" + label.content().identifier() + "): " + fault.problem());
            this.label = label;
            this.fault = fault;
        }

        public PrintedLabels.Label label() {
            return label;
        }

        public Fault fault() {
            return fault;
        }
    }

    /** The layout of a job in the version that it was printed with. */
    public Layout layout(JobLabels labels) {
        return LayoutCheck.of(ledger.read(dsl -> new LabelQueries(dsl)
                                .layout(labels.job().layout(), labels.job().version()))
                        .orElseThrow()
                        .draft())
                .layout()
                .orElseThrow(() -> new IllegalStateException(
                        "a layout that was applied is faulty: " + labels.job().layout()));
    }

    /** What a printer is told of labels. */
    public static JobTicket ticket(Layout layout, String name, String account) {
        return JobTicket.of(
                name,
                account,
                layout.sheet().map(Layout.Sheet::width).orElse(layout.width()),
                layout.sheet().map(Layout.Sheet::height).orElse(layout.height()));
    }

    /** The first labels of a job that wait, as many as one act is about. */
    public static List<Places> waiting(JobLabels labels, long most) {
        return labels.waiting(most, Decider.MOST_SETTLED).stream()
                .map(each -> new Places(each.from(), each.to()))
                .toList();
    }

    /**
     * Draws labels. The same labels are the same file, whenever it is made.
     *
     * @throws Unprintable where one of them does not fit its layout
     * @throws LabelPdf.TooLarge where all of them are more than is drawn at once
     */
    public void write(JobLabels labels, List<Places> places, Path to) throws LabelPdf.TooLarge {
        Layout layout = layout(labels);
        Instant made = ledger.read(dsl -> new EntryQueries(dsl).at(labels.seq()))
                .orElseThrow()
                .at();
        Optional<FieldRows> rows = tables.rows(labels.job(), layout);
        var drawer = new Drawer(layout);
        try (var pdf = new LabelPdf(layout, made, MOST_BYTES);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(to))) {
            for (Places each : places)
                for (long from = each.from(); from <= each.to(); from += CHUNK)
                    for (PrintedLabels.Label label : read(labels, rows, from, Math.min(each.to(), from + CHUNK - 1))) {
                        Drawer.Drawn drawn = drawer.of(label.content());
                        if (!drawn.faults().isEmpty())
                            throw new Unprintable(label, drawn.faults().getFirst());
                        pdf.add(drawn.drawing());
                    }
            pdf.write(out);
        } catch (LabelPdf.TooLarge e) {
            throw e;
        } catch (IOException e) {
            throw new UncheckedIOException("the labels could not be written to a temporary file", e);
        }
    }

    /** The rows that the labels of a job are for; only where there are some is its layout looked at. */
    public Optional<FieldRows> rows(JobLabels labels) {
        return labels.job().table().isEmpty() ? Optional.empty() : tables.rows(labels.job(), layout(labels));
    }

    /** The labels of a job between two places, with what is on them. */
    public List<PrintedLabels.Label> read(JobLabels labels, Optional<FieldRows> rows, long from, long to) {
        return ledger.read(dsl -> new PrintedLabels(new LabelQueries(dsl), labels, rows).between(from, to));
    }
}
