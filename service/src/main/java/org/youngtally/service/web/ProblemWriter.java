package org.youngtally.service.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem.Type;
import tools.jackson.databind.ObjectMapper;

/** Answers with a problem where no controller is reached. */
@Component
public final class ProblemWriter {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemWriter.class);

    private final ObjectMapper json;

    ProblemWriter(ObjectMapper json) {
        this.json = json;
    }

    /** What has failed that is nobody's mistake but the service's own; its log has it. */
    public static Problem failure(Exception e) {
        LOG.error("a request failed", e);
        return new Problem(
                Type.INTERNAL, "The service failed: " + e.getClass().getSimpleName() + ". Its log has details.");
    }

    public void write(Problem problem, HttpServletResponse response) throws IOException {
        write(problem, problem.detail(), response);
    }

    /** The same, said of an operation: the way it is said where a controller refuses. */
    public void write(Problem problem, HttpServletRequest request, HttpServletResponse response) throws IOException {
        ProblemDetail detail = problem.detail();
        detail.setInstance(URI.create(request.getRequestURI()));
        write(problem, detail, response);
    }

    private void write(Problem problem, ProblemDetail detail, HttpServletResponse response) throws IOException {
        response.setStatus(problem.status().value());
        problem.headers().forEach((name, values) -> values.forEach(value -> response.addHeader(name, value)));
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json.writeValueAsBytes(detail));
    }
}
