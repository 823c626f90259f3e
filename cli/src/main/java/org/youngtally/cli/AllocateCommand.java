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

    @Mixin
    private Request request;

    @Override
    public Integer call() {
        Service.Answer answer = service.take("/series/" + Service.escape(series) + "/allocations", request.body(quantity), request.key());
        if (output.asJson(answer)) return Main.DONE;
        JsonObject taken = answer.body().getAsJsonObject();
        for (JsonElement identifier : taken.getAsJsonArray("identifiers")) output.line(identifier.getAsString());
        if (taken.get("repeated").getAsBoolean()) output.note("The same request had taken " + (quantity == 1 ? "it" : "them") + " before, as entry " + Json.number(taken, "seq") + ".");
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
