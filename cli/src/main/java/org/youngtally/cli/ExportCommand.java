package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "export",
        description = "Export the definition files as they were applied, with all changes since.",
        mixinStandardHelpOptions = true)
final class ExportCommand implements Callable<Integer> {
    private record Named(Path path, String text) {}

    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "FOLDER", arity = "0..1", description = "Where to write them (default: standard output).")
    private Path folder;

    @Option(names = "--overwrite", description = "Overwrite files that differ.")
    private boolean overwrite;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        Service.Answer answer = service.get("/definitions");
        if (output.asJson(answer)) return Main.DONE;
        var files = new ArrayList<Named>();
        for (JsonElement each : answer.body().getAsJsonObject().getAsJsonArray("files")) {
            JsonObject file = each.getAsJsonObject();
            files.add(new Named(
                    (folder == null ? Path.of("") : folder).resolve(Json.text(file, "name", "")),
                    Json.text(file, "text", "")));
        }
        if (files.isEmpty()) output.note("Nothing to export: no series is defined.");
        if (folder == null) print(files);
        else write(files);
        return Main.DONE;
    }

    private void print(List<Named> files) {
        for (Named file : files) {
            if (files.size() > 1) output.line("# " + file.path());
            output.text(file.text());
        }
    }

    /** All of them or none: a file that would be lost is looked for before the first is written. */
    private void write(List<Named> files) {
        try {
            Files.createDirectories(folder);
            var changed = new ArrayList<Named>();
            for (Named file : files)
                if (!Files.exists(file.path()) || !Files.readString(file.path()).equals(file.text())) changed.add(file);
            List<Path> lost =
                    changed.stream().map(Named::path).filter(Files::exists).toList();
            if (!lost.isEmpty() && !overwrite)
                throw new ParameterException(
                        spec.commandLine(),
                        lost.getFirst() + " differs. Nothing was written. Choose another folder, or add --overwrite.");
            for (Named file : changed) Files.writeString(file.path(), file.text());
            output.note(
                    changed.isEmpty()
                            ? "All files are up to date."
                            : changed.size() + (changed.size() == 1 ? " file" : " files") + " written to " + folder
                                    + ".");
        } catch (IOException e) {
            throw new ParameterException(spec.commandLine(), folder + " cannot be written: " + e.getMessage(), e);
        }
    }
}
