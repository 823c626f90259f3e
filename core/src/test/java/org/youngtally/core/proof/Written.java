package org.youngtally.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/** Every identifier of a small namespace written out: the answer that proofs are compared with. */
final class Written {
    private record Number(LaneKey lane, long position) {}

    private Written() {}

    /** The first text that two numbers share, looked for on every day. */
    static Optional<String> firstDouble(List<Fields> namespace) {
        Map<String, Number> seen = new HashMap<>();
        for (Fields fields : namespace) {
            Series series = fields.series();
            List<Map<String, String>> given = given(fields);
            for (Range range : series.ranges()) {
                for (LocalDate date = range.serves().opens();
                        !date.isAfter(range.serves().closes());
                        date = date.plusDays(1)) {
                    for (Map<String, String> each : given) {
                        Optional<String> twice = lane(series, range, new Particulars(date, each), seen);
                        if (twice.isPresent()) return twice;
                    }
                }
            }
        }
        return Optional.empty();
    }

    private static Optional<String> lane(
            Series series, Range range, Particulars particulars, Map<String, Number> seen) {
        LaneKey lane = series.lane(range, particulars);
        for (long position = 0; position < range.size(); position++) {
            if (series.skippedTo(range, lane, position) >= position) continue;
            String key = Comparison.FIRST.key(series.render(range, particulars, position));
            var number = new Number(lane, position);
            Number earlier = seen.putIfAbsent(key, number);
            if (earlier != null && !earlier.equals(number)) return Optional.of(key);
        }
        return Optional.empty();
    }

    /** Every set of fields that a request could give, texts of up to three symbols among them. */
    private static List<Map<String, String>> given(Fields fields) {
        var all = new ArrayList<>(fields.combinations());
        for (FieldRule rule : fields.series().fields()) {
            if (!rule.isText()) continue;
            List<Map<String, String>> before = List.copyOf(all);
            all.clear();
            for (String text : TEXTS) {
                if (!fields.takes(rule, text)) continue;
                for (Map<String, String> each : before) {
                    var next = new HashMap<>(each);
                    next.put(rule.name(), text);
                    all.add(next);
                }
            }
        }
        return all;
    }

    private static final List<String> TEXTS = List.of(
            "a", "b", "aa", "ab", "ba", "bb", "A", "aB", "Ab", "aaa", "aba", "bab", "a b", "b a", "a a b", "á", "ßb",
            "a-b");

    /** What one way of a clash really writes. */
    static String of(Clash.Way way, List<Fields> namespace) {
        Series series = namespace.stream()
                .map(Fields::series)
                .filter(each -> each.key().equals(way.series()))
                .findFirst()
                .orElseThrow();
        Range range = series.range(way.range()).orElseThrow();
        assertThat(series.lane(range, way.particulars()).period()).isEqualTo(way.period());
        assertThat(series.skips().skips(way.value(), series.pattern().count())).isFalse();
        assertThat(range.valueAt(way.position())).isEqualTo(way.value());
        return Comparison.FIRST.key(series.render(range, way.particulars(), way.position()));
    }
}
