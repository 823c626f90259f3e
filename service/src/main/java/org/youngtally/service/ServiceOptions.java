package org.youngtally.service;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.DateTimeException;
import java.time.ZoneId;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Where the service listens. */
public final class ServiceOptions {
    public static final int DEFAULT_PORT = 7460;

    @Option(
            names = "--port",
            paramLabel = "PORT",
            description = "The port to listen on; 0 for any free one (YOUNGTALLY_PORT; default ${DEFAULT-VALUE}).",
            defaultValue = "${env:YOUNGTALLY_PORT:-" + DEFAULT_PORT + "}")
    private int port;

    @Option(
            names = "--address",
            paramLabel = "ADDRESS",
            description = "The address to listen on (YOUNGTALLY_ADDRESS; default ${DEFAULT-VALUE}, this machine only).",
            defaultValue = "${env:YOUNGTALLY_ADDRESS:-127.0.0.1}")
    private String address;

    @Option(
            names = "--zone",
            paramLabel = "ZONE",
            description =
                    "The time zone in which a day begins, e.g. Europe/Vienna (YOUNGTALLY_ZONE; default: the machine's).",
            defaultValue = "${env:YOUNGTALLY_ZONE}")
    private String zone;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    public int port() {
        if (port < 0 || port > 65_535)
            throw new ParameterException(
                    spec.commandLine(), "--port: " + port + " is not a port. Enter a number from 0 to 65535.");
        return port;
    }

    /** The address; that it is safe to listen there is looked at by {@link RunningService}. */
    public String address() {
        try {
            InetAddress.getByName(address);
            return address;
        } catch (UnknownHostException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--address: " + address
                            + " is not an address. Enter 127.0.0.1 for this machine only, or 0.0.0.0 for all its addresses.",
                    e);
        }
    }

    public ZoneId zone() {
        try {
            return zone == null || zone.isEmpty() ? ZoneId.systemDefault() : ZoneId.of(zone);
        } catch (DateTimeException e) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--zone: ‘" + zone + "’ is not a time zone. Enter one such as Europe/Vienna or UTC.",
                    e);
        }
    }
}
