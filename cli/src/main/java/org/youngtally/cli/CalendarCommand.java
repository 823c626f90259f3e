package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "calendar",
        description = "Show what opens and closes when, and uncovered dates.",
        mixinStandardHelpOptions = true)
final class CalendarCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/calendar");
        if (output.asJson(answer)) return Main.DONE;
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : answer.body().getAsJsonArray()) add(each.getAsJsonObject(), rows);
        if (rows.isEmpty()) output.note("No series are defined.");
        else output.table(List.of("FROM", "TO", "SERIES", ""), rows);
        return Main.DONE;
    }

    private static void add(JsonObject series, List<List<String>> rows) {
        String key = Json.text(series, "series", "");
        var own = new ArrayList<List<String>>();
        for (JsonElement each : series.getAsJsonArray("ranges")) {
            JsonObject range = each.getAsJsonObject();
            own.add(List.of(
                    Json.text(range, "opens", ""),
                    Json.text(range, "closes", "—"),
                    key,
                    Json.number(range, "first") + " to " + Json.number(range, "last")));
        }
        for (JsonElement each : series.getAsJsonArray("holes"))
            own.add(List.of(
                    Json.text(each.getAsJsonObject(), "from", ""),
                    Json.text(each.getAsJsonObject(), "to", ""),
                    key,
                    "UNCOVERED DATES"));
        own.sort((a, b) -> a.getFirst().compareTo(b.getFirst()));
        rows.addAll(own);
    }
}
