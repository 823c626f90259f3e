package org.youngtally.cli;

/** Instants as people read them. */
final class Moment {
    private Moment() {}

    /** An ISO 8601 instant to the second, in universal time: {@code 2026-03-02 09:00:07 UTC}. */
    static String of(String instant) {
        if (instant.length() < 19) return instant;
        return instant.substring(0, 10) + " " + instant.substring(11, 19) + " UTC";
    }
}
