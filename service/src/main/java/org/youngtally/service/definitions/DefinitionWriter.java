package org.youngtally.service.definitions;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.property.Values;
import tools.jackson.databind.json.JsonMapper;

/** Writes definitions as YAML: each property on a line of its own, what is in lists a line each. */
final class DefinitionWriter {
    private DefinitionWriter() {}

    /**
     * A definition to be written.
     *
     * @param values the properties in the order of the reference, those with their default left out
     */
    record Written(String key, Map<String, Value> values) {
        /**
         * A whole entry of a list.
         *
         * @param indent of its properties, two more than that of its hyphen
         */
        String entry(String indent) {
            String lines = values.entrySet().stream()
                    .map(value -> line(value.getKey(), value.getValue(), indent))
                    .collect(Collectors.joining("\n" + indent));
            return indent.substring(2) + "- " + lines + "\n";
        }

        /** An entry on one line, as it is in braces. */
        String inBraces() {
            return DefinitionWriter.inBraces(values);
        }
    }

    /**
     * A property's value.
     *
     * @param flow as it stands on one line
     * @param block as it stands behind its colon in an entry of that indent
     */
    record Value(String flow, Function<String, String> block, boolean isList) {
        static Value of(Object value) {
            return new Value(value.toString(), indent -> value.toString(), false);
        }
    }

    static String line(String name, Value value, String indent) {
        String block = value.block().apply(indent);
        return name + (block.startsWith("\n") ? ":" : ": ") + block;
    }

    static <D> Written of(DefinitionSort<D> sort, D draft) {
        return new Written(sort.key().apply(draft), values(sort.group(), draft));
    }

    /** What is said beyond what holds anyway. */
    private static <R> Map<String, Value> values(Group<R> group, R thing) {
        Values said = group.values(thing);
        var values = new LinkedHashMap<String, Value>();
        for (Property<?> property : group.properties())
            if (!saysNoMore(property, group, said))
                values.put(property.name(), value(property.shape(), said.get(property)));
        return values;
    }

    private static <T> boolean saysNoMore(Property<T> property, Group<?> group, Values said) {
        T value = said.get(property);
        return property.isUsual(value)
                || group.properties().stream()
                        .anyMatch(other -> other.name().equals(property.likeOther()) && value.equals(said.get(other)));
    }

    private static Value value(Shape<?> shape, Object value) {
        return switch (shape) {
            case Shape.Text text ->
                Value.of(
                        text.quoted()
                                ? quoted((String) value)
                                : text.pattern().isEmpty() ? text((String) value) : value);
            case Shape.Word word -> Value.of(value);
            case Shape.Date date -> Value.of(value);
            case Shape.Decimal decimal -> Value.of(value);
            case Shape.Whole whole -> Value.of(value);
            case Shape.Flag flag -> Value.of(value);
            case Shape.Texts texts ->
                Value.of(((List<?>) value)
                        .stream()
                                .map(each -> texts.quoted() ? quoted((String) each) : (String) each)
                                .collect(Collectors.joining(", ", "[", "]")));
            case Shape.One<?> one -> Value.of(inBraces(written(one.group(), value)));
            case Shape.Many<?> many ->
                list(((List<?>) value)
                        .stream().map(each -> written(many.group().get(), each)).toList());
            case Shape.ByField<?> tests ->
                Value.of(((Map<?, ?>) value)
                        .entrySet().stream()
                                .map(test -> test.getKey() + ": " + test((TestDraft) test.getValue()))
                                .collect(Collectors.joining(", ", "{ ", " }")));
        };
    }

    @SuppressWarnings("unchecked") // a thing of the group, by its shape
    private static <R> Map<String, Value> written(Group<R> group, Object thing) {
        return values(group, (R) thing);
    }

    private static String inBraces(Map<String, Value> values) {
        return values.entrySet().stream()
                .map(value -> value.getKey() + ": " + value.getValue().flow())
                .collect(Collectors.joining(", ", "{ ", " }"));
    }

    /** Each on a line in braces; one that holds a list of its own takes a line for each property. */
    private static Value list(List<Map<String, Value>> items) {
        return new Value(
                items.stream().map(DefinitionWriter::inBraces).collect(Collectors.joining(", ", "[", "]")),
                indent -> items.stream()
                        .map(item -> "\n" + indent + "  - " + item(item, indent + "    "))
                        .collect(Collectors.joining()),
                true);
    }

    private static String item(Map<String, Value> item, String indent) {
        return item.values().stream().noneMatch(Value::isList)
                ? inBraces(item)
                : item.entrySet().stream()
                        .map(value -> line(value.getKey(), value.getValue(), indent))
                        .collect(Collectors.joining("\n" + indent));
    }

    private static String test(TestDraft test) {
        if (test.oneOf() == null) return inBraces(values(TestDraft.PROPERTIES, test));
        return test.oneOf().size() == 1
                ? text(test.oneOf().getFirst())
                : test.oneOf().stream().map(DefinitionWriter::text).collect(Collectors.joining(", ", "[", "]"));
    }

    /** A text as it is where YAML reads it so, else in quotes. */
    private static String text(String text) {
        return text.matches("[\\p{L}][\\p{L}0-9 ._/-]*[\\p{L}0-9.]|[\\p{L}]")
                        && !List.of("true", "false", "null", "yes", "no", "on", "off", "y", "n")
                                .contains(text.toLowerCase(Locale.ROOT))
                ? text
                : quoted(text);
    }

    /** YAML reads JSON's quoted strings as they are. */
    private static String quoted(String text) {
        return JsonMapper.shared().writeValueAsString(text);
    }
}
