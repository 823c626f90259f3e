package org.youngtally.core.series;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.youngtally.core.pattern.Part.CountField;

/**
 * Counts the values between two bounds that are not skipped, without looking at each: texts to avoid make an automaton
 * (Aho and Corasick, 1975), and the ways through it are counted place by place, with the rest by the step.
 */
final class SkipCount {
    /** The widest step that rests are followed for where texts are avoided. */
    static final long WIDEST_STEP = 100;

    private final Skips skips;
    private final CountField count;
    private final long step;
    private final long rest;
    private final String alphabet;
    private final int lowest;
    /** By state and symbol; -1 where a text to avoid is complete. */
    private final List<int[]> moves = new ArrayList<>();
    /** By places left, state and rest so far. */
    private final Map<Integer, long[][]> ways = new HashMap<>();

    private SkipCount(Skips skips, CountField count, Range range) {
        this.skips = skips;
        this.count = count;
        this.step = Math.abs(range.step());
        this.rest = range.first() % step;
        this.alphabet = count.alphabet().symbols();
        this.lowest = count.countsWithoutNought() ? 1 : 0;
        if (!skips.containing().isEmpty()) automaton();
    }

    /** How many values of the range, from one of them to its last, are not skipped. */
    static long given(Skips skips, CountField count, Range range, long from) {
        var counting = new SkipCount(skips, count, range);
        long low = Math.min(from, range.last());
        long high = Math.max(from, range.last());
        long all = counting.between(low, high);
        for (Skips.Run stretch : skips.values())
            all -= counting.between(Math.max(low, stretch.from()), Math.min(high, stretch.to()));
        return all;
    }

    private long between(long low, long high) {
        return low > high ? 0 : upTo(high) - upTo(low - 1);
    }

    /** How many values of the step, from the least the count can write up to a bound, contain no text to avoid. */
    private long upTo(long bound) {
        if (skips.containing().isEmpty()) return bound < rest ? 0 : (bound - rest) / step + 1;
        if (bound < count.least()) return 0;
        String written = count.written(bound);
        long all = 0;
        for (int length = count.written(count.least()).length(); length < written.length(); length++)
            all += shorter(length);
        return all + along(written);
    }

    /** Every value that is written with fewer symbols than the bound. */
    private long shorter(int length) {
        long all = 0;
        for (int symbol = firstSymbol(length); symbol < alphabet.length(); symbol++)
            all += after(0, 0, symbol, length - 1);
        return all;
    }

    /** A number without padding does not begin with nought, but for nought itself. */
    private int firstSymbol(int length) {
        return lowest == 0 && length > Math.max(count.width(), 1) ? 1 : 0;
    }

    /** Every value as wide as the bound and not above it. */
    private long along(String bound) {
        long all = 0;
        int state = 0;
        int so = 0;
        for (int at = 0; at < bound.length(); at++) {
            int here = alphabet.indexOf(bound.charAt(at));
            for (int symbol = at == 0 ? firstSymbol(bound.length()) : 0; symbol < here; symbol++)
                all += after(state, so, symbol, bound.length() - at - 1);
            so = restAfter(so, here);
            state = moves.get(state)[here];
            if (state < 0) return all;
        }
        return so == rest ? all + 1 : all;
    }

    private int restAfter(int so, int symbol) {
        return (int) (((long) so * alphabet.length() + symbol + lowest) % step);
    }

    private long after(int state, int so, int symbol, int left) {
        int next = moves.get(state)[symbol];
        return next < 0 ? 0 : ways(left)[next][restAfter(so, symbol)];
    }

    private long[][] ways(int left) {
        long[][] known = ways.get(left);
        if (known != null) return known;
        long[][] fresh = new long[moves.size()][(int) step];
        if (left > 0) ways(left - 1);
        for (int state = 0; state < moves.size(); state++) {
            for (int so = 0; so < step; so++) {
                if (left == 0) fresh[state][so] = so == rest ? 1 : 0;
                else
                    for (int symbol = 0; symbol < alphabet.length(); symbol++)
                        fresh[state][so] += after(state, so, symbol, left - 1);
            }
        }
        ways.put(left, fresh);
        return fresh;
    }

    private void automaton() {
        List<Integer> fallback = new ArrayList<>(List.of(0));
        List<Boolean> complete = new ArrayList<>(List.of(false));
        moves.add(new int[alphabet.length()]);
        for (String text : skips.containing()) {
            int state = 0;
            for (char symbol : text.toCharArray()) {
                int at = alphabet.indexOf(symbol);
                if (moves.get(state)[at] == 0) {
                    moves.get(state)[at] = moves.size();
                    moves.add(new int[alphabet.length()]);
                    fallback.add(0);
                    complete.add(false);
                }
                state = moves.get(state)[at];
            }
            complete.set(state, true);
        }
        Deque<Integer> waiting = new ArrayDeque<>();
        for (int next : moves.getFirst()) if (next != 0) waiting.add(next);
        while (!waiting.isEmpty()) {
            int state = waiting.poll();
            int back = fallback.get(state);
            if (complete.get(back)) complete.set(state, true);
            for (int at = 0; at < alphabet.length(); at++) {
                int next = moves.get(state)[at];
                if (next == 0) {
                    moves.get(state)[at] = moves.get(back)[at];
                } else {
                    fallback.set(next, moves.get(back)[at]);
                    waiting.add(next);
                }
            }
        }
        for (int[] from : moves) for (int at = 0; at < from.length; at++) if (complete.get(from[at])) from[at] = -1;
    }
}
