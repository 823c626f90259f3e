package org.youngtally.core.label;

import java.util.Optional;

/**
 * Labels of a job in a row, with the numbers that they bear. All labels of a job stand in one row in the order in which
 * they are printed, the copies of one behind each other, and what is printed again behind all others; a label is known
 * by its place in it, from 0.
 *
 * @param from the place of the first
 * @param to the place of the last
 * @param original the place of the label that the first one is printed in the stead of; its own unless it is printed
 *     again
 * @param lane in which their numbers lie
 * @param position of the first one's number
 * @param each how many in a row bear the same number
 * @param offset how many of those that bear the first number are not among them, because they lie before
 * @param reprint whether they bear numbers that were printed before
 */
public record LabelPiece(
        long from, long to, long original, int lane, long position, long each, long offset, boolean reprint) {

    public long quantity() {
        return to - from + 1;
    }

    /** The position of the number at a place. */
    public long positionAt(long place) {
        return position + (offset + place - from) / each;
    }

    public long lastPosition() {
        return positionAt(to);
    }

    public long originalOf(long place) {
        return original + place - from;
    }

    /** The first place that bears the number at a position, which is that of one of its labels. */
    public long firstOf(long wanted) {
        return Math.max(from, from + (wanted - position) * each - offset);
    }

    /** The last place that bears it. */
    public long lastOf(long wanted) {
        return Math.min(to, from + (wanted - position + 1) * each - offset - 1);
    }

    public boolean bears(int inLane, long wanted) {
        return lane == inLane && position <= wanted && wanted <= lastPosition();
    }

    /** Some of its labels once more, from a place on. */
    public LabelPiece again(long first, long last, long place) {
        return new LabelPiece(
                place,
                place + last - first,
                originalOf(first),
                lane,
                positionAt(first),
                each,
                (offset + first - from) % each,
                true);
    }

    /** Both as one, where the other goes on as this one ends. */
    public Optional<LabelPiece> and(LabelPiece next) {
        boolean goesOn = next.from == to + 1
                && next.original == originalOf(to) + 1
                && next.lane == lane
                && next.each == each
                && next.reprint == reprint
                && next.position == positionAt(to + 1)
                && next.offset == (offset + to + 1 - from) % each;
        return goesOn
                ? Optional.of(new LabelPiece(from, next.to, original, lane, position, each, offset, reprint))
                : Optional.empty();
    }
}
