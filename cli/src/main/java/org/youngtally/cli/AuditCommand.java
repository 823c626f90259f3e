package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "audit",
        description = "Check every position and the hash chain: gap-free, or exactly what is wrong.",
        mixinStandardHelpOptions = true)
final class AuditCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(
            paramLabel = "SERIES",
            arity = "0..1",
            description = "Check the positions of this series only; the chain is read completely.")
    private String series;

    @Option(
            names = "--head",
            paramLabel = "SEQUENCE:HASH",
            description = "The head of an earlier audit: prove that nothing up to it was rewritten or cut off.")
    private String head;

    @Override
    public Integer call() {
        var request = new JsonObject();
        if (series != null) request.addProperty("series", series);
        if (head != null) request.addProperty("head", head);
        Service.Answer answer = service.post("/audits", request);
        JsonObject report = answer.body().getAsJsonObject();
        boolean gapFree = report.get("gapFree").getAsBoolean();
        if (!output.asJson(answer)) print(report, gapFree);
        return gapFree ? Main.DONE : Main.REFUSED;
    }

    /** How many positions there are in each state; together they are all that were counted. */
    private static String states(JsonObject report) {
        var words = new ArrayList<String>();
        report.getAsJsonObject("states")
                .entrySet()
                .forEach(state -> words.add(Output.grouped(state.getValue().getAsLong()) + " " + state.getKey()));
        return words.isEmpty() ? "" : ": " + String.join(", ", words);
    }

    private void print(JsonObject report, boolean gapFree) {
        for (JsonElement finding : report.getAsJsonArray("findings")) output.line("wrong: " + finding.getAsString());
        if (Json.number(report, "more") > 0) output.line("wrong: " + Json.number(report, "more") + " more findings");
        long ahead = Json.number(report, "ahead");
        output.line((gapFree ? "gap-free: " : "NOT in order: ")
                + Output.counted(Json.number(report, "positions"), "position")
                + (ahead == 0 ? "" : " up to the counters and " + Output.grouped(ahead) + " ahead of them")
                + states(report) + ". " + Output.counted(Json.number(report, "lanes"), "lane") + ", "
                + Output.grouped(Json.number(report, "entries")) + " entries in the chain.");
        for (JsonElement each : report.getAsJsonArray("explained")) output.line("explained: " + each.getAsString());
        if (gapFree && head != null)
            output.line("nothing up to entry " + head.replaceFirst(":.*", "") + " was rewritten or cut off");
        output.line("head " + Json.text(report, "head", ""));
    }
}
