package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.SeriesStatusQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;

@RestController
@RequestMapping(Api.V1 + "/series")
class SeriesController {
    private static final int MOST_COMING = 1_000;

    private final Ledger ledger;
    private final HeavyWork work;

    SeriesController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    @GetMapping
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "listSeries", summary = "All series by key, with their state")
    List<SeriesView> list(
            @Parameter(description = "The business date; default: today") @RequestParam(required = false) String date,
            @Parameter(description = "Only with this text in key, title, namespace or pattern; case does not matter")
                    @RequestParam(required = false)
                    String text,
            @Parameter(description = "Whether retired series are included") @RequestParam(defaultValue = "false")
                    boolean retired,
            Caller caller) {
        LocalDate day = Requests.date(date).orElseGet(ledger::today);
        String wanted = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        List<Series> read = caller.snapshot().series().values().stream()
                .filter(series -> caller.reads(series.key()))
                .filter(series -> retired || !series.retired())
                .filter(series -> Stream.of(
                                series.key(),
                                series.title(),
                                series.namespace(),
                                series.pattern().toString())
                        .anyMatch(each -> each.toLowerCase(Locale.ROOT).contains(wanted)))
                .toList();
        return ledger.read(dsl -> new SeriesStatusQueries(dsl, caller.snapshot().counters()).all(read, day)).stream()
                .map(SeriesView::of)
                .toList();
    }

    @GetMapping("/{series}")
    @Needs(value = Right.READ, at = At.SERIES)
    @Operation(
            operationId = "showSeries",
            summary = "One series, its ranges and lanes, and a preview of its next identifiers")
    SeriesView show(
            @PathVariable String series,
            @Parameter(description = "The business date; default: today") @RequestParam(required = false) String date,
            @Parameter(description = "How many of the next identifiers to show") @RequestParam(defaultValue = "10")
                    int coming,
            @Parameter(
                            description =
                                    "The value of a field, as NAME=VALUE; once for each field of the series, or not at all")
                    @RequestParam(required = false)
                    List<String> field,
            Caller caller) {
        Series found = Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        if (coming < 0 || coming > MOST_COMING)
            throw new Problem(Type.MALFORMED, coming + " identifiers cannot be shown.")
                    .field("coming", "0 to " + MOST_COMING);
        LocalDate day = Requests.date(date).orElseGet(ledger::today);
        Particulars particulars = Requests.particulars(found, day, Requests.fields(field), caller.snapshot());
        return ledger.read(dsl -> SeriesView.of(
                new SeriesStatusQueries(dsl, caller.snapshot().counters()).one(found, particulars, coming)));
    }

    @GetMapping("/{series}/definition")
    @Needs(value = Right.READ, at = At.SERIES)
    @Operation(operationId = "showDefinition", summary = "The definition of a series, with the ETag for a change")
    ResponseEntity<SeriesForm> definition(@PathVariable String series, Caller caller) {
        Series found = Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        return tagged(found);
    }

    private static ResponseEntity<SeriesForm> tagged(Series found) {
        return ResponseEntity.ok().eTag(Integer.toString(found.version())).body(SeriesForm.of(found));
    }

    @Takes(Takes.A_LIST)
    @PutMapping("/{series}/definition")
    @Needs(value = Right.DEFINE, at = At.SERIES)
    @Operation(
            operationId = "defineSeries",
            summary =
                    "Define or change a series. If-None-Match: * for a new one, If-Match with the ETag for an existing one")
    ResponseEntity<SeriesForm> define(
            @PathVariable String series,
            @RequestBody SeriesForm form,
            @RequestHeader(name = "If-Match", required = false) String match,
            @RequestHeader(name = "If-None-Match", required = false) String noneMatch,
            Caller caller) {
        if (!series.equals(form.draft().key()))
            throw new Problem(
                            Type.MALFORMED,
                            "The address names ‘" + series + "’, the body ‘"
                                    + form.draft().key() + "’.")
                    .field("key", series);
        DefiningRights.needToDefine(caller, Where.series(series));
        Outcome.Defined made = DefiningRights.define(
                caller, ledger, work, new Act.Define(List.of(form.draft()), Requests.replaced(match, noneMatch)));
        ResponseEntity<SeriesForm> defined = tagged(made.series().stream()
                .findFirst()
                .orElseGet(() -> ledger.snapshot().series().get(series)));
        return ResponseEntity.status("*".equals(noneMatch) ? HttpStatus.CREATED : HttpStatus.OK)
                .headers(defined.getHeaders())
                .body(defined.getBody());
    }
}
