package org.youngtally.service.web;

import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Enumeration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem.Type;

/**
 * Turns away what is no request of this interface, before anything else looks at it: methods that are served nowhere,
 * addresses that can be written more plainly or are not UTF-8, and headers that say two things. Everything behind it
 * reads the same address.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class Border implements Filter {
    private static final Set<String> METHODS = Set.of("GET", "HEAD", "POST", "PUT", "DELETE");
    /** What is said once. */
    private static final List<String> SINGLE = List.of(
            HttpHeaders.HOST,
            HttpHeaders.ORIGIN,
            HttpHeaders.AUTHORIZATION,
            HttpHeaders.CONTENT_TYPE,
            HttpHeaders.CONTENT_LENGTH,
            HttpHeaders.TRANSFER_ENCODING,
            HttpHeaders.IF_MATCH,
            "Idempotency-Key");

    private final ProblemWriter problems;

    Border(ProblemWriter problems) {
        this.problems = problems;
    }

    @Override
    public void doFilter(ServletRequest any, ServletResponse anyResponse, FilterChain chain)
            throws IOException, ServletException {
        var request = (HttpServletRequest) any;
        var response = (HttpServletResponse) anyResponse;
        Optional<Problem> refused = refused(request);
        boolean announced = request.getHeader(HttpHeaders.TRANSFER_ENCODING) == null;
        // A length that was announced is all that the container reads.
        if (refused.isEmpty()) chain.doFilter(announced ? request : new CountedBody(request), response);
        else {
            if (!METHODS.contains(request.getMethod()))
                response.setHeader(HttpHeaders.ALLOW, "GET, HEAD, POST, PUT, DELETE");
            // What is not read is not waited for either.
            if (!announced || request.getContentLengthLong() > 0) response.setHeader(HttpHeaders.CONNECTION, "close");
            problems.write(refused.get(), response);
        }
    }

    private static Optional<Problem> refused(HttpServletRequest request) {
        if (!METHODS.contains(request.getMethod()))
            return Optional.of(
                    new Problem(Type.METHOD_NOT_SERVED, "‘" + request.getMethod() + "’ is not allowed at any address.")
                            .field("method", "GET, HEAD, POST, PUT or DELETE"));
        if (!Address.isReadable(request.getRequestURI()) || !Address.isReadable(request.getQueryString()))
            return Optional.of(new Problem(Type.MALFORMED, "The address is not written in UTF-8.")
                    .field("address", "plain symbols, or bytes of UTF-8 after percent signs"));
        Optional<String> fault = Address.fault(request.getRequestURI());
        if (fault.isPresent())
            return Optional.of(
                    new Problem(Type.MALFORMED, "The path of the address has " + fault.get() + ".")
                            .field(
                                    "address",
                                    "parts between single slashes; letters, digits, ‘-’, ‘.’, ‘_’ and ‘~’ as they are, other symbols as bytes of UTF-8 after percent signs"));
        return SINGLE.stream()
                .filter(name -> isTwice(request.getHeaders(name)))
                .findFirst()
                .map(name -> new Problem(Type.MALFORMED, "The header ‘" + name + "’ is there twice.")
                        .field(name, "one value"));
    }

    private static boolean isTwice(Enumeration<String> values) {
        if (!values.hasMoreElements()) return false;
        values.nextElement();
        return values.hasMoreElements();
    }
}
