package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "clock",
        description = "The date of the service.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = ClockCommand.Confirm.class)
final class ClockCommand {
    @Command(
            name = "confirm",
            description =
                    "Confirm the date of the service's clock, after a start more than a day away from the newest entry.",
            mixinStandardHelpOptions = true)
    static final class Confirm implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "DATE", description = "Today's date, such as 2026-01-31.")
        private String date;

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("date", date);
            Service.Answer answer = service.post("/clock/confirmations", body);
            if (!output.asJson(answer)) output.line("Date confirmed: " + date + ". Numbers are allocated again.");
            return Main.DONE;
        }
    }
}
