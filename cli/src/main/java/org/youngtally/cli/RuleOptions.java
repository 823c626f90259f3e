package org.youngtally.cli;

import com.google.gson.Gson;
import com.google.gson.GsonBuilder;
import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.youngtally.core.numbering.RuleDraft;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** A rule and the files that are numbered by it. */
final class RuleOptions {
    private static final Gson JSON = new GsonBuilder().disableHtmlEscaping().create();

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Parameters(
            paramLabel = "FILE",
            description =
                    "The rule, a YAML file, and the sheets of the document in their order: .svg, .csv, .xlsx, .json, .xml, .stp, .step, .3mf, or programs. With --rule only the sheets.")
    private List<Path> files = List.of();

    @Option(
            names = "--rule",
            paramLabel = "PROPERTY=VALUE",
            description = "A property of the rule, instead of a rule file; repeatable.")
    private List<String> properties = List.of();

    @Option(
            names = "--date",
            paramLabel = "DATE",
            description = "The business date, for dates in the pattern (default: today).")
    private String date;

    @Option(names = "--anew", description = "Number all items from the start, whatever the rule says.")
    private boolean anew;

    @Option(names = "--clear", description = "Put back what was there before, whatever the rule says.")
    private boolean clear;

    @Option(
            names = "--value",
            paramLabel = "NAME=VALUE",
            description = "A value that the rule names, instead of the one in the rule; repeatable.")
    private Map<String, String> values = new LinkedHashMap<>();

    @Option(
            names = "--table",
            paramLabel = "TABLE",
            description = "For programs: a table, .csv or .xlsx, that has a row for each piece, in their order.")
    private Path table;

    /** The rule as YAML. */
    private String rule() throws IOException {
        if (anew && clear) throw new ParameterException(spec.commandLine(), "--anew and --clear cannot be combined.");
        String said = said();
        // The lines keep their places, for what is told of them.
        return anew || clear
                ? said.replaceAll("(?m)^number:.*$", "").stripTrailing() + "\nnumber: " + (clear ? "none" : "all")
                        + "\n"
                : said;
    }

    /** Whether nobody said a rule, so that any file is read in the usual way. */
    private boolean usual;

    /** Without a rule the items of a file are those that are usual for its format. */
    void usual() {
        usual = properties.isEmpty()
                && (files.isEmpty() || !files.getFirst().toString().matches("(?i).*[.]ya?ml"));
    }

    private String said() throws IOException {
        if (usual) return "pattern: \"{count}\"\n";
        if (!properties.isEmpty()) return properties.stream().map(this::line).collect(Collectors.joining("\n"));
        if (files.isEmpty())
            throw new ParameterException(spec.commandLine(), "No rule is named. Name a rule file, or add --rule.");
        return new String(NewFiles.read(files.getFirst()), StandardCharsets.UTF_8);
    }

    private String line(String said) {
        int equals = said.indexOf('=');
        if (equals < 1)
            throw new ParameterException(spec.commandLine(), "--rule: ‘" + said + "’ is not PROPERTY=VALUE.");
        String name = said.substring(0, equals);
        String value = said.substring(equals + 1);
        boolean quoted = RuleDraft.PROPERTIES.properties().stream()
                .filter(property -> property.name().equals(name))
                .map(Property::shape)
                .anyMatch(shape -> shape instanceof Shape.Text);
        return name + ": " + (quoted ? JSON.toJson(value) : value);
    }

    /** What the rule is called in messages. */
    private String called() {
        return properties.isEmpty() ? files.getFirst().toString() : "--rule";
    }

    /** The files to number. */
    List<Path> sheets() {
        List<Path> sheets = properties.isEmpty() && !usual && !files.isEmpty() ? files.subList(1, files.size()) : files;
        if (sheets.isEmpty()) throw new ParameterException(spec.commandLine(), "No file to number is named.");
        return sheets;
    }

    /** What is asked for, without the files. */
    JsonObject request() throws IOException {
        var request = new JsonObject();
        request.addProperty("rule", rule());
        if (date != null) request.addProperty("date", date);
        if (!values.isEmpty()) {
            var said = new JsonObject();
            values.forEach(said::addProperty);
            request.add("values", said);
        }
        if (table != null) request.add("table", sent(table, NewFiles.read(table)));
        return request;
    }

    private static JsonObject sent(Path file, byte[] content) {
        var sent = new JsonObject();
        sent.addProperty("name", file.getFileName().toString());
        sent.addProperty("content", Base64.getEncoder().encodeToString(content));
        return sent;
    }

    /** What is asked for, with the files. */
    JsonObject request(List<byte[]> contents) throws IOException {
        JsonObject request = request();
        var list = new JsonArray();
        List<Path> sheets = sheets();
        for (int i = 0; i < sheets.size(); i++) list.add(sent(sheets.get(i), contents.get(i)));
        request.add("files", list);
        return request;
    }

    /** @throws Refused where the plan cannot be carried out, with each fault at its place */
    void check(JsonObject plan) {
        if (!Json.list(plan, "faults").isEmpty()) throw refused(plan);
    }

    /** The same refusal, with the rule called as it is here. */
    Refused refused(JsonObject problem) {
        problem.addProperty("type", "/problems/rule-faulty");
        for (JsonElement each : Json.list(problem, "faults"))
            if (Json.text(each.getAsJsonObject(), "file", "").equals("rule"))
                each.getAsJsonObject().addProperty("file", called());
        return new Refused(problem);
    }
}
