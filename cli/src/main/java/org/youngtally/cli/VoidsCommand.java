package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "voids",
        description = "Numbers that became void after they were issued, the newest first, with reasons.",
        mixinStandardHelpOptions = true)
final class VoidsCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Option(names = "--series", paramLabel = "SERIES", description = "Only of this series.")
    private String series;

    @Option(
            names = "--before",
            paramLabel = "SEQUENCE",
            description = "Only those voided by an entry before this one: the next page.")
    private Long before;

    @Override
    public Integer call() {
        Service.Answer answer =
                service.get("/voids?limit=200" + (series == null ? "" : "&series=" + Service.escape(series))
                        + (before == null ? "" : "&before=" + before));
        if (output.asJson(answer)) return Main.DONE;
        var rows = new ArrayList<List<String>>();
        for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
        if (rows.isEmpty()) output.note("No numbers are void.");
        else output.table(List.of("IDENTIFIERS", "SERIES", "KIND", "REASON", "BY", "WHEN", ">ENTRY"), rows);
        if (answer.next().isPresent())
            output.note("Older entries: --before " + rows.getLast().getLast());
        return Main.DONE;
    }

    private static List<String> row(JsonObject each) {
        String first = Json.text(each, "first", "");
        String last = Json.text(each, "last", "");
        return List.of(
                first.equals(last) ? first : first + " … " + last,
                Json.text(each, "series", ""),
                Json.text(each, "kind", ""),
                Json.text(each, "reason", "—"),
                Json.text(each, "by", ""),
                Moment.of(Json.text(each, "at", "")),
                Json.text(each, "seq", ""));
    }
}
