package org.youngtally.service;

import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.time.Duration;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.FutureTask;
import java.util.stream.Stream;
import org.slf4j.LoggerFactory;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;
import org.springframework.core.env.Environment;
import org.springframework.core.env.MapPropertySource;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.service.backup.BackupPlan;
import org.youngtally.service.printing.Printers;
import org.youngtally.service.web.Reach;

/**
 * A service that has started: its ledger and the address it listens on.
 *
 * @param afterwards what is left to do once it has ended
 */
public record RunningService(
        Ledger ledger, String address, int port, ConfigurableApplicationContext context, Runnable afterwards)
        implements AutoCloseable {

    private static final Duration LAST_MOMENT = Duration.ofSeconds(3);
    /** The exit code of a failure of its own, by sysexits.h. */
    private static final int FAILED = 70;

    @SpringBootApplication
    static class Application {}

    /**
     * Opens the ledger and listens. The ledger is closed with the service.
     *
     * @param behindProxy whether a proxy in front of the service ends TLS
     * @param printers that labels may be sent to
     * @param backups where they are kept, and how often they are made
     * @param afterwards what is left to do once the service has ended
     */
    public static RunningService start(
            LedgerOptions options,
            String address,
            int port,
            boolean behindProxy,
            Printers printers,
            BackupPlan backups,
            Runnable afterwards)
            throws IOException {
        LoggerFactory.getILoggerFactory(); // two threads that start logging at once get in each other's way
        // The ledger opens while the web part is made ready, which takes longer: together they start a second sooner.
        var opening = new FutureTask<>(() -> Ledger.open(options));
        Thread.ofPlatform().name("opening").start(opening);
        try {
            var application = new SpringApplication(Application.class);
            application.setDefaultProperties(Map.of(
                    "server.address",
                    address,
                    "server.port",
                    port,
                    "server.servlet.session.cookie.name",
                    Reach.COOKIE + "-"
                            + (port == 0 ? UUID.randomUUID().toString().substring(0, 8) : port),
                    "server.servlet.session.cookie.http-only",
                    true,
                    "server.servlet.session.cookie.same-site",
                    "strict",
                    "server.servlet.session.tracking-modes",
                    "cookie",
                    "server.servlet.session.timeout",
                    "8h"));
            boolean thisMachine = InetAddress.getByName(address).isLoopbackAddress();
            application.addInitializers((ApplicationContextInitializer<GenericApplicationContext>) context -> {
                boolean tls = usesTls(context.getEnvironment());
                if (!thisMachine && !tls && !behindProxy)
                    throw new IllegalArgumentException(
                            "--address: " + address
                                    + " can be reached from elsewhere, and passwords would be sent unencrypted. Configure a certificate (server.ssl.certificate and server.ssl.certificate-private-key, or server.ssl.key-store), use --behind-proxy where a proxy in front of it ends TLS, or listen on 127.0.0.1");
                context.getEnvironment()
                        .getPropertySources()
                        .addFirst(new MapPropertySource(
                                "cookies", Map.of("server.servlet.session.cookie.secure", tls || behindProxy)));
                context.registerBean(Ledger.class, () -> opened(opening));
                context.registerBean(Printers.class, () -> printers);
                context.registerBean(BackupPlan.class, () -> backups);
                context.registerBean(Reach.class, () -> new Reach(thisMachine && !tls && !behindProxy, behindProxy));
            });
            application.setRegisterShutdownHook(false);
            var context = (ServletWebServerApplicationContext) application.run();
            int bound = context.getWebServer().getPort();
            return new RunningService(
                    opened(opening),
                    (usesTls(context.getEnvironment()) ? "https://" : "http://")
                            + (address.contains(":") ? "[" + address + "]" : address) + ":" + bound,
                    bound,
                    context,
                    afterwards);
        } catch (RuntimeException e) {
            close(opening);
            if (e instanceof IllegalArgumentException cannot) throw new IOException(cannot.getMessage(), e);
            for (Throwable cause = e; cause != null; cause = cause.getCause())
                if (cause instanceof PortInUseException || cause instanceof BindException)
                    throw new IOException(
                            "port " + port + " is in use; choose another with --port, or 0 for any free one", e);
            throw e;
        }
    }

    private static boolean usesTls(Environment settings) {
        return settings.getProperty("server.ssl.enabled", Boolean.class, true)
                && Stream.of("certificate", "key-store", "bundle")
                        .anyMatch(setting -> settings.containsProperty("server.ssl." + setting));
    }

    private static Ledger opened(Future<Ledger> opening) {
        try {
            return opening.get();
        } catch (ExecutionException e) {
            throw new IllegalStateException("the ledger did not open", e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while the ledger opened", e);
        }
    }

    /** After a start that failed: closes the ledger if it opened, and says why if it did not. */
    private static void close(Future<Ledger> opening) throws IOException {
        try {
            opening.get().close();
        } catch (ExecutionException e) {
            if (e.getCause() instanceof IOException cannot) throw cannot;
            if (e.getCause() instanceof RuntimeException cannot) throw cannot;
            throw new IllegalStateException(e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /**
     * Makes the process this service's own: it ends in order where the process is asked to, and the process with it.
     */
    void ownProcess() {
        ledger.onDeath(this::die);
        Runtime.getRuntime().addShutdownHook(Thread.ofPlatform().name("ending").unstarted(this::end));
    }

    /**
     * The process is asked to end: answers what waits, closes, and ends it in order. Whoever supervises it is not to
     * take an end that was asked for as a failure.
     */
    private void end() {
        if (!context.isActive()) return;
        close();
        System.out.flush();
        Runtime.getRuntime().halt(0);
    }

    /** No number can be given any more: the process ends, so that whoever supervises it starts it again. */
    private void die(String why) {
        Thread.ofPlatform().name("dying").start(() -> {
            // Those who wait are told first, but for a moment only.
            Thread closing = Thread.ofPlatform().daemon().name("closing").start(this::close);
            try {
                closing.join(LAST_MOMENT);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            System.err.println("Young Tally has stopped: " + why);
            Runtime.getRuntime().halt(FAILED);
        });
    }

    @Override
    public void close() {
        context.close();
        afterwards.run();
    }
}
