package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Effect.LaneTotal;
import org.youngtally.core.act.Effect.Manner;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** What becomes of numbers, as JSON. */
public final class LifeJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private LifeJson() {}

    static void write(String name, Stretch stretch, JsonGenerator json) {
        json.writeObjectPropertyStart(name);
        json.writeNumberProperty("from", stretch.from());
        json.writeNumberProperty("to", stretch.to());
        json.writeStringProperty("state", stretch.state().word());
        if (stretch.changed() != 0) json.writeNumberProperty("changed", stretch.changed());
        if (stretch.block() != 0) json.writeNumberProperty("block", stretch.block());
        write(stretch.origin(), json);
        json.writeEndObject();
    }

    static void write(Origin origin, JsonGenerator json) {
        json.writeNumberProperty("seq", origin.seq());
        json.writeNumberProperty("version", origin.version());
        json.writeStringProperty("date", origin.particulars().date().toString());
        FieldsJson.write(origin.particulars().fields(), json);
        origin.until().ifPresent(until -> json.writeStringProperty("until", until.toString()));
        if (origin.ahead()) json.writeBooleanProperty("ahead", true);
        origin.text().ifPresent(text -> json.writeStringProperty("text", text));
    }

    static Origin origin(JsonNode node) {
        return new Origin(
                node.required("seq").longValue(),
                node.required("version").intValue(),
                new Particulars(
                        LocalDate.parse(node.required("date").stringValue()), FieldsJson.read(node.get("fields"))),
                until(node),
                node.has("ahead"),
                Optional.ofNullable(node.get("text")).map(JsonNode::stringValue));
    }

    private static Optional<Instant> until(JsonNode node) {
        return Optional.ofNullable(node.get("until")).map(until -> Instant.parse(until.stringValue()));
    }

    static Manner manner(JsonNode node) {
        if (!node.has("until") && !node.has("ahead") && !node.has("formerly") && !node.has("pre-existing"))
            return Manner.USUAL;
        return new Manner(
                until(node),
                node.has("ahead"),
                Optional.ofNullable(node.get("formerly")).map(LifeJson::stretch),
                Optional.ofNullable(node.get("pre-existing")).map(lines -> FileLines.read(lines.stringValue())));
    }

    private static Stretch stretch(JsonNode node) {
        return new Stretch(
                node.required("from").longValue(),
                node.required("to").longValue(),
                PositionState.of(node.required("state").stringValue()),
                node.has("changed") ? node.get("changed").longValue() : 0,
                node.has("block") ? node.get("block").longValue() : 0,
                origin(node));
    }

    static void write(Effect.PeriodClosed closed, JsonGenerator json) {
        json.writeStringProperty("closes", closed.period().scope().word());
        json.writeStringProperty("name", closed.period().key());
        json.writeStringProperty("from", closed.period().from().toString());
        json.writeStringProperty("to", closed.period().to().toString());
        json.writeName("totals");
        write(closed.totals(), json);
    }

    private static void write(List<LaneTotal> totals, JsonGenerator json) {
        json.writeStartArray();
        for (LaneTotal total : totals) {
            json.writeStartObject();
            json.writeStringProperty("series", total.lane().series());
            json.writeNumberProperty("range", total.lane().range());
            json.writeStringProperty("period", total.lane().period());
            total.first().ifPresent(first -> json.writeStringProperty("first", first));
            total.last().ifPresent(last -> json.writeStringProperty("last", last));
            json.writeNumberProperty("issued", total.issued());
            json.writeNumberProperty("voids", total.voids());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** The totals of a closing as they are in the tables. */
    public static String write(List<LaneTotal> totals) {
        var out = new StringWriter();
        try (JsonGenerator json = MAPPER.createGenerator(out)) {
            write(totals, json);
        }
        return out.toString();
    }

    public static List<LaneTotal> totals(String json) {
        return totals(MAPPER.readTree(json));
    }

    private static List<LaneTotal> totals(JsonNode node) {
        var totals = new ArrayList<LaneTotal>();
        for (JsonNode total : node)
            totals.add(new LaneTotal(
                    new LaneKey(
                            total.required("series").stringValue(),
                            total.required("range").intValue(),
                            total.required("period").stringValue()),
                    Optional.ofNullable(total.get("first")).map(JsonNode::stringValue),
                    Optional.ofNullable(total.get("last")).map(JsonNode::stringValue),
                    total.required("issued").longValue(),
                    total.required("voids").longValue()));
        return totals;
    }

    static Effect.PeriodClosed closed(JsonNode node) {
        String word = node.get("closes").stringValue();
        Period.Scope scope = Arrays.stream(Period.Scope.values())
                .filter(each -> each.word().equals(word))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("‘" + word + "’ is not closed"));
        return new Effect.PeriodClosed(
                new Period(
                        scope,
                        node.required("name").stringValue(),
                        LocalDate.parse(node.required("from").stringValue()),
                        LocalDate.parse(node.required("to").stringValue())),
                totals(node.required("totals")));
    }
}
