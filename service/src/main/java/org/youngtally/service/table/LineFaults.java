package org.youngtally.service.table;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.youngtally.service.web.Problem;

/** What is wrong with lines of a table, to be told all at once. */
public final class LineFaults {
    /** The most lines that are told. */
    private static final int MOST = 100;

    /**
     * @param line its line in the file, from 1
     * @param accepted what would be accepted
     */
    public record LineFault(int line, String problem, String accepted) {}

    private record Found(int line, Problem problem) {}

    private final List<Found> all = new ArrayList<>();

    public void add(int line, Problem problem) {
        all.add(new Found(line, problem));
    }

    public boolean isEmpty() {
        return all.isEmpty();
    }

    /** The first of them, with all others beside it. For at least one fault. */
    public Problem problem() {
        all.sort(Comparator.comparingInt(Found::line));
        Found first = all.getFirst();
        long others = all.size() - 1L;
        return new Problem(
                        first.problem().type(),
                        "Line " + first.line() + ": " + sentence(first.problem()) + " Nothing was allocated."
                                + (others == 0
                                        ? ""
                                        : others == 1
                                                ? " One more line has a fault."
                                                : " %,d more lines have faults.".formatted(others)))
                .with("line", first.line())
                .with(
                        "faults",
                        all.stream()
                                .limit(MOST)
                                .map(found -> new LineFault(
                                        found.line(),
                                        sentence(found.problem()).replaceFirst("\\.$", ""),
                                        found.problem().accepted().orElse("")))
                                .toList())
                .with("more", Math.max(0, all.size() - MOST))
                .with(first.problem());
    }

    private static String sentence(Problem problem) {
        return problem.getMessage().replace(" Nothing was allocated.", "").strip();
    }
}
