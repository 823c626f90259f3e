package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.io.Console;
import java.io.PrintWriter;
import java.io.Writer;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/** Shows how far something has come that the service does, on a terminal; nothing where there is none. */
final class ProgressBar implements AutoCloseable {
    private static final int WIDTH = 30;
    private static final int ASK_MILLIS = 150;

    private final ScheduledExecutorService clock;
    private final PrintWriter err;
    private int longest;

    private ProgressBar(ScheduledExecutorService clock, PrintWriter err) {
        this.clock = clock;
        this.err = err;
    }

    /** @param path where the service says how far it has come */
    static ProgressBar of(Service service, String path, PrintWriter err) {
        if (!atTerminal()) return new ProgressBar(null, err);
        ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(
                Thread.ofPlatform().daemon().factory());
        var bar = new ProgressBar(clock, err);
        clock.scheduleWithFixedDelay(
                () -> bar.show(service.get(path).body().getAsJsonObject()),
                ASK_MILLIS,
                ASK_MILLIS,
                TimeUnit.MILLISECONDS);
        return bar;
    }

    /** One that is told how far it is. */
    static ProgressBar of(PrintWriter err) {
        return new ProgressBar(null, atTerminal() ? err : new PrintWriter(Writer.nullWriter()));
    }

    private static boolean atTerminal() {
        if (System.console() == null) return false;
        try {
            // From Java 22 on there can be a console without a terminal; before, there was none.
            return (boolean) Console.class.getMethod("isTerminal").invoke(System.console());
        } catch (ReflectiveOperationException e) {
            return true;
        }
    }

    private void show(JsonObject progress) {
        long of = Json.number(progress, "of");
        if (of > 0) show(Json.text(progress, "step", ""), Json.number(progress, "done"), of);
    }

    void show(String step, long done, long of) {
        show(line(step, done, of));
    }

    static String line(String step, long done, long of) {
        int full = (int) (WIDTH * done / of);
        return "[" + "#".repeat(full) + ".".repeat(WIDTH - full) + "] " + step + " " + Output.grouped(done) + " of "
                + Output.grouped(of);
    }

    private void show(String line) {
        longest = Math.max(longest, line.length());
        err.print("\r" + line + " ".repeat(longest - line.length()));
        err.flush();
    }

    @Override
    public void close() {
        if (clock != null) {
            clock.shutdownNow();
            try {
                if (!clock.awaitTermination(1, TimeUnit.SECONDS)) return;
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
        if (longest == 0) return;
        err.print("\r" + " ".repeat(longest) + "\r");
        err.flush();
    }
}
