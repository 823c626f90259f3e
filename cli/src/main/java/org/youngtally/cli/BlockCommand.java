package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "block",
        description = "Blocks of numbers, for use elsewhere.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {BlockCommand.Take.class, BlockCommand.All.class, BlockCommand.Use.class, BlockCommand.Split.class
        })
final class BlockCommand {

    @Command(name = "allocate", description = "Allocate many numbers as one block.", mixinStandardHelpOptions = true)
    static final class Take implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(names = "--quantity", paramLabel = "N", description = "How many.", required = true)
        private long quantity;

        @Option(
                names = "--holder",
                paramLabel = "NAME",
                description = "Who uses them: a remote site, a supplier, a printer.")
        private String holder;

        @Mixin
        private AllocateCommand.Request request;

        @Override
        public Integer call() {
            JsonObject body = request.body(quantity);
            if (holder != null) body.addProperty("holder", holder);
            Service.Answer answer = service.take("/series/" + Service.escape(series) + "/blocks", body, request.key());
            if (output.asJson(answer)) return Main.DONE;
            JsonObject taken = answer.body().getAsJsonObject();
            output.line(Json.text(taken, "first", "") + " to " + Json.text(taken, "last", ""));
            output.note("Block " + Json.number(taken, "seq") + (holder == null ? "" : " of " + holder) + "."
                    + (taken.get("repeated").getAsBoolean() ? " The same request allocated it before." : ""));
            return Main.DONE;
        }
    }

    @Command(
            name = "list",
            description = "List blocks, sorted by how many numbers were not reported yet, most first.",
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
                    service.get("/blocks" + (series == null ? "" : "?series=" + Service.escape(series)));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) rows.add(row(each.getAsJsonObject()));
            if (rows.isEmpty()) output.note("No blocks.");
            else
                output.table(
                        List.of(
                                ">BLOCK",
                                "SERIES",
                                "HOLDER",
                                "NUMBERS",
                                ">QUANTITY",
                                ">LEFT",
                                ">USED",
                                ">RETURNED",
                                ">VOID",
                                "PART OF"),
                        rows);
            return Main.DONE;
        }

        private static List<String> row(JsonObject block) {
            JsonObject states = block.getAsJsonObject("states");
            long gone = states.entrySet().stream()
                    .filter(state -> !List.of("left", "used", "returned").contains(state.getKey()))
                    .mapToLong(state -> state.getValue().getAsLong())
                    .sum();
            return List.of(
                    Json.text(block, "block", ""),
                    Json.text(block, "series", ""),
                    Json.text(block, "holder", "—"),
                    Json.text(block, "first", "") + " … " + Json.text(block, "last", ""),
                    Json.count(block, "quantity"),
                    Json.count(block, "left"),
                    Json.count(states, "used"),
                    Json.count(states, "returned"),
                    Output.grouped(gone),
                    Json.text(block, "parent", ""));
        }
    }

    @Command(name = "use", description = "Report numbers of a block as used.", mixinStandardHelpOptions = true)
    static final class Use implements Callable<Integer> {
        @Mixin
        private SettlingOptions settling;

        @Override
        public Integer call() {
            return settling.settle("uses", "reported as used");
        }
    }

    @Command(
            name = "split",
            description = "Split a part of a block off as a block of its own.",
            mixinStandardHelpOptions = true)
    static final class Split implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "BLOCK", description = "The number of the block.")
        private long block;

        @Option(
                names = "--quantity",
                paramLabel = "N",
                description = "How many of its unreported numbers, from the first on.",
                required = true)
        private long quantity;

        @Option(names = "--holder", paramLabel = "NAME", description = "Who uses them.")
        private String holder;

        @Option(
                names = "--key",
                paramLabel = "KEY",
                description =
                        "The idempotency key: a repeated request with the same key returns the same answer (default: a new key).")
        private String key;

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("quantity", quantity);
            if (holder != null) body.addProperty("holder", holder);
            Service.Answer answer = service.take(
                    "/blocks/" + block + "/parts",
                    body,
                    key == null ? UUID.randomUUID().toString() : key);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject part = answer.body().getAsJsonObject();
            output.line(Json.text(part, "first", "") + " to " + Json.text(part, "last", ""));
            output.note("Block " + Json.number(part, "seq") + (holder == null ? "" : " of " + holder)
                    + ", a part of block " + block + ".");
            return Main.DONE;
        }
    }
}
