package org.youngtally.core.proof;

import java.time.LocalDate;

/**
 * Two different numbers that would be written alike.
 *
 * @param text the identifier as the first of the two renders it; the second differs in case at most
 */
public record Clash(String text, Way one, Way other) {

    /** One way in which the identifier would arise. */
    public record Way(String series, int range, String rangeText, String period, LocalDate date, long position, long value) {}
}
