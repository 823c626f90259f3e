package org.youngtally.printers;

import com.hp.jipp.model.JobState;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * A label printer that is not there: for the demo and for tests. It prints over IPP on this machine alone, keeps the
 * pages as PDF, and can be told what goes wrong.
 */
public final class SimulatedPrinter implements AutoCloseable {
    public static final String NAME = "Label printer (simulated)";
    private static final String PATH = "/labels";
    /** Older jobs are forgotten. */
    private static final int MOST_JOBS = 200;

    /** What goes wrong with it. */
    public enum Trouble {
        NONE,
        /** It stops, and goes on with the same page when the trouble is over. */
        JAM,
        /** It prints one page a second. */
        SLOW,
        /** It accepts no jobs. */
        REFUSE,
        /** It does not answer, and when the trouble is over it knows nothing of its jobs. */
        VANISH,
        /** It answers what is no answer of a printer. */
        NONSENSE;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * A job that was sent to it.
     *
     * @param pages that it has
     * @param printed how many of them came out
     * @param state as RFC 8011, 5.3.7 writes it
     */
    public record Job(int id, String name, String user, int pages, int printed, String state) {}

    private final HttpServer server;
    private final ExecutorService answering = Executors.newVirtualThreadPerTaskExecutor();
    private final ScheduledExecutorService printing = Executors.newSingleThreadScheduledExecutor(
            work -> Thread.ofPlatform().daemon().name("simulated printer").unstarted(work));
    private final long pageMillis;
    /** By their numbers; those of before a failure among them, which it does not know any more. */
    private final NavigableMap<Integer, SimulatedJob> jobs = new TreeMap<>();

    private int firstKnown = 1;
    private Trouble trouble = Trouble.NONE;
    /** How many pages are left before the trouble begins. */
    private int left;

    private boolean stepping;

    private SimulatedPrinter(HttpServer server, long pageMillis) {
        this.server = server;
        this.pageMillis = pageMillis;
    }

    /**
     * @param port 0 for any free one
     * @param pageMillis how long a page takes
     */
    public static SimulatedPrinter start(int port, long pageMillis) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        var printer = new SimulatedPrinter(server, pageMillis);
        server.setExecutor(printer.answering);
        server.createContext(PATH, printer::answer);
        server.start();
        return printer;
    }

    public PrinterAddress address() {
        return PrinterAddress.of("ipp://127.0.0.1:" + server.getAddress().getPort() + PATH);
    }

    /**
     * Tells it what goes wrong from now on; what went wrong before is over.
     *
     * @param behind how many pages come out before
     */
    public synchronized void set(Trouble next, int behind) {
        if (isGone()) firstKnown = jobs.isEmpty() ? 1 : jobs.lastKey() + 1;
        trouble = next;
        left = behind;
        jobs.values().forEach(SimulatedJob::goOn);
        step();
    }

    public synchronized Trouble trouble() {
        return trouble;
    }

    /** What was sent to it, the newest first. */
    public synchronized List<Job> jobs() {
        return new ArrayList<>(jobs.descendingMap().values())
                .stream().map(SimulatedJob::look).toList();
    }

    /** The pages of a job that came out, as PDF. */
    public synchronized Optional<byte[]> output(int job) {
        return Optional.ofNullable(jobs.get(job))
                .filter(each -> each.printed() > 0)
                .map(SimulatedJob::output);
    }

    @Override
    public void close() {
        server.stop(0);
        answering.shutdownNow();
        printing.shutdownNow();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            byte[] answer = new SimulatedAnswers(this).to(exchange.getRequestBody());
            // Whoever is gone says nothing: the connection ends without an answer.
            if (isGone()) return;
            exchange.getResponseHeaders().set("Content-Type", "application/ipp");
            exchange.sendResponseHeaders(200, answer.length);
            exchange.getResponseBody().write(answer);
        }
    }

    private synchronized boolean isGone() {
        return trouble == Trouble.VANISH && left == 0;
    }

    synchronized boolean accepts() {
        return trouble != Trouble.REFUSE;
    }

    synchronized boolean talksNonsense() {
        return trouble == Trouble.NONSENSE;
    }

    synchronized boolean isJammed() {
        return trouble == Trouble.JAM
                && jobs.values().stream().anyMatch(job -> job.state().equals(JobState.processingStopped));
    }

    synchronized boolean isBusy() {
        return current().isPresent();
    }

    /** A job that it knows. */
    synchronized Optional<SimulatedJob> job(int id) {
        return Optional.ofNullable(jobs.get(id)).filter(job -> id >= firstKnown);
    }

    synchronized SimulatedJob begin(String name, String user, byte[] document) throws IOException {
        int id = jobs.isEmpty() ? 1 : jobs.lastKey() + 1;
        var job = new SimulatedJob(id, name, user, document);
        jobs.put(id, job);
        if (jobs.size() > MOST_JOBS) jobs.pollFirstEntry();
        step();
        return job;
    }

    synchronized boolean cancel(int id) {
        Optional<SimulatedJob> job = job(id).filter(each -> !each.isOver());
        job.ifPresent(SimulatedJob::cancel);
        // What jammed is taken out with it.
        if (trouble == Trouble.JAM && left == 0) set(Trouble.NONE, 0);
        return job.isPresent();
    }

    private Optional<SimulatedJob> current() {
        return jobs.values().stream()
                .filter(job -> job.id() >= firstKnown && !job.isOver())
                .findFirst();
    }

    private synchronized void step() {
        if (stepping || current().isEmpty() || printing.isShutdown()) return;
        stepping = true;
        printing.schedule(this::printPage, trouble == Trouble.SLOW ? 1_000 : pageMillis, TimeUnit.MILLISECONDS);
    }

    private synchronized void printPage() {
        stepping = false;
        if (isGone()) return;
        Optional<SimulatedJob> job = current();
        if (job.isEmpty()) return;
        if (trouble == Trouble.JAM && left == 0) {
            job.get().stop();
            return;
        }
        job.get().printPage();
        if (left > 0) left--;
        step();
    }
}
