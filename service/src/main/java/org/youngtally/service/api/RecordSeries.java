package org.youngtally.service.api;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Routing;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.House;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;

/** Finds the series of a record, or says which rule is missing and who can add it. */
final class RecordSeries {
    private RecordSeries() {}

    /**
     * @param given what the record gives for the fields of the series
     */
    record Found(Route route, Kind kind, Unit unit, Map<String, String> given) {
        Where where() { return new Where(Optional.of(route.series()), Optional.of(kind.key()), Optional.of(unit.key())); }

        Purpose purpose() { return new Purpose(Optional.of(kind.key()), Optional.of(unit.key())); }
    }

    static Found of(House house, String kindKey, String unitText, Map<String, String> fields) {
        Kind kind = kind(house, kindKey);
        Unit unit = unit(house, unitText);
        Map<String, String> values = values(house, kind, fields);
        Routing.Found found = Routing.find(house.organisation(), kind.key(), unit.key(), values);
        Route route = found.chosen().orElseThrow(() -> none(house, kind, unit, found));
        if (values.containsKey(route.into())) throw Refusals.problem(new Refusal.FieldFaulty(kind.key(), new FieldFault(route.into(), FieldFault.Kind.FILLED, values.get(route.into()), Optional.empty(), List.of())));
        return new Found(route, kind, unit, Routing.given(house.series().get(route.series()), unit, values));
    }

    static Kind kind(House house, String key) {
        Map<String, Kind> kinds = house.organisation().kinds();
        if (kinds.containsKey(key)) return kinds.get(key);
        Optional<String> near = NearestName.to(String.valueOf(key), kinds.keySet());
        throw new Problem(Type.UNKNOWN_KIND, "There is no kind ‘" + key + "’." + near.map(name -> " Did you mean ‘" + name + "’?").orElse("")).field("kind", near.orElse("one that GET /api/v1/kinds lists"));
    }

    static Unit unit(House house, String text) {
        if (text == null || text.isBlank()) throw new Problem(Type.MALFORMED, "It is not said which unit the record is of.").field("unit", "the key of a unit: " + String.join(", ", house.organisation().units().keySet()));
        Optional<String> near = NearestName.to(text, house.organisation().units().keySet());
        return house.organisation().unit(text).orElseThrow(() -> new Problem(Type.UNKNOWN_KIND, "There is no unit ‘" + text + "’." + near.map(name -> " Did you mean ‘" + name + "’?").orElse("")).field("unit", near.orElse("one that GET /api/v1/units lists")));
    }

    private static Map<String, String> values(House house, Kind kind, Map<String, String> fields) {
        // Where the number may go nobody needs to give anything.
        Set<String> filled = house.organisation().routes().values().stream().filter(route -> route.kind().equals(kind.key())).map(Route::into).collect(Collectors.toSet());
        return switch (new FieldValues(kind, key -> Optional.ofNullable(house.codebooks().get(key))).read(Requests.fields(fields, null), filled)) {
            case FieldValues.Reading.Faulty faulty -> throw Refusals.problem(new Refusal.FieldFaulty(kind.key(), faulty.fault()));
            case FieldValues.Reading.Understood understood -> understood.values();
        };
    }

    /** The rules that are looked at for a record whose fields may be known in part. */
    static Routing.Found why(House house, Kind kind, Unit unit, Map<String, String> fields) {
        var values = new FieldValues(kind, key -> Optional.ofNullable(house.codebooks().get(key)));
        var known = new TreeMap<String, String>();
        Requests.fields(fields, null).forEach((name, text) -> {
            KindField field = kind.field(name).orElseThrow(() -> Refusals.problem(new Refusal.FieldFaulty(kind.key(), new FieldFault(name, FieldFault.Kind.NOT_A_FIELD, text, NearestName.to(name, kind.fields().stream().map(KindField::name).toList()), kind.fields().stream().map(KindField::name).toList()))));
            known.put(name, values.alone(field, text).orElseThrow(() -> new Problem(Type.FIELD_FAULTY, "‘" + text + "’ is not a value of the field ‘" + name + "’ of ‘" + kind.key() + "’.").field("field", "a " + field.type().word() + " that the kind takes")));
        });
        return Routing.find(house.organisation(), kind.key(), unit.key(), known);
    }

    private static Problem none(House house, Kind kind, Unit unit, Routing.Found found) {
        var where = new Where(Optional.empty(), Optional.of(kind.key()), Optional.of(unit.key()));
        List<String> defines = house.accounts().values().stream().filter(account -> account.sort() == Account.Sort.PERSON && house.authority().may(account, Right.DEFINE, where)).map(Account::name).sorted().toList();
        String looked = found.steps().stream().map(step -> step.unit() + (step.tried().isEmpty() ? " (no rule)" : step.tried().stream().map(tried -> "the condition " + tried.route().when() + " does not hold").collect(Collectors.joining(", ", " (", ")")))).collect(Collectors.joining(", then "));
        return new Problem(Type.NO_ROUTE, "No rule says which series numbers a record of the kind ‘" + kind.key() + "’ in the unit ‘" + unit.key() + "’. Looked at " + looked + "." + (defines.isEmpty() ? "" : " A route can be added by " + String.join(", ", defines) + "."))
                .field("kind", "a route for " + kind.key() + " at " + String.join(" or ", house.organisation().upwards(unit.key()))).with("kind", kind.key()).with("unit", unit.key()).with("addedBy", defines);
    }
}
