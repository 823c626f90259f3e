package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.Refusal.PlanFault;
import org.youngtally.core.act.SeriesStanding;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.repair.Choices;
import org.youngtally.core.series.Series;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Rewriting;
import org.youngtally.documents.table.TableFile;
import org.youngtally.ledger.Attachments;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.PlanQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.table.PlanCarrying;
import org.youngtally.service.table.PlanFile;
import org.youngtally.service.table.RepairOptions;
import org.youngtally.service.table.TablePlanning;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Plans for tables with numbers from before: made, carried out, abandoned. */
@RestController
@RequestMapping(Api.V1)
class PlanController {
    /** A plan lists every row that is changed. */
    private static final long MOST_PLAN_BYTES = 500_000_000;

    private static final int MOST_CHOSEN = 10_000;

    private final Ledger ledger;
    private final HeavyWork work;

    PlanController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    @Takes(value = UploadedFile.MOST_BYTES, file = true, toDisk = true)
    @PostMapping("/series/{series}/table-plans")
    @Needs(value = Right.READ, at = At.SERIES)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "planTable",
            summary =
                    "Plan what is done with the numbers of a table: which are recorded as pre-existing, which rows get a number, which texts are corrected. Nothing is changed and the file is not kept. The answer is the plan, a JSON document; its SHA-256 names it when it is carried out")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    void plan(
            @PathVariable String series,
            @Parameter(description = "The file's name: .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson") @RequestParam
                    String name,
            @Parameter(description = "The column of the numbers; default: the likeliest")
                    @RequestParam(required = false)
                    String column,
            @Parameter(description = "The encoding of a text file; default: found out") @RequestParam(required = false)
                    String encoding,
            @Parameter(description = "The column of the rows' dates; default: none") @RequestParam(required = false)
                    String dateColumn,
            @Parameter(
                            description =
                                    "The column of a field of the series, as FIELD=COLUMN; default: the column with the field's name")
                    @RequestParam(required = false)
                    List<String> field,
            @Parameter(description = "The gaps: keep, to allocate them from now on, or close, to make them void")
                    @RequestParam(defaultValue = "keep")
                    String gaps,
            @Parameter(description = "Of duplicates, the row that keeps the number: first or oldest")
                    @RequestParam(defaultValue = "first")
                    String duplicates,
            @Parameter(description = "Lines of rows that keep their number, whatever the rule says")
                    @RequestParam(required = false)
                    List<Long> chosen,
            @Parameter(description = "The business date of rows without a date; default: today")
                    @RequestParam(required = false)
                    String date,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request,
            @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        Series found = Requests.series(caller, series);
        caller.need(Right.READ, Where.series(series));
        RepairOptions options = options(name, column, encoding, dateColumn, field, gaps, duplicates, chosen, date);
        try (HeavyWork.Place place = work.enter(Sort.INSPECTION, caller.name());
                UploadedFile file = UploadedFile.of(request);
                TemporaryFile plan = TemporaryFile.create()) {
            place.run(() -> write(caller, found, options, file, plan));
            response.setContentType(MediaType.APPLICATION_JSON_VALUE);
            response.setHeader("Plan-Digest", plan.digest());
            plan.send(response);
        }
    }

    private RepairOptions options(
            String name,
            String column,
            String encoding,
            String dateColumn,
            List<String> fields,
            String gaps,
            String duplicates,
            List<Long> chosen,
            String date) {
        TablePlan.Gaps gapsOf = word(TablePlan.Gaps.values(), TablePlan.Gaps::word, "gaps", gaps);
        Choices.Keep keep = word(Choices.Keep.values(), Choices.Keep::word, "duplicates", duplicates);
        if (keep == Choices.Keep.OLDEST && dateColumn == null)
            throw new Problem(Type.MALFORMED, "The oldest row can only be told with a column of dates.")
                    .field("dateColumn", "the name of a column");
        if (chosen != null && chosen.size() > MOST_CHOSEN)
            throw new Problem(Type.MALFORMED, chosen.size() + " lines cannot be chosen.")
                    .field("chosen", "up to " + MOST_CHOSEN + " lines");
        if (chosen != null && chosen.stream().anyMatch(Objects::isNull))
            throw new Problem(Type.MALFORMED, "An empty text is not the number of a line.")
                    .field("chosen", "lines of the file, from 1");
        return new RepairOptions(
                name,
                Optional.ofNullable(encoding),
                Optional.ofNullable(column),
                Optional.ofNullable(dateColumn),
                Requests.fields(fields),
                gapsOf,
                keep,
                chosen == null ? List.of() : chosen.stream().sorted().toList(),
                Requests.date(date).orElseGet(ledger::today));
    }

    private static <T> T word(T[] values, Function<T, String> words, String field, String wanted) {
        return Arrays.stream(values)
                .filter(value -> words.apply(value).equals(wanted))
                .findFirst()
                .orElseThrow(() -> new Problem(Type.MALFORMED, "‘" + wanted + "’ is not a choice for ‘" + field + "’.")
                        .field(field, Arrays.stream(values).map(words).collect(Collectors.joining(" or "))));
    }

    private Void write(Caller caller, Series series, RepairOptions options, UploadedFile file, TemporaryFile plan)
            throws IOException {
        try {
            var planning = new TablePlanning(
                    caller.snapshot(),
                    series,
                    options,
                    TableFile.open(file.path(), options.name(), options.encoding()),
                    ledger.today());
            ledger.read(dsl -> {
                try {
                    planning.write(dsl, file.path(), file.digest(), plan.path());
                    return null;
                } catch (UnreadableDocument e) {
                    throw faulty(e);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
            return null;
        } catch (UnreadableDocument e) {
            throw faulty(e);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private static Problem faulty(UnreadableDocument e) {
        return new Problem(Type.TABLE_FAULTY, e.getMessage() + ".").field("file", e.accepted());
    }

    @Takes(value = UploadedFile.MOST_BYTES, file = true, toDisk = true)
    @PostMapping("/series/{series}/table-repairs")
    @Needs(value = Right.DEFINE, at = At.SERIES)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "repairTable",
            summary =
                    "Carry out a plan for the numbers of a table and return the repaired table: its other bytes are unchanged. It is done in steps, so that others can allocate in between; after an end in the middle the same request goes on. Plan is the entry that began it")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    void carryOut(
            @PathVariable String series,
            @Parameter(description = "The file's name: .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson") @RequestParam
                    String name,
            @Parameter(description = "The column of the numbers; default: the likeliest")
                    @RequestParam(required = false)
                    String column,
            @Parameter(description = "The encoding of a text file; default: found out") @RequestParam(required = false)
                    String encoding,
            @Parameter(description = "The column of the rows' dates; default: none") @RequestParam(required = false)
                    String dateColumn,
            @Parameter(
                            description =
                                    "The column of a field of the series, as FIELD=COLUMN; default: the column with the field's name")
                    @RequestParam(required = false)
                    List<String> field,
            @Parameter(description = "The gaps: keep, to allocate them from now on, or close, to make them void")
                    @RequestParam(defaultValue = "keep")
                    String gaps,
            @Parameter(description = "Of duplicates, the row that keeps the number: first or oldest")
                    @RequestParam(defaultValue = "first")
                    String duplicates,
            @Parameter(description = "Lines of rows that keep their number, whatever the rule says")
                    @RequestParam(required = false)
                    List<Long> chosen,
            @Parameter(description = "The business date of rows without a date; default: today")
                    @RequestParam(required = false)
                    String date,
            @Parameter(description = "The SHA-256 of the plan, in lower-case hexadecimal digits") @RequestParam
                    String plan,
            @Parameter(description = "What the plan says as its standing") @RequestParam(required = false)
                    String standing,
            @Parameter(description = "The name of a further column for the old numbers; default: none")
                    @RequestParam(required = false)
                    String oldColumn,
            @Parameter(description = "Why, kept in the ledger; gaps are not closed without it")
                    @RequestParam(required = false)
                    String reason,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request,
            @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        Series found = Requests.series(caller, series);
        DefiningRights.needToDefine(caller, Where.series(series));
        Optional<String> why = Requests.note("reason", reason);
        RepairOptions options = options(name, column, encoding, dateColumn, field, gaps, duplicates, chosen, date);
        try (HeavyWork.Place place = work.enter(Sort.TABLE, caller.name());
                UploadedFile file = UploadedFile.of(request);
                TemporaryFile repaired = TemporaryFile.create()) {
            PlanFile read = place.run(() -> kept(caller, found, options, file, plan, standing));
            if (!read.fileDigest().equals(file.digest()))
                throw new Problem(Type.PLAN_REFUSED, "The table changed since the plan was made.")
                        .field("file", "the table as it was, or a new plan");
            if (!read.numbering().isEmpty()) caller.need(Right.ALLOCATE, Where.series(series));
            var carrying = new PlanCarrying(
                    ledger,
                    read,
                    plan,
                    Requests.mark(
                            caller.name(),
                            null,
                            RequestText.of("CARRY OUT").part(series).part(plan)));
            long seq = carrying.begin(why);
            carrying.carryOut(seq, done -> {});
            place.run(() -> rewrite(file, options, read, carrying.texts(seq), oldColumn, repaired));
            response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
            response.setHeader("Content-Disposition", RecordFileController.disposition("attachment", name));
            response.setHeader("Plan", String.valueOf(seq));
            repaired.send(response);
        }
    }

    /** The plan, as it was kept when it was begun; or made anew, if the table and the ledger still come to the same. */
    private PlanFile kept(
            Caller caller, Series series, RepairOptions options, UploadedFile file, String digest, String standing)
            throws IOException {
        Optional<byte[]> known = digest.matches("[0-9a-f]{64}") ? ledger.files().read(digest) : Optional.empty();
        boolean begun = ledger.read(dsl -> new PlanQueries(dsl).by(digest)).isPresent();
        if (begun && known.isPresent()) {
            PlanFile plan = PlanFile.read(new ByteArrayInputStream(known.get()));
            // A right on one series is none on another, whatever plan is named.
            if (!plan.series().equals(series.key()))
                throw new Problem(Type.PLAN_REFUSED, "The plan is not that of this table and ledger.")
                        .field("plan", "a plan for ‘" + series.key() + "’");
            return plan;
        }
        if (standing != null
                && !SeriesStanding.of(caller.snapshot().counters(), series).equals(standing))
            throw Refusals.problem(new Refusal.PlanRefused(series.key(), PlanFault.LEDGER_MOVED));
        try (TemporaryFile plan = TemporaryFile.create()) {
            write(caller, series, options, file, plan);
            if (!plan.digest().equals(digest))
                throw new Problem(Type.PLAN_REFUSED, "The plan is not that of this table and ledger.")
                        .field("plan", "a new plan for the table; a plan that was edited cannot be carried out");
            try (InputStream in = Files.newInputStream(plan.path())) {
                ledger.files().keep(in, MOST_PLAN_BYTES);
            } catch (Attachments.TooLarge e) {
                throw new Problem(Type.TABLE_FAULTY, "The plan is larger than a plan may be.")
                        .field("file", "the table in parts");
            }
            try (InputStream in = Files.newInputStream(plan.path())) {
                return PlanFile.read(in);
            }
        }
    }

    private Void rewrite(
            UploadedFile file,
            RepairOptions options,
            PlanFile plan,
            Map<Long, String> texts,
            String oldColumn,
            TemporaryFile to)
            throws IOException {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(to.path()))) {
            TableFile table = TableFile.open(file.path(), options.name(), options.encoding());
            table.rewrite(
                    new Rewriting(
                            table.columns().indexOf(plan.column()),
                            line -> Optional.ofNullable(texts.get(line)),
                            Optional.ofNullable(oldColumn)),
                    out);
            return null;
        } catch (UnreadableDocument e) {
            throw faulty(e);
        }
    }

    /**
     * A plan for a table that was begun.
     *
     * @param plan the entry that began it
     * @param file the name of the table
     * @param digest SHA-256 of the plan
     * @param gaps keep or close
     * @param state open, carried out or abandoned
     * @param preexisting how many numbers it records
     * @param rows how many rows get a number
     * @param recorded in percent, how much of it is recorded
     * @param numbered how many rows have their number
     * @param ended the entry that ended it
     */
    record PlanView(
            long plan,
            Instant at,
            String by,
            String series,
            String file,
            String digest,
            String state,
            String gaps,
            long preexisting,
            long rows,
            long recorded,
            long numbered,
            @Nullable String note,
            @Nullable Long ended) {
        static PlanView of(PlanQueries.Plan plan, EntryQueries.Row entry) {
            TablePlan stated = plan.open().plan();
            return new PlanView(
                    plan.open().seq(),
                    entry.at(),
                    entry.by(),
                    stated.series(),
                    stated.file(),
                    stated.digest(),
                    plan.ended().isEmpty() ? "open" : plan.completed() ? "carried out" : "abandoned",
                    stated.gaps().word(),
                    stated.preexisting(),
                    stated.rows(),
                    stated.stretches() == 0 ? 100 : 100 * plan.open().recorded() / stated.stretches(),
                    plan.open().numbered(),
                    entry.note().orElse(null),
                    plan.ended().orElse(null));
        }
    }

    @GetMapping("/table-plans")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "listPlans", summary = "Plans for tables that were begun, the newest first")
    List<PlanView> plans(Caller caller) {
        return ledger.read(dsl -> {
            var entries = new EntryQueries(dsl);
            return new PlanQueries(dsl)
                    .all().stream()
                            .filter(plan -> caller.reads(plan.open().plan().series()))
                            .map(plan -> PlanView.of(
                                    plan, entries.at(plan.open().seq()).orElseThrow()))
                            .toList();
        });
    }

    /** @param reason why it is abandoned */
    record AbandonRequest(@Nullable String reason) {}

    @PostMapping("/table-plans/{plan}/end")
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(
            operationId = "abandonPlan",
            summary =
                    "Abandon a plan that is not carried out: numbers that it allocated become void, numbers that it recorded stay pre-existing")
    PlanView abandon(@PathVariable long plan, @RequestBody AbandonRequest request, Caller caller) {
        PlanQueries.Plan known = ledger.read(dsl -> new PlanQueries(dsl).at(plan))
                .filter(each -> caller.knows(each.open().plan().series()))
                .filter(each -> !each.completed())
                .orElseThrow(() -> Refusals.problem(new Refusal.UnknownPlan(plan)));
        Where where = Where.series(known.open().plan().series());
        DefiningRights.needToDefine(caller, where);
        caller.need(Right.VOID, where);
        Optional<String> reason = Requests.note("reason", request.reason());
        if (reason.isEmpty()) throw Refusals.problem(new Refusal.ReasonMissing("abandon"));
        PlanCarrying.abandon(
                ledger,
                caller.name(),
                known,
                reason,
                Requests.mark(
                        caller.name(),
                        null,
                        RequestText.of("ABANDON").part(plan).part(reason)));
        return ledger.read(dsl -> PlanView.of(
                new PlanQueries(dsl).at(plan).orElseThrow(),
                new EntryQueries(dsl).at(plan).orElseThrow()));
    }
}
