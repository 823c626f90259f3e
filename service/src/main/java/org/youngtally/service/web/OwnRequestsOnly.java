package org.youngtally.service.web;

import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem.Type;

/**
 * Refuses requests that a page of another origin has sent, and, while only this machine may reach the service, those
 * that do not name it as their host: no web page from elsewhere can take a number, not even by a name that it lets
 * point to this machine.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class OwnRequestsOnly implements Filter {
    private static final Set<String> NAMES = Set.of("127.0.0.1", "localhost", "[::1]");

    private final ProblemWriter problems;
    private final Reach reach;

    OwnRequestsOnly(ProblemWriter problems, Reach reach) {
        this.problems = problems;
        this.reach = reach;
    }

    @Override
    public void doFilter(ServletRequest any, ServletResponse response, FilterChain chain)
            throws IOException, ServletException {
        var request = (HttpServletRequest) any;
        String host = request.getHeader("Host");
        String origin = request.getHeader("Origin");
        String port = ":" + request.getLocalPort();
        if (host == null || reach.isThisMachine() && !isOwn(host, port))
            problems.write(
                    new Problem(Type.FOREIGN_REQUEST, "The host ‘" + host + "’ is not this service.")
                            .field("Host", "127.0.0.1" + port + " or localhost" + port),
                    (HttpServletResponse) response);
        else if (origin != null && !isSame(origin, host, request))
            problems.write(
                    new Problem(Type.FOREIGN_REQUEST, "A page from ‘" + origin + "’ may not use this service.")
                            .field("Origin", "none, or " + scheme(request) + "://" + host),
                    (HttpServletResponse) response);
        else chain.doFilter(request, response);
    }

    /** Behind a proxy a page is served by HTTPS, whatever the proxy speaks to the service. */
    private String scheme(HttpServletRequest request) {
        return reach.behindProxy() ? "https" : request.getScheme();
    }

    private boolean isSame(String origin, String host, HttpServletRequest request) {
        String begin = scheme(request) + "://";
        if (!origin.startsWith(begin)) return false;
        String from = origin.substring(begin.length());
        // On this machine its names stand for one another.
        String port = ":" + request.getLocalPort();
        return from.equalsIgnoreCase(host) || reach.isThisMachine() && isOwn(from, port);
    }

    private static boolean isOwn(String authority, String port) {
        return authority.endsWith(port) && NAMES.contains(authority.substring(0, authority.length() - port.length()));
    }
}
