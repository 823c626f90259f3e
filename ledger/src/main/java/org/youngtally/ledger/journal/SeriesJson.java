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
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Restart;
import org.youngtally.core.series.Restarts;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SeriesProperty;
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
        for (SeriesProperty<?> property : SeriesProperties.ALL) write(property, series, json);
        json.writeEndObject();
    }

    /** Whatever is written in a way of its own; all else is kept as it is, and left out where it is as usual. */
    private static void write(SeriesProperty<?> property, Series series, JsonGenerator json) {
        if (property == SeriesProperties.KEY) {
            json.writeStringProperty("key", series.key());
            json.writeNumberProperty("version", series.version());
        } else if (property == SeriesProperties.PATTERN) {
            json.writeStringProperty("pattern", series.pattern().toString());
            if (series.pattern().edition() != PatternEdition.FIRST)
                json.writeNumberProperty("edition", series.pattern().edition().number());
        } else if (property == SeriesProperties.FISCAL_YEAR_STARTS) {
            writePlain(property, series, json);
            if (series.pattern().namesMonths()) {
                writeTexts("months", series.pattern().style().shortMonths(), json);
                writeTexts("longMonths", series.pattern().style().longMonths(), json);
            }
        } else if (property == SeriesProperties.FIELDS) writeFields(series.fields(), json);
        else if (property == SeriesProperties.RESTARTS) writeRestarts(series.restarts(), json);
        else if (property == SeriesProperties.SKIPS) writeSkips(series.skips(), json);
        else if (property == SeriesProperties.ORDER) {
            writePlain(property, series, json);
            // By the mark the key is known again; the key itself stands nowhere here.
            series.order().scatter().ifPresent(scatter -> json.writeStringProperty("secretMark", scatter.mark()));
        } else if (property == SeriesProperties.RANGES) writeRanges(series.ranges(), json);
        else writePlain(property, series, json);
    }

    private static <T> void writePlain(SeriesProperty<T> property, Series series, JsonGenerator json) {
        T value = property.of().apply(series);
        if (property.property().isUsual(value)) return;
        if (property.keptAs().isPresent())
            json.writeBooleanProperty(
                    property.kept(), value.equals(property.keptAs().get().yes()));
        else
            switch (value) {
                case String text -> json.writeStringProperty(property.kept(), text);
                case Long number -> json.writeNumberProperty(property.kept(), number);
                case Boolean flag -> json.writeBooleanProperty(property.kept(), flag);
                default -> throw new IllegalStateException(property.name() + " is written in a way of its own");
            }
    }

    private static void writeRestarts(Restarts restarts, JsonGenerator json) {
        if (!restarts.isNever())
            writeTexts("restarts", restarts.times().stream().map(Restart::word).toList(), json);
        if (!restarts.fields().isEmpty()) writeTexts("restartFields", restarts.fields(), json);
    }

    private static void writeRanges(List<Range> ranges, JsonGenerator json) {
        json.writeArrayPropertyStart("ranges");
        for (Range range : ranges) {
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
            for (Skips.Run stretch : skips.values()) {
                json.writeStartArray();
                json.writeNumber(stretch.from());
                json.writeNumber(stretch.to());
                json.writeEndArray();
            }
            json.writeEndArray();
        }
        if (!skips.containing().isEmpty()) writeTexts("skipsContaining", skips.containing(), json);
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
        SeriesDraft draft = SeriesDraft.of(
                node.required("key").stringValue(), node.required("pattern").stringValue());
        for (SeriesProperty<?> property : SeriesProperties.ALL) draft = readPlain(property, node, draft);
        return Series.of(
                        draft,
                        Pattern.parse(draft.get(SeriesProperties.PATTERN), style(draft, node), edition(node)),
                        fields(node.get("fields")),
                        restarts,
                        skips(node),
                        order(draft, node),
                        ranges)
                .withVersion(node.required("version").intValue());
    }

    /** Whatever {@link #writePlain} wrote. */
    @SuppressWarnings("unchecked") // a value is kept as what it is
    private static <T> SeriesDraft readPlain(SeriesProperty<T> property, JsonNode node, SeriesDraft draft) {
        JsonNode kept = node.get(property.kept());
        if (kept == null || kept.isArray()) return draft;
        if (property.keptAs().isPresent()) {
            SeriesProperty.Flag<T> flag = property.keptAs().get();
            return draft.with(property, kept.booleanValue() ? flag.yes() : flag.no());
        }
        Object value = kept.isString() ? kept.stringValue() : kept.isBoolean() ? kept.booleanValue() : kept.longValue();
        return draft.with(property, (T) value);
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
        var values = new ArrayList<Skips.Run>();
        if (node.has("skips"))
            for (JsonNode stretch : node.get("skips"))
                values.add(
                        new Skips.Run(stretch.get(0).longValue(), stretch.get(1).longValue()));
        return new Skips(values, texts(node.get("skipsContaining")));
    }

    private static Order order(SeriesDraft draft, JsonNode node) {
        return new Order(
                Order.Kind.of(draft.orUsual(SeriesProperties.ORDER)).orElseThrow(),
                Optional.ofNullable(node.get("secretMark")).map(mark -> Scatter.sealed(mark.stringValue())));
    }

    private static PatternEdition edition(JsonNode node) {
        return node.has("edition") ? PatternEdition.of(node.get("edition").intValue()) : PatternEdition.FIRST;
    }

    private static DateStyle style(SeriesDraft draft, JsonNode node) {
        DateStyle style = DateStyle.of(
                draft.orUsual(SeriesProperties.LOCALE),
                draft.orUsual(SeriesProperties.FISCAL_YEAR_STARTS).intValue());
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
