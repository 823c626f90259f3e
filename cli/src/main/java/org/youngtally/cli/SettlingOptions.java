package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import java.util.List;
import java.util.UUID;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Which numbers of a series an act is about, and why; and the act itself. */
final class SettlingOptions {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(index = "0", paramLabel = "SERIES", description = "The key of the series.")
    private String series;

    @Parameters(
            index = "1..*",
            paramLabel = "IDENTIFIER",
            arity = "0..*",
            description = "The identifiers, in upper or lower case.")
    private List<String> identifiers = List.of();

    @Option(
            names = "--through",
            paramLabel = "IDENTIFIER",
            description = "All numbers from the one identifier to this one.")
    private String through;

    @Option(
            names = "--entry",
            paramLabel = "SEQUENCE",
            description = "All numbers of this entry whose state allows it; of a block, those not reported yet.")
    private Long entry;

    @Option(names = "--reference", paramLabel = "TEXT", description = "All numbers of this reference.")
    private String reference;

    @Option(names = "--reason", paramLabel = "TEXT", description = "The reason.")
    private String reason;

    @Option(
            names = "--key",
            paramLabel = "TOKEN",
            description =
                    "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
    private String key;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    /**
     * Sends the act and prints what it made of the numbers.
     *
     * @param path where it is sent, beneath the series
     * @param past what has been done with them, in a word
     */
    int settle(String path, String past) {
        Service.Answer answer = service.take(
                "/series/" + Service.escape(series) + "/" + path,
                body(),
                key == null ? UUID.randomUUID().toString() : key);
        if (!output.asJson(answer)) print(output, answer.body().getAsJsonObject(), past);
        return Main.DONE;
    }

    private JsonObject body() {
        int ways = (identifiers.isEmpty() ? 0 : 1) + (entry == null ? 0 : 1) + (reference == null ? 0 : 1);
        if (ways != 1)
            throw new ParameterException(
                    spec.commandLine(),
                    ways == 0
                            ? "No numbers are named. Add identifiers, --entry or --reference."
                            : "Numbers are named in more than one way. Keep identifiers, --entry or --reference.");
        if (through != null && identifiers.size() != 1)
            throw new ParameterException(
                    spec.commandLine(), "--through requires exactly one identifier, the first of the run.");
        var body = new JsonObject();
        if (through != null) {
            body.addProperty("first", identifiers.getFirst());
            body.addProperty("last", through);
        } else if (!identifiers.isEmpty()) {
            var list = new JsonArray();
            identifiers.forEach(list::add);
            body.add("identifiers", list);
        }
        if (entry != null) body.addProperty("entry", entry);
        if (reference != null) body.addProperty("reference", reference);
        if (reason != null) body.addProperty("reason", reason);
        return body;
    }

    static void print(Output output, JsonObject done, String past) {
        String first = Json.text(done, "first", "");
        String last = Json.text(done, "last", "");
        long quantity = Json.number(done, "quantity");
        String numbers = first.equals(last)
                ? first
                : quantity == 2 ? first + " and " + last : first + " … " + last + " (" + Output.grouped(quantity) + ")";
        String state = Json.text(done, "state", "");
        output.line(numbers + " " + past + consequence(past, state) + ", entry " + Json.number(done, "seq"));
        if (done.get("repeated").getAsBoolean()) output.note("The same request did this before.");
    }

    /** What comes of it that the word does not say. */
    private static String consequence(String past, String state) {
        if (!past.equals("released") && !past.equals("returned")) return "";
        return state.equals("returned") ? ": issued next" : ": void";
    }
}
