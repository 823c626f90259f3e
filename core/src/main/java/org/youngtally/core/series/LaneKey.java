package org.youngtally.core.series;

/**
 * What tells one lane from all others.
 *
 * @param period the stretch of time the lane counts for, e.g. {@code 2026}; empty where the count never restarts
 */
public record LaneKey(String series, int range, String period) {}
