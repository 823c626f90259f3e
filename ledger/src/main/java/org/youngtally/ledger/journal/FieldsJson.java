package org.youngtally.ledger.journal;

import java.util.SortedMap;
import java.util.TreeMap;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** What a record gives for the fields of a series, as a JSON object. */
public final class FieldsJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private FieldsJson() {}

    /** Null where there are no fields. */
    public static String write(SortedMap<String, String> fields) {
        return fields.isEmpty() ? null : MAPPER.writeValueAsString(fields);
    }

    static void write(SortedMap<String, String> fields, JsonGenerator json) {
        if (fields.isEmpty()) return;
        json.writeObjectPropertyStart("fields");
        fields.forEach(json::writeStringProperty);
        json.writeEndObject();
    }

    /** No fields where the text is null. */
    public static SortedMap<String, String> read(String json) {
        return read(json == null ? null : MAPPER.readTree(json));
    }

    static SortedMap<String, String> read(JsonNode node) {
        var fields = new TreeMap<String, String>();
        if (node != null)
            for (var field : node.properties())
                fields.put(field.getKey(), field.getValue().stringValue());
        return fields;
    }
}
