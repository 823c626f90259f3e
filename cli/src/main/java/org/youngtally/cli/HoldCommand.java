package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "hold",
        description = "Hold the next numbers of a series for a time, until they are confirmed.",
        mixinStandardHelpOptions = true)
final class HoldCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "SERIES", description = "The key of the series.")
    private String series;

    @Option(
            names = "--for",
            paramLabel = "DURATION",
            description = "How long: " + Time.SHAPE + " (default: ${DEFAULT-VALUE}).",
            converter = Time.Converter.class,
            defaultValue = "15m")
    private Time time;

    @Option(names = "--quantity", paramLabel = "N", description = "How many (default: 1).", defaultValue = "1")
    private long quantity;

    @Mixin
    private AllocateCommand.Request request;

    @Override
    public Integer call() {
        JsonObject body = request.body(quantity);
        body.addProperty("hold", time.toString());
        return AllocateCommand.take(
                service, output, "/series/" + Service.escape(series) + "/allocations", body, request.key());
    }
}
