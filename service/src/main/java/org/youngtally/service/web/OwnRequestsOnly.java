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
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem.Type;
import tools.jackson.databind.ObjectMapper;

/**
 * Refuses requests whose Host or Origin is not the service's own, so that no web page from elsewhere can take a number, not even
 * by a name that it lets point to this machine.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class OwnRequestsOnly implements Filter {
    private static final Set<String> NAMES = Set.of("127.0.0.1", "localhost", "[::1]");

    private final ObjectMapper json;

    OwnRequestsOnly(ObjectMapper json) {
        this.json = json;
    }

    @Override
    public void doFilter(ServletRequest any, ServletResponse response, FilterChain chain) throws IOException, ServletException {
        var request = (HttpServletRequest) any;
        String host = request.getHeader("Host");
        String origin = request.getHeader("Origin");
        String port = ":" + request.getLocalPort();
        if (!isOwn(host, port)) refuse(response, "The Host ‘" + host + "’ is not this service.", "Host", "127.0.0.1" + port + " or localhost" + port);
        else if (origin != null && !(origin.startsWith("http://") && isOwn(origin.substring("http://".length()), port))) refuse(response, "A page from ‘" + origin + "’ may not use this service.", "Origin", "none, or http://" + host);
        else chain.doFilter(request, response);
    }

    private static boolean isOwn(String authority, String port) {
        return authority != null && authority.endsWith(port) && NAMES.contains(authority.substring(0, authority.length() - port.length()));
    }

    private void refuse(ServletResponse any, String detail, String field, String accepted) throws IOException {
        var response = (HttpServletResponse) any;
        var problem = new Problem(Type.FOREIGN_REQUEST, detail).field(field, accepted);
        response.setStatus(problem.status().value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.getOutputStream().write(json.writeValueAsBytes(problem.detail()));
    }
}
