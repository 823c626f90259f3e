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
        name = "doubt",
        description = "Numbers in doubt after a restore.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {DoubtCommand.All.class, DoubtCommand.Issued.class, DoubtCommand.Void.class})
final class DoubtCommand {
    @Command(
            name = "list",
            description = "List numbers that are in doubt, until each is settled.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Option(names = "--series", paramLabel = "SERIES", description = "Only of this series.")
        private String series;

        @Override
        public Integer call() {
            Service.Answer answer =
                    service.get("/doubts" + (series == null ? "" : "?series=" + Service.escape(series)));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject doubt = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(doubt, "series", ""),
                        Json.text(doubt, "first", ""),
                        Json.text(doubt, "last", ""),
                        Output.grouped(Json.number(doubt, "quantity")),
                        Json.text(doubt, "by", ""),
                        Json.text(doubt, "seq", ""),
                        Json.text(doubt, "reason", "—")));
            }
            if (rows.isEmpty()) output.note("No numbers are in doubt.");
            else output.table(List.of("SERIES", "FIRST", "LAST", ">QUANTITY", "BY", ">ENTRY", "REASON"), rows);
            return Main.DONE;
        }
    }

    @Command(
            name = "issued",
            description = "Settle numbers in doubt: they were issued after all.",
            mixinStandardHelpOptions = true)
    static final class Issued implements Callable<Integer> {
        @Mixin
        private SettlingOptions settling;

        @Override
        public Integer call() {
            return settling.settle("uses", "settled as issued");
        }
    }

    @Command(
            name = "void",
            description = "Settle numbers in doubt: they are void, with a reason.",
            mixinStandardHelpOptions = true)
    static final class Void implements Callable<Integer> {
        @Mixin
        private SettlingOptions settling;

        @Override
        public Integer call() {
            return settling.settle("voids", "void");
        }
    }
}
