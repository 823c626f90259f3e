package org.youngtally.core.guess;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.PatternException;
import org.youngtally.core.text.Comparison;

/**
 * What is left of the examples, as a count.
 *
 * @param pattern as it is written in the pattern
 * @param restarts the words with which it starts again
 * @param density the share of the numbers from the lowest to the highest of each lane that are there
 */
record Count(String pattern, long[] values, List<String> restarts, long first, long last, long step, double density) {
    private static final List<String> ALPHABETS = List.of("", " upper", " lower", " safe", " alphanumeric");
    private static final double ENOUGH = 0.99;
    private static final double OF_LETTERS = 0.05;
    /** Where a count without a width ends in the definition; whoever edits it knows better. */
    private static final long USUAL_LAST = 999_999;

    /** Every way to read the texts as a count; the pieces around it tell the lanes apart. */
    static List<Count> of(String[] left, List<Piece> around) {
        var found = new ArrayList<Count>();
        for (String alphabet : alphabets(left)) {
            for (String width : widths(left)) {
                String pattern = pattern(width, alphabet);
                // In digits that is the same as without a width.
                if (pattern.equals("{count 1 grow}")) continue;
                long[] values = values(pattern, left);
                if (values == null) continue;
                Count count = counted(pattern, values, around);
                // Words are no counts in letters.
                if (alphabet.isEmpty() || count.density() > OF_LETTERS) found.add(count);
            }
        }
        return found;
    }

    private static String pattern(String width, String alphabet) {
        return width.isEmpty()
                ? "{count" + alphabet + "}"
                : "{count " + width.replace(" grow", "") + alphabet + (width.endsWith("grow") ? " grow" : "") + "}";
    }

    private static List<String> alphabets(String[] left) {
        var symbols = new TreeSet<Character>();
        for (String each : left) for (char symbol : each.toCharArray()) symbols.add(symbol);
        // Digits alone are no letters that have not come yet.
        var all = new ArrayList<>(symbols.stream().allMatch(Character::isDigit) ? List.of("") : ALPHABETS);
        if (symbols.size() == 2) {
            all.add(" of " + symbols.first() + symbols.last());
            all.add(" of " + symbols.last() + symbols.first());
        }
        return all;
    }

    /** The widths that fit the lengths of the texts, the likeliest first. */
    private static List<String> widths(String[] left) {
        int shortest = Arrays.stream(left).mapToInt(String::length).min().orElse(0);
        int longest = Arrays.stream(left).mapToInt(String::length).max().orElse(0);
        if (shortest < longest) return List.of("", shortest + " grow");
        return shortest == 1 ? List.of("", "1") : List.of(Integer.toString(shortest), "");
    }

    private static long[] values(String pattern, String[] left) {
        CountField count;
        try {
            count = Pattern.parse(pattern).count();
        } catch (PatternException e) {
            return null;
        }
        var values = new long[left.length];
        for (int i = 0; i < left.length; i++) {
            OptionalLong value = left[i].isEmpty() ? OptionalLong.empty() : count.read(Comparison.FIRST.fold(left[i]));
            // Small letters for capitals are no other way to count.
            if (value.isEmpty() || !count.written(value.getAsLong()).equals(left[i])) return null;
            values[i] = value.getAsLong();
        }
        return values;
    }

    private static Count counted(String pattern, long[] values, List<Piece> around) {
        List<Piece> apart = around.stream()
                .filter(piece -> piece.restart().isPresent() && piece.varies())
                .toList();
        Map<String, Set<Long>> lanes = lanes(values, List.of());
        List<Piece> chosen = List.of();
        if (!isUnique(lanes, values)) {
            for (Piece piece : apart) {
                Map<String, Set<Long>> tried = lanes(values, List.of(piece));
                if (isUnique(tried, values)) {
                    lanes = tried;
                    chosen = List.of(piece);
                    break;
                }
            }
            if (chosen.isEmpty()) {
                lanes = lanes(values, apart);
                chosen = apart;
            }
        }
        long step = 0;
        long lowest = Long.MAX_VALUE;
        for (Set<Long> lane : lanes.values()) {
            long before = -1;
            for (long value : lane) {
                if (before >= 0) step = gcd(step, value - before);
                before = value;
                lowest = Math.min(lowest, value);
            }
        }
        step = Math.max(1, step);
        double room = 0;
        double there = 0;
        for (Set<Long> lane : lanes.values()) {
            var sorted = (TreeSet<Long>) lane;
            room += (sorted.last() - sorted.first()) / (double) step + 1;
            there += sorted.size();
        }
        long usual = lowest < USUAL_LAST ? USUAL_LAST : lowest + USUAL_LAST * step;
        long largest = Math.min(Pattern.parse(pattern).count().largest(), usual);
        return new Count(
                pattern,
                values,
                chosen.stream().map(piece -> piece.restart().orElseThrow()).toList(),
                lowest,
                lowest + (Math.max(lowest, largest) - lowest) / step * step,
                step,
                there / room);
    }

    private static Map<String, Set<Long>> lanes(long[] values, List<Piece> apart) {
        var lanes = new LinkedHashMap<String, Set<Long>>();
        for (int i = 0; i < values.length; i++) {
            var lane = new StringBuilder();
            for (Piece piece : apart) lane.append(piece.written()[i]).append('\0');
            lanes.computeIfAbsent(lane.toString(), name -> new TreeSet<>()).add(values[i]);
        }
        return lanes;
    }

    private static boolean isUnique(Map<String, Set<Long>> lanes, long[] values) {
        return lanes.values().stream().mapToInt(Set::size).sum() >= ENOUGH * values.length;
    }

    private static long gcd(long a, long b) {
        return b == 0 ? a : gcd(b, a % b);
    }

    /** How many different texts there are among them. */
    static int different(String[] left) {
        return new HashSet<>(Arrays.asList(left)).size();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Count count && count.pattern.equals(pattern) && Arrays.equals(count.values, values);
    }

    @Override
    public int hashCode() {
        return pattern.hashCode();
    }

    @Override
    public String toString() {
        return pattern;
    }
}
