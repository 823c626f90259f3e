package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpStatus;
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
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.ledger.Attachments;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.RecordController.RecordAnswer;
import org.youngtally.service.body.Takes;
import org.youngtally.service.record.RecordPaper;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** The files that go with records, and records on paper. Each bears the record's identifier as its name. */
@RestController
@RequestMapping(Api.V1 + "/records/{record}")
class RecordFileController {
    private static final long MOST_BYTES = 100_000_000;

    private final Ledger ledger;
    private final HeavyWork work;

    RecordFileController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    @Takes(value = MOST_BYTES, file = true, toDisk = true)
    @PostMapping("/files")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "attachFile",
            summary = "Attach a file to a record; it is named by the record's identifier, with its own file extension")
    ResponseEntity<RecordAnswer> attach(
            @PathVariable long record,
            @Parameter(description = "The name of the file; its extension is kept") @RequestParam String name,
            @Parameter(description = "A unit of the record; default: the first") @RequestParam(required = false)
                    String unit,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request)
            throws IOException {
        KeptRecord before = Records.seen(ledger, caller, record);
        Unit in = RecordSeries.unit(caller.snapshot(), unit == null ? before.home() : unit);
        caller.need(Right.ALLOCATE, Records.in(before, in.key()));
        if (before.deleted())
            throw Refusals.problem(
                    new Refusal.RecordDeleted(before.id(), before.number().text()));
        int dot = name.lastIndexOf('.');
        String ending = dot < 0 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT);
        if (!ending.matches("[a-z0-9]{0,10}"))
            throw new Problem(Type.MALFORMED, "‘" + name + "’ is not a file name.")
                    .field("name", "a name with an extension of up to ten letters and digits, such as .pdf; or none");
        Attachments.Kept kept = kept(request);
        Outcome.Recorded recorded = Records.perform(
                ledger,
                new Act.ChangeRecord(
                        record,
                        in.key(),
                        new RecordChange.Attach(new KeptRecord.Attached(ending, kept.size(), kept.digest())),
                        Optional.empty(),
                        Requests.mark(
                                caller.name(),
                                key,
                                RequestText.of("ATTACH")
                                        .part(record)
                                        .part(ending)
                                        .part(kept.digest()))),
                caller);
        return ResponseEntity.status(recorded.repeated() ? HttpStatus.OK : HttpStatus.CREATED)
                .body(RecordAnswer.of(recorded));
    }

    private Attachments.Kept kept(HttpServletRequest request) throws IOException {
        Attachments.Kept kept = ledger.files().keep(Requests.file(request), MOST_BYTES);
        if (kept.size() == 0)
            throw new Problem(Type.MALFORMED, "The file is empty.").field("body", "the bytes of the file");
        return kept;
    }

    @GetMapping("/files/{place}")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "fetchFile", summary = "An attached file, named by the record's identifier")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> file(
            @PathVariable long record,
            @Parameter(description = "Which of the record's files, from 1") @PathVariable int place,
            Caller caller)
            throws IOException {
        KeptRecord found = Records.seen(ledger, caller, record);
        if (place < 1 || place > found.files().size())
            throw new Problem(Type.UNKNOWN_FILE, "The record " + found.number().text() + " has no file " + place + ".")
                    .field(
                            "place",
                            found.files().isEmpty()
                                    ? "a record with files"
                                    : "1 to " + found.files().size());
        String name = found.fileName(place - 1);
        byte[] bytes = ledger.files()
                .read(found.files().get(place - 1).digest())
                .orElseThrow(() -> new Problem(
                        Type.UNKNOWN_FILE,
                        "The file " + name + " is no longer in the data folder of the service, or was changed there."));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .header("Content-Disposition", disposition("attachment", name))
                .body(bytes);
    }

    static String disposition(String how, String name) {
        return ContentDisposition.builder(how)
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString();
    }

    @GetMapping("/page")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(operationId = "printRecord", summary = "A record as a page to print, in PDF, named by its identifier")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_PDF_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> page(
            @PathVariable long record,
            @Parameter(description = "The unit of the page; default: the first") @RequestParam(required = false)
                    String unit,
            Caller caller)
            throws IOException {
        KeptRecord found = Records.seen(ledger, caller, record);
        String key = unit == null
                ? found.home()
                : RecordSeries.unit(caller.snapshot(), unit).key();
        KeptRecord.UnitValues standing = found.in(key)
                .orElseThrow(() -> Refusals.problem(
                        new Refusal.NotInUnit(found.id(), found.number().text(), key, found.units())));
        List<RecordQueries.Version> versions = ledger.read(dsl -> new RecordQueries(dsl).versions(record));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        "Content-Disposition",
                        disposition("inline", KeptRecord.fileName(found.number().text(), "", "pdf")))
                .body(work.run(
                        Sort.PAPER,
                        caller.name(),
                        () -> RecordPaper.of(
                                caller.snapshot(),
                                found,
                                standing,
                                versions.getFirst().entry().at())));
    }
}
