package org.youngtally.core.proof;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.youngtally.core.series.Series;

/**
 * Proves that no two numbers of a namespace are ever written alike, or finds two that are. The answer is exact for
 * patterns of literal text, dates and a decimal count: every frame of every day is looked at, and every pair that fits
 * is decided.
 */
public final class ClashSearch {
    private record Ends(String front, String back) {}

    private final Budget budget;
    private final List<Frame> frames;
    private final SortedSet<Integer> frontLengths;
    private final SortedSet<Integer> backLengths;
    private final Map<Ends, List<Frame>> byEnds = new HashMap<>();
    private final Map<Ends, List<Frame>> byFrontAndShorterBack = new HashMap<>();

    private ClashSearch(List<Frame> frames, Budget budget) {
        this.budget = budget;
        this.frames = frames.stream()
                .sorted(Comparator.comparingInt(frame -> frame.front().length()))
                .toList();
        frontLengths = frames.stream().map(f -> f.front().length()).collect(Collectors.toCollection(TreeSet::new));
        backLengths = frames.stream().map(f -> f.back().length()).collect(Collectors.toCollection(TreeSet::new));
    }

    /** The first clash among the series of one namespace, if there is any. */
    public static Optional<Clash> in(List<Series> namespace) {
        return in(namespace, new Budget(Budget.USUAL));
    }

    static Optional<Clash> in(List<Series> namespace, Budget budget) {
        return new ClashSearch(
                        namespace.stream()
                                .flatMap(series -> Frame.of(series, budget).stream())
                                .toList(),
                        budget)
                .search();
    }

    /**
     * Two texts can only be alike where one front starts the other and one back ends the other. Frames are taken by
     * growing front, and each is compared with those before it that fit so, found by look-up: the work grows with the
     * number of frames and not with its square.
     */
    private Optional<Clash> search() {
        for (Frame frame : frames) {
            for (Frame earlier : fitting(frame)) {
                budget.spend(Budget.COMPARED);
                Optional<Clash> clash = new FramePair(earlier, frame).clash();
                if (clash.isPresent()) return clash;
            }
            remember(frame);
        }
        return Optional.empty();
    }

    private List<Frame> fitting(Frame frame) {
        var found = new ArrayList<Frame>();
        String front = frame.front();
        String back = frame.back();
        for (int f : frontLengths.headSet(front.length() + 1)) {
            String frontStart = front.substring(0, f);
            for (int b : backLengths.headSet(back.length() + 1))
                found.addAll(byEnds.getOrDefault(new Ends(frontStart, back.substring(back.length() - b)), List.of()));
            found.addAll(byFrontAndShorterBack.getOrDefault(new Ends(frontStart, back), List.of()));
        }
        return found;
    }

    private void remember(Frame frame) {
        byEnds.computeIfAbsent(new Ends(frame.front(), frame.back()), ends -> new ArrayList<>())
                .add(frame);
        for (int b : backLengths.headSet(frame.back().length())) {
            budget.spend(Budget.KEPT);
            String end = frame.back().substring(frame.back().length() - b);
            byFrontAndShorterBack
                    .computeIfAbsent(new Ends(frame.front(), end), ends -> new ArrayList<>())
                    .add(frame);
        }
    }
}
