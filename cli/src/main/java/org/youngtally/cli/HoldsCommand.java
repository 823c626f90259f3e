package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "holds",
        description = "Held numbers.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {HoldsCommand.All.class, HoldsCommand.Clear.class})
final class HoldsCommand {

    @Command(name = "list", description = "List held numbers, the oldest first.", mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only of this series.")
        private String series;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/holds" + (series == null ? "" : "?series=" + Service.escape(series)));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
            if (rows.isEmpty()) output.note("No numbers are held.");
            else output.table(List.of("IDENTIFIER", "SERIES", "AGE", "UNTIL", "BY", "REFERENCE", ">ENTRY"), rows);
            return Main.DONE;
        }

        private static List<String> row(JsonObject hold) {
            return List.of(
                    Json.text(hold, "identifier", ""),
                    Json.text(hold, "series", ""),
                    Moment.age(Duration.parse(Json.text(hold, "age", "PT0S"))),
                    Moment.of(Json.text(hold, "until", "")),
                    Json.text(hold, "by", ""),
                    Json.text(hold, "reference", "—"),
                    Json.text(hold, "seq", ""));
        }
    }

    @Command(name = "clear", description = "Release old holds.", mixinStandardHelpOptions = true)
    static final class Clear implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(
                names = "--older-than",
                paramLabel = "DURATION",
                description = "Held for longer than this: " + Time.SHAPE + ".",
                converter = Time.Converter.class,
                required = true)
        private Time age;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only of this series.")
        private String series;

        @Option(names = "--reason", paramLabel = "TEXT", description = "The reason.", required = true)
        private String reason;

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("olderThan", age.toString());
            body.addProperty("reason", reason);
            if (series != null) body.addProperty("series", series);
            Service.Answer answer = service.post("/holds/clearings", body);
            if (output.asJson(answer)) return Main.DONE;
            for (JsonElement each : answer.body().getAsJsonArray())
                SettlingOptions.print(output, each.getAsJsonObject(), "released");
            if (answer.body().getAsJsonArray().isEmpty()) output.note("No numbers have been held that long.");
            return Main.DONE;
        }
    }
}
