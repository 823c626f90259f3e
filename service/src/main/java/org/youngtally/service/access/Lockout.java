package org.youngtally.service.access;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.concurrent.atomic.AtomicReferenceArray;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Counts wrong passwords. The fifth one in a row closes the account's door for a second, each further one for twice as
 * long, up to a quarter of an hour; a day without one, or the right password, begins anew. Names are counted in a fixed
 * number of places, so that names made up by a stranger take no memory; who shares a place with one waits as well.
 */
@Component
public final class Lockout {
    private static final int FREE = 4;
    private static final Duration LONGEST = Duration.ofMinutes(15);
    private static final Duration FORGOTTEN = Duration.ofDays(1);
    private static final int PLACES = 4096;

    private final AtomicReferenceArray<Count> counts = new AtomicReferenceArray<>(PLACES);
    private final InstantSource clock;

    private record Count(int failures, Instant last) {
        Instant opens() {
            if (failures <= FREE) return last;
            Duration wait = Duration.ofSeconds(1L << Math.min(failures - FREE - 1, 20));
            return last.plus(wait.compareTo(LONGEST) > 0 ? LONGEST : wait);
        }
    }

    @Autowired
    Lockout() {
        this(InstantSource.system());
    }

    Lockout(InstantSource clock) {
        this.clock = clock;
    }

    /**
     * Before a password is looked at: it counts as wrong until {@link #right} is said, so that many tried at once are
     * counted too.
     *
     * @throws Problem where one has to wait
     */
    public void begin(String name) {
        Instant now = clock.instant();
        Count before = counts.getAndUpdate(
                place(name),
                count -> count == null || count.last().plus(FORGOTTEN).isBefore(now)
                        ? new Count(1, now)
                        : count.opens().isAfter(now) ? count : new Count(count.failures() + 1, now));
        if (before == null || !before.opens().isAfter(now) || before.failures() <= FREE) return;
        long seconds = Math.max(
                1, Duration.between(now, before.opens()).plusMillis(999).toSeconds());
        throw new Problem(
                        Type.SIGN_IN_LATER,
                        "After too many wrong passwords, ‘" + name + "’ can be tried again in "
                                + (seconds == 1
                                        ? "a second"
                                        : seconds < 120 ? seconds + " seconds" : (seconds + 59) / 60 + " minutes")
                                + ".")
                .field("password", "the right one, after that time")
                .with("retryAfter", seconds);
    }

    /** The password was the right one. */
    public void right(String name) {
        counts.set(place(name), null);
    }

    private static int place(String name) {
        return Math.floorMod(name.hashCode() * 31, PLACES);
    }
}
