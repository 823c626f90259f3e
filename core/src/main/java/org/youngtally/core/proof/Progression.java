package org.youngtally.core.proof;

import static java.math.BigInteger.ONE;
import static java.math.BigInteger.ZERO;

import java.math.BigInteger;
import java.util.Optional;
import org.youngtally.core.series.Range;

/** The whole numbers low, low + step, … up to high; never empty, and high is one of them. The step is 1 or more. */
record Progression(BigInteger low, BigInteger step, BigInteger high) {

    static Progression of(Range range) {
        return new Progression(
                BigInteger.valueOf(Math.min(range.first(), range.last())),
                BigInteger.valueOf(Math.abs(range.step())),
                BigInteger.valueOf(Math.max(range.first(), range.last())));
    }

    /** The members from {@code from} to {@code to}, both included. */
    Optional<Progression> between(BigInteger from, BigInteger to) {
        BigInteger newLow = from.compareTo(low) <= 0
                ? low
                : low.add(ceilDivide(from.subtract(low), step).multiply(step));
        BigInteger top = to.min(high);
        if (top.compareTo(newLow) < 0) return Optional.empty();
        return Optional.of(
                new Progression(newLow, step, top.subtract(top.subtract(newLow).mod(step))));
    }

    /**
     * The whole numbers x with {@code offset + factor × x} in this progression; {@code factor} is 1 or more. A linear
     * congruence, solved by the modular inverse.
     */
    Optional<Progression> solve(BigInteger offset, BigInteger factor) {
        BigInteger common = factor.gcd(step);
        BigInteger target = low.subtract(offset);
        if (target.mod(common).signum() != 0) return Optional.empty();
        BigInteger newStep = step.divide(common);
        BigInteger rest = newStep.equals(ONE)
                ? ZERO
                : target.divide(common)
                        .multiply(factor.divide(common).modInverse(newStep))
                        .mod(newStep);
        BigInteger from = ceilDivide(low.subtract(offset), factor);
        BigInteger to = floorDivide(high.subtract(offset), factor);
        BigInteger newLow = from.add(rest.subtract(from).mod(newStep));
        if (to.compareTo(newLow) < 0) return Optional.empty();
        return Optional.of(
                new Progression(newLow, newStep, to.subtract(to.subtract(newLow).mod(newStep))));
    }

    /** The numbers that both hold: the Chinese remainder theorem for two moduli that need not be coprime. */
    Optional<Progression> and(Progression other) {
        return other.solve(low, step)
                .flatMap(times -> times.between(ZERO, high.subtract(low).divide(step)))
                .map(times -> new Progression(
                        low.add(step.multiply(times.low)),
                        step.multiply(times.step),
                        low.add(step.multiply(times.high))));
    }

    private static BigInteger floorDivide(BigInteger a, BigInteger b) {
        BigInteger[] parts = a.divideAndRemainder(b);
        return parts[1].signum() < 0 ? parts[0].subtract(ONE) : parts[0];
    }

    private static BigInteger ceilDivide(BigInteger a, BigInteger b) {
        return floorDivide(a.negate(), b).negate();
    }
}
