package org.youngtally.service.definitions;

import java.util.List;
import java.util.function.Supplier;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** The JSON Schema (2020-12) of definition files, by which editors help to write them. */
public final class DefinitionShape {
    private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

    private DefinitionShape() {}

    /** The schema of a file. */
    public static ObjectNode schema() {
        ObjectNode whole = NODES.objectNode()
                .put("$schema", "https://json-schema.org/draft/2020-12/schema")
                .put("title", "Young Tally definitions")
                .put("type", "object")
                .put("additionalProperties", false);
        ObjectNode lists = whole.putObject("properties");
        for (DefinitionSort<?> sort : DefinitionSort.ALL)
            lists.set(sort.list(), list(object(sort.group()), 0).put("description", sort.meaning()));
        // A choice can hold choices: it is described once and pointed to.
        whole.putObject("$defs").set("choice", object(ChoiceDraft.PROPERTIES));
        return whole;
    }

    /** What a property means, and what holds where it is absent. */
    public static String described(Property<?> property) {
        return property.meaning() + (property.otherwise().isEmpty() ? "" : " Default: " + property.otherwise() + ".");
    }

    private static ObjectNode object(Group<?> group) {
        ObjectNode schema = NODES.objectNode().put("type", "object").put("additionalProperties", false);
        ArrayNode required = schema.putArray("required");
        ObjectNode shapes = schema.putObject("properties");
        for (Property<?> property : group.properties()) {
            if (property.isRequired()) required.add(property.name());
            shapes.set(property.name(), value(property.shape()).put("description", described(property)));
        }
        return schema;
    }

    private static ObjectNode value(Shape<?> shape) {
        return switch (shape) {
            case Shape.Text text -> text(text.pattern());
            case Shape.Word word -> {
                ObjectNode choice = text("");
                word.words().forEach(choice.putArray("enum")::add);
                yield choice;
            }
            case Shape.Date date -> text("").put("format", "date");
            case Shape.Decimal decimal ->
                NODES.objectNode().put("type", "number").put("minimum", 0);
            case Shape.Whole whole -> NODES.objectNode().put("type", "integer");
            case Shape.Flag flag -> NODES.objectNode().put("type", "boolean");
            case Shape.Texts texts -> {
                ObjectNode list = list(texts.numbers() ? textOrNumber() : text(texts.pattern()), 0);
                yield texts.pattern().isEmpty() ? list : list.put("uniqueItems", true);
            }
            case Shape.One<?> one -> object(one.group());
            case Shape.Many<?> many ->
                list(
                        holds(many.group(), ChoiceDraft.PROPERTIES)
                                ? NODES.objectNode().put("$ref", "#/$defs/choice")
                                : object(many.group().get()),
                        many.least());
            case Shape.ByField<?> tests -> condition(tests.group());
        };
    }

    private static boolean holds(Supplier<? extends Group<?>> group, Group<?> other) {
        return group.get() == other;
    }

    private static ObjectNode text(String pattern) {
        ObjectNode text = NODES.objectNode().put("type", "string");
        return pattern.isEmpty() ? text : text.put("pattern", pattern);
    }

    /** By the names of fields: a value, a list of them, or what it lies between. */
    private static ObjectNode condition(Group<?> between) {
        ObjectNode value = NODES.objectNode();
        value.putArray("type").add("string").add("number").add("boolean");
        ObjectNode ends = NODES.objectNode().put("type", "object").put("additionalProperties", false);
        ObjectNode shapes = ends.putObject("properties");
        for (Property<?> end : between.properties())
            shapes.set(end.name(), value.deepCopy().put("description", described(end)));
        ObjectNode test = NODES.objectNode();
        test.putArray("anyOf").add(value).add(list(value.deepCopy(), 1)).add(ends);
        ObjectNode condition = NODES.objectNode().put("type", "object");
        condition.putObject("propertyNames").put("pattern", "^" + Particulars.FIELD_NAME + "$");
        condition.set("additionalProperties", test);
        return condition;
    }

    /** A text or a number: 13 and "013" are both at home here. */
    private static ObjectNode textOrNumber() {
        ObjectNode scalar = NODES.objectNode();
        List.of("string", "integer").forEach(scalar.putArray("type")::add);
        return scalar;
    }

    private static ObjectNode list(ObjectNode items, int least) {
        ObjectNode list = NODES.objectNode().put("type", "array");
        if (least > 0) list.put("minItems", least);
        list.set("items", items);
        return list;
    }
}
