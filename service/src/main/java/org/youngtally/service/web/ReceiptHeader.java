package org.youngtally.service.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Collections;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.MediaType;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.http.server.ServerHttpRequest;
import org.springframework.http.server.ServerHttpResponse;
import org.springframework.http.server.ServletServerHttpRequest;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyAdvice;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.receipt.Receipt;
import org.youngtally.service.access.SignedInRequests;

/**
 * Answers carry the receipt of the ledger's newest entry in a header, for those who are signed in. Whoever keeps it may
 * send it with later requests: a ledger that lacks its entry knows then that it is not the newest.
 */
public final class ReceiptHeader {
    /** On answers one receipt; on requests one or more, with commas between them. */
    public static final String NAME = "Ledger-Receipt";
    /** On answers, while one disk alone has the newest numbers. */
    private static final String WARNING = "Ledger-Warning";
    /** So many are looked at in a request. */
    private static final int MOST = 8;

    private ReceiptHeader() {}

    /** Looks at what a request shows; for those who are signed in. */
    public static void show(Ledger ledger, HttpServletRequest request) {
        int looked = 0;
        for (String line : Collections.list(request.getHeaders(NAME)))
            for (String text : List.of(line.split(",", MOST + 1))) {
                if (looked++ == MOST) return;
                Receipt.of(text.strip()).ifPresent(ledger::show);
            }
    }

    /** Puts the receipt of the newest entry on an answer, and what everybody is to be warned of. */
    public static void put(Ledger ledger, HttpServletResponse response) {
        ledger.receipt().ifPresent(receipt -> response.setHeader(NAME, receipt.toString()));
        ledger.journalCopy()
                .flatMap(copy -> copy.disk().warning())
                .ifPresent(warning -> response.setHeader(WARNING, warning.replaceAll("[^ -~]", "?")));
    }

    /** Before the operation: what is shown is looked at, and an answer without a body has a receipt too. */
    @Configuration
    static class Before implements WebMvcConfigurer {
        private final Ledger ledger;

        Before(Ledger ledger) {
            this.ledger = ledger;
        }

        @Override
        public void addInterceptors(InterceptorRegistry registry) {
            registry.addInterceptor(new HandlerInterceptor() {
                        @Override
                        public boolean preHandle(
                                HttpServletRequest request, HttpServletResponse response, Object handler) {
                            if (!SignedInRequests.is(request)) return true;
                            show(ledger, request);
                            put(ledger, response);
                            return true;
                        }
                    })
                    .addPathPatterns("/api/v1/**");
        }
    }

    /** Before the body is written: the entry of the operation itself is on disk by now. */
    @ControllerAdvice
    static class Newest implements ResponseBodyAdvice<Object> {
        private final Ledger ledger;

        Newest(Ledger ledger) {
            this.ledger = ledger;
        }

        @Override
        public boolean supports(MethodParameter method, Class<? extends HttpMessageConverter<?>> converter) {
            return true;
        }

        @Override
        public Object beforeBodyWrite(
                Object body,
                MethodParameter method,
                MediaType type,
                Class<? extends HttpMessageConverter<?>> converter,
                ServerHttpRequest request,
                ServerHttpResponse response) {
            if (request instanceof ServletServerHttpRequest servlet && SignedInRequests.is(servlet.getServletRequest()))
                ledger.receipt().ifPresent(receipt -> response.getHeaders().set(NAME, receipt.toString()));
            return body;
        }
    }
}
