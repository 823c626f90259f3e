package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.LongConsumer;
import java.util.stream.Collectors;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Table;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.body.Takes;
import org.youngtally.service.table.GivenCheck;
import org.youngtally.service.table.LineFaults;
import org.youngtally.service.table.TableNumbering;
import org.youngtally.service.table.TableRows;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Tables whose blank numbers are filled: the rows stay where they are, their numbers are taken here. */
@RestController
@RequestMapping(Api.V1)
class TableController {
    private static final int MOST_BYTES = 50_000_000;

    private final Ledger ledger;
    private final HeavyWork work;
    /** How far each filling under way has come, by its account and key. */
    private final Map<List<String>, Progress> underWay = new ConcurrentHashMap<>();

    TableController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * How far a table is filled.
     *
     * @param step reading, numbering or writing the file; waiting where no such table is being filled
     * @param done rows that have their number
     * @param of rows that get one
     */
    record Progress(String step, long done, long of) {}

    @GetMapping("/tables")
    @SignedIn
    @Operation(
            operationId = "showFilling",
            summary = "The progress of a table that one has sent, by its Idempotency-Key")
    Progress progress(@RequestParam String key, Caller caller) {
        return underWay.getOrDefault(List.of(caller.name(), key), new Progress("waiting", 0, 0));
    }

    @Takes(value = MOST_BYTES, file = true)
    @PostMapping("/kinds/{kind}/tables")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "fillTable",
            summary =
                    "Fill the blank numbers of a table from top to bottom, each row by its route: all of them or none, a thousand at a time, so that others can allocate in between. The same file is returned with its other cells unchanged. Filled and Kept say how many rows got a number and how many had one, Entry is the entry of the ledger that allocated them, or the first of those up to Last-Entry")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> fill(
            @PathVariable String kind,
            @Parameter(description = "The unit of the rows") @RequestParam String unit,
            @Parameter(description = "The file's name: .csv or .xlsx") @RequestParam String name,
            @Parameter(
                            description =
                                    "The column of the numbers; default: the one with the name or title of the field that receives them")
                    @RequestParam(required = false)
                    String column,
            @Parameter(description = "The business date; default: that of each row, or today in the unit")
                    @RequestParam(required = false)
                    String date,
            @Parameter(description = "Only check the table: nothing is allocated, and the file is returned unchanged")
                    @RequestParam(defaultValue = "false")
                    boolean dryRun,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request)
            throws IOException {
        Kind of = RecordSeries.kind(caller.snapshot(), kind);
        Unit in = RecordSeries.unit(caller.snapshot(), unit);
        Set<String> series = series(caller, of, in);
        Optional<LocalDate> day = Requests.date(date);
        List<String> filling = List.of(
                caller.name(), Requests.name(Api.KEY, key).orElseGet(() -> String.valueOf(request.getRequestId())));
        try (HeavyWork.Place place = work.enter(Sort.TABLE, caller.name())) {
            underWay.put(filling, new Progress("reading", 0, 0));
            byte[] bytes = Requests.file(request).readAllBytes();
            Table.Format format = Table.Format.of(name);
            Table table = place.run(() -> Table.read(format, bytes));
            TableRows rows = place.run(() -> TableRows.of(
                    table,
                    of,
                    column,
                    RecordSeries.placing(caller.snapshot()).filled(of),
                    targets(caller.snapshot(), of)));
            place.run(() -> ledger.read(dsl -> {
                GivenCheck.of(dsl, rows.given(), series, rows.faults());
                return null;
            }));
            if (!rows.faults().isEmpty()) {
                place.run(() -> blank(caller.snapshot(), of, in, rows));
                throw rows.faults().problem();
            }
            var act = new Act.FillTable(
                    of.key(),
                    in.key(),
                    List.copyOf(rows.blank().values()),
                    day,
                    series,
                    Requests.mark(
                            caller.name(),
                            key,
                            RequestText.of("FILL")
                                    .part(of.key())
                                    .part(in.key())
                                    .part(day)
                                    .part(column)
                                    .part(digest(bytes))));
            var numbering = new TableNumbering(ledger, caller.name(), act);
            long all = act.rows().size();
            underWay.put(filling, new Progress("numbering", 0, all));
            ResponseEntity.BodyBuilder answer = ResponseEntity.ok()
                    .contentType(MediaType.parseMediaType(format.type()))
                    .header("Content-Disposition", RecordFileController.disposition("attachment", name))
                    .header("Filled", String.valueOf(all))
                    .header("Kept", String.valueOf(rows.given().size()));
            if (dryRun) {
                if (place.run(() -> ledger.decide(act)) instanceof Decision.Refused refused)
                    throw place.run(
                            () -> refused(new TableNumbering.Refused(refused.refusal(), false), rows, caller, act));
                return answer.body(bytes);
            }
            List<String> numbers = numbers(
                    numbering,
                    place,
                    done -> underWay.put(filling, new Progress("numbering", done, all)),
                    rows,
                    caller);
            underWay.put(filling, new Progress("writing the file", all, all));
            byte[] back = place.run(() -> table.filled(rows.column(), byLine(rows, numbers)));
            List<Long> entries = numbering.entries();
            if (!entries.isEmpty()) answer.header("Entry", String.valueOf(entries.getFirst()));
            if (entries.size() > 1) answer.header("Last-Entry", String.valueOf(entries.getLast()));
            return answer.body(back);
        } catch (UnreadableDocument e) {
            throw new Problem(Type.TABLE_FAULTY, e.getMessage() + ".").field("body", e.accepted());
        } finally {
            underWay.remove(filling);
        }
    }

    /** The series that can number records of a kind in a unit; the caller may take from each of them. */
    static Set<String> series(Caller caller, Kind kind, Unit unit) {
        Set<String> series = caller.snapshot().organisation().upwards(unit.key()).stream()
                .flatMap(at -> caller.snapshot().organisation().routesAt(kind.key(), at).stream())
                .map(Route::series)
                .collect(Collectors.toSet());
        Set<String> allowed = series.stream()
                .filter(each -> caller.may(Right.ALLOCATE, where(each, kind, unit)))
                .collect(Collectors.toSet());
        if (series.isEmpty()
                && caller.may(
                        Right.ALLOCATE, new Where(Optional.empty(), Optional.of(kind.key()), Optional.of(unit.key()))))
            throw RecordSeries.missingRoute(caller.snapshot(), kind, unit);
        if (allowed.isEmpty())
            caller.need(
                    Right.ALLOCATE,
                    series.isEmpty()
                            ? new Where(Optional.empty(), Optional.of(kind.key()), Optional.of(unit.key()))
                            : where(series.iterator().next(), kind, unit));
        return allowed;
    }

    private static Where where(String series, Kind kind, Unit unit) {
        return new Where(Optional.of(series), Optional.of(kind.key()), Optional.of(unit.key()));
    }

    static Set<String> targets(LedgerSnapshot snapshot, Kind kind) {
        return snapshot.organisation().routes().values().stream()
                .filter(route -> route.kind().equals(kind.key()))
                .map(Route::into)
                .collect(Collectors.toSet());
    }

    private static List<String> numbers(
            TableNumbering numbering, HeavyWork.Place place, LongConsumer progress, TableRows rows, Caller caller) {
        try {
            return place.run(numbering::looked).take(progress);
        } catch (TableNumbering.Refused e) {
            throw place.run(() -> refused(e, rows, caller, numbering.table()));
        } catch (LedgerUnavailable e) {
            throw numbering.unavailable(e);
        }
    }

    /** Tells each blank row that no series can number; what rows with the same values come to is worked out once. */
    private static LineFaults blank(LedgerSnapshot snapshot, Kind kind, Unit unit, TableRows rows) {
        var known = new HashMap<Map<String, String>, Optional<Problem>>();
        rows.blank().forEach((line, values) -> known.computeIfAbsent(
                        values, row -> RecordSeries.fault(snapshot, kind, unit, row))
                .ifPresent(problem -> rows.faults().add(line, problem)));
        return rows.faults();
    }

    private static Map<Integer, String> byLine(TableRows rows, List<String> numbers) {
        var texts = new HashMap<Integer, String>();
        Iterator<String> next = numbers.iterator();
        for (int line : rows.blank().keySet()) texts.put(line, next.next());
        return texts;
    }

    /** A row is told by its line in the file. */
    private static Problem refused(TableNumbering.Refused refused, TableRows rows, Caller caller, Act.FillTable table) {
        if (!(refused.refusal() instanceof Refusal.RowFaulty faulty)) return Refusals.problem(refused.refusal());
        // What one may not take from is told as everywhere: by the missing grant.
        if (faulty.refusal() instanceof Refusal.RouteMoved moved)
            caller.need(
                    Right.ALLOCATE,
                    new Where(Optional.of(moved.series()), Optional.of(table.kind()), Optional.of(table.unit())));
        int line = List.copyOf(rows.blank().keySet()).get(faulty.row());
        if (!refused.givenBack()) {
            blank(
                    caller.snapshot(),
                    RecordSeries.kind(caller.snapshot(), table.kind()),
                    RecordSeries.unit(caller.snapshot(), table.unit()),
                    rows);
            if (!rows.faults().isEmpty()) return rows.faults().problem();
        }
        Problem problem = Refusals.problem(faulty.refusal());
        String then = refused.givenBack()
                ? " The numbers of earlier rows were returned."
                : problem.getMessage().contains("Nothing was allocated") ? "" : " Nothing was allocated.";
        return new Problem(problem.type(), "Line " + line + ": " + problem.getMessage() + then)
                .with("line", line)
                .with(problem);
    }

    private static String digest(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
