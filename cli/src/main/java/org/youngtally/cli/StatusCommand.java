package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.time.Duration;
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
            String receipt = Json.text(status, "receipt", "");
            if (!receipt.isEmpty()) receipt(receipt.split("\\."));
            backup(status);
            if (!Json.text(status, "journalCopy", "").isEmpty())
                output.line("copy   " + Json.text(status, "journalCopy", "") + ", policy "
                        + Json.text(status, "journalCopyPolicy", ""));
            if (status.has("proof") && status.get("proof").isJsonObject()) {
                JsonObject proof = status.getAsJsonObject("proof");
                output.line("proof  of the journal has reached entry " + Json.text(proof, "reached", "")
                        + "; it goes on to " + Json.text(proof, "upTo", ""));
            }
            for (JsonElement remark : status.getAsJsonArray("remarks")) output.line("remark " + remark.getAsString());
            for (JsonElement told : status.getAsJsonArray("opening")) output.line("start  " + told.getAsString());
        }
        return running ? Main.DONE : Main.REFUSED;
    }

    /** Of the ledger, and the last one that this account of the machine has kept of it. */
    private void receipt(String[] parts) {
        String kept =
                KeptReceipts.of(parts[0]).map(text -> text.split("\\.")[2]).orElse(parts[2]);
        output.line("ledger " + parts[0] + ", receipt of entry " + kept
                + (kept.equals(parts[2]) ? "" : " kept here, and the ledger ends at " + parts[2]));
    }

    private void backup(JsonObject status) {
        if (status.has("backup") && status.get("backup").isJsonObject()) {
            JsonObject backup = status.getAsJsonObject("backup");
            output.line("backup " + Json.text(backup, "place", "") + ", up to entry "
                    + Json.text(backup, "head", "").split(":")[0] + ", "
                    + Moment.age(Duration.parse(Json.text(backup, "age", "PT0S"))) + " old");
        }
        String failure = Json.text(status, "backupFailure", "");
        if (!failure.isEmpty()) output.line("backup FAILED: " + failure);
    }
}
