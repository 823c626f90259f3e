package org.youngtally.ledger;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.temporal.ChronoUnit;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What the time is, and whether it has gone on as time does. It is held against a second clock that nobody sets: where
 * the two move apart, the clock has jumped, and holds do not lapse until it has gone steadily for a while.
 */
final class SteadyClock {
    private static final Logger LOG = LoggerFactory.getLogger(SteadyClock.class);
    /** How far the two may move apart between two looks. */
    static final Duration JUMP = Duration.ofSeconds(10);
    /** How long holds wait after a jump. */
    static final Duration WAIT = Duration.ofMinutes(1);

    private final InstantSource clock;
    private final LongSupplier nanos;
    private Instant newest = Instant.MIN;
    private Instant last;
    private long lastNanos;
    private long jumpedAt;
    private boolean jumped;
    private volatile String remark = "";

    /** @param nanos a clock that goes on steadily, in nanoseconds from any beginning */
    SteadyClock(InstantSource clock, LongSupplier nanos) {
        this.clock = clock;
        this.nanos = nanos;
        this.last = clock.instant();
        this.lastNanos = nanos.getAsLong();
    }

    /** The instant of the newest entry, which the clock should not lie before. */
    void wasAt(Instant entry) {
        newest = entry;
    }

    /** The time, to the microsecond. Entries keep their order whatever it says. */
    Instant now() {
        Instant now = clock.instant().truncatedTo(ChronoUnit.MICROS);
        long at = nanos.getAsLong();
        Duration apart = Duration.between(last, now).minusNanos(at - lastNanos).abs();
        if (apart.compareTo(JUMP) > 0) {
            Instant expected = last.plusNanos(at - lastNanos).truncatedTo(ChronoUnit.SECONDS);
            remark =
                    "the clock was set " + (now.isBefore(expected) ? "back" : "forward") + ", from " + expected + " to "
                            + now.truncatedTo(ChronoUnit.SECONDS) + ", while the service ran; entries keep their order";
            LOG.warn("{}, and holds do not lapse until it has gone steadily for {}", remark, WAIT);
            jumped = true;
            jumpedAt = at;
        }
        // A clock that is set back over and over creeps past the look above.
        if (now.isBefore(newest))
            LOG.warn("the clock says {}, which is before the newest entry's {}; entries keep their order", now, newest);
        newest = now;
        last = now;
        lastNanos = at;
        return now;
    }

    /** What people should know of how the clock went; empty where there is nothing. */
    String remark() {
        return remark;
    }

    boolean isSteady() {
        if (jumped && nanos.getAsLong() - jumpedAt >= WAIT.toNanos()) jumped = false;
        return !jumped;
    }
}
