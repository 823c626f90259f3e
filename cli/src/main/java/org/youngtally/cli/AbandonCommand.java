package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "abandon",
        description =
                "Abandon a plan that is not carried out: numbers that it allocated become void, numbers that it recorded stay pre-existing.",
        mixinStandardHelpOptions = true)
final class AbandonCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "ENTRY", description = "The entry that began the plan; ‘table plans’ lists it.")
    private long plan;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Why; kept in the ledger.")
    private String reason;

    @Override
    public Integer call() {
        var body = new JsonObject();
        if (reason != null) body.addProperty("reason", reason);
        Service.Answer answer = service.post("/table-plans/" + plan + "/end", body);
        if (output.asJson(answer)) return Main.DONE;
        JsonObject ended = answer.body().getAsJsonObject();
        output.line("Plan " + plan + " of " + Json.text(ended, "file", "") + " abandoned, entry "
                + Json.number(ended, "ended"));
        return Main.DONE;
    }
}
