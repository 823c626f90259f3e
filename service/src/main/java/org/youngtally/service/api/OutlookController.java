package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Forecast;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.RangeCalendar;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.LifeQueries;
import org.youngtally.ledger.store.SeriesStatusQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.web.Problem;

/** Seeing ahead: when numbers run out, what opens and closes when, how a series was used. */
@RestController
@RequestMapping(Api.V1)
class OutlookController {
    private static final int LONGEST_USE = 3_660;

    private final Ledger ledger;

    OutlookController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * When a series will be exhausted.
     *
     * @param left how many are left for the date; absent where that rests on fields, or where the series starts over
     * @param ends the last day: of the range, or of the period of the count
     */
    record ForecastView(
            String series,
            LocalDate date,
            @Nullable Long left,
            @Nullable LocalDate ends,
            List<RateView> rates) {}

    /**
     * What the rate of the last days comes to.
     *
     * @param days how many days back, today among them
     * @param used how many numbers were issued on them
     * @param runsOut the day on which the last number would be issued; absent where the numbers last longer than the
     *     range
     */
    record RateView(int days, long used, @Nullable LocalDate runsOut) {}

    @GetMapping("/series/{series}/forecast")
    @Needs(value = Right.READ, at = At.SERIES)
    @Operation(
            operationId = "forecast",
            summary = "When the remaining numbers will be exhausted, at the rates of the last 7, 30 and 365 days")
    ForecastView forecast(@PathVariable String series, Caller caller) {
        Series found = Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        LocalDate today = ledger.today();
        return ledger.read(dsl -> {
            Map<LocalDate, Long> use = new LifeQueries(dsl).use(series, today.minusDays(365), ledger.zone());
            Optional<Long> left = new SeriesStatusQueries(dsl, caller.snapshot().counters())
                    .one(found, Particulars.on(today), 0)
                    .outlook()
                    .map(Outlook::left)
                    .filter(known -> known >= 0);
            Optional<LocalDate> ends = Forecast.ends(found, today);
            List<Forecast> rates = Stream.of(7, 30, 365)
                    .map(days -> Forecast.of(days, today, left.orElse(0L), ends, use))
                    .toList();
            return new ForecastView(
                    series,
                    today,
                    left.orElse(null),
                    ends.orElse(null),
                    rates.stream()
                            .map(rate -> new RateView(
                                    rate.days(),
                                    rate.used(),
                                    left.isEmpty() ? null : rate.runsOut().orElse(null)))
                            .toList());
        });
    }

    /** How many numbers were issued on a day. */
    record DayView(LocalDate day, long quantity) {}

    @GetMapping("/series/{series}/use")
    @Needs(value = Right.READ, at = At.SERIES)
    @Operation(
            operationId = "showUse",
            summary = "How many numbers a series issued on each of the last days; days without any are omitted")
    List<DayView> use(
            @PathVariable String series,
            @Parameter(description = "How many days back, including today") @RequestParam(defaultValue = "90") int days,
            Caller caller) {
        Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        if (days < 1 || days > LONGEST_USE)
            throw new Problem(Problem.Type.MALFORMED, "The use of " + days + " days cannot be shown.")
                    .field("days", "1 to " + LONGEST_USE);
        return ledger
                .read(dsl -> new LifeQueries(dsl).use(series, ledger.today().minusDays(days - 1L), ledger.zone()))
                .entrySet()
                .stream()
                .map(day -> new DayView(day.getKey(), day.getValue()))
                .toList();
    }

    /**
     * When the ranges of a series serve.
     *
     * @param holes dates between its ranges that none serves
     * @param ends the last date that any serves; absent where the last one is left open
     */
    record CalendarView(
            String series,
            String title,
            List<WindowView> ranges,
            List<DatesView> holes,
            @Nullable LocalDate ends) {}

    /** @param closes absent where it is left open */
    record WindowView(
            int id,
            long first,
            long last,
            LocalDate opens,
            @Nullable LocalDate closes) {}

    record DatesView(LocalDate from, LocalDate to) {}

    @GetMapping("/calendar")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "showCalendar",
            summary = "What opens and closes when, series by series, and the uncovered dates between")
    List<CalendarView> calendar(Caller caller) {
        return caller.snapshot().series().values().stream()
                .filter(series -> caller.reads(series.key()) && !series.retired())
                .map(series -> new CalendarView(
                        series.key(),
                        series.title(),
                        series.ranges().stream()
                                .map(range -> new WindowView(
                                        range.id(),
                                        range.first(),
                                        range.last(),
                                        range.serves().opens(),
                                        range.serves().isOpenEnded()
                                                ? null
                                                : range.serves().closes()))
                                .toList(),
                        RangeCalendar.holes(series).stream()
                                .map(hole -> new DatesView(hole.from(), hole.to()))
                                .toList(),
                        RangeCalendar.ends(series).orElse(null)))
                .toList();
    }
}
