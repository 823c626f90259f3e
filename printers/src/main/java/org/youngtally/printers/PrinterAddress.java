package org.youngtally.printers;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Objects;

/**
 * Where a printer is, as RFC 3510 and RFC 7472 write it: {@code ipp://host:port/path}, or {@code ipps:} over TLS. The
 * port is 631 where none is written.
 */
public record PrinterAddress(URI uri) {
    private static final int PORT = 631;
    private static final int MOST_LETTERS = 255;

    /** @throws IllegalArgumentException what is wrong with it, as a clause for people */
    public static PrinterAddress of(String text) {
        URI uri;
        try {
            uri = new URI(text);
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException("is not an address: " + e.getReason(), e);
        }
        String scheme = Objects.requireNonNullElse(uri.getScheme(), "").toLowerCase(Locale.ROOT);
        if (!scheme.equals("ipp") && !scheme.equals("ipps"))
            throw new IllegalArgumentException("does not begin with ipp:// or ipps://");
        if (uri.getHost() == null) throw new IllegalArgumentException("names no host");
        if (uri.getRawUserInfo() != null || uri.getRawQuery() != null || uri.getRawFragment() != null)
            throw new IllegalArgumentException("has more than a host, a port and a path");
        if (text.length() > MOST_LETTERS)
            throw new IllegalArgumentException("is longer than " + MOST_LETTERS + " characters");
        return new PrinterAddress(uri);
    }

    /** Where its requests are sent: RFC 8010, 4. */
    URI http() {
        String scheme = uri.getScheme().equalsIgnoreCase("ipps") ? "https://" : "http://";
        String path = uri.getRawPath().isEmpty() ? "/" : uri.getRawPath();
        return URI.create(scheme + uri.getHost() + ":" + (uri.getPort() < 0 ? PORT : uri.getPort()) + path);
    }

    @Override
    public String toString() {
        return uri.toString();
    }
}
