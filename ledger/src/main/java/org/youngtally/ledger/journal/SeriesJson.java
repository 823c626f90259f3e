package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Optional;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Series;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** A checked series as JSON, with its version and the lasting ids of its ranges. */
public final class SeriesJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private SeriesJson() {}

    public static String write(Series series) {
        var out = new StringWriter();
        try (JsonGenerator json = MAPPER.createGenerator(out)) {
            write(series, json);
        }
        return out.toString();
    }

    static void write(Series series, JsonGenerator json) {
        json.writeStartObject();
        json.writeStringProperty("key", series.key());
        json.writeNumberProperty("version", series.version());
        json.writeStringProperty("title", series.title());
        json.writeStringProperty("namespace", series.namespace());
        json.writeStringProperty("pattern", series.pattern().toString());
        series.restarts().ifPresent(restart -> json.writeStringProperty("restarts", restart.word()));
        json.writeArrayPropertyStart("ranges");
        for (Range range : series.ranges()) {
            json.writeStartObject();
            json.writeNumberProperty("id", range.id());
            json.writeNumberProperty("first", range.first());
            json.writeNumberProperty("last", range.last());
            json.writeNumberProperty("step", range.step());
            json.writeStringProperty("opens", range.serves().opens().toString());
            json.writeStringProperty("closes", range.serves().closes().toString());
            json.writeNumberProperty("warn", range.warnWhenLeft());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    public static Series read(String json) {
        return read(MAPPER.readTree(json));
    }

    static Series read(JsonNode node) {
        var ranges = new ArrayList<Range>();
        for (JsonNode range : node.required("ranges")) {
            ranges.add(new Range(range.required("id").intValue(), range.required("first").longValue(), range.required("last").longValue(), range.required("step").longValue(),
                    new DateWindow(LocalDate.parse(range.required("opens").stringValue()), LocalDate.parse(range.required("closes").stringValue())), range.required("warn").longValue()));
        }
        return new Series(node.required("key").stringValue(), node.required("title").stringValue(), node.required("namespace").stringValue(), Pattern.parse(node.required("pattern").stringValue()),
                Optional.ofNullable(node.get("restarts")).flatMap(word -> Restart.of(word.stringValue())), ranges, node.required("version").intValue());
    }
}
