package org.youngtally.core.proof;

import static java.math.BigInteger.ONE;
import static java.math.BigInteger.TEN;
import static java.math.BigInteger.ZERO;

import java.math.BigInteger;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;

/**
 * Decides exactly whether two frames can make the same text of two different numbers. Both texts are laid over each
 * other at every pair of count lengths; where the two counts share symbols, those are a free number x, and each count
 * is {@code offset + factor × x}, so that the question becomes one of arithmetic progressions.
 */
final class FramePair {
    private final Frame one;
    private final Frame other;

    FramePair(Frame one, Frame other) {
        this.one = one;
        this.other = other;
    }

    Optional<Clash> clash() {
        Progression values = Progression.of(one.range());
        for (int length = shortest(one, values); length <= longest(one, values); length++) {
            Optional<Clash> found =
                    clash(length, one.front().length() + length + one.back().length());
            if (found.isPresent()) return found;
        }
        return Optional.empty();
    }

    private Optional<Clash> clash(int oneLength, int total) {
        int otherLength = total - other.front().length() - other.back().length();
        Progression otherValues = Progression.of(other.range());
        if (otherLength < shortest(other, otherValues) || otherLength > longest(other, otherValues))
            return Optional.empty();
        int start = Math.max(one.front().length(), other.front().length());
        int end = Math.max(
                start, Math.min(one.front().length() + oneLength, other.front().length() + otherLength));
        for (int at = 0; at < total; at++) {
            int a = symbol(one, oneLength, at);
            int b = symbol(other, otherLength, at);
            if (a >= 0 && b >= 0 && a != b) return Optional.empty();
        }
        Optional<Count> oneCount = count(one, oneLength, other, otherLength, start, end);
        Optional<Count> otherCount = count(other, otherLength, one, oneLength, start, end);
        if (oneCount.isEmpty() || otherCount.isEmpty()) return Optional.empty();
        return shared(one, oneLength, oneCount.get())
                .flatMap(x -> shared(other, otherLength, otherCount.get()).flatMap(x::and))
                .flatMap(x -> x.between(ZERO, TEN.pow(end - start).subtract(ONE)))
                .flatMap(x -> different(x, oneCount.get(), otherCount.get()));
    }

    /** A count as {@code offset + factor × x}, x being the number in the shared symbols. */
    private record Count(BigInteger offset, BigInteger factor) {
        BigInteger at(BigInteger x) {
            return offset.add(factor.multiply(x));
        }
    }

    /** The symbols of one count that the other frame fixes, or empty where one of them is not a digit. */
    private static Optional<Count> count(Frame frame, int length, Frame fixing, int fixingLength, int start, int end) {
        BigInteger offset = ZERO;
        for (int at = frame.front().length(); at < frame.front().length() + length; at++) {
            int digit = 0;
            if (at < start || at >= end) {
                digit = symbol(fixing, fixingLength, at) - '0';
                if (digit < 0 || digit > 9) return Optional.empty();
            }
            offset = offset.multiply(TEN).add(BigInteger.valueOf(digit));
        }
        return Optional.of(new Count(offset, TEN.pow(Math.max(0, frame.front().length() + length - end))));
    }

    private static Optional<Progression> shared(Frame frame, int length, Count count) {
        int width = frame.series().pattern().count().width();
        BigInteger least = width == 0 && length > 1 ? TEN.pow(length - 1) : ZERO;
        return Progression.of(frame.range())
                .between(least, TEN.pow(length).subtract(ONE))
                .flatMap(values -> values.solve(count.offset(), count.factor()));
    }

    /** The first shared number for which the two are not one and the same position of one lane. */
    private Optional<Clash> different(Progression x, Count oneCount, Count otherCount) {
        for (BigInteger candidate = x.low(); candidate.compareTo(x.high()) <= 0; candidate = candidate.add(x.step())) {
            long oneValue = oneCount.at(candidate).longValueExact();
            long otherValue = otherCount.at(candidate).longValueExact();
            if (!one.lane().equals(other.lane()) || oneValue != otherValue)
                return Optional.of(new Clash(
                        one.series().pattern().render(one.date(), oneValue),
                        way(one, oneValue),
                        way(other, otherValue)));
            // Two different straight lines meet once at most; only identical ones never part.
            if (oneCount.equals(otherCount)) return Optional.empty();
        }
        return Optional.empty();
    }

    private static Clash.Way way(Frame frame, long value) {
        return new Clash.Way(
                frame.series().key(),
                frame.range().id(),
                frame.range().toString(),
                frame.lane().period(),
                Particulars.on(frame.date()),
                frame.series().order().positionOf(frame.range(), frame.lane(), value),
                value);
    }

    /** The symbol that a frame fixes at a place of the text, or -1 inside its count. */
    private static int symbol(Frame frame, int length, int at) {
        int front = frame.front().length();
        if (at < front) return frame.front().charAt(at);
        return at < front + length ? -1 : frame.back().charAt(at - front - length);
    }

    private static int shortest(Frame frame, Progression values) {
        int width = frame.series().pattern().count().width();
        return width > 0 ? width : values.low().toString().length();
    }

    private static int longest(Frame frame, Progression values) {
        int width = frame.series().pattern().count().width();
        return width > 0 ? width : values.high().toString().length();
    }
}
