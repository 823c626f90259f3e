package org.youngtally.core.organisation;

import java.lang.invoke.MethodHandles;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.property.Values;

/** A route as somebody wrote it, not yet checked; what is absent is null. */
public record RouteDraft(String kind, String unit, Map<String, TestDraft> when, String series, String into) {
    public static final Group<RouteDraft> PROPERTIES = Group.of(
            "a route",
            MethodHandles.lookup(),
            RouteDraft.class,
            Property.key("kind", "The kind of record.").required(),
            Property.key("unit", "The unit; those below it use the route as well, unless they have one of their own.")
                    .required(),
            Property.of(
                            "when",
                            "when",
                            new Shape.ByField<>(TestDraft.PROPERTIES),
                            "What the fields of the record must be, all of them: a value, a list of values, or from and to. A missing field fails.")
                    .otherwise("always"),
            Property.key("series", "The series that the number is allocated from.")
                    .required(),
            Property.fieldName("into", "into", "The field of the record that receives the number, a text.")
                    .usually(Route.USUAL_FIELD));

    /** What the value of a field must be, as somebody wrote it: one of several, or from and to. */
    public record TestDraft(List<String> oneOf, String from, String to) {
        private static final Property<String> FROM =
                Property.text("from", "from", "The least value.").otherwise("no least value");
        private static final Property<String> TO =
                Property.text("to", "to", "The greatest value.").otherwise("no greatest value");

        /** Of what a value lies between; one of several is written without names. */
        public static final Group<TestDraft> PROPERTIES = Group.of(
                "a stretch of values",
                List.of(FROM, TO),
                values -> new TestDraft(null, values.get(FROM), values.get(TO)),
                test -> Values.NONE.with(FROM, test.from()).with(TO, test.to()));

        static TestDraft of(Condition.Test test) {
            return new TestDraft(
                    test.oneOf().isEmpty() ? null : test.oneOf(),
                    test.from().orElse(null),
                    test.to().orElse(null));
        }
    }

    public static RouteDraft of(Route route) {
        var when = new TreeMap<String, TestDraft>();
        route.when().tests().forEach((field, test) -> when.put(field, TestDraft.of(test)));
        return new RouteDraft(
                route.kind(),
                route.unit(),
                when.isEmpty() ? null : when,
                route.series(),
                route.into().equals(Route.USUAL_FIELD) ? null : route.into());
    }

    /** Where it stands, as {@link Route#key} has it. For a draft that a route is written as. */
    public String key() {
        if (when == null || when.isEmpty()) return called();
        return called() + " when "
                + new TreeMap<>(when)
                        .entrySet().stream()
                                .map(test -> test.getKey() + "="
                                        + (test.getValue().oneOf() != null
                                                ? String.join(
                                                        "|", test.getValue().oneOf())
                                                : Objects.toString(
                                                                test.getValue().from(), "") + ".."
                                                        + Objects.toString(
                                                                test.getValue().to(), "")))
                                .collect(Collectors.joining(", "));
    }

    /** How messages call it. */
    public String called() {
        return (kind == null ? "?" : kind) + " in " + (unit == null ? "?" : unit);
    }
}
