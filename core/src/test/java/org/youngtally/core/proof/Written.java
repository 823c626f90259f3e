package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;

/** Every identifier of a small namespace written out: the answer that proofs are compared with. */
final class Written {
    private record Number(LaneKey lane, long position) {}

    private Written() {}

    /** The first text that two numbers share, looked for on every day. */
    static Optional<String> firstDouble(List<Series> namespace) {
        Map<String, Number> seen = new HashMap<>();
        for (Series series : namespace) {
            for (Range range : series.ranges()) {
                for (LocalDate date = range.serves().opens(); !date.isAfter(range.serves().closes()); date = date.plusDays(1)) {
                    for (long position = 0; position < range.size(); position++) {
                        String key = IdentifierKey.of(series.render(range, date, position));
                        Number earlier = seen.putIfAbsent(key, new Number(series.lane(range, date), position));
                        if (earlier != null && !earlier.equals(new Number(series.lane(range, date), position))) return Optional.of(key);
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** What one way of a clash really writes. */
    static String of(Clash.Way way, List<Series> namespace) {
        Series series = namespace.stream().filter(each -> each.key().equals(way.series())).findFirst().orElseThrow();
        Range range = series.range(way.range()).orElseThrow();
        assertThat(series.lane(range, way.date()).period()).isEqualTo(way.period());
        assertThat(range.valueAt(way.position())).isEqualTo(way.value());
        return IdentifierKey.of(series.render(range, way.date(), way.position()));
    }
}
