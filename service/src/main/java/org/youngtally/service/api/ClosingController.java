package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.Refusal;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.store.LifeQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.closing.Statement;
import org.youngtally.service.closing.Statement.LaneLine;
import org.youngtally.service.closing.Statement.Reopening;
import org.youngtally.service.closing.Statement.VoidLine;
import org.youngtally.service.closing.StatementPage;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Closes periods, opens them again, and states what a closed period comes to. */
@RestController
@RequestMapping(Api.V1 + "/closings")
class ClosingController {
    private final Ledger ledger;
    private final HeavyWork work;

    ClosingController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * @param series the series whose period is closed; or
     * @param namespace for all series of it
     * @param from the first date
     * @param to the last date
     * @param note what there is to say
     */
    record ClosingRequest(
            @Nullable String series,
            @Nullable String namespace,
            String from,
            String to,
            @Nullable String note) {}

    @PostMapping
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(
            operationId = "closePeriod",
            summary =
                    "Close a period of a series or namespace: no number can be dated inside it, and what is returned there becomes void")
    Settlement close(
            @RequestBody ClosingRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        String actor = caller.name();
        if ((request.series() == null) == (request.namespace() == null))
            throw new Problem(Problem.Type.MALFORMED, "Neither a series nor a namespace is named, or both are.")
                    .field("series", "a series or a namespace");
        LocalDate from = date("from", request.from());
        LocalDate to = date("to", request.to());
        if (to.isBefore(from))
            throw new Problem(Problem.Type.MALFORMED, "The period ends on " + to + ", before it starts.")
                    .field("to", from + " or later");
        var period = new Period(
                request.series() != null ? Period.Scope.SERIES : Period.Scope.NAMESPACE,
                request.series() != null ? request.series() : request.namespace(),
                from,
                to);
        covered(caller, Right.DEFINE, period);
        Optional<String> note = Requests.note("note", request.note());
        return Requests.settled(
                ledger,
                new Act.Close(
                        period,
                        note,
                        Requests.mark(
                                actor,
                                key,
                                RequestText.of("CLOSE")
                                        .part(request.series() != null ? "SERIES" : "NAMESPACE")
                                        .part(period.key())
                                        .part(from.toString())
                                        .part(to.toString())
                                        .part(note))),
                actor);
    }

    private Period period(long closing) {
        return ledger.read(dsl -> new LifeQueries(dsl).closing(closing))
                .orElseThrow(() -> Refusals.problem(new Refusal.NotClosed(closing)))
                .period();
    }

    /** Where a period is: on its series, or on each one of its namespace. */
    private static List<Where> inside(Caller caller, Period period) {
        if (period.scope() == Period.Scope.SERIES) return List.of(Where.series(period.key()));
        List<Where> series = caller.snapshot().series().values().stream()
                .filter(each -> each.namespace().equals(period.key()))
                .map(each -> Where.series(each.key()))
                .toList();
        return series.isEmpty() ? List.of(Where.EVERYWHERE) : series;
    }

    private static void covered(Caller caller, Right right, Period period) {
        for (Where where : inside(caller, period)) caller.need(right, where);
    }

    private static LocalDate date(String field, String text) {
        return Requests.date(field, text).orElseThrow(() -> new Problem(
                        Problem.Type.MALFORMED, "The period needs both its first and its last date.")
                .field(field, "year-month-day, such as 2026-01-31"));
    }

    /**
     * @param closing the entry that closed it
     * @param reopened the entry that opened it again
     */
    record ClosingView(
            long closing,
            String scope,
            String key,
            LocalDate from,
            LocalDate to,
            String by,
            Instant at,
            @Nullable String note,
            long issued,
            long voids,
            @Nullable Long reopened) {}

    @GetMapping
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listClosings",
            summary = "All closed periods, the newest first, including those that were reopened")
    List<ClosingView> closings(Caller caller) {
        return ledger.read(dsl -> new LifeQueries(dsl).closings()).stream()
                .filter(closing ->
                        inside(caller, closing.period()).stream().allMatch(where -> caller.may(Right.READ, where)))
                .map(closing -> new ClosingView(
                        closing.entry().seq(),
                        closing.period().scope().word(),
                        closing.period().key(),
                        closing.period().from(),
                        closing.period().to(),
                        closing.entry().by(),
                        closing.entry().at(),
                        closing.entry().note().orElse(null),
                        closing.totals().stream()
                                .mapToLong(total -> total.issued())
                                .sum(),
                        closing.totals().stream()
                                .mapToLong(total -> total.voids())
                                .sum(),
                        closing.reopened().map(entry -> entry.seq()).orElse(null)))
                .toList();
    }

    @GetMapping("/{closing}")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "showClosing", summary = "The statement of a closed period, as of its closing")
    Statement statement(@PathVariable long closing, Caller caller) {
        covered(caller, Right.READ, period(closing));
        Head head = headAt(closing);
        return ledger.read(dsl -> {
            var queries = new LifeQueries(dsl);
            LifeQueries.Closing found =
                    queries.closing(closing).orElseThrow(() -> Refusals.problem(new Refusal.NotClosed(closing)));
            List<LaneLine> lanes = found.totals().stream()
                    .map(total -> new LaneLine(
                            total.lane().series(),
                            total.lane().period(),
                            total.first().orElse(null),
                            total.last().orElse(null),
                            total.issued(),
                            total.voids()))
                    .toList();
            List<VoidLine> voids = lines(queries.voids(found));
            return new Statement(
                    closing,
                    found.period().scope().word(),
                    found.period().key(),
                    found.period().from(),
                    found.period().to(),
                    head.toString(),
                    found.entry().at(),
                    found.entry().by(),
                    found.entry().note().orElse(null),
                    lanes,
                    lanes.stream().mapToLong(LaneLine::issued).sum(),
                    voids,
                    lines(queries.voidsSince(found)),
                    queries.issuedSince(found),
                    found.reopened()
                            .map(entry -> new Reopening(
                                    entry.seq(),
                                    entry.at(),
                                    entry.by(),
                                    entry.note().orElse(null)))
                            .orElse(null));
        });
    }

    private static List<VoidLine> lines(List<LifeQueries.Voided> voids) {
        return voids.stream()
                .map(each -> new VoidLine(
                        each.series(),
                        each.first(),
                        each.last(),
                        each.quantity(),
                        each.state().word(),
                        each.entry().note().orElse(null),
                        each.entry().by(),
                        each.entry().at(),
                        each.entry().seq()))
                .toList();
    }

    private Head headAt(long closing) {
        try {
            return Journal.headAt(ledger.journalDisk(), closing)
                    .orElseThrow(() -> Refusals.problem(new Refusal.NotClosed(closing)));
        } catch (IOException e) {
            throw new UncheckedIOException("the journal cannot be read", e);
        }
    }

    @GetMapping("/{closing}/page")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "printClosing", summary = "The same as a page for signatures, in PDF")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_PDF_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> page(@PathVariable long closing, Caller caller) throws IOException {
        Statement statement = statement(closing, caller);
        String name = "closing-" + closing + "-" + statement.key() + ".pdf";
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header("Content-Disposition", "inline; filename=\"" + name + "\"")
                .body(work.run(Sort.PAPER, caller.name(), () -> StatementPage.of(statement, ledger.zone())));
    }

    /** @param reason why it is opened again */
    record ReopeningRequest(@Nullable String reason) {}

    @PostMapping("/{closing}/reopenings")
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(operationId = "reopenPeriod", summary = "Reopen a closed period, with a reason")
    Settlement reopen(
            @PathVariable long closing,
            @RequestBody ReopeningRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        String actor = caller.name();
        covered(caller, Right.DEFINE, period(closing));
        Optional<String> reason = Requests.note("reason", request.reason());
        return Requests.settled(
                ledger,
                new Act.Reopen(
                        closing,
                        reason,
                        Requests.mark(
                                actor,
                                key,
                                RequestText.of("REOPEN").part(closing).part(reason))),
                actor);
    }
}
