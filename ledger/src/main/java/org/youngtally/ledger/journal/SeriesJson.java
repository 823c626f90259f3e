package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.pattern.DateStyle;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.Place;
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
        writeStyle(series.pattern(), json);
        if (!series.restarts().isEmpty()) writeTexts("restarts", series.restarts().stream().map(Restart::word).toList(), json);
        if (series.place().longest() > 0) json.writeNumberProperty("longest", series.place().longest());
        if (!series.place().symbols().isEmpty()) json.writeStringProperty("symbols", series.place().symbols());
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

    private static void writeStyle(Pattern pattern, JsonGenerator json) {
        DateStyle style = pattern.style();
        if (!style.locale().equals(DateStyle.PLAIN.locale())) json.writeStringProperty("locale", style.locale());
        if (style.fiscalStart() != DateStyle.PLAIN.fiscalStart()) json.writeNumberProperty("fiscal", style.fiscalStart());
        if (!pattern.namesMonths()) return;
        writeTexts("months", style.shortMonths(), json);
        writeTexts("longMonths", style.longMonths(), json);
    }

    private static void writeTexts(String name, List<String> texts, JsonGenerator json) {
        json.writeArrayPropertyStart(name);
        for (String text : texts) json.writeString(text);
        json.writeEndArray();
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
        List<Restart> restarts = texts(node.get("restarts")).stream().map(word -> Restart.of(word).orElseThrow()).toList();
        var place = new Place(node.has("longest") ? node.get("longest").intValue() : 0, node.has("symbols") ? node.get("symbols").stringValue() : "");
        return new Series(node.required("key").stringValue(), node.required("title").stringValue(), node.required("namespace").stringValue(), Pattern.parse(node.required("pattern").stringValue(), style(node)), restarts, place, ranges, node.required("version").intValue());
    }

    private static DateStyle style(JsonNode node) {
        DateStyle style = DateStyle.of(node.has("locale") ? node.get("locale").stringValue() : DateStyle.PLAIN.locale(), node.has("fiscal") ? node.get("fiscal").intValue() : DateStyle.PLAIN.fiscalStart());
        return node.has("months") ? new DateStyle(style.locale(), texts(node.get("months")), texts(node.get("longMonths")), style.fiscalStart()) : style;
    }

    /** A list of texts; one that stands alone is a list too, as the first journals wrote it. */
    private static List<String> texts(JsonNode node) {
        if (node == null) return List.of();
        if (!node.isArray()) return List.of(node.stringValue());
        var texts = new ArrayList<String>();
        for (JsonNode each : node) texts.add(each.stringValue());
        return texts;
    }
}
