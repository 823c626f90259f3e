package org.youngtally.ledger.journal;

import java.io.OutputStream;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** An entry as one JSON object on one line. */
final class EntryJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private EntryJson() {}

    static void write(Entry entry, OutputStream to) {
        try (JsonGenerator json = MAPPER.createGenerator(to)) {
            write(entry, json);
        }
    }

    private static void write(Entry entry, JsonGenerator json) {
        json.writeStartObject();
        json.writeNumberProperty("seq", entry.seq());
        json.writeStringProperty("at", entry.at().toString());
        json.writeStringProperty("by", entry.by());
        json.writeStringProperty("act", entry.kind().word());
        entry.request().ifPresent(request -> write(request, json));
        json.writeArrayPropertyStart("effects");
        for (Effect effect : entry.effects()) write(effect, json);
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void write(Entry.Request request, JsonGenerator json) {
        json.writeStringProperty("series", request.series());
        json.writeStringProperty("date", request.particulars().date().toString());
        FieldsJson.write(request.particulars().fields(), json);
        json.writeNumberProperty("quantity", request.quantity());
        request.reference().ifPresent(reference -> json.writeStringProperty("reference", reference));
        request.key().ifPresent(key -> json.writeStringProperty("key", key));
        json.writeStringProperty("digest", request.digest());
    }

    private static void write(Effect effect, JsonGenerator json) {
        json.writeStartObject();
        switch (effect) {
            case Effect.LaneOpened opened -> {
                json.writeNumberProperty("opens", opened.lane());
                json.writeStringProperty("series", opened.key().series());
                json.writeNumberProperty("range", opened.key().range());
                json.writeStringProperty("period", opened.key().period());
            }
            case Effect.Issued issued -> {
                json.writeNumberProperty("lane", issued.lane());
                json.writeNumberProperty("from", issued.from());
                json.writeNumberProperty("to", issued.to());
                json.writeNumberProperty("version", issued.version());
                if (issued.round() > 0) json.writeNumberProperty("round", issued.round());
                if (!issued.isBlock()) {
                    json.writeArrayPropertyStart("texts");
                    for (String text : issued.texts()) json.writeString(text);
                    json.writeEndArray();
                }
            }
            case Effect.Skipped skipped -> {
                json.writeNumberProperty("skips", skipped.lane());
                json.writeNumberProperty("from", skipped.from());
                json.writeNumberProperty("to", skipped.to());
                json.writeNumberProperty("version", skipped.version());
            }
            case Effect.CodebookDefined defined -> {
                json.writeName("codebook");
                CodebookJson.write(defined.codebook(), json);
            }
            case Effect.NamespaceDefined defined -> {
                json.writeObjectPropertyStart("namespace");
                json.writeStringProperty("key", defined.namespace().key());
                json.writeNumberProperty("version", defined.namespace().version());
                json.writeStringProperty("title", defined.namespace().title());
                json.writeBooleanProperty("repeats", defined.namespace().repeats());
                json.writeEndObject();
            }
            case Effect.FileKept kept -> {
                json.writeStringProperty("keeps", kept.file().name());
                json.writeStringProperty("text", kept.file().text());
            }
            case Effect.Defined defined -> {
                json.writeName("defines");
                SeriesJson.write(defined.series(), json);
            }
        }
        json.writeEndObject();
    }

    static Entry read(byte[] line) {
        JsonNode node = MAPPER.readTree(line);
        Optional<Entry.Request> request = Optional.ofNullable(node.get("series")).map(series -> new Entry.Request(series.stringValue(), new Particulars(LocalDate.parse(node.required("date").stringValue()), FieldsJson.read(node.get("fields"))),
                node.required("quantity").longValue(), text(node, "reference"), text(node, "key"), node.required("digest").stringValue()));
        var effects = new ArrayList<Effect>();
        for (JsonNode effect : node.required("effects")) effects.add(effect(effect, request.map(Entry.Request::particulars)));
        return new Entry(node.required("seq").longValue(), Instant.parse(node.required("at").stringValue()), node.required("by").stringValue(), Entry.Kind.of(node.required("act").stringValue()), request, effects);
    }

    private static Optional<String> text(JsonNode node, String name) {
        return Optional.ofNullable(node.get(name)).map(JsonNode::stringValue);
    }

    private static Effect effect(JsonNode node, Optional<Particulars> particulars) {
        if (node.has("defines")) return new Effect.Defined(SeriesJson.read(node.get("defines")));
        if (node.has("codebook")) return new Effect.CodebookDefined(CodebookJson.read(node.get("codebook")));
        if (node.has("namespace")) return new Effect.NamespaceDefined(namespace(node.get("namespace")));
        if (node.has("skips")) return new Effect.Skipped(node.get("skips").intValue(), node.required("from").longValue(), node.required("to").longValue(), node.required("version").intValue(), particulars.orElseThrow());
        if (node.has("keeps")) return new Effect.FileKept(new KeptFile(node.get("keeps").stringValue(), node.required("text").stringValue()));
        if (node.has("opens")) return new Effect.LaneOpened(node.get("opens").intValue(), new LaneKey(node.required("series").stringValue(), node.required("range").intValue(), node.required("period").stringValue()));
        List<String> texts = new ArrayList<>();
        if (node.has("texts")) for (JsonNode text : node.get("texts")) texts.add(text.stringValue());
        return new Effect.Issued(node.required("lane").intValue(), node.required("from").longValue(), node.required("to").longValue(), node.required("version").intValue(), particulars.orElseThrow(), node.has("round") ? node.get("round").longValue() : 0, texts);
    }

    private static Namespace namespace(JsonNode node) { return new Namespace(node.required("key").stringValue(), node.required("title").stringValue(), node.required("repeats").booleanValue(), node.required("version").intValue()); }
}
