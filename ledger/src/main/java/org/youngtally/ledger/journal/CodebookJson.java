package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** A checked codebook as JSON, with its version. */
public final class CodebookJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private CodebookJson() {}

    public static String write(Codebook book) {
        var out = new StringWriter();
        try (JsonGenerator json = MAPPER.createGenerator(out)) {
            write(book, json);
        }
        return out.toString();
    }

    static void write(Codebook book, JsonGenerator json) {
        json.writeStartObject();
        json.writeStringProperty("key", book.key());
        json.writeNumberProperty("version", book.version());
        json.writeStringProperty("title", book.title());
        write(book.choices(), json);
        json.writeEndObject();
    }

    private static void write(List<Choice> choices, JsonGenerator json) {
        if (choices.isEmpty()) return;
        json.writeArrayPropertyStart("choices");
        for (Choice choice : choices) {
            json.writeStartObject();
            json.writeStringProperty("name", choice.name());
            json.writeStringProperty("code", choice.code());
            if (choice.retired()) json.writeBooleanProperty("retired", true);
            write(choice.choices(), json);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    public static Codebook read(String json) {
        return read(MAPPER.readTree(json));
    }

    static Codebook read(JsonNode node) {
        return new Codebook(
                node.required("key").stringValue(),
                node.required("title").stringValue(),
                choices(node.get("choices")),
                node.required("version").intValue());
    }

    private static List<Choice> choices(JsonNode node) {
        var choices = new ArrayList<Choice>();
        if (node != null)
            for (JsonNode each : node)
                choices.add(new Choice(
                        each.required("name").stringValue(),
                        each.required("code").stringValue(),
                        each.has("retired"),
                        choices(each.get("choices"))));
        return choices;
    }
}
