package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.check.Checked;
import org.youngtally.core.text.NearestName;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "check",
        description = "Check digits, calculated on this machine without the service.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {CheckCommand.Add.class, CheckCommand.Verify.class, CheckCommand.All.class})
final class CheckCommand {
    private static final int SHOWN = 5;

    /** Where the texts come from and the answers go: one line each. */
    static final class Lines {
        @Parameters(
                index = "0",
                paramLabel = "SCHEME",
                description = "Such as gs1, luhn or mod97-10. List all with: youngtally check list")
        private String name;

        @Parameters(
                index = "1..*",
                arity = "0..*",
                paramLabel = "TEXT",
                description = "The texts (default: each line of standard input).")
        private List<String> texts;

        @Option(names = "--json", description = "Print one JSON object per line.")
        private boolean json;

        @Spec(Spec.Target.MIXEE)
        private CommandSpec spec;

        /** What one text came to. */
        record Answer(boolean done, String line, JsonObject json) {}

        private CheckScheme scheme() {
            return CheckSchemes.of(name)
                    .orElseThrow(() -> new ParameterException(
                            spec.commandLine(),
                            "Check digit scheme ‘" + name + "’ not found."
                                    + NearestName.to(
                                                    name,
                                                    CheckSchemes.all().stream()
                                                            .map(CheckScheme::name)
                                                            .toList())
                                            .map(near -> " Did you mean ‘" + near + "’?")
                                            .orElse(" Known schemes: " + CheckSchemes.names() + ".")));
        }

        int run(Function<CheckScheme, Function<String, Answer>> how) {
            Function<String, Answer> answers = how.apply(scheme());
            PrintWriter out = spec.commandLine().getOut();
            boolean all = true;
            try (Stream<String> lines = texts == null ? linesOfInput() : texts.stream()) {
                for (String text : (Iterable<String>) lines::iterator) {
                    Answer answer = answer(answers, text);
                    all &= answer.done();
                    if (json) out.println(answer.json());
                    else if (answer.line().startsWith("!"))
                        spec.commandLine().getErr().println(answer.line().substring(1));
                    else out.println(answer.line());
                }
            } catch (UncheckedIOException e) {
                throw new ParameterException(
                        spec.commandLine(),
                        "Standard input cannot be read: " + e.getCause().getMessage());
            }
            out.flush();
            return all ? Main.DONE : Main.REFUSED;
        }

        private static Stream<String> linesOfInput() {
            return new BufferedReader(
                            new InputStreamReader(Surroundings.current().input(), Charset.defaultCharset()))
                    .lines()
                    .filter(line -> !line.isBlank());
        }

        private static Answer answer(Function<String, Answer> answers, String text) {
            try {
                return answers.apply(text);
            } catch (IllegalArgumentException e) {
                var json = new JsonObject();
                json.addProperty("given", text);
                json.addProperty("right", false);
                json.addProperty("problem", e.getMessage());
                return new Answer(false, "!" + text + ": " + e.getMessage(), json);
            }
        }
    }

    @Command(name = "add", description = "Add the check symbols to each text.", mixinStandardHelpOptions = true)
    static final class Add implements Callable<Integer> {
        @Mixin
        private Lines lines;

        @Override
        public Integer call() {
            return lines.run(scheme -> text -> {
                String whole = Checked.add(scheme, text)
                        .orElseThrow(() -> new IllegalArgumentException(
                                "the check digit would be ten, which " + scheme.name() + " cannot write"));
                var json = new JsonObject();
                json.addProperty("given", text);
                json.addProperty("text", whole);
                return new Lines.Answer(true, whole, json);
            });
        }
    }

    @Command(
            name = "verify",
            description = "Check each text: valid, or which typing error explains it. Exits with 1 if any is invalid.",
            mixinStandardHelpOptions = true)
    static final class Verify implements Callable<Integer> {
        @Mixin
        private Lines lines;

        @Override
        public Integer call() {
            return lines.run(scheme -> text -> {
                Checked checked = Checked.of(scheme, text);
                return new Lines.Answer(
                        checked.right(),
                        text + "\t" + (checked.right() ? "valid" : "invalid" + wrong(checked)),
                        json(text, checked));
            });
        }

        private static String wrong(Checked checked) {
            String expected = checked.expected()
                    .map(right -> ", check digit is " + checked.given() + ", expected " + right)
                    .orElse(", this number has no check digit");
            List<Checked.Repair> repairs = checked.repairs();
            String likely = repairs.stream()
                    .filter(repair -> repair.slip() == Checked.TypingError.SWAP)
                    .limit(SHOWN)
                    .map(Checked.Repair::text)
                    .collect(Collectors.joining(" or "));
            return expected + (likely.isEmpty() ? "" : ". Possibly two neighbours were swapped: " + likely);
        }

        private static JsonObject json(String text, Checked checked) {
            var json = new JsonObject();
            json.addProperty("given", text);
            json.addProperty("right", checked.right());
            json.addProperty("check", checked.given());
            checked.expected().ifPresent(expected -> json.addProperty("expected", expected));
            var repairs = new JsonArray();
            for (Checked.Repair repair : checked.repairs()) repairs.add(repair.text());
            json.add("repairs", repairs);
            return json;
        }
    }

    @Command(
            name = "list",
            description = "List the schemes, and which typing errors each one misses.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            PrintWriter out = spec.commandLine().getOut();
            for (CheckScheme scheme : CheckSchemes.all())
                out.printf("%-11s %s%n%-11s misses %s%n", scheme.name(), scheme.title(), "", scheme.misses());
            out.println(CheckSchemes.WEIGHTED_SHAPE);
            out.flush();
            return Main.DONE;
        }
    }
}
