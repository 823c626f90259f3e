package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.text.Comparison;

/** Checks the values that a series is never to give. */
final class SkipCheck {
    private static final Pattern VALUES = Pattern.compile("([0-9]{1,18})(?: *- *([0-9]{1,18}))?");
    private static final int MOST = 200;
    private static final long LEAST_SHARE_SCATTERED = 10;

    private final List<Fault> faults = new ArrayList<>();

    private SkipCheck() {}

    record Result(Skips skips, List<Fault> faults) {}

    static Result of(SkipsDraft draft, Optional<CountField> count, Order order, List<Range> ranges) {
        if (draft == null) return new Result(Skips.NONE, List.of());
        var check = new SkipCheck();
        List<Skips.Run> values = check.values(draft.values() == null ? List.of() : draft.values());
        List<String> containing = count.map(
                        field -> check.containing(draft.containing() == null ? List.of() : draft.containing(), field))
                .orElse(List.of());
        var skips = new Skips(values, containing);
        if (!containing.isEmpty() && ranges.stream().anyMatch(range -> Math.abs(range.step()) > SkipCount.WIDEST_STEP))
            check.fault(
                    "skips.containing",
                    "cannot go with a step wider than " + SkipCount.WIDEST_STEP,
                    "list the values instead, or narrow the step");
        if (check.faults.isEmpty() && count.isPresent())
            for (Range range : ranges) check.left(skips, count.get(), order, range);
        return new Result(skips, check.faults);
    }

    private void left(Skips skips, CountField count, Order order, Range range) {
        long left = SkipCount.given(skips, count, range, range.first());
        if (left == 0) fault("skips", "nothing is left of the range " + range, "skip less, or widen the range");
        // What is skipped is met one by one where values come in no order.
        else if (order.scatters() && left < range.size() / LEAST_SHARE_SCATTERED)
            fault(
                    "skips",
                    "leave " + left + " of the " + range.size() + " values of the range " + range
                            + ", too few for a scattered series",
                    "skip less, or narrow the range");
    }

    private List<Skips.Run> values(List<String> texts) {
        if (texts.size() > MOST)
            fault(
                    "skips.values",
                    "are " + texts.size(),
                    "enter at most " + MOST + "; values in a row can be written as one, such as 4000-4999");
        var found = new ArrayList<Skips.Run>();
        for (int i = 0; i < texts.size(); i++) {
            Matcher matcher = VALUES.matcher(String.valueOf(texts.get(i)).strip());
            boolean shaped = matcher.matches();
            long from = shaped ? Long.parseLong(matcher.group(1)) : 0;
            long to = shaped && matcher.group(2) != null ? Long.parseLong(matcher.group(2)) : from;
            if (!shaped || to < from)
                fault(
                        "skips.values[" + i + "]",
                        "‘" + texts.get(i) + "’ is neither a value nor a row of them",
                        "write a whole number, such as 13, or the first and the last of a row, such as 4000-4999");
            else found.add(new Skips.Run(from, to));
        }
        return joined(found);
    }

    private static List<Skips.Run> joined(List<Skips.Run> stretches) {
        var joined = new ArrayList<Skips.Run>();
        for (Skips.Run stretch : stretches.stream()
                .sorted(Comparator.comparingLong(Skips.Run::from))
                .toList()) {
            if (!joined.isEmpty() && stretch.from() <= joined.getLast().to() + 1)
                joined.add(new Skips.Run(
                        joined.getLast().from(), Math.max(joined.removeLast().to(), stretch.to())));
            else joined.add(stretch);
        }
        return joined;
    }

    private List<String> containing(List<String> texts, CountField count) {
        if (texts.size() > MOST) fault("skips.containing", "are " + texts.size(), "enter at most " + MOST);
        var found = new ArrayList<String>();
        for (int i = 0; i < texts.size(); i++) {
            String folded = Comparison.FIRST.fold(String.valueOf(texts.get(i)).strip());
            if (folded.isEmpty()
                    || folded.chars()
                            .anyMatch(symbol -> count.alphabet().folded().indexOf(symbol) < 0))
                fault(
                        "skips.containing[" + i + "]",
                        "‘" + texts.get(i) + "’ can never occur in this count",
                        "write symbols of the count, which are "
                                + count.alphabet().symbols());
            else
                found.add(folded.chars()
                        .mapToObj(symbol -> String.valueOf(count.alphabet()
                                .symbols()
                                .charAt(count.alphabet().folded().indexOf(symbol))))
                        .collect(Collectors.joining()));
        }
        return found.stream().distinct().toList();
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }
}
