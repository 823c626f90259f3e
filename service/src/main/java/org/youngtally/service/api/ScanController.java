package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.check.Checked;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.gs1.Element;
import org.youngtally.core.gs1.ElementReader;
import org.youngtally.core.reading.Deviation;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.LedgerController.IdentifierView;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Tells what is on a label, as a scanner or a person enters it. */
@RestController
@RequestMapping(Api.V1)
class ScanController {
    private static final int LONGEST = 2_000;
    /** How many texts that may have been meant are looked up. */
    private static final int MOST_NEAR = 100;

    private final Ledger ledger;
    private final IssuedIdentifiers identifiers;

    ScanController(Ledger ledger, IssuedIdentifiers identifiers) {
        this.ledger = ledger;
        this.identifiers = identifiers;
    }

    /**
     * What a scanned text says.
     *
     * @param text as it was entered
     * @param form how it is written: joined as in a bar code, bracketed, link, or plain for no GS1 elements
     * @param elements of GS1, in their order
     * @param faults what is wrong with them
     * @param identifiers the issued numbers that are in it, in all namespaces
     * @param meant where there are none: issued numbers that a single typing error would turn into what was entered
     */
    record Scan(
            String text,
            String form,
            List<ElementView> elements,
            List<FaultView> faults,
            List<IdentifierView> identifiers,
            List<MeantView> meant) {}

    /**
     * @param code the application identifier
     * @param title its data title
     * @param value its data
     */
    record ElementView(String code, String title, String value) {}

    /**
     * @param path the application identifier in parentheses; empty for the text as a whole
     * @param problem what is wrong
     * @param accepted what would do
     */
    record FaultView(String path, String problem, String accepted) {}

    /**
     * @param identifier that may have been meant
     * @param error the typing error in words, such as swap, look-alike or lost-zero
     * @param issued what it was issued for
     */
    record MeantView(String identifier, String error, IdentifierView issued) {}

    @GetMapping("/scans")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "scan",
            summary =
                    "What is on a label: GS1 elements as in the bar code, with parentheses or as a Digital Link, or a plain identifier; and what was issued under it")
    Scan scan(
            @Parameter(description = "The text, FNC1 as the symbol U+001D") @RequestParam String text, Caller caller) {
        String entered = text.strip();
        if (entered.isEmpty() || entered.length() > LONGEST)
            throw new Problem(
                            Type.MALFORMED,
                            entered.isEmpty()
                                    ? "Nothing was scanned."
                                    : "The scanned text has %,d symbols.".formatted(entered.length()))
                    .field("text", "1 to %,d symbols".formatted(LONGEST));
        Optional<ElementReader.Reading> reading = ElementReader.read(entered);
        List<Element> elements = reading.map(found -> found.string().elements()).orElse(List.of());
        Set<String> candidates = new LinkedHashSet<>();
        if (reading.isEmpty()) candidates.add(entered);
        elements.forEach(each -> candidates.add(each.value()));
        List<IdentifierView> found = candidates.stream()
                .flatMap(each -> identifiers.of(each, caller).stream())
                .toList();
        return new Scan(
                entered,
                reading.map(ElementReader.Reading::form)
                        .map(form -> form.name().toLowerCase(Locale.ROOT))
                        .orElse("plain"),
                elements.stream()
                        .map(each -> new ElementView(
                                each.identifier().code(), each.identifier().title(), each.value()))
                        .toList(),
                reading.map(ElementReader.Reading::faults).orElse(List.of()).stream()
                        .map(ScanController::view)
                        .toList(),
                found,
                found.isEmpty() ? meant(candidates, caller) : List.of());
    }

    private static FaultView view(Fault fault) {
        return new FaultView(fault.path(), fault.problem(), fault.accepted());
    }

    /** What was issued and is one typing error away from one of the texts. */
    private List<MeantView> meant(Set<String> texts, Caller caller) {
        var near = new LinkedHashMap<String, String>();
        for (String text : texts) {
            repaired(text, near);
            bySeries(text, caller, near);
        }
        var meant = new ArrayList<MeantView>();
        near.entrySet().stream().limit(MOST_NEAR).forEach(each -> identifiers.of(each.getKey(), caller).stream()
                .findFirst()
                .ifPresent(issued -> meant.add(new MeantView(issued.identifier(), each.getValue(), issued))));
        return meant;
    }

    /** Digits whose GS1 check digit is wrong. */
    private static void repaired(String text, Map<String, String> near) {
        if (!text.matches("[0-9]{8,18}")) return;
        CheckScheme gs1 = CheckSchemes.of("gs1").orElseThrow();
        for (Checked.Repair repair : Checked.of(gs1, text).repairs())
            near.putIfAbsent(
                    repair.text(),
                    switch (repair.slip()) {
                        case WRONG_SYMBOL -> "wrong symbol at place " + repair.at();
                        case SWAP -> "places " + repair.at() + " and " + (repair.at() + 1) + " swapped";
                    });
    }

    private void bySeries(String text, Caller caller, Map<String, String> near) {
        for (Series series : caller.snapshot().series().values()) {
            if (near.size() >= MOST_NEAR) return;
            if (!caller.reads(series.key()) || series.order().isSealed()) continue;
            new SeriesReader(series, Fields.of(series, caller.snapshot()::choices), ledger.today())
                    .nearest(text)
                    .forEach(located -> near.putIfAbsent(
                            located.reading().identifier(),
                            located.reading().deviations().stream()
                                    .sorted()
                                    .map(Deviation::word)
                                    .collect(Collectors.joining(", "))));
        }
    }
}
