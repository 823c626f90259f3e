package org.youngtally.service.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import org.springframework.security.web.header.HeaderWriter;
import org.springframework.security.web.header.writers.ContentSecurityPolicyHeaderWriter;
import org.springframework.security.web.header.writers.HstsHeaderWriter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter;
import org.springframework.security.web.header.writers.XContentTypeOptionsHeaderWriter;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Reach;

/** What pages and answers tell a browser: nothing from elsewhere, and nowhere to be framed. */
@Component
public final class SafeHeaders {
    private static final String CONTENT =
            "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'";
    private static final long ONE_YEAR_SECONDS = 31_536_000;

    private final List<HeaderWriter> writers;

    SafeHeaders(Reach reach) {
        writers = List.of(
                new XContentTypeOptionsHeaderWriter(),
                new ContentSecurityPolicyHeaderWriter(CONTENT),
                new ReferrerPolicyHeaderWriter(ReferrerPolicyHeaderWriter.ReferrerPolicy.SAME_ORIGIN),
                strictTransport(reach));
    }

    /** Behind a proxy a browser came by HTTPS, whatever the proxy speaks to the service. */
    private static HstsHeaderWriter strictTransport(Reach reach) {
        var writer = new HstsHeaderWriter(ONE_YEAR_SECONDS, false);
        if (reach.behindProxy()) writer.setRequestMatcher(request -> true);
        return writer;
    }

    List<HeaderWriter> writers() {
        return writers;
    }

    public void write(HttpServletRequest request, HttpServletResponse response) {
        for (HeaderWriter writer : writers) writer.writeHeaders(request, response);
    }
}
