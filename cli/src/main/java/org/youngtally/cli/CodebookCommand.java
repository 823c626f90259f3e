package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.UnaryOperator;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "codebook",
        description = "Codebooks: list them, add and retire choices.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            CodebookCommand.All.class,
            CodebookCommand.Show.class,
            CodebookCommand.Add.class,
            CodebookCommand.Retire.class
        })
final class CodebookCommand {

    @Command(
            name = "list",
            description = "List all codebooks, with the series that use them.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/codebooks");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject book = each.getAsJsonObject();
                var users = new ArrayList<String>();
                for (JsonElement user : Json.list(book, "usedBy")) users.add(user.getAsString());
                rows.add(List.of(
                        Json.text(book, "key", ""),
                        Json.text(book, "title", ""),
                        Integer.toString(Json.list(book, "choices").size()),
                        Json.text(book, "version", ""),
                        users.isEmpty() ? "—" : String.join(", ", users)));
            }
            if (rows.isEmpty()) output.note("No codebooks are defined. Define some with: youngtally apply FILE");
            else output.table(List.of("CODEBOOK", "TITLE", ">CHOICES", ">VERSION", "USED BY"), rows);
            return Main.DONE;
        }
    }

    @Command(name = "show", description = "Show one codebook with all its choices.", mixinStandardHelpOptions = true)
    static final class Show implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "CODEBOOK", description = "The key of the codebook.")
        private String codebook;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/codebooks/" + Service.escape(codebook));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            rows("", Json.list(answer.body().getAsJsonObject(), "choices"), rows);
            output.table(List.of("CODE", "NAME", ""), rows);
            return Main.DONE;
        }

        private static void rows(String indent, JsonArray choices, List<List<String>> rows) {
            for (JsonElement each : choices) {
                JsonObject choice = each.getAsJsonObject();
                rows.add(List.of(
                        indent + Json.text(choice, "code", ""),
                        Json.text(choice, "name", ""),
                        choice.has("retired") ? "retired" : ""));
                rows(indent + "  ", Json.list(choice, "choices"), rows);
            }
        }
    }

    /** A change of one codebook: read, changed and sent back on the version that was read. */
    abstract static class Change implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(index = "0", paramLabel = "CODEBOOK", description = "The key of the codebook.")
        private String codebook;

        @Option(
                names = "--within",
                paramLabel = "CODE",
                description =
                        "The code of the choice that it belongs to; repeat it for each level, the outermost first.")
        private List<String> within = List.of();

        @Spec
        private CommandSpec spec;

        int change(UnaryOperator<JsonArray> change, String done) {
            Service.Answer found = service.get("/codebooks/" + Service.escape(codebook));
            JsonObject book = found.body().getAsJsonObject();
            JsonObject parent = book;
            for (String code : within)
                parent = choice(Json.list(parent, "choices"), code)
                        .orElseThrow(() ->
                                wrong("‘" + codebook + "’ has no choice with the code ‘" + code + "’ on this level"));
            parent.add("choices", change.apply(Json.list(parent, "choices")));
            Service.Answer answer = service.put("/codebooks/" + Service.escape(codebook), book, found.tag());
            if (!output.asJson(answer)) output.note(done);
            return Main.DONE;
        }

        static Optional<JsonObject> choice(JsonArray choices, String code) {
            for (JsonElement each : choices)
                if (Json.text(each.getAsJsonObject(), "code", "").equals(code))
                    return Optional.of(each.getAsJsonObject());
            return Optional.empty();
        }

        ParameterException wrong(String what) {
            return new ParameterException(
                    spec.commandLine(),
                    what + ". Nothing was changed. Show its choices with: youngtally codebook show " + codebook);
        }
    }

    @Command(name = "add", description = "Add a choice to a codebook.", mixinStandardHelpOptions = true)
    static final class Add extends Change {
        @Parameters(
                index = "1",
                paramLabel = "CODE",
                description = "Its code. It can never be changed, nor used for anything else.")
        private String code;

        @Parameters(index = "2", paramLabel = "NAME", description = "Its full name.")
        private String name;

        @Override
        public Integer call() {
            var choice = new JsonObject();
            choice.addProperty("name", name);
            choice.addProperty("code", code);
            return change(
                    choices -> {
                        choices.add(choice);
                        return choices;
                    },
                    "Added: " + code + ", " + name + ".");
        }
    }

    @Command(
            name = "retire",
            description = "Retire a choice: it can no longer be chosen, and its code is never used again.",
            mixinStandardHelpOptions = true)
    static final class Retire extends Change {
        @Parameters(index = "1", paramLabel = "CODE", description = "Its code.")
        private String code;

        @Override
        public Integer call() {
            return change(
                    choices -> {
                        choice(choices, code)
                                .orElseThrow(() -> wrong("No choice has the code ‘" + code + "’ on this level"))
                                .addProperty("retired", true);
                        return choices;
                    },
                    code + " is retired.");
        }
    }
}
