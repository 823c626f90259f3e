package org.youngtally.core.organisation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;

/** Turns what somebody wrote into a route, collecting every fault. */
public final class RouteCheck {
    private static final int LONGEST_CONDITION = 500;

    private final Organisation organisation;
    private final Map<String, Series> series;
    private final Function<String, Optional<Codebook>> books;
    private final List<Fault> faults = new ArrayList<>();

    private RouteCheck(
            Organisation organisation, Map<String, Series> series, Function<String, Optional<Codebook>> books) {
        this.organisation = organisation;
        this.series = series;
        this.books = books;
    }

    /** @param route the route in version 1, if there are no faults */
    public record Result(Optional<Route> route, List<Fault> faults) {}

    /**
     * @param organisation the units and kinds that it stands on
     * @param series every series, by key
     */
    public static Result of(
            RouteDraft draft,
            Organisation organisation,
            Map<String, Series> series,
            Function<String, Optional<Codebook>> books) {
        return new RouteCheck(organisation, series, books).check(draft);
    }

    private Result check(RouteDraft draft) {
        Optional<Kind> kind = known("kind", draft.kind(), organisation.kinds());
        Optional<Unit> unit = known("unit", draft.unit(), organisation.units());
        Optional<Series> numbering = known("series", draft.series(), series);
        String into = draft.into() == null ? Route.USUAL_FIELD : draft.into();
        Condition when = kind.map(found -> condition(found, draft.when())).orElse(Condition.ALWAYS);
        kind.ifPresent(found -> {
            Optional<KindField> target = found.field(into);
            if (target.isEmpty())
                faults.add(new Fault(
                        "into",
                        "the kind ‘" + found.key() + "’ has no field ‘" + into + "’",
                        "name a text field of the kind" + texts(found)));
            else if (target.get().type() != KindField.Type.TEXT)
                faults.add(new Fault(
                        "into",
                        "the field ‘" + into + "’ of ‘" + found.key() + "’ holds a "
                                + target.get().type().word(),
                        "name a text field of the kind" + texts(found)));
            if (when.tests().containsKey(into))
                faults.add(
                        new Fault("when." + into, "is the field that the identifier goes into", "test another field"));
            numbering.ifPresent(found2 -> gives(found, found2, when));
        });
        if (!faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        return new Result(
                Optional.of(new Route(
                        kind.get().key(),
                        unit.get().key(),
                        when,
                        numbering.get().key(),
                        into,
                        1)),
                List.of());
    }

    private static String texts(Kind kind) {
        List<String> names = kind.fields().stream()
                .filter(field -> field.type() == KindField.Type.TEXT)
                .map(KindField::name)
                .toList();
        return names.isEmpty() ? "; it has none, so add one" : ": " + String.join(", ", names);
    }

    private <T> Optional<T> known(String property, String key, Map<String, T> all) {
        if (key == null || key.isBlank())
            faults.add(new Fault(
                    property,
                    "is missing",
                    "name one of "
                            + (all.isEmpty() ? "those that you define first" : String.join(", ", all.keySet()))));
        else if (!all.containsKey(key))
            faults.add(new Fault(
                    property,
                    "‘" + key + "’ not found",
                    NearestName.to(key, all.keySet())
                            .map(near -> "did you mean " + near + "?")
                            .orElse("define it first")));
        return Optional.ofNullable(key).map(all::get);
    }

    /** A series that takes fields must get them from every record that the route sends to it. */
    private void gives(Kind kind, Series to, Condition when) {
        for (FieldRule rule : to.fields()) {
            if (rule.name().equals(Particulars.UNIT)) continue;
            Optional<KindField> field = kind.field(rule.name());
            if (field.isEmpty())
                faults.add(new Fault(
                        "series",
                        "‘" + to.key() + "’ requires a field ‘" + rule.name() + "’, which the kind ‘" + kind.key()
                                + "’ does not have",
                        "add it to the kind, or name another series"));
            else if (!field.get().required() && !when.tests().containsKey(rule.name()))
                faults.add(new Fault(
                        "series",
                        "‘" + to.key() + "’ needs the field ‘" + rule.name() + "’, which a record of the kind ‘"
                                + kind.key() + "’ may leave out",
                        "write required: true at that field, or test it under when:"));
            else if (rule.codebook().isPresent()
                            && !rule.codebook().equals(field.get().codebook())
                    || rule.within().isPresent()
                            && !rule.within().equals(field.get().within()))
                faults.add(new Fault(
                        "series",
                        "‘" + to.key() + "’ reads the field ‘" + rule.name() + "’ "
                                + rule.codebook()
                                        .map(book -> "from the codebook ‘" + book + "’")
                                        .orElseGet(
                                                () -> "within ‘" + rule.within().orElseThrow() + "’")
                                + ", the kind ‘" + kind.key() + "’ does not",
                        "use the same choices for both"));
        }
    }

    private Condition condition(Kind kind, Map<String, TestDraft> when) {
        if (when == null) return Condition.ALWAYS;
        var values = new FieldValues(kind, books);
        var tests = new TreeMap<String, Condition.Test>();
        when.forEach((name, draft) -> {
            Optional<KindField> field = kind.field(name);
            if (field.isEmpty()) {
                faults.add(new Fault(
                        "when." + name,
                        "the kind ‘" + kind.key() + "’ has no such field",
                        NearestName.to(
                                        name,
                                        kind.fields().stream()
                                                .map(KindField::name)
                                                .toList())
                                .map(near -> "did you mean " + near + "?")
                                .orElse("test one of "
                                        + kind.fields().stream()
                                                .map(KindField::name)
                                                .collect(Collectors.joining(", ")))));
                return;
            }
            boolean stretch = draft.from() != null || draft.to() != null;
            boolean listed = draft.oneOf() != null && !draft.oneOf().isEmpty();
            boolean ordered =
                    field.get().type() == KindField.Type.NUMBER || field.get().type() == KindField.Type.DATE;
            if (stretch == listed)
                faults.add(new Fault(
                        "when." + name,
                        stretch ? "has both values and a stretch" : "has no value",
                        "write one value, a list of them, or from: and to:"));
            else if (stretch && !ordered)
                faults.add(new Fault(
                        "when." + name,
                        "is a " + field.get().type().word() + ", which has no order",
                        "write one value or a list of them"));
            else {
                List<String> oneOf = listed
                        ? draft.oneOf().stream()
                                .map(text -> value(values, field.get(), text))
                                .toList()
                        : List.of();
                tests.put(
                        name,
                        new Condition.Test(
                                field.get().type(),
                                oneOf,
                                Optional.ofNullable(draft.from()).map(text -> value(values, field.get(), text)),
                                Optional.ofNullable(draft.to()).map(text -> value(values, field.get(), text))));
            }
        });
        int length = new Condition(tests).toString().length();
        if (length > LONGEST_CONDITION)
            faults.add(new Fault(
                    "when",
                    "is " + length + " symbols long when it is written out",
                    "name fewer or shorter values, up to " + LONGEST_CONDITION + " symbols in all"));
        return faults.isEmpty() ? new Condition(tests) : Condition.ALWAYS;
    }

    private String value(FieldValues values, KindField field, String text) {
        return values.alone(field, text == null ? "" : text).orElseGet(() -> {
            faults.add(new Fault(
                    "when." + field.name(),
                    "‘" + text + "’ is not a value of the field",
                    "enter " + String.join(", ", values.accepted(field, Map.of()))));
            return "";
        });
    }
}
