package org.youngtally.service.access;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Counts wrong passwords, for each name by where they come from: a stranger who knows a name closes the door to
 * themselves, and not to whoever the name belongs to.
 *
 * <p>The fifth wrong password in a row for a name from a source closes the door between the two for a second, each
 * further one for twice as long, up to a quarter of an hour; a day without one, or the right password, begins anew.
 * Between a name and a source from which the right password came before, the door is never closed for longer than a
 * second. Whatever the names, a source has thirty wrong passwords at once, and one more every two seconds.
 *
 * <p>Names and sources are kept in tables of a fixed size, those last that were seen last.
 */
@Component
public final class SignInGate {
    private static final int FREE = 4;
    private static final Duration LONGEST = Duration.ofMinutes(15);
    private static final Duration SHORTEST = Duration.ofSeconds(1);
    private static final Duration FORGOTTEN = Duration.ofDays(1);
    private static final Duration REMEMBERED = Duration.ofDays(90);
    private static final int PLACES = 20_000;
    private static final int AT_ONCE = 30;
    private static final Duration EVERY = Duration.ofSeconds(2);

    /** A name as it was tried, and where it was tried from. */
    private record Door(String name, String source) {}

    private record Count(int failures, Instant last) {}

    private final Cache<Door, Count> counts = table(FORGOTTEN);
    private final Cache<Door, Boolean> right = table(REMEMBERED);
    /** When the last of the wrong passwords of a source will be forgiven. */
    private final Cache<String, Instant> sources = table(FORGOTTEN);

    private final InstantSource clock;

    private static <K, V> Cache<K, V> table(Duration kept) {
        return Caffeine.newBuilder()
                .maximumSize(PLACES)
                .expireAfterWrite(kept)
                .executor(Runnable::run)
                .build();
    }

    @Autowired
    SignInGate() {
        this(InstantSource.system());
    }

    SignInGate(InstantSource clock) {
        this.clock = clock;
    }

    /**
     * Before a password is looked at: it counts as wrong until {@link #right} is said, so that many tried at once are
     * counted too.
     *
     * @throws Problem where one has to wait
     */
    public void begin(String name, String source) {
        Instant now = clock.instant();
        Duration tooMany = throttled(source, now);
        if (tooMany.isPositive()) throw later("Too many wrong passwords from your address. Try again", tooMany);
        var door = new Door(name, source);
        Duration[] wait = {Duration.ZERO};
        counts.asMap().compute(door, (of, before) -> {
            Count count = before == null || before.last().plus(FORGOTTEN).isBefore(now) ? new Count(0, now) : before;
            Instant opens = opens(door, count);
            if (opens.isAfter(now)) {
                wait[0] = Duration.between(now, opens);
                return count;
            }
            return new Count(count.failures() + 1, now);
        });
        if (!wait[0].isPositive()) return;
        forgive(source);
        throw later("Too many wrong passwords for ‘" + name + "’. Try again", wait[0]);
    }

    private Instant opens(Door door, Count count) {
        if (count.failures() <= FREE) return count.last();
        Duration wait = Duration.ofSeconds(1L << Math.min(count.failures() - FREE - 1, 20));
        Duration longest = right.getIfPresent(door) == null ? LONGEST : SHORTEST;
        return count.last().plus(wait.compareTo(longest) > 0 ? longest : wait);
    }

    private Duration throttled(String source, Instant now) {
        Duration[] wait = {Duration.ZERO};
        sources.asMap().compute(source, (of, before) -> {
            Instant from = before == null || before.isBefore(now) ? now : before;
            Instant until = from.plus(EVERY);
            wait[0] = Duration.between(now.plus(EVERY.multipliedBy(AT_ONCE)), until);
            return wait[0].isPositive() ? from : until;
        });
        return wait[0];
    }

    private void forgive(String source) {
        sources.asMap().computeIfPresent(source, (of, until) -> until.minus(EVERY));
    }

    private static Problem later(String what, Duration wait) {
        long seconds = Math.max(1, wait.plusMillis(999).toSeconds());
        return new Problem(
                        Type.SIGN_IN_LATER,
                        what + " in "
                                + (seconds == 1
                                        ? "a second"
                                        : seconds < 120 ? seconds + " seconds" : (seconds + 59) / 60 + " minutes")
                                + ".")
                .field("password", "the right one, after that time")
                .with("retryAfter", seconds);
    }

    /** The password was the right one. */
    public void right(String name, String source) {
        var door = new Door(name, source);
        counts.invalidate(door);
        right.put(door, true);
        forgive(source);
    }
}
