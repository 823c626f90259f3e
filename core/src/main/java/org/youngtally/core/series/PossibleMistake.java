package org.youngtally.core.series;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.ToLongFunction;
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
     * @param given how many positions of a lane were given
     */
    public static List<PossibleMistake> of(
            Series series, Optional<Series> before, LocalDate today, ToLongFunction<LaneKey> given) {
        var slips = new ArrayList<PossibleMistake>();
        yearAsText(series, today).ifPresent(slips::add);
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
                                + " lies before this year, so that numbers can still be given for then"));
            if (isNew && range.serves().closes().isBefore(today))
                slips.add(new PossibleMistake(
                        path + "closes", range.serves().closes() + " is over: this range serves no day to come"));
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
                && before.isPresent()
                && opened.isPresent()
                && series.restarts().isNever()
                && opened.get().plusDays(LONG_UNUSED_DAYS).isBefore(today))
            slips.add(new PossibleMistake("key", "no number was given since it opened on " + opened.get()));
        return slips;
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
                                        + "’ looks like this year as fixed text, and will stay when the year ends; {date yyyy} or {date yy} would follow it"));
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
                        "at the rate since it opened this range runs out about " + end + ", before it closes on "
                                + range.serves().closes()))
                : Optional.empty();
    }
}
