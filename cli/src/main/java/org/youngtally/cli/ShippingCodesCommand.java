package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "shipping-codes",
        description =
                "Print the definition of a series of serial shipping container codes (SSCC) with the company prefix of a unit. Save it, and apply it as any other.",
        mixinStandardHelpOptions = true)
final class ShippingCodesCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "UNIT", description = "The unit with the company prefix.")
    private String unit;

    @Option(
            names = "--series",
            paramLabel = "KEY",
            description = "The key of the series (default: ${DEFAULT-VALUE}).",
            defaultValue = "shipping-code")
    private String series;

    @Option(
            names = "--extension",
            paramLabel = "DIGIT",
            description = "The extension digit (default: ${DEFAULT-VALUE}).",
            defaultValue = "0")
    private int extension;

    @Option(
            names = "--first",
            paramLabel = "N",
            description = "The first serial, where the prefix was used before (default: ${DEFAULT-VALUE}).",
            defaultValue = "1")
    private long first;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/units/" + Service.escape(unit) + "/shipping-codes?series="
                + Service.escape(series) + "&extension=" + extension + "&first=" + first);
        if (!output.asJson(answer)) output.text(Json.text(answer.body().getAsJsonObject(), "text", ""));
        return Main.DONE;
    }
}
