package org.youngtally.service.web;

import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/**
 * Sends an answer in one piece with its length, instead of flushing it in the middle: one write of the socket, and one
 * wake-up of the client, instead of two. What is live is sent as it comes.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 5)
class WholeAnswers implements Filter {
    private static final String LIVE = "/api/v1/events";

    @Override
    public void doFilter(ServletRequest request, ServletResponse response, FilterChain chain)
            throws IOException, ServletException {
        boolean live = ((HttpServletRequest) request).getRequestURI().equals(LIVE);
        chain.doFilter(request, live ? response : new Whole((HttpServletResponse) response));
    }

    private static final class Whole extends HttpServletResponseWrapper {
        Whole(HttpServletResponse response) {
            super(response);
        }

        /** Left to the server, which does it when the answer is complete or fills its buffer. */
        @Override
        public void flushBuffer() {}
    }
}
