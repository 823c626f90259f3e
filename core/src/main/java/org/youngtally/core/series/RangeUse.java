package org.youngtally.core.series;

import java.time.LocalDate;

/**
 * How far the lanes of a range have been used.
 *
 * @param positions the most positions that any of its lanes has given
 * @param latest the latest business date of any number given
 */
public record RangeUse(int range, long positions, LocalDate latest) {}
