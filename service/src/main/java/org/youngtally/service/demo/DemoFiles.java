package org.youngtally.service.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The demo data that ships with the service. */
final class DemoFiles {
    private DemoFiles() {}

    /** @param line where it is in the file, which makes a lasting key of it */
    record Taking(
            int line,
            String by,
            String series,
            String date,
            long quantity,
            Optional<String> reference,
            Map<String, String> fields) {}

    static String text(String name) throws IOException {
        try (InputStream in = DemoFiles.class.getResourceAsStream("/demo/" + name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    static List<Taking> takings() throws IOException {
        var takings = new ArrayList<Taking>();
        List<String> lines = text("takings.csv").lines().toList();
        for (int i = 1; i < lines.size(); i++) {
            String[] values = lines.get(i).split(",", -1);
            takings.add(new Taking(
                    i,
                    values[0],
                    values[1],
                    values[2],
                    Long.parseLong(values[3]),
                    Optional.of(values[4]).filter(reference -> !reference.isEmpty()),
                    fields(values[5])));
        }
        return takings;
    }

    /**
     * An act on numbers, periods or records.
     *
     * @param path where it is sent
     * @param put whether it is a change of what stands there
     */
    record Deed(String by, String path, boolean put, JsonNode body) {}

    /** What became of numbers: in the order of time, new ones at the end. */
    static List<Deed> deeds() throws IOException {
        return deeds("acts.json");
    }

    /** Records of the three units. */
    static List<Deed> records() throws IOException {
        return deeds("records.json");
    }

    private static List<Deed> deeds(String name) throws IOException {
        var deeds = new ArrayList<Deed>();
        for (JsonNode deed : JsonMapper.shared().readTree(text(name)))
            deeds.add(new Deed(
                    deed.get("by").stringValue(), deed.get("path").stringValue(), deed.has("put"), deed.get("body")));
        return deeds;
    }

    /** NAME=VALUE, one behind the other with semicolons. */
    private static Map<String, String> fields(String text) {
        var fields = new LinkedHashMap<String, String>();
        for (String field : text.isEmpty() ? new String[0] : text.split(";"))
            fields.put(field.substring(0, field.indexOf('=')), field.substring(field.indexOf('=') + 1));
        return fields;
    }
}
