package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.Refusal.ContinueFault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Series that go on behind numbers that exist elsewhere. */
@RestController
@RequestMapping(Api.V1)
class ContinuationController {
    private final Ledger ledger;
    private final HeavyWork work;

    ContinuationController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * Where a lane goes on: from a number, or after one.
     *
     * @param from the next number to allocate
     * @param after instead of it, the highest number in use
     * @param date the business date, where the number can belong to several lanes
     * @param reason where the numbers before it are in use
     * @param dryRun whether only to say what would be done
     */
    record ContinueRequest(
            @Nullable String from,
            @Nullable String after,
            @Nullable String date,
            @Nullable String reason,
            @Nullable Boolean dryRun) {}

    /**
     * What was done.
     *
     * @param seq the entry of the ledger; absent in a dry run
     * @param lane the name of the lane; empty for the only one of its range
     * @param next the next number of the lane
     * @param first the first pre-existing number
     * @param last the last one
     * @param quantity how many numbers are pre-existing now
     * @param repeated whether this is the answer to an earlier, same request
     */
    record Continuation(
            @Nullable Long seq,
            @Nullable Instant at,
            String series,
            String lane,
            String next,
            String first,
            String last,
            long quantity,
            @Nullable String reason,
            boolean repeated) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/series/{series}/continuations")
    @Needs(value = Right.DEFINE, at = At.SERIES)
    @Operation(
            operationId = "continueSeries",
            summary =
                    "Let a lane continue behind numbers that exist elsewhere. All numbers that its counter has not reached before it become pre-existing: they are never allocated")
    Continuation proceed(
            @PathVariable String series,
            @RequestBody ContinueRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        Series found = Requests.series(caller, series);
        DefiningRights.needToDefine(caller, Where.series(series));
        if ((request.from() == null) == (request.after() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.from() == null
                                    ? "No number is named."
                                    : "Two numbers are named, and one is wanted.")
                    .field("from", "the next number to allocate; or, as after, the highest number in use");
        boolean from = request.from() != null;
        String text = from ? request.from() : request.after();
        Optional<LocalDate> date = Requests.date(request.date());
        Optional<String> reason = Requests.note("reason", request.reason());
        Located place = work.run(Sort.INSPECTION, caller.name(), () -> located(caller, found, text, date, from));
        Range range = place.place().range().orElseThrow();
        LaneKey lane = new LaneKey(found.key(), range.id(), place.place().lane());
        Particulars particulars = place.place().particulars();
        var act = new Act.Continue(
                found.key(),
                found.version(),
                lane,
                particulars,
                from ? place.position() : place.position() + 1,
                reason,
                Requests.mark(
                        caller.name(),
                        key,
                        RequestText.of("CONTINUE")
                                .part(series)
                                .part(text)
                                .part(String.valueOf(from))
                                .part(date)
                                .part(reason)));
        Outlook.Used used = caller.snapshot().counters().used(lane);
        String next = Outlook.next(
                        found,
                        particulars,
                        range,
                        lane,
                        new Outlook.Used(act.next(), 0, Collections.emptyNavigableMap(), used.ahead()))
                .map(Outlook.Coming::identifier)
                .orElse("");
        if (Boolean.TRUE.equals(request.dryRun())) return tried(act, found, range, next);
        return switch (Requests.perform(ledger, act, caller.name())) {
            case Outcome.Settled settled -> done(act, settled, next);
            case Outcome.Refused<Answer.Settlement> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    private Continuation tried(Act.Continue act, Series series, Range range, String next) {
        List<Effect.Issued> issued =
                switch (ledger.decide(act)) {
                    case Decision.Done done ->
                        done.effects().stream()
                                .filter(Effect.Issued.class::isInstance)
                                .map(Effect.Issued.class::cast)
                                .toList();
                    case Decision.Refused refused -> throw Refusals.problem(refused.refusal());
                    case Decision.Repeated repeated -> List.of();
                    case Decision.Known known -> List.of();
                };
        return new Continuation(
                null,
                null,
                series.key(),
                act.lane().period(),
                next,
                issued.isEmpty()
                        ? ""
                        : series.render(
                                range, act.particulars(), issued.getFirst().from()),
                issued.isEmpty()
                        ? ""
                        : series.render(
                                range, act.particulars(), issued.getLast().to()),
                issued.stream().mapToLong(Effect.Issued::quantity).sum(),
                act.reason().orElse(null),
                false);
    }

    private Continuation done(Act.Continue act, Outcome.Settled settled, String next) {
        EntryQueries.Row entry = settled.entry();
        List<String> texts = ledger.read(dsl -> new EntryQueries(dsl).texts(entry));
        return new Continuation(
                entry.seq(),
                entry.at(),
                act.series(),
                act.lane().period(),
                next,
                texts.isEmpty() ? "" : texts.getFirst(),
                texts.isEmpty() ? "" : texts.getLast(),
                entry.quantity(),
                act.reason().orElse(null),
                settled.repeated());
    }

    /** The number that is meant, and the lane in which it lies. */
    private Located located(Caller caller, Series series, String text, Optional<LocalDate> date, boolean from) {
        if (series.order().scatters() || series.order().repeats())
            throw Refusals.problem(
                    new Refusal.NotContinued(series.key(), text, ContinueFault.OUT_OF_ORDER, Optional.empty()));
        var reader =
                new SeriesReader(series, Fields.of(series, caller.snapshot()::choices), date.orElseGet(ledger::today));
        return reader.read(text).stream()
                .filter(found -> found.place().range().isPresent() && found.position() >= 0)
                .filter(found -> date.isEmpty() || isOn(series, found, date.get()))
                .findFirst()
                .orElseThrow(() -> {
                    List<Located> near = reader.nearest(text);
                    return new Problem(
                                    Type.NOT_CONTINUED,
                                    "‘" + text + "’ is not a number of ‘" + series.key() + "’"
                                            + date.map(day -> " on " + day).orElse("") + ".")
                            .field(
                                    from ? "from" : "after",
                                    near.isEmpty()
                                            ? "a number that " + series.pattern() + " writes, in one of its ranges"
                                            : near.getFirst().reading().identifier() + ", perhaps");
                });
    }

    /** Whether a number lies in the lane of a date. */
    private static boolean isOn(Series series, Located found, LocalDate date) {
        Range range = found.place().range().orElseThrow();
        Particulars particulars =
                new Particulars(date, found.place().particulars().fields());
        return range.serves().includes(date)
                && series.lane(range, particulars).period().equals(found.place().lane());
    }
}
