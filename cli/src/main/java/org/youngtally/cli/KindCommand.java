package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "kind",
        description = "Kinds of records, with their fields.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {KindCommand.All.class, KindCommand.Show.class})
final class KindCommand {
    @Command(name = "list", description = "List the kinds of records.", mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--retired", description = "Include retired kinds.")
        private boolean retired;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/kinds?retired=" + retired);
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject kind = each.getAsJsonObject();
                var names = new ArrayList<String>();
                for (JsonElement field : Json.list(kind, "fields"))
                    names.add(Json.text(field.getAsJsonObject(), "name", ""));
                rows.add(List.of(
                        Json.text(kind, "key", ""),
                        Json.text(kind, "title", ""),
                        String.join(", ", names),
                        Json.list(kind, "lines").isEmpty() ? "" : "with lines",
                        kind.get("retired").getAsBoolean() ? "retired" : ""));
            }
            if (rows.isEmpty()) output.note("No kinds are defined. Define some with: youngtally apply FILE");
            else output.table(List.of("KIND", "TITLE", "FIELDS", "", ""), rows);
            return Main.DONE;
        }
    }

    @Command(name = "show", description = "Show the fields of one kind of record.", mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "KIND", description = "The key of the kind.")
        private String kind;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/kinds/" + Service.escape(kind));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement field : Json.list(answer.body().getAsJsonObject(), "fields"))
                rows.add(row("", field.getAsJsonObject()));
            for (JsonElement field : Json.list(answer.body().getAsJsonObject(), "lines"))
                rows.add(row("of a line: ", field.getAsJsonObject()));
            output.table(List.of("FIELD", "TITLE", "TYPE", ""), rows);
            return Main.DONE;
        }

        private static List<String> row(String begin, JsonObject field) {
            String choices = field.has("codebook")
                    ? " from " + Json.text(field, "codebook", "")
                    : field.has("within") ? " within " + Json.text(field, "within", "") : "";
            return List.of(
                    begin + Json.text(field, "name", ""),
                    Json.text(field, "title", ""),
                    Json.text(field, "type", "") + choices,
                    field.get("required").getAsBoolean() ? "required" : "");
        }
    }
}
