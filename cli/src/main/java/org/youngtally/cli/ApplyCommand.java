package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "apply", description = "Define all series of a file, or of every .yaml file in a folder, or none of them.", mixinStandardHelpOptions = true)
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
        var files = new JsonArray();
        for (Path file : files()) {
            var named = new JsonObject();
            named.addProperty("name", file.toString());
            named.addProperty("text", text(file));
            files.add(named);
        }
        var request = new JsonObject();
        request.add("files", files);
        Service.Answer answer = service.post("/definitions?dryRun=" + dryRun, request);
        if (output.asJson(answer)) return Main.DONE;
        int changes = 0;
        for (JsonElement each : answer.body().getAsJsonObject().getAsJsonArray("series")) {
            JsonObject series = each.getAsJsonObject();
            if (!Json.text(series, "change", "").equals("unchanged")) changes++;
            print(series);
        }
        output.note(dryRun ? "A dry run: nothing was changed." : changes == 0 ? "Everything stood so already." : changes + (changes == 1 ? " series was" : " series were") + " defined.");
        return Main.DONE;
    }

    private void print(JsonObject series) {
        String change = Json.text(series, "change", "");
        String begins = series.getAsJsonArray("next").isEmpty() ? "" : ", begins with " + series.getAsJsonArray("next").get(0).getAsString();
        output.line(change + " " + Json.text(series, "key", "") + ", version " + Json.number(series, "version") + begins);
        for (JsonElement each : series.getAsJsonArray("differences")) {
            JsonObject difference = each.getAsJsonObject();
            output.line("   " + Json.text(difference, "path", "") + " was " + Json.text(difference, "was", "not there") + " and becomes " + Json.text(difference, "becomes", "absent"));
        }
        for (JsonElement each : series.getAsJsonArray("slips")) output.note("   a slip? " + Json.text(each.getAsJsonObject(), "path", "") + ": " + Json.text(each.getAsJsonObject(), "remark", ""));
    }

    private List<Path> files() {
        if (Files.isRegularFile(path)) return List.of(path);
        if (!Files.isDirectory(path)) throw new ParameterException(spec.commandLine(), path + " is not there; give a YAML file or a folder of them");
        try (Stream<Path> all = Files.list(path)) {
            List<Path> found = all.filter(file -> file.toString().matches(".*\\.ya?ml")).sorted().toList();
            if (found.isEmpty()) throw new ParameterException(spec.commandLine(), path + " holds no .yaml file");
            return found;
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), path + " cannot be listed: " + e.getMessage(), e);
        }
    }

    private String text(Path file) {
        try {
            return Files.readString(file);
        } catch (MalformedInputException e) {
            throw new ParameterException(spec.commandLine(), file + " is not in UTF-8", e);
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), file + " cannot be read: " + e.getMessage(), e);
        }
    }
}
