package org.youngtally.service.web;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.Writer;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.service.web.Problem.Type;

/** What no controller has answered is answered with a problem as well: by the container, and before any filter. */
@Configuration
class ContainerErrors {
    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> problemsOfTheContainer() {
        return factory -> factory.addContextCustomizers(
                context -> ((StandardHost) context.getParent()).setErrorReportValveClass(Report.class.getName()));
    }

    private static ProblemDetail problem(int status) {
        Type type = status == 404
                ? Type.UNKNOWN_PLACE
                : status == 405 ? Type.METHOD_NOT_SERVED : status >= 500 ? Type.INTERNAL : Type.MALFORMED;
        ProblemDetail detail = new Problem(
                        type,
                        type == Type.INTERNAL
                                ? "The service failed. Its log has details."
                                : "The request cannot be read, or its address was not found.")
                .detail();
        detail.setStatus(status);
        return detail;
    }

    /** Made by the container, by its name. */
    public static final class Report extends ErrorReportValve {
        @Override
        protected void report(Request request, Response response, Throwable throwable) {
            // How a body is coded that is not understood is the sender's matter.
            if (response.getStatus() == 501) response.setStatus(400);
            int status = response.getStatus();
            if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) return;
            ProblemDetail detail = problem(status);
            try {
                response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
                response.setCharacterEncoding("UTF-8");
                response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
                Writer writer = response.getReporter();
                if (writer == null) return;
                writer.write("{\"detail\":\"" + detail.getDetail() + "\",\"status\":" + status + ",\"title\":\""
                        + detail.getTitle() + "\",\"type\":\"" + detail.getType() + "\"}");
                response.finishResponse();
            } catch (IOException | IllegalStateException e) {
                // Nobody listens any more.
                container.getLogger().debug("an answer could not be sent", e);
            }
        }
    }

    /** Where the container leads what a filter has refused. */
    @RestController
    static final class Refused implements ErrorController {
        @RequestMapping("/error")
        ResponseEntity<ProblemDetail> refused(HttpServletRequest request) {
            Object status = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
            int code = status instanceof Integer known ? known : 404;
            return ResponseEntity.status(HttpStatusCode.valueOf(code))
                    .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(problem(code));
        }
    }
}
