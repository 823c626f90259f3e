package org.youngtally.service;

import java.io.IOException;
import java.net.BindException;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.web.server.PortInUseException;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;

/** A service that has started: its ledger and the address it listens on. */
public record RunningService(Ledger ledger, String address, int port, ConfigurableApplicationContext context) implements AutoCloseable {

    @SpringBootApplication
    static class Application {}

    /** Opens the ledger and listens. The ledger is closed with the service, also when the process is asked to end. */
    public static RunningService start(LedgerOptions options, String address, int port) throws IOException {
        Ledger ledger = Ledger.open(options);
        try {
            var application = new SpringApplication(Application.class);
            application.setDefaultProperties(Map.of("server.address", address, "server.port", port));
            application.addInitializers((ApplicationContextInitializer<GenericApplicationContext>) context -> context.registerBean(Ledger.class, () -> ledger));
            var context = (ServletWebServerApplicationContext) application.run();
            int bound = context.getWebServer().getPort();
            return new RunningService(ledger, "http://" + (address.contains(":") ? "[" + address + "]" : address) + ":" + bound, bound, context);
        } catch (RuntimeException e) {
            ledger.close();
            for (Throwable cause = e; cause != null; cause = cause.getCause())
                if (cause instanceof PortInUseException || cause instanceof BindException) throw new IOException("port " + port + " is in use; choose another with --port, or 0 for any free one", e);
            throw e;
        }
    }

    @Override
    public void close() { context.close(); }
}
