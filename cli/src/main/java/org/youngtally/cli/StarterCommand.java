package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "starter",
        description = "Starter sets: definitions with variables, for a new company.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            StarterCommand.All.class,
            StarterCommand.Show.class,
            StarterCommand.Fill.class,
            StarterCommand.Apply.class
        })
final class StarterCommand {

    @Command(
            name = "list",
            description = "List the starter sets that come with the service.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/starters");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                var variables = new ArrayList<String>();
                for (JsonElement variable : each.getAsJsonObject().getAsJsonArray("variables"))
                    variables.add(Json.text(variable.getAsJsonObject(), "name", ""));
                rows.add(List.of(
                        Json.text(each.getAsJsonObject(), "name", ""),
                        Json.text(each.getAsJsonObject(), "title", ""),
                        String.join(", ", variables)));
            }
            output.table(List.of("STARTER", "TITLE", "VARIABLES"), rows);
            return Main.DONE;
        }
    }

    @Command(
            name = "show",
            description = "Show a starter set: its variables and its definitions.",
            mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "STARTER", description = "The name of the starter set.")
        private String name;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/starters/" + Service.escape(name));
            if (output.asJson(answer)) return Main.DONE;
            JsonObject starter = answer.body().getAsJsonObject();
            output.line(Json.text(starter, "name", "") + " — " + Json.text(starter, "title", ""));
            for (JsonElement each : starter.getAsJsonArray("variables")) {
                JsonObject variable = each.getAsJsonObject();
                output.line("  " + Json.text(variable, "name", "") + ": " + Json.text(variable, "meaning", "")
                        + ", such as " + Json.text(variable, "example", ""));
            }
            output.line("");
            output.text(Json.text(starter, "definitions", ""));
            return Main.DONE;
        }
    }

    /** Which starter set, and the values of its variables. */
    static final class Filling {
        @Parameters(paramLabel = "STARTER|FILE", description = "The name of a starter set, or a file with one.")
        private String starter;

        @Option(
                names = "--set",
                paramLabel = "NAME=VALUE",
                description = "The value of a variable. Repeatable.",
                mapFallbackValue = Option.NULL_VALUE)
        private Map<String, String> values = new LinkedHashMap<>();

        @Spec(Spec.Target.MIXEE)
        private CommandSpec spec;

        JsonObject filled(Service service) {
            if (values.containsValue(null))
                throw new ParameterException(spec.commandLine(), "--set requires NAME=VALUE.");
            var request = new JsonObject();
            Path file = Path.of(starter);
            if (Files.isRegularFile(file)) request.addProperty("text", text(file));
            else request.addProperty("name", starter);
            var variables = new JsonObject();
            values.forEach(variables::addProperty);
            request.add("variables", variables);
            return service.post("/starters/fillings", request).body().getAsJsonObject();
        }

        private String text(Path file) {
            try {
                return Files.readString(file);
            } catch (IOException e) {
                throw new ParameterException(spec.commandLine(), file + " cannot be read: " + e.getMessage(), e);
            }
        }
    }

    @Command(
            name = "fill",
            description = "Print the definitions of a starter set with its variables filled in, for editing.",
            mixinStandardHelpOptions = true)
    static final class Fill implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Filling filling;

        @Override
        public Integer call() {
            output.text(Json.text(filling.filled(service), "text", ""));
            return Main.DONE;
        }
    }

    @Command(
            name = "apply",
            description = "Fill in a starter set and apply its definitions, all or none.",
            mixinStandardHelpOptions = true)
    static final class Apply implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Filling filling;

        @Option(names = "--dry-run", description = "Only show what would change.")
        private boolean dryRun;

        @Override
        public Integer call() {
            JsonObject filled = filling.filled(service);
            return ApplyCommand.apply(
                    service, output, Map.of(Json.text(filled, "name", ""), Json.text(filled, "text", "")), dryRun);
        }
    }
}
