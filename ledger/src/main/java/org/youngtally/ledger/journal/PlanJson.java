package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.series.LaneKey;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** A plan for the numbers of a table as JSON, in the journal and in the tables. */
public final class PlanJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private PlanJson() {}

    /** Into an object that is begun. */
    static void write(TablePlan plan, JsonGenerator json) {
        json.writeStringProperty("plans", plan.file());
        json.writeStringProperty("series", plan.series());
        json.writeNumberProperty("version", plan.version());
        json.writeStringProperty("file-digest", plan.fileDigest());
        json.writeStringProperty("plan-digest", plan.digest());
        json.writeStringProperty("gaps", plan.gaps().word());
        json.writeNumberProperty("pre-existing", plan.preexisting());
        json.writeNumberProperty("stretches", plan.stretches());
        json.writeNumberProperty("rows", plan.rows());
        json.writeArrayPropertyStart("lanes");
        plan.ends().entrySet().stream()
                .sorted(Map.Entry.comparingByKey(
                        Comparator.comparingInt(LaneKey::range).thenComparing(LaneKey::period)))
                .forEach(end -> {
                    json.writeStartObject();
                    json.writeNumberProperty("range", end.getKey().range());
                    json.writeStringProperty("period", end.getKey().period());
                    json.writeNumberProperty("end", end.getValue());
                    json.writeEndObject();
                });
        json.writeEndArray();
    }

    /** As it is in the tables. */
    public static String write(TablePlan plan) {
        var out = new StringWriter();
        try (JsonGenerator json = MAPPER.createGenerator(out)) {
            json.writeStartObject();
            write(plan, json);
            json.writeEndObject();
        }
        return out.toString();
    }

    public static TablePlan read(String json) {
        return read(MAPPER.readTree(json));
    }

    static TablePlan read(JsonNode node) {
        String series = node.required("series").stringValue();
        String gaps = node.required("gaps").stringValue();
        var ends = new HashMap<LaneKey, Long>();
        for (JsonNode lane : node.required("lanes"))
            ends.put(
                    new LaneKey(
                            series,
                            lane.required("range").intValue(),
                            lane.required("period").stringValue()),
                    lane.required("end").longValue());
        return new TablePlan(
                series,
                node.required("version").intValue(),
                node.required("plans").stringValue(),
                node.required("file-digest").stringValue(),
                node.required("plan-digest").stringValue(),
                Arrays.stream(TablePlan.Gaps.values())
                        .filter(each -> each.word().equals(gaps))
                        .findFirst()
                        .orElseThrow(() -> new IllegalArgumentException("gaps are not ‘" + gaps + "’")),
                ends,
                node.required("pre-existing").longValue(),
                node.required("stretches").longValue(),
                node.required("rows").longValue());
    }
}
