package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "unit",
        description = "Units: companies, branches and workshops.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = UnitCommand.All.class)
final class UnitCommand {
    @Command(
            name = "list",
            description = "List the units, each below the one it is part of.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--retired", description = "Include retired units.")
        private boolean retired;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/units?retired=" + retired);
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            below("", "", answer.body().getAsJsonArray(), rows);
            if (rows.isEmpty()) output.note("No units are defined. Define some with: youngtally apply FILE");
            else output.table(List.of("UNIT", "TITLE", "CODE", "TIME ZONE", ""), rows);
            return Main.DONE;
        }

        private static void below(String above, String indent, JsonArray units, List<List<String>> rows) {
            for (JsonElement each : units) {
                JsonObject unit = each.getAsJsonObject();
                if (!Json.text(unit, "below", "").equals(above)) continue;
                rows.add(List.of(
                        indent + Json.text(unit, "key", ""),
                        Json.text(unit, "title", ""),
                        Json.text(unit, "code", ""),
                        Json.text(unit, "timeZone", ""),
                        unit.get("retired").getAsBoolean() ? "retired" : ""));
                below(Json.text(unit, "key", ""), indent + "  ", units, rows);
            }
        }
    }
}
