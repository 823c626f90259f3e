package org.youngtally.core.proof;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.series.Range;

/**
 * The values of a range that are written with one number of symbols. A state is how many symbols were read, whether
 * they are still those of the least and of the greatest value, and the rest of what they stand for by the step.
 */
final class CountLanguage implements PartLanguage {
    /** Steps beyond this are not followed: the automaton would grow with them. */
    private static final long LARGEST_STEP = 4_096;

    private final String alphabet;
    private final int lowest;
    private final String least;
    private final String greatest;
    private final int step;
    private final int rest;
    private final boolean wider;

    private CountLanguage(CountField count, Range range, String least, String greatest) {
        this.alphabet = count.alphabet().folded();
        this.lowest = count.countsWithoutNought() ? 1 : 0;
        this.least = least;
        this.greatest = greatest;
        this.wider = Math.abs(range.step()) > LARGEST_STEP;
        this.step = wider ? 1 : (int) Math.abs(range.step());
        this.rest = (int) (range.first() % step);
    }

    /** One language for each number of symbols that the range's values take. */
    static List<CountLanguage> of(CountField count, Range range) {
        long low = Math.min(range.first(), range.last());
        long high = Math.max(range.first(), range.last());
        var languages = new ArrayList<CountLanguage>();
        for (int length = count.written(low).length();
                length <= count.written(high).length();
                length++) {
            long least = Math.max(low, shortest(count, length));
            long greatest = Math.min(high, shortest(count, length + 1) - 1);
            if (least <= greatest)
                languages.add(new CountLanguage(count, range, count.folded(least), count.folded(greatest)));
        }
        return languages;
    }

    /** The least value that takes so many symbols. */
    private static long shortest(CountField count, int length) {
        if (length <= Math.max(count.width(), 1)) return count.least();
        BigInteger base = BigInteger.valueOf(count.alphabet().size());
        BigInteger value = count.countsWithoutNought()
                ? base.pow(length).subtract(BigInteger.ONE).divide(base.subtract(BigInteger.ONE))
                : base.pow(length - 1);
        return value.min(BigInteger.valueOf(Long.MAX_VALUE)).longValueExact();
    }

    private int state(int read, boolean onLeast, boolean onGreatest, int value) {
        return ((read * 2 + (onLeast ? 1 : 0)) * 2 + (onGreatest ? 1 : 0)) * step + value;
    }

    // The first state, 0, stands for the true one, which is tight at both ends.
    private int read(int state) {
        return state / (4 * step);
    }

    private boolean onLeast(int state) {
        return state == 0 || state / (2 * step) % 2 == 1;
    }

    private boolean onGreatest(int state) {
        return state == 0 || state / step % 2 == 1;
    }

    @Override
    public String symbols(int state) {
        int read = read(state);
        if (read == least.length()) return "";
        int from = onLeast(state) ? alphabet.indexOf(least.charAt(read)) : 0;
        int to = onGreatest(state) ? alphabet.indexOf(greatest.charAt(read)) : alphabet.length() - 1;
        return from > to ? "" : alphabet.substring(from, to + 1);
    }

    @Override
    public int step(int state, char symbol) {
        if (symbols(state).indexOf(symbol) < 0) return NOWHERE;
        int read = read(state);
        int value = (int) (((long) (state % step) * alphabet.length() + alphabet.indexOf(symbol) + lowest) % step);
        return state(
                read + 1,
                onLeast(state) && symbol == least.charAt(read),
                onGreatest(state) && symbol == greatest.charAt(read),
                value);
    }

    @Override
    public boolean accepts(int state) {
        return read(state) == least.length() && state % step == rest;
    }

    @Override
    public boolean isWider() {
        return wider;
    }
}
