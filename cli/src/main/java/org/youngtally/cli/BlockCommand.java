package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "block", description = "Blocks of numbers, to be used elsewhere.", mixinStandardHelpOptions = true, synopsisSubcommandLabel = "VERB", subcommands = BlockCommand.Take.class)
final class BlockCommand {

    @Command(name = "take", description = "Take many numbers as one block.", mixinStandardHelpOptions = true)
    static final class Take implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "SERIES", description = "The key of the series.")
        private String series;

        @Option(names = "--quantity", paramLabel = "N", description = "How many.", required = true)
        private long quantity;

        @Mixin
        private AllocateCommand.Request request;

        @Override
        public Integer call() {
            Service.Answer answer = service.take("/series/" + Service.escape(series) + "/blocks", request.body(quantity), request.key());
            if (output.asJson(answer)) return Main.DONE;
            JsonObject taken = answer.body().getAsJsonObject();
            output.line(Json.text(taken, "first", "") + " to " + Json.text(taken, "last", ""));
            if (taken.get("repeated").getAsBoolean()) output.note("The same request had taken it before, as entry " + Json.number(taken, "seq") + ".");
            return Main.DONE;
        }
    }
}
