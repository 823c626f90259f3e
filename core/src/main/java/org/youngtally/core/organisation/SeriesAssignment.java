package org.youngtally.core.organisation;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.series.Series;

/**
 * Reads the fields of a record and finds the series that numbers it.
 *
 * @param books finds a codebook by its key
 * @param series finds a series by its key
 */
public record SeriesAssignment(
        Organisation organisation,
        Function<String, Optional<Codebook>> books,
        Function<String, Optional<Series>> series) {

    /** What became of a record's fields. */
    public sealed interface Result {}

    /**
     * @param values of the record, those that the service fills among them
     * @param given what the record gives for the fields of the series
     */
    public record Assigned(Kind kind, Unit unit, Route route, Map<String, String> values, Map<String, String> given)
            implements Result {}

    /** A field cannot be taken. */
    public record Faulty(String kind, FieldFault fault) implements Result {}

    /** No rule says which series numbers the record. */
    public record NoRoute(Kind kind, Unit unit, Routing.Found found) implements Result {}

    /**
     * @param fields what is given for the record's fields, as it was written
     * @param before what a record that is kept already holds
     */
    public Result place(Kind kind, Unit unit, Map<String, String> fields, Map<String, String> before) {
        return switch (read(kind, fields, before)) {
            case FieldValues.Reading.Faulty faulty -> new Faulty(faulty.kind(), faulty.fault());
            case FieldValues.Reading.Understood understood -> {
                Routing.Found found = Routing.find(organisation, kind.key(), unit.key(), understood.values());
                if (found.chosen().isEmpty()) yield new NoRoute(kind, unit, found);
                yield placed(kind, unit, found.chosen().get(), understood.values());
            }
        };
    }

    /** @param values that were read before */
    private Assigned placed(Kind kind, Unit unit, Route route, Map<String, String> values) {
        var filled = new TreeMap<>(values);
        // Where an earlier route had put the number.
        filled.keySet().removeAll(targets(kind));
        var choices = new FieldValues(kind, books);
        for (KindField field : kind.fields()) {
            field.nameOf()
                    .ifPresent(choice -> fill(
                            filled, field.name(), choices.chosen(choice, values).map(Choice::name)));
            field.codeOf()
                    .ifPresent(choice -> fill(
                            filled, field.name(), choices.chosen(choice, values).map(Choice::code)));
        }
        return new Assigned(
                kind,
                unit,
                route,
                filled,
                Routing.given(series.apply(route.series()).orElseThrow(), unit, filled));
    }

    private static void fill(Map<String, String> values, String field, Optional<String> text) {
        text.ifPresentOrElse(now -> values.put(field, now), () -> values.remove(field));
    }

    /** Reads the fields alone. What the service fills may be given as it stands already, and not otherwise. */
    public FieldValues.Reading read(Kind kind, Map<String, String> fields, Map<String, String> before) {
        var faults = new ArrayList<FieldFault>();
        Map<String, String> values = read(kind, fields, before, faults);
        return faults.isEmpty()
                ? new FieldValues.Reading.Understood(values)
                : new FieldValues.Reading.Faulty(kind.key(), faults.getFirst());
    }

    private Map<String, String> read(
            Kind kind, Map<String, String> fields, Map<String, String> before, List<FieldFault> faults) {
        Set<String> filled = filled(kind);
        var given = new TreeMap<>(fields);
        for (String name : filled) {
            String text = given.getOrDefault(name, "").strip();
            if (!text.isEmpty() && !text.equals(before.get(name)))
                faults.add(new FieldFault(name, FieldFault.Kind.FILLED, text, Optional.empty(), List.of()));
            given.remove(name);
        }
        var values = new TreeMap<>(new FieldValues(kind, books).read(given, filled, before, faults));
        for (String name : filled) if (before.containsKey(name)) values.put(name, before.get(name));
        return values;
    }

    /**
     * A record that is still being written.
     *
     * @param faults every field that could not be kept as it is, those that are still missing among them
     * @param placed where it would be numbered, going by what is there; absent where no rule serves it
     */
    public record Begun(List<FieldFault> faults, Optional<Assigned> placed) {}

    /** Looks at a record that is still being written. */
    public Begun begun(Kind kind, Unit unit, Map<String, String> fields) {
        var faults = new ArrayList<FieldFault>();
        Map<String, String> values = read(kind, fields, Map.of(), faults);
        return new Begun(
                faults,
                Routing.find(organisation, kind.key(), unit.key(), values)
                        .chosen()
                        .map(route -> placed(kind, unit, route, values)));
    }

    /** The fields that numbers of a kind go into. */
    private Set<String> targets(Kind kind) {
        return organisation.routes().values().stream()
                .filter(route -> route.kind().equals(kind.key()))
                .map(Route::into)
                .collect(Collectors.toSet());
    }

    /** The fields of a kind that nobody fills but the service. */
    public Set<String> filled(Kind kind) {
        var filled = new HashSet<>(targets(kind));
        kind.fields().stream()
                .filter(field -> field.copied().isPresent())
                .map(KindField::name)
                .forEach(filled::add);
        return filled;
    }

    /**
     * The fields of a record that are alike in all units in which it stands: those that its kind names, by which it is
     * known, that the service fills, and that its number is made of.
     */
    public Set<String> common(Kind kind, String numberedBy) {
        var common = filled(kind);
        common.addAll(kind.keeping().agree());
        common.addAll(kind.keeping().knownBy());
        series.apply(numberedBy).stream()
                .map(Series::fields)
                .flatMap(Collection::stream)
                .forEach(rule -> kind.field(rule.name()).ifPresent(field -> common.add(field.name())));
        // What a name or a code is copied from goes with it.
        kind.fields().stream().flatMap(field -> field.copied().stream()).forEach(common::add);
        return common;
    }
}
