package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.Rendering;
import org.youngtally.core.property.Values;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.text.Comparison;

/**
 * The rules by which one family of identifiers is made, in one version. A series that exists has been checked: every
 * value of every range fits the count. That its identifiers never clash is proved apart, by
 * {@link org.youngtally.core.proof.Proof}.
 *
 * @param fields what it takes for the fields of the record, one that narrows another before that one
 * @param restarts when the count starts again
 * @param skips values that are never given
 * @param limits what the place allows that the identifiers live in
 * @param policy what may become of its numbers
 * @param proofWaived whether it may be used though it could not be proved that its identifiers never clash
 * @param retired whether it is out of use, and gives nothing
 * @param plain what it says besides, that nothing is computed from
 * @param version from 1, one more with each change
 */
public record Series(
        String key,
        String namespace,
        Pattern pattern,
        List<FieldRule> fields,
        Restarts restarts,
        Skips skips,
        Order order,
        IdentifierLimits limits,
        Policy policy,
        boolean proofWaived,
        boolean retired,
        List<Range> ranges,
        Values plain,
        int version) {
    public Series {
        fields = List.copyOf(fields);
        ranges = List.copyOf(ranges);
    }

    /**
     * As a draft says, in version 1.
     *
     * @param pattern and what follows: what the draft says in texts that are read elsewhere
     */
    public static Series of(
            SeriesDraft draft,
            Pattern pattern,
            List<FieldRule> fields,
            Restarts restarts,
            Skips skips,
            Order order,
            List<Range> ranges) {
        String title = draft.get(SeriesProperties.TITLE);
        Values plain = Values.NONE;
        for (SeriesProperty<String> property : SeriesProperties.PLAIN) {
            String text = draft.get(property);
            if (text != null && !text.isBlank()) plain = plain.with(property.property(), text.strip());
        }
        if (title == null || title.isBlank()) plain = plain.with(SeriesProperties.TITLE.property(), draft.key());
        return new Series(
                draft.key(),
                draft.namespace(),
                pattern,
                fields,
                restarts,
                skips,
                order,
                IdentifierLimits.of(draft),
                Policy.of(draft),
                SeriesProperties.WAIVED.equals(draft.get(SeriesProperties.PROOF)),
                Boolean.TRUE.equals(draft.get(SeriesProperties.RETIRED)),
                ranges,
                plain,
                1);
    }

    /** What people call it. */
    public String title() {
        return plain.get(SeriesProperties.TITLE.property());
    }

    /** The lane that a range counts in. */
    public LaneKey lane(Range range, Particulars particulars) {
        Stream<String> times = restarts.times().isEmpty() ? Stream.empty() : Stream.of(period(particulars.date()));
        Stream<String> texts = restarts.fields().stream().map(field -> field + " " + laneText(field, particulars));
        return new LaneKey(key, range.id(), Stream.concat(times, texts).collect(Collectors.joining(", ")));
    }

    /** The periods of time that the count starts again with; empty where it does with none. */
    public String period(LocalDate date) {
        return restarts.times().stream()
                .map(restart -> restart.period(date, pattern.style().fiscalStart()))
                .collect(Collectors.joining(", "));
    }

    /**
     * What a field writes in the identifier, in a form in which what is alike under any rule of comparison counts
     * together, so that lanes do not change with the rule.
     */
    private String laneText(String field, Particulars particulars) {
        return pattern.textFields().stream()
                .filter(part -> part.name().equals(field))
                .map(part -> Comparison.FIRST
                        .fold(part.written(particulars.fields().get(field)))
                        .toUpperCase(Locale.ROOT))
                .distinct()
                .collect(Collectors.joining(" "));
    }

    /** The ranges that serve a date, in the order in which they are used. */
    public List<Range> serving(LocalDate date) {
        return ranges.stream().filter(range -> range.serves().includes(date)).toList();
    }

    public Optional<Range> range(int id) {
        return ranges.stream().filter(range -> range.id() == id).findFirst();
    }

    public Optional<FieldRule> field(String name) {
        return fields.stream().filter(rule -> rule.name().equals(name)).findFirst();
    }

    /** Whether a number of it can be written when only the date is known. */
    public boolean restsOnDateAlone() {
        return fields.isEmpty();
    }

    /** How many positions a lane of the range has. */
    public long positions(Range range) {
        return order.positions(range);
    }

    /**
     * The last position of the stretch of skipped ones that begins with this one; the one before it where it is not
     * skipped.
     */
    public long skippedTo(Range range, LaneKey lane, long position) {
        if (skips.isNone()) return position - 1;
        long value = order.valueAt(range, lane, position);
        Optional<Skips.Run> around = skips.around(value, pattern.count());
        if (around.isEmpty()) return position - 1;
        if (order.scatters() || order.repeats()) return position;
        long steps = range.step() > 0
                ? (Math.min(around.get().to(), range.last()) - value) / range.step()
                : (Math.max(around.get().from(), range.last()) - value) / range.step();
        return position + steps;
    }

    /**
     * How many positions of a range, the first and the last included, have a value that is not skipped. For a series
     * that gives its values in turn.
     */
    public long unskipped(Range range, long first, long last) {
        if (skips.isNone()) return last - first + 1;
        long from = SkipCount.given(skips, pattern.count(), range, range.valueAt(first));
        return last + 1 >= range.size()
                ? from
                : from - SkipCount.given(skips, pattern.count(), range, range.valueAt(last + 1));
    }

    /** The identifier at a position of a range. */
    public String render(Range range, Particulars particulars, long position) {
        return pattern.render(particulars, order.valueAt(range, lane(range, particulars), position));
    }

    /** The identifiers of a stretch of positions of a range. */
    public List<String> render(Range range, Particulars particulars, long from, long quantity) {
        Rendering rendering = pattern.on(particulars);
        LaneKey lane = lane(range, particulars);
        var texts = new ArrayList<String>((int) quantity);
        for (long position = from; position < from + quantity; position++)
            texts.add(rendering.of(order.valueAt(range, lane, position)));
        return texts;
    }

    /** The codebooks that its fields take their choices from. */
    public Set<String> codebooks() {
        return fields.stream()
                .flatMap(rule -> rule.codebook().stream())
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** How its identifiers are compared: as its namespace says. */
    public Comparison comparison() {
        return pattern.comparison();
    }

    public Series comparedBy(Comparison rule) {
        return with(pattern.comparedBy(rule), order, retired, ranges, version);
    }

    public Series withVersion(int newVersion) {
        return with(pattern, order, retired, ranges, newVersion);
    }

    Series withRetired(boolean nowRetired) {
        return with(pattern, order, nowRetired, ranges, version);
    }

    /** With the secret by which its positions are spread. */
    public Series withScatter(Scatter scatter) {
        return with(pattern, new Order(order.kind(), Optional.of(scatter)), retired, ranges, version);
    }

    /** The same rules in another edition of the pattern, with the ranges under their lasting ids. */
    Series continued(Pattern newPattern, List<Range> newRanges, int newVersion) {
        return with(newPattern, order, retired, newRanges, newVersion);
    }

    private Series with(
            Pattern otherPattern, Order otherOrder, boolean isRetired, List<Range> otherRanges, int otherVersion) {
        return new Series(
                key,
                namespace,
                otherPattern,
                fields,
                restarts,
                skips,
                otherOrder,
                limits,
                policy,
                proofWaived,
                isRetired,
                otherRanges,
                plain,
                otherVersion);
    }
}
