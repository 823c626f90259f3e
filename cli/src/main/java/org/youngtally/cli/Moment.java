package org.youngtally.cli;

import java.time.Duration;

/** Instants as people read them. */
final class Moment {
    private Moment() {}

    /** An ISO 8601 instant to the second, in universal time: {@code 2026-03-02 09:00:07 UTC}. */
    static String of(String instant) {
        if (instant.length() < 19) return instant;
        return instant.substring(0, 10) + " " + instant.substring(11, 19) + " UTC";
    }

    /** A duration to its largest two units: {@code 3 d 4 h}. */
    static String age(Duration age) {
        if (age.toDays() > 0) return age.toDays() + " d " + age.toHoursPart() + " h";
        return age.toHours() > 0 ? age.toHours() + " h " + age.toMinutesPart() + " min" : age.toMinutes() + " min";
    }
}
