package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "status",
        description = "Show whether the service allocates numbers, and the head of its ledger.",
        mixinStandardHelpOptions = true)
final class StatusCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/status");
        JsonObject status = answer.body().getAsJsonObject();
        boolean running = status.get("running").getAsBoolean();
        if (!output.asJson(answer)) {
            output.line(
                    running
                            ? "numbers are allocated"
                            : "NO numbers are allocated: "
                                    + Json.text(status, "stopped", Json.text(status, "paused", "")));
            output.line("head   " + Json.text(status, "head", ""));
            output.line("today  " + Json.text(status, "today", "") + " in " + Json.text(status, "zone", ""));
            for (JsonElement remark : status.getAsJsonArray("remarks")) output.line("remark " + remark.getAsString());
            for (JsonElement told : status.getAsJsonArray("opening")) output.line("start  " + told.getAsString());
        }
        return running ? Main.DONE : Main.REFUSED;
    }
}
