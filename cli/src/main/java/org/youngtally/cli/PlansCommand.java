package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "plans",
        description = "List the plans for tables that were begun, the newest first.",
        mixinStandardHelpOptions = true)
final class PlansCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/table-plans");
        if (output.asJson(answer)) return Main.DONE;
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
        if (rows.isEmpty()) output.note("No plan was begun.");
        else output.table(List.of(">PLAN", "BEGUN", "BY", "SERIES", "FILE", "STATE", ">RECORDED", ">NUMBERED"), rows);
        return Main.DONE;
    }

    private static List<String> row(JsonObject plan) {
        return List.of(
                String.valueOf(Json.number(plan, "plan")),
                Moment.of(Json.text(plan, "at", "")),
                Json.text(plan, "by", ""),
                Json.text(plan, "series", ""),
                Json.text(plan, "file", ""),
                Json.text(plan, "state", ""),
                Json.number(plan, "recorded") + " %",
                Output.grouped(Json.number(plan, "numbered")) + " of " + Output.grouped(Json.number(plan, "rows")));
    }
}
