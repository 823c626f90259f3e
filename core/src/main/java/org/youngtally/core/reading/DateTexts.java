package org.youngtally.core.reading;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/** What a pattern writes of dates, and which dates it writes so. */
final class DateTexts {
    private static final LocalDate EARLIEST = LocalDate.of(1970, 1, 1);

    private final List<DateField> fields;
    private final List<Set<String>> texts = new ArrayList<>();
    private final Map<List<String>, Dates> dates = new HashMap<>();

    /**
     * The dates that are written alike.
     *
     * @param nearest of them all, the one nearest to today, those that have passed first
     * @param served the first one that a range serves, by the range's id
     */
    record Dates(LocalDate nearest, Map<Integer, LocalDate> served) {}

    private DateTexts(List<DateField> fields) {
        this.fields = fields;
        fields.forEach(field -> texts.add(new LinkedHashSet<>()));
    }

    static DateTexts of(Series series, LocalDate today) {
        Pattern pattern = series.pattern();
        var found = new DateTexts(pattern.parts().stream()
                .filter(DateField.class::isInstance)
                .map(DateField.class::cast)
                .toList());
        ChronoUnit unit = pattern.changes().orElse(ChronoUnit.FOREVER);
        if (unit == ChronoUnit.FOREVER) found.add(series, EARLIEST, DateWindow.HORIZON, today);
        else
            for (LocalDate from = EARLIEST; !from.isAfter(DateWindow.HORIZON); from = next(from, unit))
                found.add(series, from, next(from, unit).minusDays(1), today);
        return found;
    }

    private static LocalDate next(LocalDate from, ChronoUnit unit) {
        return switch (unit) {
            case YEARS -> from.with(TemporalAdjusters.firstDayOfNextYear());
            case MONTHS -> from.with(TemporalAdjusters.firstDayOfNextMonth());
            default -> from.plusDays(1);
        };
    }

    /** Dates between which the pattern writes the same. */
    private void add(Series series, LocalDate from, LocalDate to, LocalDate today) {
        var written = new ArrayList<String>(fields.size());
        for (int i = 0; i < fields.size(); i++) {
            written.add(Pattern.render(fields.get(i), from));
            texts.get(i).add(written.get(i));
        }
        Dates before = dates.get(written);
        LocalDate near = today.isBefore(from) ? from : today.isAfter(to) ? to : today;
        boolean nearer = before == null || !near.isAfter(today);
        var served = before == null ? new HashMap<Integer, LocalDate>() : before.served();
        for (Range range : series.ranges()) {
            LocalDate opens = range.serves().opens();
            LocalDate first = opens.isAfter(from) ? opens : from;
            if (!first.isAfter(to) && range.serves().includes(first)) served.putIfAbsent(range.id(), first);
        }
        dates.put(written, new Dates(nearer ? near : before.nearest(), served));
    }

    /** Every text that a date field of the pattern writes. */
    Collection<String> of(DateField field) {
        return texts.get(fields.indexOf(field));
    }

    /** The dates that are written so; absent where no date is. */
    Optional<Dates> dates(List<Part> parts, List<String> written) {
        var ofDates = new ArrayList<String>(fields.size());
        for (int i = 0; i < parts.size(); i++) if (parts.get(i) instanceof DateField) ofDates.add(written.get(i));
        return Optional.ofNullable(dates.get(ofDates));
    }
}
