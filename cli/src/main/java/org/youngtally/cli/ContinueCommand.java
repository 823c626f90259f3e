package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "continue",
        description =
                "Continue a series behind numbers that exist elsewhere. All numbers before it that the series has not allocated become pre-existing: they are never allocated.",
        mixinStandardHelpOptions = true)
final class ContinueCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "SERIES", description = "The key of the series.")
    private String series;

    @ArgGroup(multiplicity = "1")
    private Place place;

    /** Where it goes on: one of the two. */
    private static final class Place {
        @Option(
                names = "--from",
                paramLabel = "NUMBER",
                description = "The next number to allocate; it also says which lane continues.")
        private String from;

        @Option(
                names = "--after",
                paramLabel = "NUMBER",
                description = "Instead of --from: the highest number in use elsewhere.")
        private String after;
    }

    @Option(
            names = "--date",
            paramLabel = "DATE",
            description =
                    "The business date, where the number can belong to several lanes (default: the lane nearest to today).")
    private String date;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Where the earlier numbers are; kept in the ledger.")
    private String reason;

    @Option(names = "--dry-run", description = "Only say what would be done.")
    private boolean dryRun;

    @Option(
            names = "--key",
            paramLabel = "TOKEN",
            description =
                    "The idempotency key: a repeated request with the same key is done once (default: a new key).")
    private String key = UUID.randomUUID().toString();

    @Override
    public Integer call() {
        var body = new JsonObject();
        if (place.from != null) body.addProperty("from", place.from);
        if (place.after != null) body.addProperty("after", place.after);
        if (date != null) body.addProperty("date", date);
        if (reason != null) body.addProperty("reason", reason);
        if (dryRun) body.addProperty("dryRun", true);
        Service.Answer answer = service.take("/series/" + Service.escape(series) + "/continuations", body, key);
        if (output.asJson(answer)) return Main.DONE;
        JsonObject done = answer.body().getAsJsonObject();
        String first = Json.text(done, "first", "");
        String last = Json.text(done, "last", "");
        String lane = Json.text(done, "lane", "");
        long quantity = Json.number(done, "quantity");
        output.line((first.equals(last) ? first : first + " to " + last) + ": " + Output.grouped(quantity)
                + (quantity == 1 ? " number" : " numbers") + " pre-existing"
                + (dryRun ? "" : ", entry " + Json.number(done, "seq")));
        String next = Json.text(done, "next", "");
        output.line(
                next.isEmpty()
                        ? "No number is left in this range."
                        : "Next number" + (lane.isEmpty() ? "" : " of lane " + lane) + ": " + next);
        if (dryRun) output.note("Dry run: nothing was changed.");
        else if (done.get("repeated").getAsBoolean()) output.note("The same request did this before.");
        return Main.DONE;
    }
}
