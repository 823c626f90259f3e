package org.youngtally.core.proof;

import org.youngtally.core.pattern.Particulars;

/**
 * Two different numbers that would be written alike.
 *
 * @param text the identifier as the first of the two renders it; the second differs in case at most
 */
public record Clash(String text, Way one, Way other) {

    /** One way in which the identifier would arise. */
    public record Way(
            String series,
            int range,
            String rangeText,
            String period,
            Particulars particulars,
            long position,
            long value) {}
}
