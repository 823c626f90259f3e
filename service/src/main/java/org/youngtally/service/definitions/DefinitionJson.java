package org.youngtally.service.definitions;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.property.Values;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.exc.UnrecognizedPropertyException;

/** A thing of a group as JSON, under the names that the interface has for its properties. */
public final class DefinitionJson {
    private DefinitionJson() {}

    /** What it says beyond what holds anyway. */
    public static <R> Map<String, Object> write(Group<R> group, R thing) {
        Values values = group.values(thing);
        var written = new LinkedHashMap<String, Object>();
        for (Property<?> property : group.properties()) write(property, values, written);
        return written;
    }

    private static <T> void write(Property<T> property, Values values, Map<String, Object> written) {
        T value = values.get(property);
        if (value == null || property.isUsual(value) && !property.isAlwaysTold()) return;
        written.put(
                property.json(),
                switch (property.shape()) {
                    case Shape.One<?> one -> each(one.group(), value);
                    case Shape.Many<?> many ->
                        ((List<?>) value)
                                .stream()
                                        .map(each -> each(many.group().get(), each))
                                        .toList();
                    case Shape.Text text -> value;
                    case Shape.Word word -> value;
                    case Shape.Date date -> value;
                    case Shape.Decimal decimal -> value;
                    case Shape.Whole whole -> value;
                    case Shape.Flag flag -> value;
                    case Shape.Texts texts -> value;
                    case Shape.ByField<?> tests ->
                        throw new IllegalStateException("what fields must be is written in another form");
                });
    }

    @SuppressWarnings("unchecked") // a thing of the group, by its shape
    private static <R> Map<String, Object> each(Group<R> group, Object thing) {
        return write(group, (R) thing);
    }

    /** @param target what is read, for messages */
    public static <R> R read(Group<R> group, JsonParser parser, DeserializationContext context, Class<?> target) {
        if (parser.currentToken() != JsonToken.START_OBJECT) context.handleUnexpectedToken(target, parser);
        Values values = Values.NONE;
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            String name = parser.currentName();
            Property<?> property = group.properties().stream()
                    .filter(each -> each.json().equals(name))
                    .findFirst()
                    .orElseThrow(() -> UnrecognizedPropertyException.from(
                            parser,
                            target,
                            name,
                            new ArrayList<>(group.properties().stream()
                                    .map(Property::json)
                                    .toList())));
            parser.nextToken();
            values = with(values, property, parser, context);
        }
        return group.make(values);
    }

    @SuppressWarnings("unchecked") // the shape says what the value is
    private static <T> Values with(
            Values values, Property<T> property, JsonParser parser, DeserializationContext context) {
        try {
            return values.with(property, (T) value(property.shape(), parser, context));
        } catch (JacksonException e) {
            throw e.prependPath(values, property.json());
        }
    }

    private static Object value(Shape<?> shape, JsonParser parser, DeserializationContext context) {
        if (parser.currentToken() == JsonToken.VALUE_NULL) return null;
        return switch (shape) {
            // What an empty field of a form holds is left out; a name that is empty is told to be wrong.
            case Shape.Text text -> text.pattern().isEmpty() ? filled(parser, context) : text(parser, context);
            case Shape.Word word -> filled(parser, context);
            case Shape.Date date -> filled(parser, context);
            case Shape.Decimal decimal -> filled(parser, context);
            case Shape.Whole whole -> context.readValue(parser, Long.class);
            case Shape.Flag flag -> context.readValue(parser, Boolean.class);
            case Shape.Texts texts -> list(parser, context, () -> text(parser, context));
            case Shape.One<?> one -> read(one.group(), parser, context, Map.class);
            case Shape.Many<?> many ->
                list(parser, context, () -> read(many.group().get(), parser, context, Map.class));
            case Shape.ByField<?> tests ->
                throw new IllegalStateException("what fields must be is written in another form");
        };
    }

    private static String text(JsonParser parser, DeserializationContext context) {
        return context.readValue(parser, String.class);
    }

    private static String filled(JsonParser parser, DeserializationContext context) {
        String text = text(parser, context);
        return text.isBlank() ? null : text;
    }

    private interface Reading<E> {
        E next();
    }

    private static <E> List<E> list(JsonParser parser, DeserializationContext context, Reading<E> reading) {
        if (parser.currentToken() != JsonToken.START_ARRAY) context.handleUnexpectedToken(List.class, parser);
        var list = new ArrayList<E>();
        while (parser.nextToken() != JsonToken.END_ARRAY) {
            try {
                if (parser.currentToken() == JsonToken.VALUE_NULL) context.handleUnexpectedToken(String.class, parser);
                list.add(reading.next());
            } catch (JacksonException e) {
                throw e.prependPath(list, list.size());
            }
        }
        return list;
    }
}
