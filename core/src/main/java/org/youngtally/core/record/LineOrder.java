package org.youngtally.core.record;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.record.KeptRecord.Line;

/**
 * Numbers the lines of a document: contiguous in their order, whatever was added, taken away or moved; or, once it is
 * fixed, each as it was, with holes.
 */
public final class LineOrder {
    private LineOrder() {}

    /**
     * A line as somebody wants it.
     *
     * @param number of the line that it was; absent for one that is new
     */
    public record Wanted(Optional<Integer> number, Map<String, String> values) {}

    /** What became of the lines. */
    public sealed interface Result {
        record Arranged(List<Line> lines) implements Result {}

        /**
         * @param index of the line that is wanted wrongly, from 0
         * @param twice whether its number stands there twice; else no line has it
         */
        record Faulty(int index, int number, boolean twice) implements Result {}
    }

    /**
     * @param before the record as it was; absent for a new one
     * @param step how far one number is from the next
     */
    public static Result arrange(Optional<KeptRecord> before, List<Wanted> wanted, int step) {
        var seen = new HashMap<Integer, Integer>();
        for (int i = 0; i < wanted.size(); i++) {
            Optional<Integer> number = wanted.get(i).number();
            if (number.isEmpty()) continue;
            boolean twice = seen.put(number.get(), i) != null;
            if (twice
                    || before.stream()
                            .flatMap(record -> record.lines().stream())
                            .noneMatch(line -> line.number() == number.get()))
                return new Result.Faulty(i, number.get(), twice);
        }
        var lines = new ArrayList<Line>();
        boolean fixed = before.map(KeptRecord::fixed).orElse(false);
        int last = fixed ? before.get().lastLine() : 0;
        for (Wanted each : wanted) {
            boolean stays = fixed && each.number().isPresent();
            if (!stays) last = next(last, step);
            lines.add(new Line(stays ? each.number().get() : last, each.values()));
        }
        if (fixed) lines.sort(Comparator.comparingInt(Line::number));
        return new Result.Arranged(lines);
    }

    /** The next multiple of the step. */
    private static int next(int last, int step) {
        return (last / step + 1) * step;
    }
}
