package org.youngtally.core.inspection;

import it.unimi.dsi.fastutil.objects.Object2ObjectOpenHashMap;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;

/**
 * Reads texts without a series: one run of digits in a text is the count, and all texts with the same symbols around it
 * are a lane. Which run it is follows from a sample: the one that has the most different values, and of two the last.
 */
final class ByShape implements Numbers {
    private static final int MOST_DIGITS = 18;
    /** Lanes that are kept apart: texts that hardly ever share their symbols are no numbers in lanes. */
    private static final int MOST_LANES = 20_000;

    private static final int FIRST_YEAR = 1950;
    private static final int LAST_YEAR = 2099;

    /** Which run of digits counts, from the end, by how many runs a text has. */
    private final Map<Integer, Integer> counts = new HashMap<>();

    private final Map<String, Lane> lanes = new Object2ObjectOpenHashMap<>();

    private record Run(int from, int to) {}

    ByShape(List<String> sample) {
        var values = new HashMap<Integer, List<Set<String>>>();
        for (String text : sample) {
            List<Run> runs = runs(text);
            List<Set<String>> seen = values.computeIfAbsent(runs.size(), n -> new ArrayList<>());
            while (seen.size() < runs.size()) seen.add(new HashSet<>());
            for (int i = 0; i < runs.size(); i++) {
                Run run = runs.get(runs.size() - 1 - i);
                seen.get(i).add(text.substring(run.from(), run.to()));
            }
        }
        values.forEach((size, seen) -> {
            int best = 0;
            for (int i = 1; i < seen.size(); i++)
                if (seen.get(i).size() > seen.get(best).size()) best = i;
            counts.put(size, best);
        });
    }

    private static List<Run> runs(String text) {
        var runs = new ArrayList<Run>(2);
        for (int at = 0; at < text.length(); at++) {
            if (!isDigit(text.charAt(at))) continue;
            int from = at;
            while (at < text.length() && isDigit(text.charAt(at))) at++;
            runs.add(new Run(from, at));
        }
        return runs;
    }

    private static boolean isDigit(char symbol) {
        return symbol >= '0' && symbol <= '9';
    }

    @Override
    public Number read(String text) {
        List<Run> runs = runs(text);
        if (runs.isEmpty()) return null;
        Run count = runs.get(runs.size() - 1 - counts.getOrDefault(runs.size(), 0));
        String digits = text.substring(count.from(), count.to());
        if (digits.length() > MOST_DIGITS) return null;
        String around = text.substring(0, count.from()) + '\0' + text.substring(count.to());
        Lane lane = lanes.get(around);
        if (lane == null) {
            if (lanes.size() >= MOST_LANES) return null;
            lane = new Frame(text.substring(0, count.from()), text.substring(count.to()), digits.length());
            lanes.put(around, lane);
        }
        return new Number(text, lane, Long.parseLong(digits), year(text, runs, count), Map.of(), Set.of());
    }

    private static OptionalInt year(String text, List<Run> runs, Run count) {
        for (Run run : runs) {
            if (run.equals(count) || run.to() - run.from() != 4) continue;
            int year = Integer.parseInt(text.substring(run.from(), run.to()));
            if (year >= FIRST_YEAR && year <= LAST_YEAR) return OptionalInt.of(year);
        }
        return OptionalInt.empty();
    }

    @Override
    public List<Candidate> nearest(String text) {
        return List.of();
    }

    /** The texts with some symbols before and behind the count, which is padded as in the first of them. */
    private record Frame(String before, String behind, int width) implements Lane {
        @Override
        public String name() {
            return before + "#".repeat(width) + behind;
        }

        @Override
        public String series() {
            return "";
        }

        @Override
        public int range() {
            return 0;
        }

        @Override
        public String written(long value) {
            String digits = Long.toString(value);
            return before + "0".repeat(Math.max(0, width - digits.length())) + digits + behind;
        }

        @Override
        public long missing(long low, long high) {
            return high - low - 1;
        }

        @Override
        public long next(long value) {
            return value + 1;
        }

        @Override
        public long previous(long value) {
            return value - 1;
        }
    }
}
