package org.youngtally.service.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import tools.jackson.databind.ObjectMapper;

/** Answers with a problem where no controller is reached. */
@Component
public final class ProblemWriter {
    private final ObjectMapper json;

    ProblemWriter(ObjectMapper json) {
        this.json = json;
    }

    public void write(Problem problem, HttpServletResponse response) throws IOException {
        response.setStatus(problem.status().value());
        problem.headers().forEach((name, values) -> values.forEach(value -> response.addHeader(name, value)));
        response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json.writeValueAsBytes(problem.detail()));
    }
}
