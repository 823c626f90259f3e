package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Collectors;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;
import picocli.CommandLine.Spec.Target;

/** What the record gives: its fields and its unit. */
final class Given {
    @Option(
            names = "--field",
            paramLabel = "NAME=VALUE",
            description = "The value of a field: the name or code of a choice, or a text. Repeatable.",
            mapFallbackValue = Option.NULL_VALUE)
    private Map<String, String> fields = new LinkedHashMap<>();

    @Option(names = "--unit", paramLabel = "CODE", description = "The key or code of the unit that the number is for.")
    private String unit;

    @Spec(Target.MIXEE)
    private CommandSpec spec;

    Map<String, String> fields() {
        var all = new LinkedHashMap<>(fields);
        if (all.containsValue(null)) throw new ParameterException(spec.commandLine(), "--field requires NAME=VALUE.");
        if (unit != null && all.put("unit", unit) != null)
            throw new ParameterException(spec.commandLine(), "The unit is set twice. Keep only --unit.");
        return all;
    }

    /** Into a request: the unit by itself, and the fields. */
    void write(JsonObject body) {
        fields();
        if (unit != null) body.addProperty("unit", unit);
        if (fields.isEmpty()) return;
        var written = new JsonObject();
        fields.forEach(written::addProperty);
        body.add("fields", written);
    }

    /** As it is in an address, behind an ampersand. */
    String query() {
        return fields().entrySet().stream()
                .map(field -> "&field=" + Service.escape(field.getKey() + "=" + field.getValue()))
                .collect(Collectors.joining());
    }
}
