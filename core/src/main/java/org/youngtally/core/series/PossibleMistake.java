package org.youngtally.core.series;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.ToLongFunction;
import org.youngtally.core.pattern.DateFormat;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Particulars;

/**
 * Something in a definition that is allowed and looks like a slip all the same.
 *
 * @param path the property, as in {@link Fault#path}
 */
public record PossibleMistake(String path, String remark) {
    private static final long LONG_UNUSED_DAYS = 90;
    private static final long SHORTEST_RECORD_DAYS = 7;

    /**
     * What looks like a slip.
     *
     * @param before the version that this one follows, if there is one
     * @param defined the date on which the series was first defined; absent for one that is new
     * @param given how many positions of a lane were given
     */
    public static List<PossibleMistake> of(
            Series series,
            Optional<Series> before,
            LocalDate today,
            Optional<LocalDate> defined,
            ToLongFunction<LaneKey> given) {
        var slips = new ArrayList<PossibleMistake>();
        yearAsText(series, today).ifPresent(slips::add);
        yearOfTheWeek(series).ifPresent(slips::add);
        before.ifPresent(earlier -> lostRanges(earlier, series, slips));
        for (RangeCalendar.Dates hole : RangeCalendar.holes(series))
            slips.add(new PossibleMistake(
                    "ranges", "uncovered dates: no range is active from " + hole.from() + " to " + hole.to()));
        idleFields(series, slips);
        boolean used = false;
        for (int i = 0; i < series.ranges().size(); i++) {
            Range range = series.ranges().get(i);
            String path = "ranges[" + i + "].";
            boolean isNew = before.isEmpty() || before.get().range(range.id()).isEmpty();
            if (isNew && range.serves().opens().isBefore(today.withDayOfYear(1)))
                slips.add(new PossibleMistake(
                        path + "opens",
                        range.serves().opens()
                                + " lies before this year, so that numbers can still be allocated for that time"));
            if (isNew && range.serves().closes().isBefore(today))
                slips.add(new PossibleMistake(
                        path + "closes",
                        range.serves().closes() + " has passed: this range has no date left to serve"));
            if (!series.restarts().fields().isEmpty()) continue;
            LaneKey lane = series.lane(range, Particulars.on(today));
            used |= given.applyAsLong(lane) > 0;
            if (series.restarts().isNever()
                    && !series.order().repeats()
                    && range.serves().includes(today))
                runsOut(range, path, today, given.applyAsLong(lane)).ifPresent(slips::add);
        }
        Optional<LocalDate> opened =
                series.ranges().stream().map(range -> range.serves().opens()).min(LocalDate::compareTo);
        if (!used
                && !series.retired()
                && defined.filter(date -> date.plusDays(LONG_UNUSED_DAYS).isBefore(today))
                        .isPresent()
                && opened.isPresent()
                && series.restarts().isNever()
                && opened.get().plusDays(LONG_UNUSED_DAYS).isBefore(today))
            slips.add(new PossibleMistake("key", "no number was allocated since it opened on " + opened.get()));
        return slips;
    }

    /**
     * The year of the week differs from the year of the date around the new year, and says nothing without the week.
     */
    private static Optional<PossibleMistake> yearOfTheWeek(Series series) {
        boolean year = false;
        boolean week = false;
        for (Part part : series.pattern().parts())
            if (part instanceof Part.DateField field) {
                year |= field.format().shows(DateFormat.Unit.WEEK_YEAR);
                week |= field.format().shows(DateFormat.Unit.WEEK);
            }
        return year && !week
                ? Optional.of(
                        new PossibleMistake(
                                "pattern",
                                "YY and YYYY are the year of the week, which differs from the year around the new year; without ww, write yy or yyyy"))
                : Optional.empty();
    }

    /** An older file takes away what was added since. */
    private static void lostRanges(Series earlier, Series series, List<PossibleMistake> slips) {
        for (Range range : earlier.ranges())
            if (series.range(range.id()).isEmpty())
                slips.add(new PossibleMistake(
                        "ranges",
                        "the range " + range
                                + " is not in this file and is removed; is the file older than the definition?"));
    }

    private static void idleFields(Series series, List<PossibleMistake> slips) {
        for (int i = 0; i < series.fields().size(); i++) {
            String name = series.fields().get(i).name();
            boolean narrows =
                    series.fields().stream().anyMatch(rule -> rule.within().equals(Optional.of(name)));
            if (!narrows
                    && series.pattern().textFields().stream()
                            .noneMatch(field -> field.name().equals(name)))
                slips.add(new PossibleMistake(
                        "fields[" + i + "].name",
                        "‘" + name + "’ is asked for, but neither shown in the pattern nor narrowing another field"));
        }
    }

    private static Optional<PossibleMistake> yearAsText(Series series, LocalDate today) {
        String year = Integer.toString(today.getYear());
        for (Part part : series.pattern().parts())
            if (part instanceof Part.Literal literal
                    && literal.text().matches(".*(?<![0-9])(" + year + "|" + year.substring(2) + ")(?![0-9]).*"))
                return Optional.of(
                        new PossibleMistake(
                                "pattern",
                                "‘" + literal.text()
                                        + "’ looks like the current year as fixed text, which does not change at the new year; {date yyyy} or {date yy} does"));
        return Optional.empty();
    }

    private static Optional<PossibleMistake> runsOut(Range range, String path, LocalDate today, long given) {
        long days = ChronoUnit.DAYS.between(range.serves().opens(), today);
        if (given == 0 || days < SHORTEST_RECORD_DAYS || range.serves().isOpenEnded()) return Optional.empty();
        long daysLeft = (long) ((range.size() - given) * (double) days / given);
        LocalDate end = daysLeft > ChronoUnit.DAYS.between(today, DateWindow.HORIZON)
                ? DateWindow.HORIZON
                : today.plusDays(daysLeft);
        return end.isBefore(range.serves().closes())
                ? Optional.of(new PossibleMistake(
                        path + "last",
                        "at the rate since it opened, this range is exhausted about " + end + ", before it closes on "
                                + range.serves().closes()))
                : Optional.empty();
    }
}
