package org.youngtally.service.definitions;

import java.util.List;
import java.util.stream.Stream;
import org.youngtally.core.series.Restart;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** The properties of an administrator's files: what the reader takes, and the JSON Schema (2020-12) by which editors help to write them. */
public final class DefinitionShape {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final String NAME = "^[a-z0-9]([a-z0-9.-]{0,62}[a-z0-9])?$";

    /** What a property holds. */
    private enum Kind { TEXT, NAME, NUMBER, DATE, RESTARTS, RANGES, SERIES, TYPED }

    private record Property(String name, Kind kind, boolean required, String meaning) {}

    private static final List<Property> FILE = List.of(new Property("series", Kind.SERIES, true, "The series that this file defines."));

    private static final List<Property> SERIES = List.of(
            new Property("key", Kind.NAME, true, "The name by which the series is called."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property("namespace", Kind.NAME, false, "The set within which its identifiers are unique; the key where it is left out."),
            new Property("pattern", Kind.TEXT, true, "The text of an identifier with fields in braces, such as LW{date yy}-{count 5}; exactly one count."),
            new Property("locale", Kind.TEXT, false, "A language tag for the names of months, such as de; en where it is left out."),
            new Property("fiscal-year-starts", Kind.NUMBER, false, "The month in which the fiscal year begins, 1 to 12; 1 where it is left out."),
            new Property("restarts", Kind.RESTARTS, false, "When the count starts again at its first value; never where it is left out."),
            new Property("longest", Kind.NUMBER, false, "The most symbols that the place allows which the identifiers live in."),
            new Property("symbols", Kind.TEXT, false, "The symbols that this place allows: letters, upper, lower, digits and single symbols, separated by blanks."),
            new Property("typed", Kind.TYPED, false, "Whether people may type a number themselves."),
            new Property("ranges", Kind.RANGES, true, "The stretches of values, used in this order."));

    private static final List<Property> RANGE = List.of(
            new Property("first", Kind.NUMBER, true, "The first value."),
            new Property("last", Kind.NUMBER, true, "The last value, which the step reaches."),
            new Property("step", Kind.NUMBER, false, "What is added from one value to the next; negative to count down; 1 where it is left out."),
            new Property("opens", Kind.DATE, true, "The first business date that it serves."),
            new Property("closes", Kind.DATE, false, "The last business date that it serves; 2099-12-31 where it is left out."),
            new Property("warn-when-left", Kind.NUMBER, false, "At how many numbers left it counts as running low."));

    private DefinitionShape() {}

    static List<String> ofFile() { return names(FILE); }

    static List<String> ofSeries() { return names(SERIES); }

    static List<String> ofRange() { return names(RANGE); }

    private static List<String> names(List<Property> properties) { return properties.stream().map(Property::name).toList(); }

    /** The schema of a file. */
    public static ObjectNode schema() {
        ObjectNode schema = object(FILE);
        ObjectNode whole = NODES.objectNode().put("$schema", "https://json-schema.org/draft/2020-12/schema").put("title", "Young Tally definitions");
        whole.setAll(schema);
        return whole;
    }

    private static ObjectNode object(List<Property> properties) {
        ObjectNode schema = NODES.objectNode().put("type", "object").put("additionalProperties", false);
        ArrayNode required = schema.putArray("required");
        ObjectNode shapes = schema.putObject("properties");
        for (Property property : properties) {
            if (property.required()) required.add(property.name());
            shapes.set(property.name(), value(property.kind()).put("description", property.meaning()));
        }
        return schema;
    }

    private static ObjectNode value(Kind kind) {
        return switch (kind) {
            case TEXT -> NODES.objectNode().put("type", "string");
            case NAME -> NODES.objectNode().put("type", "string").put("pattern", NAME);
            case NUMBER -> NODES.objectNode().put("type", "integer");
            case DATE -> NODES.objectNode().put("type", "string").put("format", "date");
            case TYPED -> choice(List.of("refused"));
            case RESTARTS -> list(choice(Stream.of(Restart.values()).map(Restart::word).toList()), 0).put("uniqueItems", true);
            case RANGES -> list(object(RANGE), 1);
            case SERIES -> list(object(SERIES), 0);
        };
    }

    private static ObjectNode choice(List<String> words) {
        ObjectNode choice = NODES.objectNode().put("type", "string");
        words.forEach(choice.putArray("enum")::add);
        return choice;
    }

    private static ObjectNode list(ObjectNode items, int least) {
        ObjectNode list = NODES.objectNode().put("type", "array");
        if (least > 0) list.put("minItems", least);
        list.set("items", items);
        return list;
    }
}
