package org.youngtally.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.Collections;
import java.util.HexFormat;
import org.youngtally.service.web.Reach;

/** Where a request comes from. */
public final class Source {
    private static final String FORWARDED = "X-Forwarded-For";
    /** Whoever has one address of IPv6 has a whole net of them. */
    private static final int NET_BYTES = 8;

    private static final int LONGEST = 45;

    private Source() {}

    /**
     * The address of whoever asks: behind a proxy the last that it was forwarded for, which is the one that the proxy
     * added; all before it anybody could have written.
     */
    public static String of(HttpServletRequest request, Reach reach) {
        String address = request.getRemoteAddr();
        if (reach.behindProxy()) {
            String last = Collections.list(request.getHeaders(FORWARDED)).stream()
                    .reduce((one, other) -> other)
                    .map(all -> all.substring(all.lastIndexOf(',') + 1).strip())
                    .orElse("");
            if (!last.isEmpty() && last.length() <= LONGEST) address = last;
        }
        return net(address);
    }

    static String of(InetAddress address) {
        return net(address.getHostAddress());
    }

    private static String net(String address) {
        // Of these no name is looked up.
        if (!address.matches("[0-9a-fA-F:.]*:[0-9a-fA-F:.]*(%.*)?")) return address;
        try {
            return InetAddress.getByName(address) instanceof Inet6Address read
                    ? HexFormat.of().formatHex(Arrays.copyOf(read.getAddress(), NET_BYTES))
                    : address;
        } catch (UnknownHostException e) {
            return address;
        }
    }
}
