package org.youngtally.service.api;

import io.swagger.v3.oas.models.media.Schema;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.service.definitions.DefinitionShape;

/** The schemas of what is read and written by a list of properties instead of a record of its own. */
final class GroupSchemas {
    private static final Map<Group<?>, String> NAMES = Map.of(
            SeriesProperties.SERIES, "SeriesForm",
            SeriesProperties.RANGE, "RangeForm",
            SeriesProperties.FIELD, "FieldForm",
            SeriesProperties.SKIPPED, "SkipsForm");

    private GroupSchemas() {}

    /** By name, in the order in which they need each other. */
    static Map<String, Schema<?>> all() {
        var schemas = new LinkedHashMap<String, Schema<?>>();
        NAMES.forEach((group, name) -> schemas.put(name, object(group)));
        schemas.get("SeriesForm").setDescription("A series as it is written to be defined.");
        return schemas;
    }

    private static Schema<?> object(Group<?> group) {
        Schema<?> object = new Schema<>().types(Set.of("object"));
        for (Property<?> property : group.properties()) {
            Schema<?> value = value(property.shape());
            value.setDescription(DefinitionShape.described(property));
            if (!property.name().equals(property.json())) value.addExtension("x-name-in-files", property.name());
            if (property.usual() != null) value.addExtension("x-usual", property.usual());
            object.addProperty(property.json(), value);
        }
        return object;
    }

    private static Schema<?> value(Shape<?> shape) {
        return switch (shape) {
            case Shape.Text text -> typed("string");
            case Shape.Word word -> words(word.words());
            case Shape.Date date -> typed("string").format("date");
            case Shape.Decimal decimal -> typed("string");
            case Shape.Whole whole -> typed("integer").format("int64");
            case Shape.Flag flag -> typed("boolean");
            case Shape.Texts texts -> typed("array").items(typed("string"));
            case Shape.One<?> one -> reference(one.group());
            case Shape.Many<?> many ->
                typed("array").items(reference(many.group().get()));
            case Shape.ByField<?> tests ->
                throw new IllegalStateException("what fields must be is written in another form");
        };
    }

    static Schema<?> reference(Group<?> group) {
        return new Schema<>().$ref("#/components/schemas/" + NAMES.get(group));
    }

    private static Schema<?> typed(String type) {
        return new Schema<>().types(Set.of(type));
    }

    private static Schema<?> words(List<String> words) {
        Schema<Object> schema = new Schema<>();
        schema.setTypes(Set.of("string"));
        words.forEach(schema::addEnumItemObject);
        return schema;
    }
}
