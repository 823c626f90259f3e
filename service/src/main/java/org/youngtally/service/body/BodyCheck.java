package org.youngtally.service.body;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.util.WebUtils;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Callers;
import org.youngtally.service.access.Source;
import org.youngtally.service.web.BodyRefused;
import org.youngtally.service.web.CountedBody;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Reach;

/**
 * Lets no body be read that is longer than its operation takes, of another type, or for which there is no memory. It
 * stands behind the choice of the operation, so that there is no address that it does not know, and behind the rights
 * that the operation needs.
 */
@Component
final class BodyCheck implements HandlerInterceptor {
    /** Bytes of a body that no operation speaks of. */
    static final long USUAL = 64_000;
    /** Bytes of whoever is not signed in. */
    static final long OF_STRANGERS = 4_000;

    private static final String HELD = BodyCheck.class.getName();

    private final BodyMemory memory;
    private final Reach reach;

    BodyCheck(BodyMemory memory, Reach reach) {
        this.memory = memory;
        this.reach = reach;
    }

    private record Held(String who, long bytes) {}

    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        CountedBody counted = WebUtils.getNativeRequest(request, CountedBody.class);
        long length = request.getContentLengthLong();
        if (!(handler instanceof HandlerMethod method) || length <= 0 && counted == null) return true;
        Takes takes = method.getMethodAnnotation(Takes.class);
        Optional<String> caller = Callers.of(request).map(Caller::name);
        long most = caller.isEmpty() ? OF_STRANGERS : takes == null ? USUAL : takes.value();
        if (length > most) {
            // What is not read is not waited for either.
            response.setHeader(HttpHeaders.CONNECTION, "close");
            throw tooLarge(most);
        }
        String type = request.getContentType();
        if ((takes == null || !takes.file()) && !isJson(type))
            throw new Problem(
                            Type.MEDIA_TYPE,
                            type == null
                                    ? "The body has no Content-Type."
                                    : "A body of the type ‘" + type + "’ is not accepted.")
                    .field(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_JSON_VALUE);
        boolean toDisk = takes != null && takes.toDisk();
        String who = caller.map(name -> "account " + name).orElseGet(() -> "source " + Source.of(request, reach));
        if (counted != null)
            counted.allow(all -> {
                if (all > most) throw new BodyRefused(tooLarge(most));
                if (!toDisk && !hold(request, who, all)) throw new BodyRefused(noRoom());
            });
        else if (!toDisk && !hold(request, who, length)) {
            response.setHeader(HttpHeaders.CONNECTION, "close");
            throw noRoom();
        }
        return true;
    }

    /** @param all what is held once there is room for it, with what was before */
    private boolean hold(HttpServletRequest request, String who, long all) {
        long before = request.getAttribute(HELD) instanceof Held held ? held.bytes() : 0;
        if (!memory.take(who, all - before)) return false;
        request.setAttribute(HELD, new Held(who, all));
        return true;
    }

    @Override
    public void afterCompletion(HttpServletRequest request, HttpServletResponse response, Object handler, Exception e) {
        if (request.getAttribute(HELD) instanceof Held held) memory.giveBack(held.who(), held.bytes());
    }

    private static Problem tooLarge(long most) {
        return new Problem(Type.TOO_LARGE, "The body has more than %,d bytes.".formatted(most))
                .field("body", "up to %,d bytes".formatted(most));
    }

    private static Problem noRoom() {
        return new Problem(Type.SHARE_TAKEN, "Too many large requests at once. Nothing was done.")
                .with("retryAfter", 1L);
    }

    private static boolean isJson(String type) {
        if (type == null) return false;
        String bare = type.split(";", 2)[0].strip().toLowerCase(Locale.ROOT);
        return bare.equals(MediaType.APPLICATION_JSON_VALUE);
    }
}
