package org.youngtally.service.printing;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.ledger.store.LabelQueries.OnTheWay;
import org.youngtally.printers.PrinterAddress;

/** Sends jobs of labels to printers: at each printer one job after another. */
@Component
public final class Printing implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(Printing.class);
    private static final long LAST_MOMENT_SECONDS = 2;

    private final Ledger ledger;
    private final LabelFile file;
    private final Printers printers;
    private final Map<PrinterAddress, ExecutorService> queues = new HashMap<>();
    /** By their jobs: those that are queued or under way, and those that failed since the service started. */
    private final Map<Long, PrintRun> runs = new ConcurrentHashMap<>();

    Printing(Ledger ledger, LabelFile file, Printers printers) {
        this.ledger = ledger;
        this.file = file;
        this.printers = printers;
    }

    /**
     * Has what waits of a job printed.
     *
     * @param account for whom
     * @return whether it is queued; it is not where the job is printed already
     */
    public synchronized boolean begin(long job, PrinterAddress printer, String account) {
        if (isUnderWay(job)) return false;
        var run = new PrintRun(ledger, file, job, printer, account);
        runs.put(job, run);
        queues.computeIfAbsent(
                        printer,
                        address -> Executors.newSingleThreadExecutor(Thread.ofPlatform()
                                .daemon()
                                .name("printing at " + address)
                                .factory()))
                .execute(() -> perform(run));
        return true;
    }

    private void perform(PrintRun run) {
        run.perform();
        if (run.progress().state() == PrintProgress.State.DONE) runs.remove(run.job(), run);
    }

    /** Whether a job is printed, or queued for it. */
    public boolean isUnderWay(long job) {
        return of(job).filter(progress -> !progress.isOver()).isPresent();
    }

    /** @return whether the job is printed, and ends now */
    public boolean stop(long job) {
        PrintRun run = runs.get(job);
        if (run == null || run.progress().isOver()) return false;
        run.stop();
        return true;
    }

    /** How it is with a job that is printed, or that failed. */
    public Optional<PrintProgress> of(long job) {
        return Optional.ofNullable(runs.get(job)).map(PrintRun::progress);
    }

    /**
     * What was on its way when the service ended is unconfirmed, and a person says what became of it; what waited
     * behind it is printed. Of a job of which nothing was on its way nobody knows whether it is still wanted: it waits.
     */
    @EventListener(ApplicationReadyEvent.class)
    void goOn() {
        try {
            for (OnTheWay each : ledger.read(dsl -> new LabelQueries(dsl).onTheWay())) goOn(each);
        } catch (LedgerUnavailable e) {
            LOG.error("Labels that were on their way to a printer stay sent until the next start.", e);
        }
    }

    private void goOn(OnTheWay sent) {
        String account = ledger.read(dsl -> new EntryQueries(dsl).at(sent.entry()))
                .orElseThrow()
                .by();
        new LabelNotes(ledger, sent.job(), account)
                .unconfirmed(List.of(sent.labels()), "the service ended while they were printed");
        printers.find(sent.printer()).ifPresent(printer -> begin(sent.job(), printer, account));
    }

    @Override
    public synchronized void destroy() throws InterruptedException {
        queues.values().forEach(ExecutorService::shutdownNow);
        for (ExecutorService queue : queues.values()) queue.awaitTermination(LAST_MOMENT_SECONDS, TimeUnit.SECONDS);
    }
}
