package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "allocate", description = "Take the next numbers of a series.", mixinStandardHelpOptions = true)
final class AllocateCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "SERIES", description = "The key of the series.")
    private String series;

    @Option(names = "--quantity", paramLabel = "N", description = "How many (default 1).", defaultValue = "1")
    private long quantity;

    @Option(names = "--typed", paramLabel = "IDENTIFIER", description = "Take this one, for a series whose numbers may be typed.")
    private String typed;

    @Mixin
    private Request request;

    @Override
    public Integer call() {
        JsonObject body = request.body(quantity);
        if (typed != null) body.addProperty("typed", typed);
        return take(service, output, series, body, request.key());
    }

    /** Takes numbers that stand alone, and prints them. */
    static int take(Service service, Output output, String series, JsonObject body, String key) {
        Service.Answer answer = service.take("/series/" + Service.escape(series) + "/allocations", body, key);
        if (output.asJson(answer)) return Main.DONE;
        JsonObject taken = answer.body().getAsJsonObject();
        for (JsonElement identifier : Json.list(taken, "identifiers")) output.line(identifier.getAsString());
        if (taken.has("until")) output.note("Held until " + Moment.of(Json.text(taken, "until", "")) + "; confirm or release by then.");
        if (taken.has("withdrawn")) output.note("The same request took numbers as entry " + Json.number(taken, "seq") + "; " + Json.number(taken, "withdrawn") + " of " + Json.number(taken, "quantity") + " were given back or voided since, so that it gives none.");
        else if (taken.get("repeated").getAsBoolean()) output.note("The same request had taken " + (Json.number(taken, "quantity") == 1 ? "it" : "them") + " before, as entry " + Json.number(taken, "seq") + ".");
        return Main.DONE;
    }

    /** What a request for numbers says besides its quantity. */
    static final class Request {
        @Option(names = "--date", paramLabel = "DATE", description = "The business date, as in 2026-01-31 (default: today, as the service has it).")
        private String date;

        @Option(names = "--reference", paramLabel = "TEXT", description = "What the numbers are for; unique in the series.")
        private String reference;

        @Option(names = "--key", paramLabel = "TOKEN", description = "A token for this request: repeated with it, it gives the same answer (default: a new one).")
        private String key;

        @Mixin
        private Given given;

        JsonObject body(long quantity) {
            var body = new JsonObject();
            body.addProperty("quantity", quantity);
            if (date != null) body.addProperty("date", date);
            if (!given.fields().isEmpty()) {
                var fields = new JsonObject();
                given.fields().forEach(fields::addProperty);
                body.add("fields", fields);
            }
            if (reference != null) body.addProperty("reference", reference);
            return body;
        }

        String key() { return key == null ? UUID.randomUUID().toString() : key; }
    }
}
