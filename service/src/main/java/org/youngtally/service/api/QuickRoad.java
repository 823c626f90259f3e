package org.youngtally.service.api;

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
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.Enumeration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Where;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Callers;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.NeedsCheck;
import org.youngtally.service.access.SafeHeaders;
import org.youngtally.service.api.AllocationController.Allocation;
import org.youngtally.service.api.AllocationController.AllocationRequest;
import org.youngtally.service.api.AllocationController.RecordRequest;
import org.youngtally.service.api.LedgerController.IdentifierView;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.ProblemWriter;
import org.youngtally.service.web.ReceiptHeader;
import org.youngtally.service.web.Refusals;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.ObjectReader;
import tools.jackson.databind.ObjectWriter;

/**
 * Answers what a busy service is asked most, single numbers and what a number is, for a program with a token, without
 * the way through Spring's dispatching. It comes after the filters that turn foreign requests away; who asks, what the
 * operation needs, how its body is read, what it does and what it is answered with are the code of the usual road.
 * Whatever is not quite plain goes there, with its body still to be read: other headers, a token that is refused, a
 * body that is not as it should be.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 2)
class QuickRoad implements Filter {
    private static final Logger LOG = LoggerFactory.getLogger(QuickRoad.class);
    private static final String SERIES = Api.V1 + "/series/";
    private static final String KINDS = Api.V1 + "/kinds/";
    private static final String ALLOCATIONS = "/allocations";
    private static final String IDENTIFIERS = Api.V1 + "/identifiers";
    private static final String TEXT = "text=";
    private static final String NOT_KEPT = "no-store";
    /** Bytes of a body; what is longer is no plain request. */
    private static final int MOST = 4_096;

    private static final Set<String> ACCEPTED = Set.of(MediaType.ALL_VALUE, MediaType.APPLICATION_JSON_VALUE);

    private final Ledger ledger;
    private final Callers callers;
    private final SafeHeaders safe;
    private final ProblemWriter problems;
    private final AllocationController allocations;
    private final LedgerController entries;
    private final ObjectReader ofSeries;
    private final ObjectReader ofKind;
    private final ObjectWriter allocation;
    private final ObjectWriter found;
    private final Needs needsOfSeries = needs(AllocationController.class, "allocate");
    private final Needs needsOfKind = needs(AllocationController.class, "allocateForRecord");
    private final Needs needsOfFinding = needs(LedgerController.class, "find");

    QuickRoad(
            Ledger ledger,
            Callers callers,
            SafeHeaders safe,
            ProblemWriter problems,
            AllocationController allocations,
            LedgerController entries,
            ObjectMapper json) {
        this.ledger = ledger;
        this.callers = callers;
        this.safe = safe;
        this.problems = problems;
        this.allocations = allocations;
        this.entries = entries;
        this.ofSeries = json.readerFor(AllocationRequest.class);
        this.ofKind = json.readerFor(RecordRequest.class);
        this.allocation = json.writerFor(Allocation.class);
        this.found = json.writerFor(json.getTypeFactory().constructCollectionType(List.class, IdentifierView.class));
    }

    /** What an operation says that it needs. */
    private static Needs needs(Class<?> controller, String operation) {
        return Arrays.stream(controller.getDeclaredMethods())
                .filter(method -> method.getName().equals(operation))
                .findFirst()
                .orElseThrow()
                .getAnnotation(Needs.class);
    }

    @Override
    public void doFilter(ServletRequest any, ServletResponse anyResponse, FilterChain chain)
            throws IOException, ServletException {
        var request = (HttpServletRequest) any;
        var response = (HttpServletResponse) anyResponse;
        String path = request.getRequestURI();
        if (path.endsWith(ALLOCATIONS) && isPlain(request) && hasPlainBody(request)) {
            if (isNamed(path, SERIES)) {
                String series = named(path, SERIES);
                allocate(
                        request,
                        response,
                        chain,
                        ofSeries,
                        needsOfSeries,
                        new Where(Optional.of(series), Optional.empty(), Optional.empty()),
                        (AllocationRequest asked, Caller caller) ->
                                allocations.allocate(series, asked, request.getHeader(Api.KEY), caller));
                return;
            }
            if (isNamed(path, KINDS)) {
                String kind = named(path, KINDS);
                allocate(
                        request,
                        response,
                        chain,
                        ofKind,
                        needsOfKind,
                        new Where(Optional.empty(), Optional.of(kind), Optional.empty()),
                        (RecordRequest asked, Caller caller) ->
                                allocations.allocateForRecord(kind, asked, request.getHeader(Api.KEY), caller));
                return;
            }
        } else if (path.equals(IDENTIFIERS) && isPlain(request) && isPlainQuestion(request)) {
            Optional<Caller> caller = caller(request, needsOfFinding, Where.EVERYWHERE);
            if (caller.isPresent()) {
                String text = request.getQueryString().substring(TEXT.length());
                answer(found, () -> ResponseEntity.ok(entries.find(text, null, caller.get())), request, response);
                return;
            }
        }
        chain.doFilter(request, response);
    }

    private static boolean isPlain(HttpServletRequest request) {
        String accept = request.getHeader(HttpHeaders.ACCEPT);
        return request.getHeader(HttpHeaders.AUTHORIZATION) != null
                && (accept == null || ACCEPTED.contains(accept))
                && isOnce(request.getHeaders(HttpHeaders.ACCEPT))
                && request.getHeader(HttpHeaders.TRANSFER_ENCODING) == null
                && request.getHeader(HttpHeaders.EXPECT) == null;
    }

    private static boolean hasPlainBody(HttpServletRequest request) {
        int length = request.getContentLength();
        return request.getMethod().equals("POST")
                && request.getQueryString() == null
                && length > 0
                && length <= MOST
                && MediaType.APPLICATION_JSON_VALUE.equals(request.getContentType());
    }

    /** Or not at all. */
    private static boolean isOnce(Enumeration<String> values) {
        if (!values.hasMoreElements()) return true;
        values.nextElement();
        return !values.hasMoreElements();
    }

    private static boolean isPlainQuestion(HttpServletRequest request) {
        String query = request.getQueryString();
        return request.getMethod().equals("GET")
                && request.getContentLength() <= 0
                && query != null
                && query.startsWith(TEXT)
                && isPlain(query, TEXT.length(), query.length());
    }

    private static boolean isNamed(String path, String beginning) {
        return path.startsWith(beginning) && isPlain(path, beginning.length(), path.length() - ALLOCATIONS.length());
    }

    /** Whether there is something, of letters, digits and hyphens alone: nothing is to be decoded in it. */
    private static boolean isPlain(String text, int from, int end) {
        for (int i = from; i < end; i++) {
            char each = text.charAt(i);
            boolean letter = each >= 'a' && each <= 'z' || each >= 'A' && each <= 'Z';
            if (!letter && (each < '0' || each > '9') && each != '-') return false;
        }
        return end > from;
    }

    private static String named(String path, String beginning) {
        return path.substring(beginning.length(), path.length() - ALLOCATIONS.length());
    }

    /** Who asks, if they may; whoever may not is told so on the usual road. */
    private Optional<Caller> caller(HttpServletRequest request, Needs needs, Where named) {
        try {
            Caller caller = callers.byToken(request.getHeader(HttpHeaders.AUTHORIZATION));
            NeedsCheck.check(needs, caller, () -> named);
            return Optional.of(caller);
        } catch (Problem refused) {
            LOG.trace("refused on the usual road", refused);
            return Optional.empty();
        }
    }

    private <R> void allocate(
            HttpServletRequest request,
            HttpServletResponse response,
            FilterChain chain,
            ObjectReader reader,
            Needs needs,
            Where named,
            BiFunction<R, Caller, ResponseEntity<Allocation>> operation)
            throws IOException, ServletException {
        Optional<Caller> caller = caller(request, needs, named);
        if (caller.isEmpty()) {
            chain.doFilter(request, response);
            return;
        }
        // Once a body breaks off the container takes no header any more.
        response.setHeader(HttpHeaders.CACHE_CONTROL, NOT_KEPT);
        byte[] body;
        try {
            body = request.getInputStream().readNBytes(request.getContentLength());
        } catch (IOException broken) {
            chain.doFilter(new Unread(request, new Broken(broken)), response);
            return;
        }
        R asked = read(reader, body);
        if (asked == null) chain.doFilter(new Unread(request, new ByteArrayInputStream(body)), response);
        else answer(allocation, () -> operation.apply(asked, caller.get()), request, response);
    }

    /** Null where the usual road has to say what is wrong with it. */
    private static <R> R read(ObjectReader reader, byte[] body) {
        try {
            return reader.readValue(body);
        } catch (JacksonException faulty) {
            LOG.trace("explained on the usual road", faulty);
            return null;
        }
    }

    /** From here on something may be done, so that there is no other road any more. */
    private void answer(
            ObjectWriter writer,
            Supplier<ResponseEntity<?>> operation,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        ReceiptHeader.show(ledger, request);
        try {
            ResponseEntity<?> made = operation.get();
            LOG.trace("answered");
            byte[] bytes = writer.writeValueAsBytes(made.getBody());
            put(request, response);
            response.setStatus(made.getStatusCode().value());
            response.setHeader(HttpHeaders.CACHE_CONTROL, NOT_KEPT);
            response.setContentType(MediaType.APPLICATION_JSON_VALUE);
            response.setContentLength(bytes.length);
            response.getOutputStream().write(bytes);
            response.getOutputStream().close();
        } catch (Problem problem) {
            write(problem, request, response);
        } catch (LedgerUnavailable unavailable) {
            write(Refusals.problem(unavailable), request, response);
        } catch (RuntimeException e) {
            write(ProblemWriter.failure(e), request, response);
        }
        ledger.commitBehind();
    }

    private void write(Problem problem, HttpServletRequest request, HttpServletResponse response) throws IOException {
        put(request, response);
        problems.write(problem, request, response);
    }

    private void put(HttpServletRequest request, HttpServletResponse response) {
        safe.write(request, response);
        ReceiptHeader.put(ledger, response);
    }

    /** A request whose body was read, as if it were not. */
    private static final class Unread extends HttpServletRequestWrapper {
        private final ServletInputStream body;

        Unread(HttpServletRequest request, InputStream body) {
            super(request);
            this.body = new Body(body);
        }

        @Override
        public ServletInputStream getInputStream() {
            return body;
        }
    }

    private static final class Body extends ServletInputStream {
        private final InputStream left;
        private boolean finished;

        Body(InputStream left) {
            this.left = left;
        }

        @Override
        public int read() throws IOException {
            int one = left.read();
            finished = one < 0;
            return one;
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int count = left.read(bytes, offset, length);
            finished = count < 0;
            return count;
        }

        @Override
        public boolean isFinished() {
            return finished;
        }

        @Override
        public boolean isReady() {
            return true;
        }

        @Override
        public void setReadListener(ReadListener listener) {
            throw new IllegalStateException("the body is here already");
        }
    }

    /** A body that did not come whole. */
    private static final class Broken extends InputStream {
        private final IOException why;

        Broken(IOException why) {
            this.why = why;
        }

        @Override
        public int read() throws IOException {
            throw why;
        }
    }
}
