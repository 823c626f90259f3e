package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
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
        name = "label",
        description = "Labels: how they look, printing them, the state of each, and what is on one.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            LabelCommand.Layouts.class,
            LabelCommand.Preview.class,
            LabelJobCommands.Print.class,
            LabelJobCommands.Listing.class,
            LabelJobCommands.Show.class,
            LabelJobCommands.Send.class,
            LabelJobCommands.Confirm.class,
            LabelJobCommands.Reprint.class,
            LabelJobCommands.Spoil.class,
            LabelJobCommands.Cancel.class,
            LabelPrinterCommands.Printers.class,
            LabelPrinterCommands.Stop.class,
            LabelCommand.Scan.class
        })
final class LabelCommand {
    /** How many labels are listed. */
    private static final int LISTED = 10;

    @Command(name = "layouts", description = "List the layouts of labels.", mixinStandardHelpOptions = true)
    static final class Layouts implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/layouts");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject layout = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(layout, "key", ""),
                        Json.text(layout, "title", ""),
                        millimetres(layout, "width") + " × " + millimetres(layout, "height") + " mm",
                        Json.number(layout, "labels") == 1 ? "" : String.valueOf(Json.number(layout, "labels")),
                        asked(layout)));
            }
            output.table(List.of("layout", "title", "size", "on a sheet", "asks for"), rows);
            return Main.DONE;
        }

        private static String asked(JsonObject layout) {
            return String.join(
                    ", ",
                    Json.list(layout, "ask").asList().stream()
                            .map(each -> Json.text(each.getAsJsonObject(), "name", ""))
                            .toList());
        }

        private static String millimetres(JsonObject layout, String name) {
            return layout.get(name).getAsBigDecimal().stripTrailingZeros().toPlainString();
        }
    }

    @Command(
            name = "preview",
            description =
                    "Show what labels would look like with the numbers that are expected. Nothing is allocated. Exits with 1 if one of them cannot be printed.",
            mixinStandardHelpOptions = true)
    static final class Preview implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Given given;

        @Parameters(
                paramLabel = "LAYOUT",
                arity = "0..1",
                description = "The layout. List all with: youngtally label layouts")
        private String layout;

        @Option(
                names = "--layout-file",
                paramLabel = "FILE",
                description = "A definition file with one layout, which is not applied yet, instead of LAYOUT.")
        private Path file;

        @Mixin
        private LabelOptions labels;

        @Option(
                names = "--output",
                paramLabel = "FILE",
                description = "Write them all to this new .pdf file, or one of them to a .svg or .png file.")
        private Path to;

        @Option(
                names = "--label",
                paramLabel = "N",
                description = "Which label is written to a .svg or .png file (default: ${DEFAULT-VALUE}).",
                defaultValue = "1")
        private long label;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            if ((layout == null) == (file == null))
                throw new ParameterException(
                        spec.commandLine(), "Name either a layout, or a file with one by --layout-file.");
            String format = to == null ? "" : ending(to);
            JsonObject body = body();
            Service.Answer answer = service.post("/label-previews?most=" + LISTED, body);
            JsonObject preview = answer.body().getAsJsonObject();
            JsonArray faults = Json.list(preview, "faults");
            if (!output.asJson(answer)) print(preview, faults);
            if (!faults.isEmpty()) return Main.REFUSED;
            if (to != null) {
                service.download("/label-preview-files?format=" + format + "&label=" + label, body, to);
                output.note("written to " + to + ", marked as expected");
            }
            return Main.DONE;
        }

        private String ending(Path file) {
            String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
            return Stream.of("pdf", "svg", "png")
                    .filter(each -> name.endsWith("." + each))
                    .findFirst()
                    .orElseThrow(() -> new ParameterException(
                            spec.commandLine(), "--output: ‘" + file + "’ ends in none of .pdf, .svg and .png."));
        }

        private JsonObject body() throws IOException {
            var body = new JsonObject();
            if (layout != null) body.addProperty("layout", layout);
            if (file != null) body.addProperty("definition", new String(NewFiles.read(file), StandardCharsets.UTF_8));
            given.write(body);
            labels.write(body, service);
            return body;
        }

        private void print(JsonObject preview, JsonArray faults) {
            long quantity = Json.number(preview, "labels");
            JsonObject of = preview.getAsJsonObject("layout");
            output.line(Json.text(of, "title", "") + ": " + Output.counted(quantity, "label")
                    + (labels.copies() == 1 ? "" : " in " + labels.copies() + " copies each") + " on "
                    + Output.counted(Json.number(preview, "pages"), "page"));
            output.line("expected from " + Json.text(preview, "series", "") + " for " + Json.text(preview, "date", "")
                    + ":");
            for (JsonElement each : Json.list(preview, "shown")) {
                JsonObject label = each.getAsJsonObject();
                output.line("  " + Output.grouped(Json.number(label, "number")) + "  "
                        + Json.text(label, "identifier", ""));
            }
            if (quantity > LISTED) output.line("  …");
            for (JsonElement each : faults) {
                JsonObject fault = each.getAsJsonObject();
                output.line("label " + Output.grouped(Json.number(fault, "label")) + " ("
                        + Json.text(fault, "identifier", "") + ") cannot be printed: "
                        + Refused.path(Json.text(fault, "path", ""))
                        + " " + Json.text(fault, "problem", "") + "; " + Json.text(fault, "accepted", ""));
            }
            output.note("Nothing was allocated.");
        }
    }

    @Command(
            name = "scan",
            description =
                    "Tell what is on a label: a bar code's text with its FNC1, GS1 elements in parentheses, a Digital Link, or a plain identifier. Exits with 1 if nothing of it was issued, or it is wrong.",
            mixinStandardHelpOptions = true)
    static final class Scan implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "TEXT", description = "What was scanned or typed.")
        private String text;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/scans?text=" + Service.escape(text));
            JsonObject scan = answer.body().getAsJsonObject();
            JsonArray faults = Json.list(scan, "faults");
            JsonArray found = Json.list(scan, "identifiers");
            if (!output.asJson(answer)) print(scan, faults, found);
            return faults.isEmpty() && !found.isEmpty() ? Main.DONE : Main.REFUSED;
        }

        private void print(JsonObject scan, JsonArray faults, JsonArray found) {
            for (JsonElement each : Json.list(scan, "elements")) {
                JsonObject element = each.getAsJsonObject();
                output.line("(" + Json.text(element, "code", "") + ") " + Json.text(element, "title", "") + "  "
                        + Json.text(element, "value", ""));
            }
            for (JsonElement each : faults) {
                JsonObject fault = each.getAsJsonObject();
                output.line("wrong: " + (Json.text(fault, "path", "") + " " + Json.text(fault, "problem", "")).strip()
                        + "; " + Json.text(fault, "accepted", ""));
            }
            for (JsonElement each : found) issued(each.getAsJsonObject());
            if (!found.isEmpty()) return;
            output.line("never issued: " + Json.text(scan, "text", ""));
            for (JsonElement each : Json.list(scan, "meant")) {
                JsonObject meant = each.getAsJsonObject();
                output.line("perhaps meant (" + Json.text(meant, "error", "") + "):");
                issued(meant.getAsJsonObject("issued"));
            }
        }

        private void issued(JsonObject each) {
            output.line(Json.text(each, "identifier", "") + "  " + Json.text(each, "state", "") + "  "
                    + Json.text(each, "series", "") + " — " + Json.text(each, "title", "") + ", entry "
                    + Json.number(each, "seq") + " of " + Json.text(each, "date", ""));
            for (JsonElement bearing : Json.list(each, "labels")) {
                JsonObject label = bearing.getAsJsonObject();
                output.line("  label " + Output.grouped(Json.number(label, "place")) + " of job "
                        + Json.number(label, "job") + " (" + Json.text(label, "layout", "") + "): "
                        + Json.text(label, "state", "")
                        + (label.get("reprint").getAsBoolean() ? ", a reprint" : ""));
            }
        }
    }
}
