package org.youngtally.service.restore;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Finds in a list of numbers, as they are in use outside, the highest of each lane. */
public final class HighestNumbers {
    private static final int MOST_NAMED = 10;

    private final Map<LaneKey, Act.HighestIn> lanes = new LinkedHashMap<>();
    private final List<String> unreadable = new ArrayList<>();

    /** @param today decides between dates that are written alike */
    public HighestNumbers(Series series, Fields fields, LocalDate today, List<String> numbers) {
        var reader = new SeriesReader(series, fields, today);
        for (String number : numbers) {
            Optional<Located> found = reader.read(number).stream()
                    .filter(each -> each.place().range().isPresent() && each.position() >= 0)
                    .findFirst();
            if (found.isEmpty()) {
                if (unreadable.size() < MOST_NAMED) unreadable.add(number);
                continue;
            }
            Particulars particulars = dated(series, found.get(), today);
            LaneKey lane = new LaneKey(
                    series.key(),
                    found.get().place().range().orElseThrow().id(),
                    found.get().place().lane());
            lanes.merge(
                    lane,
                    new Act.HighestIn(lane, particulars, found.get().position()),
                    (one, other) -> one.highest() >= other.highest() ? one : other);
        }
    }

    /**
     * Where it reads the same today, it is dated today: the day that its text alone tells may be in a closed period.
     */
    private static Particulars dated(Series series, Located found, LocalDate today) {
        Particulars read = found.place().particulars();
        Range range = found.place().range().orElseThrow();
        var now = new Particulars(today, read.fields());
        boolean same = range.serves().includes(today)
                && series.lane(range, now).equals(series.lane(range, read))
                && series.render(range, now, found.position()).equals(series.render(range, read, found.position()));
        return same ? now : read;
    }

    public List<Act.HighestIn> lanes() {
        return List.copyOf(lanes.values());
    }

    public boolean has(LaneKey lane) {
        return lanes.containsKey(lane);
    }

    /** The first of those that are no numbers of the series. */
    public List<String> unreadable() {
        return unreadable;
    }
}
