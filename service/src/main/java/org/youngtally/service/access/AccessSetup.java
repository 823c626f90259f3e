package org.youngtally.service.access;

import jakarta.servlet.Filter;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.core.Ordered;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.csrf.HttpSessionCsrfTokenRepository;
import org.springframework.security.web.header.HeaderWriterFilter;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.ProblemWriter;
import org.youngtally.service.web.Reach;

/**
 * Puts the parts of access into the road of a request: who asks, whether a browser's request comes from the console,
 * and what the operation needs.
 */
@Configuration
class AccessSetup implements WebMvcConfigurer {
    private static final String SIGN_IN = "/api/v1/session";
    private static final int FIRST = Ordered.HIGHEST_PRECEDENCE + 10;

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new NeedsCheck()).addPathPatterns("/api/v1/**");
    }

    /** An operation that wants to know who asks takes a {@link Caller}. */
    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new HandlerMethodArgumentResolver() {
            @Override
            public boolean supportsParameter(MethodParameter parameter) {
                return parameter.getParameterType() == Caller.class;
            }

            @Override
            public Object resolveArgument(
                    MethodParameter parameter,
                    ModelAndViewContainer container,
                    NativeWebRequest request,
                    WebDataBinderFactory binders) {
                return Callers.of(request.getNativeRequest(ServletRequest.class))
                        .orElseThrow(() ->
                                new IllegalStateException("an operation that is open to strangers asks who they are"));
            }
        });
    }

    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> connectionsAreShared(Reach reach) {
        return factory -> {
            factory.setProtocol(SharedConnections.class.getName());
            if (reach.behindProxy())
                factory.addConnectorCustomizers(
                        connector -> ((SharedConnections) connector.getProtocolHandler()).shareNothing());
        };
    }

    @Bean
    FilterRegistrationBean<HeaderWriterFilter> everyAnswer(SafeHeaders headers) {
        return first(new HeaderWriterFilter(headers.writers()), 0, "/*");
    }

    @Bean
    FilterRegistrationBean<Filter> whoAsks(Callers callers, ProblemWriter problems) {
        return first(
                (request, response, chain) -> {
                    try {
                        callers.find((HttpServletRequest) request);
                    } catch (Problem refused) {
                        problems.write(refused, (HttpServletResponse) response);
                        return;
                    }
                    chain.doFilter(request, response);
                },
                1,
                "/api/v1/*");
    }

    @Bean
    CsrfTokenRepository sessionSecrets() {
        return new HttpSessionCsrfTokenRepository();
    }

    /**
     * A browser sends a session's cookie with whatever a page makes it send; the session's secret only the console can
     * show.
     */
    @Bean
    FilterRegistrationBean<CsrfFilter> fromTheConsole(CsrfTokenRepository secrets, ProblemWriter problems) {
        var filter = new CsrfFilter(secrets);
        filter.setRequestHandler(new InHeaderOnly());
        // Who signs in begins a session of their own, whatever session the browser still shows.
        filter.setRequireCsrfProtectionMatcher(request -> CsrfFilter.DEFAULT_CSRF_MATCHER.matches(request)
                && Callers.of(request).filter(Caller::bySession).isPresent()
                && !(request.getMethod().equals("POST")
                        && request.getServletPath().equals(SIGN_IN)));
        filter.setAccessDeniedHandler((request, response, denied) -> problems.write(
                new Problem(Type.SESSION_FORGED, "The request has a session without its secret. Nothing was done.")
                        .field("X-CSRF-TOKEN", "the secret of the session; or a token instead of the session"),
                response));
        return first(filter, 2, "/api/v1/*");
    }

    /** An address is kept in histories and logs: a secret is not looked for in it. */
    private static final class InHeaderOnly extends CsrfTokenRequestAttributeHandler {
        @Override
        public String resolveCsrfTokenValue(HttpServletRequest request, CsrfToken secret) {
            return request.getHeader(secret.getHeaderName());
        }
    }

    private static <F extends Filter> FilterRegistrationBean<F> first(F filter, int place, String pattern) {
        var registration = new FilterRegistrationBean<>(filter);
        registration.setOrder(FIRST + place);
        registration.addUrlPatterns(pattern);
        return registration;
    }
}
