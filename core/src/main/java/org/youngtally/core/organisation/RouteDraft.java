package org.youngtally.core.organisation;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** A route as somebody wrote it, not yet checked; what is absent is null. */
public record RouteDraft(String kind, String unit, Map<String, TestDraft> when, String series, String into) {

    /** What the value of a field must be, as somebody wrote it: one of several, or from and to. */
    public record TestDraft(List<String> oneOf, String from, String to) {
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
