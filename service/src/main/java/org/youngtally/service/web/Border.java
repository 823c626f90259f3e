package org.youngtally.service.web;

import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem.Type;

/**
 * Turns away what is no request of this interface, before anything of it is read: methods that are served nowhere,
 * addresses that are not UTF-8, bodies that are longer than their operation takes or of another type.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class Border implements Filter {
    private static final Set<String> METHODS = Set.of("GET", "HEAD", "POST", "PUT", "DELETE");
    private static final String API = "/api/v1/";
    private static final long USUAL = 1_000_000;

    /**
     * What an operation takes.
     *
     * @param most bytes of its body
     * @param file whether it takes a file of any type, which it counts itself
     */
    private record Intake(String beginning, String ending, long most, boolean file) {
        boolean isOf(String path) {
            return path.startsWith(beginning) && path.endsWith(ending);
        }
    }

    private static final List<Intake> INTAKES = List.of(
            new Intake("/api/v1/session", "", 4_000, false),
            new Intake("/api/v1/definitions", "", 4_000_000, false),
            new Intake("/api/v1/kinds/", "/tables", 50_000_001, true),
            new Intake("/api/v1/document-plans", "", 20_000_000, false),
            new Intake("/api/v1/document-numberings", "", 20_000_000, false),
            new Intake("/api/v1/rollback/statements", "", 20_000_000, false),
            new Intake("/api/v1/label-tables", "", 20_000_001, true),
            new Intake("/api/v1/kinds/", "/lists", 50_000_001, true),
            new Intake("/api/v1/table-inspections", "", 1_000_000_001, true),
            new Intake("/api/v1/series/", "/table-plans", 1_000_000_001, true),
            new Intake("/api/v1/series/", "/table-repairs", 1_000_000_001, true),
            new Intake("/api/v1/records/", "/files", 100_000_001, true));
    private static final Intake ANY_OTHER = new Intake("", "", USUAL, false);

    private final ProblemWriter problems;

    Border(ProblemWriter problems) {
        this.problems = problems;
    }

    /** More is sent than the operation takes. */
    static final class BodyTooLarge extends IOException {
        private static final long serialVersionUID = 1L;
        private final long most;

        private BodyTooLarge(long most) {
            super("the body is too large");
            this.most = most;
        }

        Problem problem() {
            return tooLarge(most);
        }
    }

    @Override
    public void doFilter(ServletRequest any, ServletResponse anyResponse, FilterChain chain)
            throws IOException, ServletException {
        var request = (HttpServletRequest) any;
        var response = (HttpServletResponse) anyResponse;
        if (!METHODS.contains(request.getMethod())) {
            response.setHeader(HttpHeaders.ALLOW, "GET, HEAD, POST, PUT, DELETE");
            refuse(
                    new Problem(Type.METHOD_NOT_SERVED, "‘" + request.getMethod() + "’ is not allowed at any address.")
                            .field("method", "GET, HEAD, POST, PUT or DELETE"),
                    response);
            return;
        }
        if (!PercentCoding.isReadable(request.getRequestURI()) || !PercentCoding.isReadable(request.getQueryString())) {
            refuse(
                    new Problem(Type.MALFORMED, "The address is not written in UTF-8.")
                            .field("address", "plain symbols, or bytes of UTF-8 after percent signs"),
                    response);
            return;
        }
        String path = request.getRequestURI();
        long length = request.getContentLengthLong();
        boolean chunked = request.getHeader(HttpHeaders.TRANSFER_ENCODING) != null;
        if (!path.startsWith(API) || length <= 0 && !chunked) {
            chain.doFilter(request, response);
            return;
        }
        Intake intake =
                INTAKES.stream().filter(each -> each.isOf(path)).findFirst().orElse(ANY_OTHER);
        if (length > intake.most()) {
            // What is not read is not waited for either.
            response.setHeader(HttpHeaders.CONNECTION, "close");
            refuse(tooLarge(intake.most()), response);
        } else if (!intake.file() && !isJson(request.getContentType()))
            refuse(
                    new Problem(
                                    Type.MEDIA_TYPE,
                                    request.getContentType() == null
                                            ? "The body has no Content-Type."
                                            : "A body of the type ‘" + request.getContentType() + "’ is not accepted.")
                            .field(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE),
                    response);
        // A length that was announced is all that the container reads.
        else chain.doFilter(chunked ? new Counted(request, intake.most()) : request, response);
    }

    private void refuse(Problem problem, HttpServletResponse response) throws IOException {
        problems.write(problem, response);
    }

    private static Problem tooLarge(long most) {
        return new Problem(Type.TOO_LARGE, "The body has more than %,d bytes.".formatted(most))
                .field("body", "up to %,d bytes".formatted(most));
    }

    private static boolean isJson(String type) {
        if (type == null) return false;
        String bare = type.split(";", 2)[0].strip().toLowerCase(Locale.ROOT);
        return bare.equals(MediaType.APPLICATION_JSON_VALUE);
    }

    /** A request whose body ends where it would become too long. */
    private static final class Counted extends HttpServletRequestWrapper {
        private final long most;
        private ServletInputStream counted;

        Counted(HttpServletRequest request, long most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            if (counted == null) counted = new CountedStream(super.getInputStream(), most);
            return counted;
        }
    }

    private static final class CountedStream extends ServletInputStream {
        private final ServletInputStream from;
        private final long most;
        private long read;

        CountedStream(ServletInputStream from, long most) {
            this.from = from;
            this.most = most;
        }

        @Override
        public int read() throws IOException {
            int one = from.read();
            if (one >= 0) count(1);
            return one;
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int count = from.read(bytes, offset, length);
            if (count > 0) count(count);
            return count;
        }

        private void count(int more) throws BodyTooLarge {
            read += more;
            if (read > most) throw new BodyTooLarge(most);
        }

        @Override
        public boolean isFinished() {
            return from.isFinished();
        }

        @Override
        public boolean isReady() {
            return from.isReady();
        }

        @Override
        public void setReadListener(ReadListener listener) {
            from.setReadListener(listener);
        }
    }
}
