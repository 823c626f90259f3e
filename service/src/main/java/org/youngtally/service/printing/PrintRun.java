package org.youngtally.service.printing;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.core.label.Layout;
import org.youngtally.labels.LabelPdf;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.printers.JobStatus;
import org.youngtally.printers.JobTicket;
import org.youngtally.printers.Printer;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.printers.PrinterException;
import org.youngtally.printers.PrinterException.Reason;
import org.youngtally.service.printing.PrintProgress.State;

/**
 * Prints what waits of one job, in pieces: the ledger knows that a piece is sent before its bytes leave, and what the
 * printer says of it as it says it. While there is more to print a piece is always on its way, so that after a kill the
 * next start knows that it is to go on.
 */
final class PrintRun {
    private static final Logger LOG = LoggerFactory.getLogger(PrintRun.class);

    /** So many pages at the most are unconfirmed after a failure. */
    private static final int PAGES = 100;

    private static final Duration BETWEEN_QUESTIONS = Duration.ofMillis(300);
    /** How often the ledger hears of pages that came out while nothing else happens. */
    private static final Duration BETWEEN_NOTES = Duration.ofSeconds(5);
    /** How long a printer that does not answer is waited for. */
    private static final Duration PATIENCE = Duration.ofSeconds(10);
    /** How often a piece is put together anew where others change its labels at the same time. */
    private static final int TRIES = 10;

    private static final Optional<String> STOPPED = Optional.of("was told to stop");

    private final LabelFile file;
    private final LabelNotes notes;
    private final long job;
    private final PrinterAddress address;
    private final Printer printer;
    private final String account;
    private final CountDownLatch stopping = new CountDownLatch(1);
    private volatile PrintProgress progress;

    PrintRun(Ledger ledger, LabelFile file, long job, PrinterAddress address, String account) {
        this.file = file;
        this.notes = new LabelNotes(ledger, job, account);
        this.job = job;
        this.address = address;
        this.printer = new Printer(address);
        this.account = account;
        this.progress = new PrintProgress(address, State.QUEUED, Optional.empty());
    }

    long job() {
        return job;
    }

    PrintProgress progress() {
        return progress;
    }

    /** Ends it: at once where others are printed before, and else when the printer has heard of it. */
    synchronized void stop() {
        stopping.countDown();
        if (progress.state() == State.QUEUED) is(State.FAILED, STOPPED);
    }

    /** @return whether nobody has stopped it before */
    private synchronized boolean begin() {
        if (isStopping()) return false;
        is(State.PRINTING, Optional.empty());
        return true;
    }

    private boolean isStopping() {
        return stopping.getCount() == 0;
    }

    private void is(State state, Optional<String> problem) {
        progress = new PrintProgress(address, state, problem);
    }

    void perform() {
        if (!begin()) return;
        try {
            print();
        } catch (PrinterException | LedgerUnavailable | LabelPdf.TooLarge | LabelFile.Unprintable e) {
            LOG.info("Label job {} is not printed any further: {}", job, e.getMessage());
            is(State.FAILED, Optional.of(e.getMessage()));
        } catch (InterruptedException e) {
            // The service ends. The next start sees what was on its way.
            Thread.currentThread().interrupt();
        } catch (RuntimeException | IOException e) {
            LOG.error("Label job {} is not printed any further.", job, e);
            is(State.FAILED, Optional.of("could not be used for a reason that is in the service's log"));
        }
    }

    private void print() throws IOException, InterruptedException {
        Optional<Piece> next = send();
        while (next.isPresent())
            try (Piece piece = next.get()) {
                Optional<String> failure = print(piece);
                // The next piece is sent in the ledger before the last pages of this one are noted.
                try {
                    next = failure.isPresent() || isStopping() ? Optional.empty() : send();
                } finally {
                    piece.note(failure);
                }
                if (failure.isPresent()) {
                    is(State.FAILED, failure);
                    return;
                }
            }
        boolean stopped = isStopping() && !notes.labels().waiting().isEmpty();
        is(stopped ? State.FAILED : State.DONE, stopped ? STOPPED : Optional.empty());
    }

    /** Notes that the next labels that wait are sent, if the printer would print them. */
    private Optional<Piece> send() throws IOException {
        for (int tries = 0; tries < TRIES; tries++) {
            JobLabels labels = notes.labels();
            Layout layout = file.layout(labels);
            int each = layout.sheet().map(Layout.Sheet::labels).orElse(1);
            List<Places> places = LabelFile.waiting(labels, (long) PAGES * each);
            if (places.isEmpty()) return Optional.empty();
            var piece = new Piece(places, each, LabelFile.ticket(layout, "label job " + job, account));
            try {
                file.write(labels, places, piece.file);
                printer.check(piece.ticket);
                if (notes.sent(places, address.toString())) return Optional.of(piece);
            } catch (IOException | RuntimeException e) {
                piece.close();
                throw e;
            }
            piece.close();
        }
        throw new IllegalStateException("the labels of job " + job + " change faster than they are printed");
    }

    /** @return why it ended before everything was printed */
    private Optional<String> print(Piece piece) throws InterruptedException {
        int id;
        try {
            id = printer.print(piece.ticket, piece.file);
        } catch (PrinterException e) {
            return Optional.of(e.getMessage());
        }
        boolean cancelled = false;
        long heard = System.nanoTime();
        while (true)
            try {
                if (isStopping() && !cancelled) {
                    printer.cancel(id);
                    cancelled = true;
                }
                JobStatus status = printer.job(id);
                heard = System.nanoTime();
                piece.came(status);
                if (status.isOver()) return piece.failure(status);
                boolean stopped = status.state() == JobStatus.State.STOPPED;
                // Whoever sees that it stopped sees how far it came.
                piece.noteSometimes(stopped);
                is(
                        stopped ? State.STOPPED : State.PRINTING,
                        stopped ? Optional.of("stopped" + because(status.reasons())) : Optional.empty());
                pause(cancelled);
            } catch (PrinterException e) {
                boolean patient = e.reason() == Reason.UNREACHABLE && System.nanoTime() - heard < PATIENCE.toNanos();
                if (Thread.currentThread().isInterrupted()) throw new InterruptedException();
                if (!patient) return Optional.of(e.getMessage());
                is(State.PRINTING, Optional.of(e.getMessage()));
                pause(cancelled);
            }
    }

    /** Until the printer is asked again, or somebody says that it is to stop. */
    private void pause(boolean cancelled) throws InterruptedException {
        if (cancelled) TimeUnit.MILLISECONDS.sleep(BETWEEN_QUESTIONS.toMillis());
        else stopping.await(BETWEEN_QUESTIONS.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** Reasons are keywords with a word for how bad it is behind them: RFC 8011, 5.4.12. */
    private static String because(List<String> reasons) {
        return reasons.isEmpty()
                ? ""
                : reasons.stream()
                        .map(reason -> reason.replaceFirst("-(report|warning|error)$", "")
                                .replace('-', ' '))
                        .collect(Collectors.joining(", ", ": ", ""));
    }

    /** Labels that are sent together. */
    private final class Piece implements AutoCloseable {
        private final List<LabelStretch> labels;
        private final int eachPage;
        private final JobTicket ticket;
        private final Path file = Files.createTempFile("youngtally-labels-", ".pdf");
        private long printed;
        private long noted;
        private long notedAt = System.nanoTime();

        Piece(List<Places> places, int eachPage, JobTicket ticket) throws IOException {
            this.labels = places.stream()
                    .map(each -> new LabelStretch(each.from(), each.to(), LabelState.SENT))
                    .toList();
            this.eachPage = eachPage;
            this.ticket = ticket;
        }

        private long quantity() {
            return labels.stream().mapToLong(LabelStretch::quantity).sum();
        }

        void came(JobStatus status) {
            boolean all = status.state() == JobStatus.State.COMPLETED
                    && !status.reasons().contains("job-completed-with-errors");
            printed = Math.max(printed, all ? quantity() : Math.min(quantity(), (long) status.pages() * eachPage));
        }

        Optional<String> failure(JobStatus status) {
            return printed == quantity()
                    ? Optional.empty()
                    : Optional.of("ended the job before all of it was printed" + because(status.reasons()));
        }

        void noteSometimes(boolean atOnce) {
            boolean due = atOnce || System.nanoTime() - notedAt > BETWEEN_NOTES.toNanos();
            if (due && printed > noted) notePrinted();
        }

        private void notePrinted() {
            notes.printed(between(noted, printed));
            noted = printed;
            notedAt = System.nanoTime();
        }

        /** Everything that is known of it at its end. */
        void note(Optional<String> failure) {
            if (printed > noted) notePrinted();
            failure.ifPresent(why -> notes.unconfirmed(between(printed, quantity()), why));
        }

        /** Those between two numbers of labels, counted from the first. */
        private List<LabelStretch> between(long from, long to) {
            var some = new ArrayList<LabelStretch>();
            long before = 0;
            for (LabelStretch each : labels) {
                long first = Math.max(from, before);
                long last = Math.min(to, before + each.quantity()) - 1;
                if (first <= last)
                    some.add(new LabelStretch(
                            each.from() + first - before, each.from() + last - before, LabelState.SENT));
                before += each.quantity();
            }
            return some;
        }

        @Override
        public void close() {
            try {
                Files.deleteIfExists(file);
            } catch (IOException e) {
                throw new UncheckedIOException("a temporary file could not be deleted", e);
            }
        }
    }
}
