package org.youngtally.service.web;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.boot.webmvc.autoconfigure.WebMvcRegistrations;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.servlet.mvc.method.RequestMappingInfo;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;

/**
 * Finds the operation of a request sooner. A path with a variable in it would be matched against every operation there
 * is, which took a tenth of the time of a number; here operations are looked up by the last word of their paths, and
 * only those that share it are matched. Where none of them is meant, or the path ends with a variable, all are matched
 * as before.
 */
@Configuration
class QuickMapping implements WebMvcRegistrations {

    @Override
    public RequestMappingHandlerMapping getRequestMappingHandlerMapping() {
        return new ByEnding();
    }

    private static final class ByEnding extends RequestMappingHandlerMapping {
        /** Under what an operation is looked up. */
        @Override
        protected Set<String> getDirectPaths(RequestMappingInfo operation) {
            return operation.getPatternValues().stream()
                    .map(ByEnding::ending)
                    .filter(ending -> ending.matches("/[a-z-]+"))
                    .collect(Collectors.toSet());
        }

        /** What a request looks up. */
        @Override
        protected String initLookupPath(HttpServletRequest request) {
            return ending(super.initLookupPath(request));
        }

        private static String ending(String path) {
            return path.substring(Math.max(0, path.lastIndexOf('/')));
        }
    }
}
