package org.youngtally.core.proof;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Series;

/**
 * What a range of a series can ever write, part by part. Several dates in one pattern are taken as if they were
 * independent, so are fields that narrow each other, and check symbols as if they were free: the language may be wider
 * than the truth, never narrower.
 *
 * @param dates by the texts of all date parts: the periods they stand for, each with its first date
 * @param ways one sequence of part languages for each number of symbols that the count can take
 */
record RangeLanguage(
        Series series,
        Range range,
        FieldTexts fields,
        Map<List<String>, Map<String, LocalDate>> dates,
        List<List<PartLanguage>> ways) {

    /**
     * What a text can stand for.
     *
     * @param isUnsure whether it can perhaps stand for more: it was not found out which text of a field would be
     *     written so
     */
    record Reading(List<Clash.Way> ways, boolean isUnsure) {}

    static RangeLanguage of(Fields fields, Range range, Budget budget) {
        Series series = fields.series();
        Map<List<String>, Map<String, LocalDate>> dates = dates(series, range, budget);
        var texts = new FieldTexts(fields, budget);
        List<List<PartLanguage>> ways = CountLanguage.of(series.pattern().count(), range).stream()
                .map(count -> parts(series.pattern(), texts, dates, count))
                .toList();
        return new RangeLanguage(series, range, texts, dates, ways);
    }

    private static Map<List<String>, Map<String, LocalDate>> dates(Series series, Range range, Budget budget) {
        List<Part.DateField> fields = dateFields(series.pattern());
        Optional<ChronoUnit> changes = Stream.concat(
                        series.pattern().changes().stream(),
                        series.restarts().times().stream().map(Restart::changes))
                .min(Comparator.naturalOrder());
        Map<List<String>, Map<String, LocalDate>> dates = new HashMap<>();
        for (LocalDate date = range.serves().opens();
                !date.isAfter(range.serves().closes());
                date = Frame.next(date, changes)) {
            LocalDate day = date;
            budget.spend(Budget.KEPT);
            List<String> texts = fields.stream()
                    .map(field -> series.comparison().fold(Pattern.render(field, day)))
                    .toList();
            dates.computeIfAbsent(texts, seen -> new TreeMap<>()).putIfAbsent(series.period(date), date);
        }
        return dates;
    }

    private static List<Part.DateField> dateFields(Pattern pattern) {
        return pattern.parts().stream()
                .filter(Part.DateField.class::isInstance)
                .map(Part.DateField.class::cast)
                .toList();
    }

    private static List<PartLanguage> parts(
            Pattern pattern, FieldTexts fields, Map<List<String>, Map<String, LocalDate>> dates, CountLanguage count) {
        var parts = new ArrayList<PartLanguage>();
        int dateAt = 0;
        for (Part part : pattern.parts()) {
            switch (part) {
                case Part.Literal l ->
                    parts.add(PartLanguage.of(Set.of(pattern.comparison().fold(l.text()))));
                case Part.CountField c -> parts.add(count);
                case Part.TextField f -> parts.add(fields.language(f));
                case Part.CheckField c ->
                    parts.add(PartLanguage.any(
                            pattern.comparison().fold(c.scheme().writes()),
                            c.scheme().length(),
                            c.scheme().length(),
                            true));
                case Part.DateField d -> {
                    int at = dateAt++;
                    Set<String> texts = new LinkedHashSet<>();
                    dates.keySet().forEach(all -> texts.add(all.get(at)));
                    parts.add(PartLanguage.of(texts));
                }
            }
        }
        return parts;
    }

    /** Whether the language is as wide as the truth, so that every text of it can really arise. */
    boolean isExact() {
        return dateFields(series.pattern()).size() < 2
                && series.pattern().textFields().size() < 2
                && ways.stream().flatMap(List::stream).noneMatch(PartLanguage::isWider);
    }

    /** Everything that a text in folded symbols can stand for, found by taking it apart and writing it again. */
    Reading read(String text) {
        var found = new ArrayList<Clash.Way>();
        boolean sure = true;
        for (List<PartLanguage> way : ways) sure &= split(text, way, 0, new ArrayList<>(), found);
        return new Reading(found, !sure);
    }

    private boolean split(String text, List<PartLanguage> way, int from, List<String> texts, List<Clash.Way> found) {
        int part = texts.size();
        if (part == way.size()) return from < text.length() || understood(text, texts, found);
        boolean sure = true;
        int state = 0;
        for (int to = from; to < text.length(); ) {
            state = way.get(part).step(state, text.charAt(to++));
            if (state == PartLanguage.NOWHERE) return sure;
            if (!way.get(part).accepts(state)) continue;
            texts.add(text.substring(from, to));
            sure &= split(text, way, to, texts, found);
            texts.removeLast();
        }
        return sure;
    }

    private boolean understood(String text, List<String> texts, List<Clash.Way> found) {
        List<Part> parts = series.pattern().parts();
        var dateTexts = new ArrayList<String>();
        var fieldTexts = new ArrayList<String>();
        OptionalLong value = OptionalLong.empty();
        for (int i = 0; i < parts.size(); i++) {
            if (parts.get(i) instanceof Part.DateField) dateTexts.add(texts.get(i));
            if (parts.get(i) instanceof Part.TextField) fieldTexts.add(texts.get(i));
            if (parts.get(i) instanceof Part.CountField count) value = count.read(texts.get(i));
        }
        if (value.isEmpty()
                || range.positionOf(value.getAsLong()) < 0
                || series.skips().skips(value.getAsLong(), series.pattern().count())) return true;
        long number = value.getAsLong();
        FieldTexts.Read read = fields.read(fieldTexts);
        if (read.fields().isEmpty()) return !read.isUnsure();
        for (LocalDate date : dates.getOrDefault(dateTexts, Map.of()).values()) {
            var particulars = new Particulars(date, read.fields().get());
            if (series.comparison()
                    .fold(series.pattern().render(particulars, number))
                    .equals(text)) found.add(way(particulars, number));
        }
        return true;
    }

    Clash.Way way(Particulars particulars, long value) {
        LaneKey lane = series.lane(range, particulars);
        return new Clash.Way(
                series.key(),
                range.id(),
                range.toString(),
                lane.period(),
                particulars,
                series.order().positionOf(range, lane, value),
                value);
    }
}
