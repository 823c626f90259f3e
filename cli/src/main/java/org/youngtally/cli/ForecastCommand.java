package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "forecast",
        description = "Forecast when a series will be exhausted, at the rates of the last 7, 30 and 365 days.",
        mixinStandardHelpOptions = true)
final class ForecastCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "SERIES", description = "The key of the series.")
    private String series;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/series/" + Service.escape(series) + "/forecast");
        if (output.asJson(answer)) return Main.DONE;
        JsonObject forecast = answer.body().getAsJsonObject();
        String ends = Json.text(forecast, "ends", "");
        if (!forecast.has("left"))
            output.note("How many are left depends on the fields of each record, or has no end.");
        else
            output.line(Output.grouped(Json.number(forecast, "left")) + " left on " + Json.text(forecast, "date", "")
                    + (ends.isEmpty() ? ", without an end date" : ", until " + ends));
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : forecast.getAsJsonArray("rates")) {
            JsonObject rate = each.getAsJsonObject();
            rows.add(List.of(
                    Json.text(rate, "days", ""),
                    Json.count(rate, "used"),
                    Json.text(rate, "runsOut", "not before the last date")));
        }
        output.table(List.of(">LAST DAYS", ">ISSUED", "EXHAUSTED"), rows);
        return Main.DONE;
    }
}
