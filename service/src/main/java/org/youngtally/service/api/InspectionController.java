package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.inspection.BySeries;
import org.youngtally.core.inspection.Numbers;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.TableFile;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.table.TableInspection;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Tables that are looked through, and not changed: what numbers are in them. */
@RestController
@RequestMapping(Api.V1)
class InspectionController {
    private static final int MOST_COLUMNS = 5;

    private final Ledger ledger;
    private final HeavyWork work;

    InspectionController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    @Takes(value = UploadedFile.MOST_BYTES, file = true, toDisk = true)
    @PostMapping("/table-inspections")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "inspectTable",
            summary =
                    "Inspect the numbers of a table: blanks, duplicates, gaps, the lowest and highest by value, and texts that are no numbers. Nothing is changed and the file is not kept")
    InspectionView inspect(
            @Parameter(description = "The file's name: .csv, .tsv, .txt, .xlsx, .jsonl or .ndjson") @RequestParam
                    String name,
            @Parameter(description = "The series whose numbers are in the table; default: none, the shape of the texts")
                    @RequestParam(required = false)
                    String series,
            @Parameter(description = "Instead of a series, a kind: the series that its routes name")
                    @RequestParam(required = false)
                    String kind,
            @Parameter(description = "The column of the numbers, up to 5 of them; default: the likeliest")
                    @RequestParam(required = false)
                    List<String> column,
            @Parameter(
                            description =
                                    "The encoding of a text file: utf-8, utf-16, utf-16le, utf-16be, windows-1252 or iso-8859-1; default: found out")
                    @RequestParam(required = false)
                    String encoding,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request)
            throws IOException {
        List<Series> read = series(caller, series, kind);
        List<String> columns = column == null ? List.of() : column;
        if (columns.size() > MOST_COLUMNS)
            throw new Problem(Type.MALFORMED, columns.size() + " columns cannot be inspected at once.")
                    .field("column", "up to " + MOST_COLUMNS + " names");
        try (HeavyWork.Place place = work.enter(Sort.INSPECTION, caller.name());
                UploadedFile file = UploadedFile.of(request)) {
            return place.run(() -> inspected(caller, read, file.path(), name, columns, Optional.ofNullable(encoding)));
        }
    }

    private InspectionView inspected(
            Caller caller, List<Series> series, Path file, String name, List<String> columns, Optional<String> encoding)
            throws IOException {
        Comparison comparison =
                series.isEmpty() ? Comparison.NEWEST : series.getFirst().comparison();
        try {
            TableFile table = TableFile.open(file, name, encoding);
            return InspectionView.of(
                    name, table.notes(), TableInspection.of(table, numbers(caller, series), comparison, columns));
        } catch (UnreadableDocument e) {
            throw new Problem(Type.TABLE_FAULTY, e.getMessage() + ".").field("file", e.accepted());
        }
    }

    private Optional<Numbers> numbers(Caller caller, List<Series> series) {
        if (series.isEmpty()) return Optional.empty();
        LocalDate today = ledger.today();
        return Optional.of(new BySeries(series.stream()
                .map(each -> new SeriesReader(each, Fields.of(each, caller.snapshot()::choices), today))
                .toList()));
    }

    /** The series that is named, or all that the routes of a kind name; none where neither is. */
    private static List<Series> series(Caller caller, String series, String kind) {
        if (series != null && kind != null)
            throw new Problem(Type.MALFORMED, "A series and a kind cannot be named together.")
                    .field("kind", "nothing, or no series");
        if (series != null) {
            Series found = Requests.series(caller, series);
            caller.need(Right.READ, Where.series(series));
            return List.of(found);
        }
        if (kind == null) return List.of();
        Kind of = RecordSeries.kind(caller.snapshot(), kind);
        List<Series> routed = caller.snapshot().organisation().routes().values().stream()
                .filter(route -> route.kind().equals(of.key()))
                .map(route -> caller.snapshot().series().get(route.series()))
                .distinct()
                .filter(each -> caller.reads(each.key()))
                .toList();
        if (routed.isEmpty())
            throw new Problem(
                            Type.TABLE_FAULTY,
                            "No route of the kind ‘" + of.key() + "’ names a series that you may read.")
                    .field("kind", "a kind with routes");
        return routed;
    }
}
