package org.youngtally.service.api;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.organisation.FieldValues;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.Routing;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/** Finds the series of a record, or says which rule is missing and who can add it. */
final class RecordSeries {
    private RecordSeries() {}

    /** Where a record is numbered. */
    static Where where(SeriesAssignment.Assigned placed) {
        return new Where(
                Optional.of(placed.route().series()),
                Optional.of(placed.kind().key()),
                Optional.of(placed.unit().key()));
    }

    static Purpose purpose(SeriesAssignment.Assigned placed) {
        return new Purpose(
                Optional.of(placed.kind().key()), Optional.of(placed.unit().key()));
    }

    static SeriesAssignment.Assigned of(
            LedgerSnapshot snapshot, String kindKey, String unitText, Map<String, String> fields) {
        return of(snapshot, kind(snapshot, kindKey), unit(snapshot, unitText), Requests.fields(fields, null), Map.of());
    }

    /** @param before what a record that is kept already holds */
    static SeriesAssignment.Assigned of(
            LedgerSnapshot snapshot, Kind kind, Unit unit, Map<String, String> fields, Map<String, String> before) {
        return switch (placing(snapshot).place(kind, unit, fields, before)) {
            case SeriesAssignment.Faulty faulty ->
                throw Refusals.problem(new Refusal.FieldFaulty(faulty.kind(), faulty.fault()));
            case SeriesAssignment.NoRoute none -> throw none(snapshot, kind, unit, none.found());
            case SeriesAssignment.Assigned placed -> placed;
        };
    }

    /** What keeps a record with these values from being numbered. */
    static Optional<Problem> fault(LedgerSnapshot snapshot, Kind kind, Unit unit, Map<String, String> fields) {
        return switch (placing(snapshot).place(kind, unit, fields, Map.of())) {
            case SeriesAssignment.Faulty faulty ->
                Optional.of(Refusals.problem(new Refusal.FieldFaulty(faulty.kind(), faulty.fault())));
            case SeriesAssignment.NoRoute none -> Optional.of(none(snapshot, kind, unit, none.found()));
            case SeriesAssignment.Assigned placed -> {
                Series series = snapshot.series().get(placed.route().series());
                yield Fields.of(series, snapshot::choices).read(placed.given()) instanceof Fields.Reading.Faulty faulty
                        ? Optional.of(Refusals.problem(new Refusal.FieldFaulty(series.key(), faulty.fault())))
                        : Optional.empty();
            }
        };
    }

    /** That no route of a kind leads anywhere from a unit. */
    static Problem missingRoute(LedgerSnapshot snapshot, Kind kind, Unit unit) {
        return none(snapshot, kind, unit, Routing.find(snapshot.organisation(), kind.key(), unit.key(), Map.of()));
    }

    static SeriesAssignment placing(LedgerSnapshot snapshot) {
        return new SeriesAssignment(
                snapshot.organisation(),
                snapshot::choices,
                key -> Optional.ofNullable(snapshot.series().get(key)));
    }

    static Kind kind(LedgerSnapshot snapshot, String key) {
        Map<String, Kind> kinds = snapshot.organisation().kinds();
        if (!kinds.containsKey(key))
            throw Refusals.problem(new Refusal.UnknownKind(key, NearestName.to(String.valueOf(key), kinds.keySet())));
        return kinds.get(key);
    }

    static Unit unit(LedgerSnapshot snapshot, String text) {
        if (text == null || text.isBlank())
            throw new Problem(Type.MALFORMED, "The unit is missing.")
                    .field(
                            "unit",
                            "the key of a unit: "
                                    + String.join(
                                            ", ",
                                            snapshot.organisation().units().keySet()));
        return snapshot.organisation()
                .unit(text)
                .orElseThrow(() -> Refusals.problem(new Refusal.UnknownUnit(
                        text,
                        NearestName.to(text, snapshot.organisation().units().keySet()))));
    }

    /** The rules that are looked at for a record whose fields may be known in part. */
    static Routing.Found why(LedgerSnapshot snapshot, Kind kind, Unit unit, Map<String, String> fields) {
        var values = new FieldValues(kind, snapshot::choices);
        var known = new TreeMap<String, String>();
        Requests.fields(fields, null).forEach((name, text) -> {
            KindField field = kind.field(name)
                    .orElseThrow(() -> Refusals.problem(new Refusal.FieldFaulty(
                            kind.key(),
                            new FieldFault(
                                    name,
                                    FieldFault.Kind.NOT_A_FIELD,
                                    text,
                                    NearestName.to(
                                            name,
                                            kind.fields().stream()
                                                    .map(KindField::name)
                                                    .toList()),
                                    kind.fields().stream().map(KindField::name).toList()))));
            known.put(name, values.alone(field, text).orElseThrow(() -> new Problem(
                            Type.FIELD_FAULTY,
                            "‘" + text + "’ is not a value of the field ‘" + name + "’ of ‘" + kind.key() + "’.")
                    .field("field", "a " + field.type().word() + " that the kind accepts")));
        });
        return Routing.find(snapshot.organisation(), kind.key(), unit.key(), known);
    }

    private static Problem none(LedgerSnapshot snapshot, Kind kind, Unit unit, Routing.Found found) {
        var where = new Where(Optional.empty(), Optional.of(kind.key()), Optional.of(unit.key()));
        List<String> defines = snapshot.accounts().values().stream()
                .filter(account -> account.sort() == Account.Sort.PERSON
                        && snapshot.authority().may(account, Right.DEFINE, where))
                .map(Account::name)
                .sorted()
                .toList();
        String looked = found.steps().stream()
                .map(step -> step.unit()
                        + (step.tried().isEmpty()
                                ? " (no route)"
                                : step.tried().stream()
                                        .map(tried ->
                                                "the condition " + tried.route().when() + " does not hold")
                                        .collect(Collectors.joining(", ", " (", ")"))))
                .collect(Collectors.joining(", then "));
        return new Problem(
                        Type.NO_ROUTE,
                        "Missing route: no series is assigned to records of the kind ‘" + kind.key() + "’ in the unit ‘"
                                + unit.key() + "’. Tried: " + looked + "."
                                + (defines.isEmpty()
                                        ? ""
                                        : " A route can be added by " + String.join(", ", defines) + "."))
                .field(
                        "kind",
                        "a route for " + kind.key() + " at "
                                + String.join(" or ", snapshot.organisation().upwards(unit.key())))
                .with("kind", kind.key())
                .with("unit", unit.key())
                .with("addedBy", defines);
    }
}
