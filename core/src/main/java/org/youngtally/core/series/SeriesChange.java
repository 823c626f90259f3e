package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.fault.Fault;

/**
 * What may change in a series that exists. Until its first number is given anything may; afterwards what the given
 * numbers rest on stays: every property that the list calls fixed, and of each used range its first, step and opening
 * date.
 */
public final class SeriesChange {
    private final Series from;
    private final Map<Integer, RangeUse> uses;
    private final List<Fault> faults = new ArrayList<>();

    private SeriesChange(Series from, List<RangeUse> uses) {
        this.from = from;
        this.uses = uses.stream().collect(Collectors.toMap(RangeUse::range, Function.identity()));
    }

    /**
     * The outcome.
     *
     * @param series the changed series with its new version and lasting range ids, or the old one where nothing
     *     differs; absent if there are faults
     */
    public record Result(Optional<Series> series, List<Fault> faults) {}

    public static Result of(Series from, Series to, List<RangeUse> uses) {
        return new SeriesChange(from, uses).check(to);
    }

    private Result check(Series to) {
        List<Range> ranges = matched(to);
        if (!uses.isEmpty()) fixedParts(to, ranges);
        if (!faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        // The names of months stay as they were when the series was defined, whatever this Java calls them.
        boolean samePattern = to.pattern().toString().equals(from.pattern().toString())
                && to.pattern().style().locale().equals(from.pattern().style().locale())
                && to.pattern().style().fiscalStart() == from.pattern().style().fiscalStart();
        Series changed = to.continued(
                samePattern ? from.pattern().comparedBy(to.comparison()) : to.pattern(), ranges, from.version());
        return new Result(
                Optional.of(changed.equals(from) ? from : changed.withVersion(from.version() + 1)), List.of());
    }

    private List<Range> matched(Series to) {
        int highest = from.ranges().stream().mapToInt(Range::id).max().orElse(0);
        var ranges = new ArrayList<Range>();
        for (Range range : to.ranges()) {
            Optional<Range> earlier =
                    from.ranges().stream().filter(range::continues).findFirst();
            ranges.add(range.withId(earlier.isPresent() ? earlier.get().id() : ++highest));
        }
        return ranges;
    }

    private void fixedParts(Series to, List<Range> ranges) {
        String instead = "keep it, and define a new series for numbers of another make";
        for (SeriesProperty<?> property : SeriesProperties.ALL) if (property.fixed()) same(property, to, instead);
        if (to.proofWaived() && !from.proofWaived())
            fixed(SeriesProperties.PROOF.name(), SeriesProperties.REQUIRED, instead);
        for (FieldRule rule : from.fields())
            if (!to.fields().contains(rule))
                fault(
                        "fields",
                        "the values of ‘" + rule.name() + "’ cannot change after the first number was issued",
                        instead);
        if (from.order().scatters() && !to.skips().equals(from.skips()))
            fault(
                    "skips",
                    "cannot change after the first number was issued: a scattered series cannot tell earlier numbers from later ones",
                    instead);
        for (RangeUse use : uses.values()) {
            Range earlier = from.range(use.range()).orElseThrow();
            int at = indexOf(use.range(), ranges);
            if (at < 0)
                fault(
                        "ranges",
                        "the range " + earlier + " has issued numbers, and can neither be removed nor start elsewhere",
                        "keep its first, step and opens; end it with closes, and add a new range");
            else shrinking(earlier, ranges.get(at), use, "ranges[" + at + "].");
        }
    }

    private static int indexOf(int id, List<Range> ranges) {
        for (int i = 0; i < ranges.size(); i++) if (ranges.get(i).id() == id) return i;
        return -1;
    }

    private void shrinking(Range earlier, Range range, RangeUse use, String prefix) {
        if (from.order().kind() != Order.Kind.IN_TURN && range.last() != earlier.last()) {
            fault(
                    prefix + "last",
                    "is fixed at " + earlier.last() + " after the first number was issued, because the series is "
                            + from.order().kind().word(),
                    "keep it, and add a new range from a date");
        } else if (from.order().positions(range) < use.positions()) {
            long lowest = range.first() + (use.positions() - 1) * range.step();
            fault(
                    prefix + "last",
                    range.last() + " lies before a number that was issued",
                    "enter " + lowest + (range.step() > 0 ? " or more" : " or less"));
        }
        if (range.serves().closes().isBefore(use.latest()))
            fault(
                    prefix + "closes",
                    range.serves().closes() + " lies before the date of a number that was issued",
                    "enter " + use.latest() + " or later");
    }

    private <T> void same(SeriesProperty<T> property, Series to, String accepted) {
        T was = property.of().apply(from);
        if (!Objects.equals(was, property.of().apply(to)))
            fixed(property.name(), property.property().written(was), accepted);
    }

    private void fixed(String path, String was, String accepted) {
        fault(path, "is fixed at ‘" + was + "’ after the first number was issued", accepted);
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }
}
