package org.youngtally.ledger.journal;

import java.io.StringWriter;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.pattern.DateStyle;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.PatternEdition;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Order;
import org.youngtally.core.series.Place;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Restarts;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.Skips;
import org.youngtally.core.text.SymbolSet;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/**
 * A checked series as JSON, with its version and the lasting ids of its ranges. One that is scattered is read with its
 * secret sealed.
 */
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
        if (series.pattern().edition() != PatternEdition.FIRST)
            json.writeNumberProperty("edition", series.pattern().edition().number());
        writeStyle(series.pattern(), json);
        writeFields(series.fields(), json);
        if (!series.restarts().isNever())
            writeTexts(
                    "restarts",
                    series.restarts().times().stream().map(Restart::word).toList(),
                    json);
        if (!series.restarts().fields().isEmpty())
            writeTexts("restartFields", series.restarts().fields(), json);
        writeSkips(series.skips(), json);
        if (series.order().kind() != Order.Kind.IN_TURN)
            json.writeStringProperty("order", series.order().kind().word());
        // By the mark the key is known again; the key itself stands nowhere here.
        series.order().scatter().ifPresent(scatter -> json.writeStringProperty("secretMark", scatter.mark()));
        writePolicy(series.policy(), json);
        if (series.proofWaived()) json.writeStringProperty("proof", "waived");
        if (series.place().longest() > 0)
            json.writeNumberProperty("longest", series.place().longest());
        if (!series.place().symbols().isAny())
            json.writeStringProperty("symbols", series.place().symbols().words());
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
            if (range.warnDaysBefore() > 0) json.writeNumberProperty("warnDays", range.warnDaysBefore());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void writePolicy(Policy policy, JsonGenerator json) {
        if (policy.gaps()) json.writeBooleanProperty("gaps", true);
        if (!policy.returns()) json.writeBooleanProperty("returns", false);
        if (policy.chronological()) json.writeBooleanProperty("chronological", true);
        if (policy.typed() != Policy.Typed.REFUSED)
            json.writeStringProperty("typed", policy.typed().word());
    }

    private static Policy policy(JsonNode node) {
        return new Policy(
                node.has("gaps"),
                !node.has("returns"),
                node.has("chronological"),
                node.has("typed")
                        ? Policy.Typed.of(node.get("typed").stringValue()).orElseThrow()
                        : Policy.Typed.REFUSED);
    }

    private static void writeFields(List<FieldRule> rules, JsonGenerator json) {
        if (rules.isEmpty()) return;
        json.writeArrayPropertyStart("fields");
        for (FieldRule rule : rules) {
            json.writeStartObject();
            json.writeStringProperty("name", rule.name());
            rule.codebook().ifPresent(book -> json.writeStringProperty("codebook", book));
            rule.within().ifPresent(other -> json.writeStringProperty("within", other));
            if (rule.isText()) {
                json.writeNumberProperty("longest", rule.longest());
                json.writeStringProperty("symbols", rule.symbols().words());
            }
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void writeSkips(Skips skips, JsonGenerator json) {
        if (!skips.values().isEmpty()) {
            json.writeArrayPropertyStart("skips");
            for (Skips.Stretch stretch : skips.values()) {
                json.writeStartArray();
                json.writeNumber(stretch.from());
                json.writeNumber(stretch.to());
                json.writeEndArray();
            }
            json.writeEndArray();
        }
        if (!skips.containing().isEmpty()) writeTexts("skipsContaining", skips.containing(), json);
    }

    private static void writeStyle(Pattern pattern, JsonGenerator json) {
        DateStyle style = pattern.style();
        if (!style.locale().equals(DateStyle.PLAIN.locale())) json.writeStringProperty("locale", style.locale());
        if (style.fiscalStart() != DateStyle.PLAIN.fiscalStart())
            json.writeNumberProperty("fiscal", style.fiscalStart());
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
            ranges.add(new Range(
                    range.required("id").intValue(),
                    range.required("first").longValue(),
                    range.required("last").longValue(),
                    range.required("step").longValue(),
                    new DateWindow(
                            LocalDate.parse(range.required("opens").stringValue()),
                            LocalDate.parse(range.required("closes").stringValue())),
                    range.required("warn").longValue(),
                    range.has("warnDays") ? range.get("warnDays").intValue() : 0));
        }
        var restarts = new Restarts(
                texts(node.get("restarts")).stream()
                        .map(word -> Restart.of(word).orElseThrow())
                        .toList(),
                texts(node.get("restartFields")));
        var place = new Place(node.has("longest") ? node.get("longest").intValue() : 0, symbols(node));
        return new Series(
                node.required("key").stringValue(),
                node.required("title").stringValue(),
                node.required("namespace").stringValue(),
                Pattern.parse(node.required("pattern").stringValue(), style(node), edition(node)),
                fields(node.get("fields")),
                restarts,
                skips(node),
                order(node),
                place,
                policy(node),
                node.has("proof"),
                ranges,
                node.required("version").intValue());
    }

    private static SymbolSet symbols(JsonNode node) {
        return node.has("symbols") ? new SymbolSet(node.get("symbols").stringValue()) : SymbolSet.ANY;
    }

    private static List<FieldRule> fields(JsonNode node) {
        var rules = new ArrayList<FieldRule>();
        if (node != null)
            for (JsonNode rule : node)
                rules.add(new FieldRule(
                        rule.required("name").stringValue(),
                        Optional.ofNullable(rule.get("codebook")).map(JsonNode::stringValue),
                        Optional.ofNullable(rule.get("within")).map(JsonNode::stringValue),
                        rule.has("longest") ? rule.get("longest").intValue() : 0,
                        symbols(rule)));
        return rules;
    }

    private static Skips skips(JsonNode node) {
        var values = new ArrayList<Skips.Stretch>();
        if (node.has("skips"))
            for (JsonNode stretch : node.get("skips"))
                values.add(new Skips.Stretch(
                        stretch.get(0).longValue(), stretch.get(1).longValue()));
        return new Skips(values, texts(node.get("skipsContaining")));
    }

    private static Order order(JsonNode node) {
        if (!node.has("order")) return Order.IN_TURN;
        return new Order(
                Order.Kind.of(node.get("order").stringValue()).orElseThrow(),
                Optional.ofNullable(node.get("secretMark")).map(mark -> Scatter.sealed(mark.stringValue())));
    }

    private static PatternEdition edition(JsonNode node) {
        return node.has("edition") ? PatternEdition.of(node.get("edition").intValue()) : PatternEdition.FIRST;
    }

    private static DateStyle style(JsonNode node) {
        DateStyle style = DateStyle.of(
                node.has("locale") ? node.get("locale").stringValue() : DateStyle.PLAIN.locale(),
                node.has("fiscal") ? node.get("fiscal").intValue() : DateStyle.PLAIN.fiscalStart());
        return node.has("months")
                ? new DateStyle(
                        style.locale(), texts(node.get("months")), texts(node.get("longMonths")), style.fiscalStart())
                : style;
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
