package org.youngtally.core.guess;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Takes explained pieces off both ends of all examples, in every likely order, and reads what is left between them as a
 * count.
 */
final class Search {
    private static final int MOST_STEPS = 4_000;
    private static final int MOST_PIECES = 7;
    private static final int MOST_FOUND = 20;
    private static final double FOR_EACH_PIECE = 0.02;

    private final Ends ends;
    private final Map<String, Found> found = new LinkedHashMap<>();
    private int steps;

    /**
     * Pieces around a count that explain all examples.
     *
     * @param score how good the explanation is; higher is better
     */
    record Found(List<Piece> front, Count count, List<Piece> back, double score) {
        String pattern() {
            var pattern = new StringBuilder();
            front.forEach(piece -> pattern.append(piece.pattern()));
            pattern.append(count.pattern());
            back.forEach(piece -> pattern.append(piece.pattern()));
            return pattern.toString();
        }

        List<Piece> around() {
            var all = new ArrayList<>(front);
            all.addAll(back);
            return all;
        }
    }

    Search(Ends ends) {
        this.ends = ends;
    }

    /** The best explanations of the texts, the best first. */
    List<Found> of(String[] texts) {
        step(List.of(), List.of(), texts, true);
        return found.values().stream()
                .sorted(Comparator.comparingDouble(Found::score).reversed())
                .limit(MOST_FOUND)
                .toList();
    }

    private void step(List<Piece> front, List<Piece> back, String[] left, boolean inFront) {
        if (++steps > MOST_STEPS) return;
        finish(front, back, left);
        if (front.size() + back.size() >= MOST_PIECES) return;
        if (inFront) {
            var pieces = new ArrayList<>(ends.at(left, true));
            if (!front.isEmpty() && front.getLast().written()[0].equals("RF"))
                pieces.addAll(0, Checks.inFront(left, joined(back, left.length)));
            for (Piece piece : pieces) {
                // Two literals in a row are one.
                if (isLiteral(piece) && !front.isEmpty() && isLiteral(front.getLast())) continue;
                step(with(front, piece, true), back, without(left, piece, true), true);
            }
        }
        var pieces = new ArrayList<>(Checks.behind(joined(front, left.length), left));
        pieces.addAll(ends.at(left, false));
        for (Piece piece : pieces) {
            if (isLiteral(piece) && !back.isEmpty() && isLiteral(back.getFirst())) continue;
            step(front, with(back, piece, false), without(left, piece, false), false);
        }
    }

    private static boolean isLiteral(Piece piece) {
        return !piece.pattern().contains("{");
    }

    private static List<Piece> with(List<Piece> pieces, Piece piece, boolean behind) {
        var all = new ArrayList<>(pieces);
        all.add(behind ? all.size() : 0, piece);
        return all;
    }

    private static String[] without(String[] left, Piece piece, boolean front) {
        var rest = new String[left.length];
        for (int i = 0; i < left.length; i++) {
            int length = piece.written()[i].length();
            rest[i] = front ? left[i].substring(length) : left[i].substring(0, left[i].length() - length);
        }
        return rest;
    }

    private static String[] joined(List<Piece> pieces, int examples) {
        var joined = new String[examples];
        Arrays.fill(joined, "");
        for (Piece piece : pieces) for (int i = 0; i < examples; i++) joined[i] += piece.written()[i];
        return joined;
    }

    private void finish(List<Piece> front, List<Piece> back, String[] left) {
        for (String each : left) if (each.isEmpty()) return;
        var around = new ArrayList<>(front);
        around.addAll(back);
        for (Count count : Count.of(left, around)) {
            double score = count.density()
                    - FOR_EACH_PIECE * around.size()
                    - 0.03 * count.restarts().size();
            for (Piece piece : around) score += piece.credit();
            if (count.pattern().contains(" of ")) score -= 0.05;
            var one = new Found(front, count, back, score);
            found.merge(one.pattern(), one, (a, b) -> a.score() >= b.score() ? a : b);
        }
    }
}
