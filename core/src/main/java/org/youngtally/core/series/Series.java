package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.Rendering;

/**
 * The rules by which one family of identifiers is made, in one version. A series that exists has been checked: every value of
 * every range fits the count. That its identifiers never clash is proved apart, by {@link org.youngtally.core.proof.ClashSearch}.
 *
 * @param restarts when the count starts again: each combination of their periods is a lane; empty for never
 * @param place what the place allows that the identifiers live in
 * @param version from 1, one more with each change
 */
public record Series(String key, String title, String namespace, Pattern pattern, List<Restart> restarts, Place place, List<Range> ranges, int version) {
    public Series {
        restarts = List.copyOf(restarts);
        ranges = List.copyOf(ranges);
    }

    /** The lane that a range counts in on a date. */
    public LaneKey lane(Range range, LocalDate date) {
        return new LaneKey(key, range.id(), restarts.stream().map(restart -> restart.period(date, pattern.style().fiscalStart())).collect(Collectors.joining(", ")));
    }

    /** The ranges that serve a date, in the order in which they are used. */
    public List<Range> serving(LocalDate date) {
        return ranges.stream().filter(range -> range.serves().includes(date)).toList();
    }

    public Optional<Range> range(int id) {
        return ranges.stream().filter(range -> range.id() == id).findFirst();
    }

    /** The identifier at a position of a range on a date. */
    public String render(Range range, LocalDate date, long position) {
        return pattern.render(date, range.valueAt(position));
    }

    /** The identifiers of a stretch of positions of a range on a date. */
    public List<String> render(Range range, LocalDate date, long from, long quantity) {
        Rendering rendering = pattern.on(date);
        var texts = new ArrayList<String>((int) quantity);
        for (long position = from; position < from + quantity; position++) texts.add(rendering.of(range.valueAt(position)));
        return texts;
    }

    public Series withVersion(int newVersion) {
        return new Series(key, title, namespace, pattern, restarts, place, ranges, newVersion);
    }
}
