package org.youngtally.service.definitions;

import java.util.List;
import java.util.stream.Stream;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.organisation.Keeping;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Order;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.Restart;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * The properties of an administrator's files: what the reader takes, and the JSON Schema (2020-12) by which editors
 * help to write them.
 */
public final class DefinitionShape {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;
    private static final String NAME = "^" + DefinitionName.SHAPE + "$";

    private static final String FIELD_NAME = "^" + Particulars.FIELD_NAME + "$";

    /** What a property holds. */
    private enum Kind {
        DELETING,
        KIND_FIELDS,
        TYPE,
        CONDITION,
        UNITS,
        KINDS,
        ROUTES,
        TEXT,
        NAME,
        FIELD_NAME,
        NUMBER,
        DATE,
        FLAG,
        TEXTS,
        RESTARTS,
        FIELDS,
        SKIPS,
        ORDER,
        TYPED,
        PROOF,
        RANGES,
        CHOICES,
        REPEATS,
        NAMESPACES,
        CODEBOOKS,
        SERIES
    }

    private record Property(String name, Kind kind, boolean required, String meaning) {}

    private static final List<Property> FILE = List.of(
            new Property("namespaces", Kind.NAMESPACES, false, "Namespaces that are not as namespaces usually are."),
            new Property("codebooks", Kind.CODEBOOKS, false, "The codebooks that this file defines."),
            new Property("series", Kind.SERIES, false, "The series that this file defines."),
            new Property("units", Kind.UNITS, false, "The companies, branches and workshops that this file defines."),
            new Property("kinds", Kind.KINDS, false, "The kinds of records that this file defines."),
            new Property("routes", Kind.ROUTES, false, "Which series numbers the records of a kind in a unit."));

    private static final List<Property> UNIT = List.of(
            new Property("key", Kind.NAME, true, "The name by which the unit is called."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property(
                    "below",
                    Kind.NAME,
                    false,
                    "The unit that it is a part of; at the top of the tree where it is left out."),
            new Property(
                    "code",
                    Kind.TEXT,
                    false,
                    "What the series of a record is given for {unit}; the key where it is left out."),
            new Property(
                    "time-zone",
                    Kind.TEXT,
                    false,
                    "Where its days begin, such as Europe/Vienna; the service's time zone where it is left out."));

    private static final List<Property> KIND = List.of(
            new Property("key", Kind.NAME, true, "The name by which the kind is called."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property(
                    "fields", Kind.KIND_FIELDS, true, "The fields of a record, one that narrows another above it."),
            new Property(
                    "lines",
                    Kind.KIND_FIELDS,
                    false,
                    "The fields of each line of a record; a kind without lines where it is left out."),
            new Property(
                    "known-by",
                    Kind.TEXTS,
                    false,
                    "Fields by each of which a record is known again: a new one that holds the same is the one there is."),
            new Property("agree", Kind.TEXTS, false, "Fields that are alike in all units in which a record stands."),
            new Property(
                    "deleting",
                    Kind.DELETING,
                    false,
                    "What becomes of the number of a deleted record: void, as where it is left out, or return, where the series takes numbers back."),
            new Property(
                    "dated-by",
                    Kind.FIELD_NAME,
                    false,
                    "The field that holds the business date; the day on which the record is saved where it is left out or empty."),
            new Property(
                    "line-step",
                    Kind.NUMBER,
                    false,
                    "How far the number of one line is from the next, such as 10; 1 where it is left out."));

    private static final List<Property> KIND_FIELD = List.of(
            new Property("name", Kind.FIELD_NAME, true, "The name by which routes and requests call it."),
            new Property("title", Kind.TEXT, false, "What people call it; the name where it is left out."),
            new Property("type", Kind.TYPE, false, "What it holds; text where it is left out."),
            new Property("codebook", Kind.NAME, false, "Of a choice: the codebook whose choices it takes."),
            new Property(
                    "within", Kind.FIELD_NAME, false, "Of a choice: the field above whose choice narrows this one."),
            new Property("required", Kind.FLAG, false, "Whether every record must have it."),
            new Property(
                    "sticky",
                    Kind.FLAG,
                    false,
                    "Whether the next record that somebody writes begins with it; of the record's own fields."),
            new Property(
                    "name-of",
                    Kind.FIELD_NAME,
                    false,
                    "Of a text: the choice above whose full name goes into it when the number is given."),
            new Property(
                    "code-of",
                    Kind.FIELD_NAME,
                    false,
                    "Of a text: the choice above whose code goes into it when the number is given."));

    private static final List<Property> ROUTE = List.of(
            new Property("kind", Kind.NAME, true, "The kind of record."),
            new Property(
                    "unit",
                    Kind.NAME,
                    true,
                    "The unit; those below it use the route as well, unless they have one of their own."),
            new Property(
                    "when",
                    Kind.CONDITION,
                    false,
                    "What the fields of the record must be: a value, a list of values, or from and to."),
            new Property("series", Kind.NAME, true, "The series that gives the number."),
            new Property(
                    "into",
                    Kind.FIELD_NAME,
                    false,
                    "The field that the number goes into; number where it is left out."));

    private static final List<Property> TEST = List.of(
            new Property("from", Kind.TEXT, false, "The least value."),
            new Property("to", Kind.TEXT, false, "The greatest value."));

    private static final List<Property> NAMESPACE = List.of(
            new Property("key", Kind.NAME, true, "The name by which series call it."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property(
                    "repeats",
                    Kind.REPEATS,
                    false,
                    "Whether it holds marks that come round again, and need not be unique."),
            new Property(
                    "comparison",
                    Kind.NUMBER,
                    false,
                    "The number of the rule by which identifiers are compared; a namespace keeps its own where it is left out."));

    private static final List<Property> CODEBOOK = List.of(
            new Property("key", Kind.NAME, true, "The name by which series call it."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property("choices", Kind.CHOICES, true, "What can be chosen."));

    private static final List<Property> CHOICE = List.of(
            new Property("name", Kind.TEXT, true, "The full name."),
            new Property(
                    "code",
                    Kind.TEXT,
                    true,
                    "What stands for it in an identifier; never changed, and never used for anything else."),
            new Property("retired", Kind.FLAG, false, "Whether it is no longer given."),
            new Property("choices", Kind.CHOICES, false, "What can be chosen next where this is chosen."));

    private static final List<Property> FIELD = List.of(
            new Property("name", Kind.FIELD_NAME, true, "As in {field NAME}; unit for {unit}."),
            new Property("codebook", Kind.NAME, false, "The codebook whose choices it takes."),
            new Property(
                    "within",
                    Kind.FIELD_NAME,
                    false,
                    "The field above whose choice narrows this one: it takes the choices beneath that one."),
            new Property(
                    "longest",
                    Kind.NUMBER,
                    false,
                    "For a text: the most symbols that it may write; 20 where it is left out."),
            new Property(
                    "symbols",
                    Kind.TEXT,
                    false,
                    "For a text: the symbols that it may write; letters digits where it is left out."));

    private static final List<Property> SKIPS = List.of(
            new Property("values", Kind.TEXTS, false, "Single values and rows of them, such as 13 and 4000-4999."),
            new Property("containing", Kind.TEXTS, false, "Texts that the written count must not contain."));

    private static final List<Property> SERIES = List.of(
            new Property("key", Kind.NAME, true, "The name by which the series is called."),
            new Property("title", Kind.TEXT, false, "What people call it; the key where it is left out."),
            new Property(
                    "namespace",
                    Kind.NAME,
                    false,
                    "The set within which its identifiers are unique; the key where it is left out."),
            new Property(
                    "pattern",
                    Kind.TEXT,
                    true,
                    "The text of an identifier with fields in braces, such as LW{date yy}-{count 5}; exactly one count."),
            new Property(
                    "locale",
                    Kind.TEXT,
                    false,
                    "A language tag for the names of months, such as de; en where it is left out."),
            new Property(
                    "fiscal-year-starts",
                    Kind.NUMBER,
                    false,
                    "The month in which the fiscal year begins, 1 to 12; 1 where it is left out."),
            new Property(
                    "fields",
                    Kind.FIELDS,
                    false,
                    "What it takes for the fields of the record, one that narrows another above it."),
            new Property(
                    "restarts",
                    Kind.RESTARTS,
                    false,
                    "When the count starts again at its first value; never where it is left out."),
            new Property("skips", Kind.SKIPS, false, "Values that are never given."),
            new Property("order", Kind.ORDER, false, "In which order values are given; in-turn where it is left out."),
            new Property(
                    "longest",
                    Kind.NUMBER,
                    false,
                    "The most symbols that the place allows which the identifiers live in."),
            new Property(
                    "symbols",
                    Kind.TEXT,
                    false,
                    "The symbols that this place allows: letters, upper, lower, digits and single symbols, separated by blanks."),
            new Property(
                    "typed",
                    Kind.TYPED,
                    false,
                    "Whether people may type a number themselves; refused where it is left out."),
            new Property(
                    "gaps",
                    Kind.REPEATS,
                    false,
                    "Whether a number that is given back is void (allowed), or given next (refused, as where it is left out)."),
            new Property(
                    "returns",
                    Kind.REPEATS,
                    false,
                    "Whether an issued number can be given back; allowed where it is left out."),
            new Property(
                    "chronological",
                    Kind.FLAG,
                    false,
                    "Whether no number may be dated before the one given last in its lane; one that is given back is void then."),
            new Property(
                    "proof",
                    Kind.PROOF,
                    false,
                    "Whether it must be proved that no two identifiers are ever alike; required where it is left out."),
            new Property("ranges", Kind.RANGES, true, "The stretches of values, used in this order."));

    private static final List<Property> RANGE = List.of(
            new Property("first", Kind.NUMBER, true, "The first value."),
            new Property("last", Kind.NUMBER, true, "The last value, which the step reaches."),
            new Property(
                    "step",
                    Kind.NUMBER,
                    false,
                    "What is added from one value to the next; negative to count down; 1 where it is left out."),
            new Property("opens", Kind.DATE, true, "The first business date that it serves."),
            new Property(
                    "closes",
                    Kind.DATE,
                    false,
                    "The last business date that it serves; 2099-12-31 where it is left out."),
            new Property("warn-when-left", Kind.NUMBER, false, "At how many numbers left it counts as running low."),
            new Property("warn-days-before", Kind.NUMBER, false, "How many days before it closes that is warned of."));

    private DefinitionShape() {}

    static List<String> ofFile() {
        return names(FILE);
    }

    static List<String> ofNamespace() {
        return names(NAMESPACE);
    }

    static List<String> ofCodebook() {
        return names(CODEBOOK);
    }

    static List<String> ofChoice() {
        return names(CHOICE);
    }

    static List<String> ofField() {
        return names(FIELD);
    }

    static List<String> ofUnit() {
        return names(UNIT);
    }

    static List<String> ofKind() {
        return names(KIND);
    }

    static List<String> ofKindField() {
        return names(KIND_FIELD);
    }

    static List<String> ofRoute() {
        return names(ROUTE);
    }

    static List<String> ofTest() {
        return names(TEST);
    }

    static List<String> ofSkips() {
        return names(SKIPS);
    }

    static List<String> ofSeries() {
        return names(SERIES);
    }

    static List<String> ofRange() {
        return names(RANGE);
    }

    private static List<String> names(List<Property> properties) {
        return properties.stream().map(Property::name).toList();
    }

    /** The schema of a file. */
    public static ObjectNode schema() {
        ObjectNode schema = object(FILE);
        ObjectNode whole = NODES.objectNode()
                .put("$schema", "https://json-schema.org/draft/2020-12/schema")
                .put("title", "Young Tally definitions");
        whole.setAll(schema);
        // A choice can hold choices: it is described once and pointed to.
        whole.putObject("$defs").set("choice", object(CHOICE));
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
            case FIELD_NAME -> NODES.objectNode().put("type", "string").put("pattern", FIELD_NAME);
            case FLAG -> NODES.objectNode().put("type", "boolean");
            case TEXTS -> list(scalar(), 0);
            case TYPED ->
                choice(Stream.of(Policy.Typed.values()).map(Policy.Typed::word).toList());
            case PROOF -> choice(List.of("required", "waived"));
            case DELETING ->
                choice(Stream.of(Keeping.Deleting.values())
                        .map(Keeping.Deleting::word)
                        .toList());
            case REPEATS -> choice(List.of("allowed", "refused"));
            case ORDER ->
                choice(Stream.of(Order.Kind.values()).map(Order.Kind::word).toList());
            case RESTARTS ->
                list(
                                NODES.objectNode()
                                        .put("type", "string")
                                        .put(
                                                "pattern",
                                                "^("
                                                        + String.join(
                                                                "|",
                                                                Stream.of(Restart.values())
                                                                        .map(Restart::word)
                                                                        .toList())
                                                        + "|unit|field " + Particulars.FIELD_NAME + ")$"),
                                0)
                        .put("uniqueItems", true);
            case FIELDS -> list(object(FIELD), 0);
            case SKIPS -> object(SKIPS);
            case CHOICES -> list(NODES.objectNode().put("$ref", "#/$defs/choice"), 1);
            case NAMESPACES -> list(object(NAMESPACE), 0);
            case CODEBOOKS -> list(object(CODEBOOK), 0);
            case TYPE ->
                choice(Stream.of(KindField.Type.values())
                        .map(KindField.Type::word)
                        .toList());
            case KIND_FIELDS -> list(object(KIND_FIELD), 1);
            case CONDITION -> condition();
            case UNITS -> list(object(UNIT), 0);
            case KINDS -> list(object(KIND), 0);
            case ROUTES -> list(object(ROUTE), 0);
            case RANGES -> list(object(RANGE), 1);
            case SERIES -> list(object(SERIES), 0);
        };
    }

    /** By the names of fields: a value, a list of them, or a stretch. */
    private static ObjectNode condition() {
        ObjectNode value = NODES.objectNode();
        value.putArray("type").add("string").add("number").add("boolean");
        ObjectNode ends = NODES.objectNode().put("type", "object").put("additionalProperties", false);
        ObjectNode shapes = ends.putObject("properties");
        for (Property end : TEST) shapes.set(end.name(), value.deepCopy().put("description", end.meaning()));
        ObjectNode test = NODES.objectNode();
        test.putArray("anyOf").add(value).add(list(value.deepCopy(), 1)).add(ends);
        ObjectNode condition = NODES.objectNode().put("type", "object");
        condition.putObject("propertyNames").put("pattern", FIELD_NAME);
        condition.set("additionalProperties", test);
        return condition;
    }

    /** A text or a number: 13 and "013" are both at home here. */
    private static ObjectNode scalar() {
        ObjectNode scalar = NODES.objectNode();
        scalar.putArray("type").add("string").add("integer");
        return scalar;
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
