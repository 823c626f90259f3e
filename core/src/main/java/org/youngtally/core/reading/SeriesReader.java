package org.youngtally.core.reading;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Located.Place;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** Reads texts as numbers of a series, in its newest version. For one thread at a time. */
public final class SeriesReader {
    /** What stands around the count is worked out once for so many different texts. */
    private static final int MOST_KEPT = 50_000;

    private final Series series;
    private final Fields fields;
    private final DateTexts dates;
    private final PatternReader reader;
    private final Map<List<String>, Optional<Around>> around = new HashMap<>();

    /**
     * Where numbers lie that share all text around the count.
     *
     * @param places by the range that holds the value, if it serves the date
     * @param elsewhere where no range does
     */
    private record Around(Map<Integer, Place> places, Place elsewhere) {}

    /** @param today decides between dates that are written alike */
    public SeriesReader(Series series, Fields fields, LocalDate today) {
        this.series = series;
        this.fields = fields;
        this.dates = DateTexts.of(series, today);
        this.reader = new PatternReader(
                series.pattern(),
                series.pattern().parts().stream().map(this::texts).toList());
    }

    public Series series() {
        return series;
    }

    private PartTexts texts(Part part) {
        return switch (part) {
            case DateField date -> PartTexts.Listed.of(dates.of(date), series.comparison());
            case TextField field -> texts(field, series.field(field.name()).orElseThrow());
            case Part.Literal literal -> new PartTexts.None();
            case CountField count -> new PartTexts.None();
            case Part.CheckField check -> new PartTexts.None();
        };
    }

    private PartTexts texts(TextField field, FieldRule rule) {
        return rule.isText()
                ? new PartTexts.Free(
                        series.comparison().fold(rule.symbols(field)), field.shortest(), field.longest(rule.longest()))
                : PartTexts.Listed.of(
                        fields.codes(rule).stream().map(field::written).toList(), series.comparison());
    }

    /** What a text is as a number of the series: the likeliest first; none where it is of another pattern. */
    public List<Located> read(String text) {
        return located(reader.read(text));
    }

    /** The numbers of the series that a text may have been meant for; none where it differs in more than a slip. */
    public List<Located> nearest(String text) {
        return located(reader.nearest(text));
    }

    private List<Located> located(List<Reading> readings) {
        var found = new ArrayList<Located>(1);
        for (Reading reading : readings) locate(reading).ifPresent(found::add);
        if (found.size() > 1)
            found.sort(
                    Comparator.comparing((Located each) -> each.place().range().isEmpty())
                            .thenComparing(each -> each.reading().deviations().size()));
        return found;
    }

    private Optional<Located> locate(Reading reading) {
        return around(reading).map(known -> {
            for (Range range : series.ranges()) {
                if (range.positionOf(reading.value()) < 0) continue;
                Place place = known.places().get(range.id());
                if (place != null) return new Located(series, reading, place, position(range, place, reading));
            }
            return new Located(series, reading, known.elsewhere(), -1);
        });
    }

    private long position(Range range, Place place, Reading reading) {
        return series.order().isSealed()
                ? -1
                : series.order()
                        .positionOf(range, new LaneKey(series.key(), range.id(), place.lane()), reading.value());
    }

    private Around around(DateTexts.Dates dates, Map<String, String> given) {
        var places = new HashMap<Integer, Place>();
        for (Range range : series.ranges()) {
            LocalDate served = dates.served().get(range.id());
            if (served != null) places.put(range.id(), place(Optional.of(range), new Particulars(served, given)));
        }
        LocalDate date =
                dates.served().values().stream().min(Comparator.naturalOrder()).orElse(dates.nearest());
        return new Around(places, place(Optional.empty(), new Particulars(date, given)));
    }

    private Place place(Optional<Range> range, Particulars particulars) {
        String lane = series.lane(range.orElse(series.ranges().getFirst()), particulars)
                .period();
        return new Place(particulars, range, lane);
    }

    private Optional<Around> around(Reading reading) {
        var texts = new ArrayList<String>(reading.texts().size());
        List<Part> parts = series.pattern().parts();
        for (int i = 0; i < parts.size(); i++)
            if (parts.get(i) instanceof DateField || parts.get(i) instanceof TextField)
                texts.add(reading.texts().get(i));
        if (around.size() > MOST_KEPT) around.clear();
        return around.computeIfAbsent(texts, unknown -> dates.dates(parts, reading.texts())
                .flatMap(written -> fields(reading).map(given -> around(written, given))));
    }

    /** What the record gave for each field; absent where the places of a field contradict each other. */
    private Optional<Map<String, String>> fields(Reading reading) {
        var given = new LinkedHashMap<String, String>();
        for (FieldRule rule : series.fields()) {
            List<Written> written = written(reading, rule.name());
            Optional<String> found = rule.isText()
                    ? text(written)
                    : fields.codes(rule).stream()
                            .filter(code -> isWritten(code, written))
                            .findFirst();
            if (found.isEmpty()) return Optional.empty();
            given.put(rule.name(), found.get());
        }
        return Optional.of(given);
    }

    /** What a place of the pattern writes of a field. */
    private record Written(TextField place, String text) {
        boolean isOf(String given) {
            return place.written(given).equals(text);
        }
    }

    private List<Written> written(Reading reading, String field) {
        var written = new ArrayList<Written>();
        List<Part> parts = series.pattern().parts();
        for (int i = 0; i < parts.size(); i++)
            if (parts.get(i) instanceof TextField place && place.name().equals(field))
                written.add(new Written(place, reading.texts().get(i)));
        return written;
    }

    /** A text that is written so: the longest that is there, or words with such initials. */
    private static Optional<String> text(List<Written> written) {
        return written.stream()
                .map(Written::text)
                .sorted(Comparator.comparing(String::length).reversed())
                .flatMap(text -> Stream.of(text, String.join(" ", text.split(""))))
                .filter(text -> isWritten(text, written))
                .findFirst();
    }

    private static boolean isWritten(String given, List<Written> written) {
        return written.stream().allMatch(place -> place.isOf(given));
    }
}
