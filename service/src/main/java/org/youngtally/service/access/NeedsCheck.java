package org.youngtally.service.access;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.youngtally.core.access.Where;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Lets no operation of the interface begin without the right it needs. One that does not say what it needs is not
 * answered at all.
 */
public final class NeedsCheck implements HandlerInterceptor {
    private static final String OWN = "org.youngtally.";

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        if (!(handler instanceof HandlerMethod method)) return true;
        // What is not served is refused by whoever serves nothing else.
        if (!method.getBeanType().getName().startsWith(OWN)) return true;
        if (method.hasMethodAnnotation(OpenToAll.class)) return true;
        Needs needs = method.getMethodAnnotation(Needs.class);
        if (needs == null && !method.hasMethodAnnotation(SignedIn.class))
            throw new IllegalStateException(method + " does not say what it needs");
        Caller caller = Callers.of(request)
                .orElseThrow(() -> new Problem(Type.SIGN_IN_NEEDED, "Authentication required.")
                        .field("Authorization", "Bearer, a blank and a token; or the session of a signed-in person"));
        if (needs != null) check(needs, caller, () -> named(request));
        return true;
    }

    /**
     * @param named what the address names
     * @throws Problem where the caller has not the right
     */
    public static void check(Needs needs, Caller caller, Supplier<Where> named) {
        switch (needs.at()) {
            case ALL -> caller.need(needs.value()[0], Where.EVERYWHERE);
            case SOMEWHERE -> caller.needSomewhere(needs.value()[0]);
            // What the request names is looked at by the operation; without the right anywhere there is no need to.
            case SERIES, REQUEST -> {
                if (Arrays.stream(needs.value()).noneMatch(caller::maySomewhere))
                    caller.need(needs.value()[0], named.get());
            }
        }
    }

    /** What the address names. */
    @SuppressWarnings("unchecked")
    private static Where named(HttpServletRequest request) {
        var variables = (Map<String, String>) request.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
        return variables == null
                ? Where.EVERYWHERE
                : new Where(
                        Optional.ofNullable(variables.get("series")),
                        Optional.ofNullable(variables.get("kind")),
                        Optional.ofNullable(variables.get("unit")));
    }
}
