package org.youngtally.core.act;

/** Positions of a lane in a row, both ends included. */
public record Span(int lane, long from, long to) {
    public long quantity() {
        return to - from + 1;
    }
}
