package org.youngtally.core.label;

/**
 * Labels of a job in a row with which it is the same.
 *
 * @param from the place of the first, from 0
 * @param to the place of the last
 */
public record LabelStretch(long from, long to, LabelState state) {
    public long quantity() {
        return to - from + 1;
    }
}
