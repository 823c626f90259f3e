package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;

@RestController
@RequestMapping(Api.V1 + "/codebooks")
class CodebookController {
    private final Ledger ledger;
    private final HeavyWork work;

    CodebookController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /** @param usedBy the series that use it */
    record CodebookView(
            String key, String title, int version, List<CodebookForm.ChoiceForm> choices, List<String> usedBy) {}

    @GetMapping
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listCodebooks",
            summary = "The codebooks of series and kinds that one may read, by key, and the series that use each")
    List<CodebookView> list(Caller caller) {
        return caller.snapshot().codebooks().values().stream()
                .filter(book -> caller.readsCodebook(book.key()))
                .sorted(Comparator.comparing(Codebook::key))
                .map(book -> new CodebookView(
                        book.key(),
                        book.title(),
                        book.version(),
                        CodebookForm.of(book).choices(),
                        caller.snapshot().series().values().stream()
                                .filter(each -> each.codebooks().contains(book.key()))
                                .map(Series::key)
                                .filter(caller::reads)
                                .sorted()
                                .toList()))
                .toList();
    }

    @GetMapping("/{codebook}")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(operationId = "showCodebook", summary = "One codebook, with the ETag for a change")
    ResponseEntity<CodebookForm> show(@PathVariable String codebook, Caller caller) {
        List<Codebook> books = caller.snapshot().codebooks().values().stream()
                .filter(book -> caller.readsCodebook(book.key()))
                .toList();
        Optional<String> near =
                NearestName.to(codebook, books.stream().map(Codebook::key).toList());
        Codebook found = books.stream()
                .filter(book -> book.key().equals(codebook))
                .findFirst()
                .orElseThrow(() -> new Problem(
                                Type.UNKNOWN_CODEBOOK,
                                "Codebook ‘" + codebook + "’ not found."
                                        + near.map(name -> " Did you mean ‘" + name + "’?")
                                                .orElse(""))
                        .field("codebook", near.orElse("the key of an existing codebook")));
        return tagged(found);
    }

    private static ResponseEntity<CodebookForm> tagged(Codebook found) {
        return ResponseEntity.ok().eTag(Integer.toString(found.version())).body(CodebookForm.of(found));
    }

    @Takes(Takes.A_LIST)
    @PutMapping("/{codebook}")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "defineCodebook",
            summary =
                    "Define a codebook, or add and retire choices. If-None-Match: * for a new one, If-Match with the ETag for an existing one")
    ResponseEntity<CodebookForm> define(
            @PathVariable String codebook,
            @RequestBody CodebookForm form,
            @RequestHeader(name = "If-Match", required = false) String match,
            @RequestHeader(name = "If-None-Match", required = false) String noneMatch,
            Caller caller) {
        if (!codebook.equals(form.key()))
            throw new Problem(Type.MALFORMED, "The address names ‘" + codebook + "’, the body ‘" + form.key() + "’.")
                    .field("key", codebook);
        Outcome.Defined made = DefiningRights.define(
                caller,
                ledger,
                work,
                new Act.Define(Drafts.of(form.draft()), List.of(), Requests.replaced(match, noneMatch)));
        ResponseEntity<CodebookForm> defined = made.codebooks().stream()
                .findFirst()
                .map(CodebookController::tagged)
                .orElseGet(() -> show(codebook, caller));
        return ResponseEntity.status("*".equals(noneMatch) ? HttpStatus.CREATED : HttpStatus.OK)
                .headers(defined.getHeaders())
                .body(defined.getBody());
    }
}
