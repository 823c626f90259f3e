package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import java.io.IOException;
import java.nio.file.Path;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.youngtally.cli.RecordCommand.Which;
import org.youngtally.core.record.KeptRecord;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The files that go with records. */
final class RecordFiles {
    private RecordFiles() {}

    @Command(
            name = "attach",
            description = "Attach a file to a record. The service names it by the record's identifier.",
            mixinStandardHelpOptions = true)
    static final class Attach implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Which which;

        @Spec
        private CommandSpec spec;

        @Parameters(index = "1", arity = "0..1", paramLabel = "FILE", description = "The file; it is copied.")
        private Path given;

        @Override
        public Integer call() throws IOException {
            Path file = which.behind().map(Path::of).orElse(given);
            if (file == null) throw new ParameterException(spec.commandLine(), "No file is named.");
            byte[] bytes = NewFiles.read(file);
            Service.Sent sent = service.send(
                    RecordCommand.path(which.of(service)) + "/files?name="
                            + Service.escape(file.getFileName().toString()),
                    bytes,
                    UUID.randomUUID().toString());
            JsonObject record =
                    JsonParser.parseString(sent.text()).getAsJsonObject().getAsJsonObject("record");
            JsonArray files = Json.list(record, "files");
            output.line(Json.text(files.get(files.size() - 1).getAsJsonObject(), "name", ""));
            return Main.DONE;
        }
    }

    /** Where what comes is written. */
    static final class Target {
        @Option(
                names = "--output",
                paramLabel = "FILE",
                description =
                        "The file to write (default: in this folder, named by the record's identifier). Existing files are never overwritten.")
        private Path to;

        Path of(String name) {
            return to != null ? to : Path.of(name);
        }
    }

    @Command(
            name = "fetch",
            description = "Fetch an attached file, named by the record's identifier.",
            mixinStandardHelpOptions = true)
    static final class Fetch implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Which which;

        @Mixin
        private Target target;

        @Spec
        private CommandSpec spec;

        @Parameters(
                index = "1",
                arity = "0..1",
                paramLabel = "PLACE",
                description = "Which of the record's files, from 1 (default: 1).",
                defaultValue = "1")
        private String given;

        @Override
        public Integer call() throws IOException {
            String text = which.behind().orElse(given);
            if (!text.matches("[0-9]{1,4}"))
                throw new ParameterException(spec.commandLine(), "‘" + text + "’ is not the number of a file.");
            int place = Integer.parseInt(text);
            JsonObject record = which.of(service);
            JsonArray files = Json.list(record, "files");
            if (place < 1 || place > files.size())
                throw new ParameterException(
                        spec.commandLine(),
                        files.isEmpty() ? "The record has no files" : "The record has files 1 to " + files.size());
            Path to = target.of(Json.text(files.get(place - 1).getAsJsonObject(), "name", ""));
            NewFiles.write(to, service.bytes(RecordCommand.path(record) + "/files/" + place));
            output.line(to.toString());
            return Main.DONE;
        }
    }

    @Command(
            name = "print",
            description = "Write a record as a page to print, in PDF, named by its identifier.",
            mixinStandardHelpOptions = true)
    static final class Print implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Which which;

        @Mixin
        private Target target;

        @Option(
                names = "--unit",
                paramLabel = "CODE",
                description = "The unit of the page (default: the first unit of the record).")
        private String unit;

        @Override
        public Integer call() throws IOException {
            JsonObject record = which.of(service);
            Path to = target.of(KeptRecord.fileName(Json.text(record, "identifier", ""), "", "pdf"));
            NewFiles.write(
                    to,
                    service.bytes(RecordCommand.path(record) + "/page"
                            + (unit == null ? "" : "?unit=" + Service.escape(unit))));
            output.line(to.toString());
            return Main.DONE;
        }
    }
}
