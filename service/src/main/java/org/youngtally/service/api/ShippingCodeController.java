package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.gs1.CompanyPrefix;
import org.youngtally.core.organisation.Unit;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Writes the series of serial shipping container codes for the company prefix of a unit. */
@RestController
@RequestMapping(Api.V1)
class ShippingCodeController {
    private final Ledger ledger;

    ShippingCodeController(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * The definition of a series.
     *
     * @param series its key
     * @param text a definition file with this series alone, to look at and to apply
     */
    record SeriesText(String series, String text) {}

    @GetMapping("/units/{unit}/shipping-codes")
    @Needs(value = Right.DEFINE, at = At.SOMEWHERE)
    @Operation(
            operationId = "writeShippingCodes",
            summary =
                    "The definition of a series of serial shipping container codes (SSCC) with the company prefix of a unit, its serial as wide as the prefix leaves room. Nothing is defined: apply it as any other")
    SeriesText write(
            @PathVariable String unit,
            @Parameter(description = "The key of the series") @RequestParam(defaultValue = "shipping-code")
                    String series,
            @Parameter(description = "The extension digit, 0 to 9") @RequestParam(defaultValue = "0") int extension,
            @Parameter(description = "The first serial that was not used yet") @RequestParam(defaultValue = "1")
                    long first,
            Caller caller) {
        Unit found = RecordSeries.unit(caller.snapshot(), unit);
        CompanyPrefix prefix = found.prefix().map(CompanyPrefix::new).orElseThrow(() -> new Problem(
                        Type.MALFORMED, "The unit ‘" + found.key() + "’ has no company prefix.")
                .field("unit", "a unit with company-prefix in its definition"));
        DefinitionName.fault("series", series).ifPresent(fault -> {
            throw new Problem(Type.MALFORMED, "series: " + fault.problem() + ".").field("series", fault.accepted());
        });
        if (extension < 0 || extension > 9)
            throw new Problem(Type.MALFORMED, extension + " is not an extension digit.").field("extension", "0 to 9");
        if (first < 0 || first > prefix.containerLast())
            throw new Problem(Type.MALFORMED, "The first serial cannot be " + first + ".")
                    .field("first", "0 to " + prefix.containerLast());
        return new SeriesText(series, """
                # Serial shipping container codes with the company prefix %s of the unit %s.
                series:

                  - key: %s
                    title: Shipping codes
                    namespace: shipping-codes
                    pattern: "%s"
                    longest: 18
                    symbols: digits
                    ranges:
                      - { first: %d, last: %d, opens: %s }
                """.formatted(
                        prefix.digits(),
                        found.key(),
                        series,
                        prefix.containerPattern(extension),
                        first,
                        prefix.containerLast(),
                        ledger.today()));
    }
}
