package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "apply",
        description = "Apply the definitions in a file, or in every .yaml file of a folder, all or none.",
        mixinStandardHelpOptions = true)
final class ApplyCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "FILE|FOLDER", description = "A YAML file, or a folder of them.")
    private Path path;

    @Option(names = "--dry-run", description = "Only show what would change.")
    private boolean dryRun;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        var texts = new LinkedHashMap<String, String>();
        for (Path file : files()) texts.put(file.toString(), text(file));
        return apply(service, output, texts, dryRun);
    }

    /** Sends files of definitions, by their names, and prints what they change. */
    static int apply(Service service, Output output, Map<String, String> texts, boolean dryRun) {
        var files = new JsonArray();
        texts.forEach((name, text) -> {
            var named = new JsonObject();
            named.addProperty("name", name);
            named.addProperty("text", text);
            files.add(named);
        });
        var request = new JsonObject();
        request.add("files", files);
        Service.Answer answer = service.post("/definitions?dryRun=" + dryRun, request);
        if (output.asJson(answer)) return Main.DONE;
        int changes = 0;
        for (String kind : List.of("namespaces", "codebooks", "series")) {
            for (JsonElement each : answer.body().getAsJsonObject().getAsJsonArray(kind)) {
                if (!Json.text(each.getAsJsonObject(), "change", "").equals("unchanged")) changes++;
                print(
                        output,
                        kind.equals("series") ? "" : kind.substring(0, kind.length() - 1) + " ",
                        each.getAsJsonObject());
            }
        }
        for (JsonElement each : Json.list(answer.body().getAsJsonObject(), "organisation")) {
            if (!Json.text(each.getAsJsonObject(), "change", "").equals("unchanged")) changes++;
            print(output, Json.text(each.getAsJsonObject(), "what", "") + " ", each.getAsJsonObject());
        }
        output.note(
                dryRun
                        ? "Dry run: nothing was changed."
                        : changes == 0
                                ? "No changes."
                                : changes + (changes == 1 ? " definition" : " definitions") + " applied.");
        return Main.DONE;
    }

    private static void print(Output output, String kind, JsonObject defined) {
        String change = Json.text(defined, "change", "");
        String begins = Json.list(defined, "next").isEmpty()
                ? ""
                : ", starts with " + Json.list(defined, "next").get(0).getAsString();
        output.line(change + " " + kind + Json.text(defined, "key", "") + ", version " + Json.number(defined, "version")
                + begins);
        for (JsonElement each : Json.list(defined, "differences")) {
            JsonObject difference = each.getAsJsonObject();
            output.line("   " + Refused.path(Json.text(difference, "path", "")) + ": "
                    + Json.text(difference, "was", "none") + " → " + Json.text(difference, "becomes", "none"));
        }
        for (JsonElement each : Json.list(defined, "slips"))
            output.note("   Possible mistake: " + Refused.path(Json.text(each.getAsJsonObject(), "path", "")) + ": "
                    + Json.text(each.getAsJsonObject(), "remark", ""));
    }

    private List<Path> files() {
        if (Files.isRegularFile(path)) return List.of(path);
        if (!Files.isDirectory(path))
            throw new ParameterException(
                    spec.commandLine(), path + " not found. Name a YAML file, or a folder of them.");
        try (Stream<Path> all = Files.list(path)) {
            List<Path> found = all.filter(file -> file.toString().matches(".*\\.ya?ml"))
                    .sorted()
                    .toList();
            if (found.isEmpty()) throw new ParameterException(spec.commandLine(), path + " has no .yaml file.");
            return found;
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), path + " cannot be listed: " + e.getMessage(), e);
        }
    }

    private String text(Path file) {
        try {
            return Files.readString(file);
        } catch (MalformedInputException e) {
            throw new ParameterException(spec.commandLine(), file + " is not in UTF-8.", e);
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), file + " cannot be read: " + e.getMessage(), e);
        }
    }
}
