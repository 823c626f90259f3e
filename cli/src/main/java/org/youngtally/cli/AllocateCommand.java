package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "allocate",
        description =
                "Allocate the next numbers of a series, or of the series that the routes find for a kind of record in a unit.",
        mixinStandardHelpOptions = true)
final class AllocateCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "SERIES", arity = "0..1", description = "The key of the series; omit it with --kind.")
    private String series;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            description =
                    "The kind of record that the number is for: the routes find the series from its unit and fields.")
    private String kind;

    @Spec
    private CommandSpec spec;

    @Option(names = "--quantity", paramLabel = "N", description = "How many (default: 1).", defaultValue = "1")
    private long quantity;

    @Option(
            names = "--typed",
            paramLabel = "IDENTIFIER",
            description = "Allocate this number, for a series that allows typed numbers.")
    private String typed;

    @Mixin
    private Request request;

    @Override
    public Integer call() {
        JsonObject body = request.body(quantity);
        if (typed != null) body.addProperty("typed", typed);
        if ((series == null) == (kind == null))
            throw new ParameterException(
                    spec.commandLine(),
                    series == null
                            ? "No series is named. Name one, or add --kind and --unit."
                            : "A series cannot be combined with --kind. Remove one of them.");
        if (kind == null)
            return take(service, output, "/series/" + Service.escape(series) + "/allocations", body, request.key());
        if (!request.unit(body))
            throw new ParameterException(spec.commandLine(), "--kind requires --unit, the unit of the record.");
        return take(service, output, "/kinds/" + Service.escape(kind) + "/allocations", body, request.key());
    }

    /** Takes numbers that stand alone, and prints them. */
    static int take(Service service, Output output, String path, JsonObject body, String key) {
        Service.Answer answer = service.take(path, body, key);
        if (output.asJson(answer)) return Main.DONE;
        JsonObject taken = answer.body().getAsJsonObject();
        for (JsonElement identifier : Json.list(taken, "identifiers")) output.line(identifier.getAsString());
        if (taken.has("until"))
            output.note("Held until " + Moment.of(Json.text(taken, "until", ""))
                    + ". Confirm or release before that time.");
        if (taken.has("withdrawn"))
            output.note("The same request allocated numbers before, in entry " + Json.number(taken, "seq") + "; "
                    + Output.grouped(Json.number(taken, "withdrawn")) + " of "
                    + Output.grouped(Json.number(taken, "quantity"))
                    + " were returned or voided since. Nothing was allocated.");
        else if (taken.get("repeated").getAsBoolean())
            output.note("The same request allocated " + (Json.number(taken, "quantity") == 1 ? "it" : "them")
                    + " before, in entry " + Json.number(taken, "seq") + ".");
        return Main.DONE;
    }

    /** What a request for numbers says besides its quantity. */
    static final class Request {
        @Option(
                names = "--date",
                paramLabel = "DATE",
                description =
                        "The business date, such as 2026-01-31 (default: today, in the time zone of the unit or service).")
        private String date;

        @Option(
                names = "--reference",
                paramLabel = "TEXT",
                description = "What the numbers are for; unique within the series.")
        private String reference;

        @Option(
                names = "--key",
                paramLabel = "KEY",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key;

        @Mixin
        private Given given;

        JsonObject body(long quantity) {
            var body = new JsonObject();
            body.addProperty("quantity", quantity);
            if (date != null) body.addProperty("date", date);
            given.write(body);
            if (reference != null) body.addProperty("reference", reference);
            return body;
        }

        /** Whether the request names a unit. */
        boolean unit(JsonObject body) {
            return body.has("unit");
        }

        String key() {
            return key == null ? UUID.randomUUID().toString() : key;
        }
    }
}
