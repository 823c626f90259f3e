package org.youngtally.core.organisation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;

/** Finds the series of a record: the nearest unit wins; within it a rule with a condition before one without. */
public final class Routing {
    private Routing() {}

    /** What became of a rule. */
    public enum Verdict {
        CHOSEN,
        CONDITION_FAILS,
        NOT_REACHED
    }

    /**
     * A rule that was looked at.
     *
     * @param fails the field whose test fails, where one does
     */
    public record Tried(Route route, Verdict verdict, Optional<String> fails) {}

    /** A unit on the way up, and its rules for the kind; none where it has none. */
    public record Step(String unit, List<Tried> tried) {}

    /** @param chosen absent where no rule serves the record */
    public record Found(Optional<Route> chosen, List<Step> steps) {}

    /** @param values of the record's fields, in the form in which records keep them */
    public static Found find(Organisation organisation, String kind, String unit, Map<String, String> values) {
        Optional<Route> chosen = Optional.empty();
        var steps = new ArrayList<Step>();
        for (String at : organisation.upwards(unit)) {
            var tried = new ArrayList<Tried>();
            for (Route route : organisation.routesAt(kind, at)) {
                Optional<String> fails = route.when().fails(values);
                Verdict verdict = chosen.isPresent()
                        ? Verdict.NOT_REACHED
                        : fails.isPresent() ? Verdict.CONDITION_FAILS : Verdict.CHOSEN;
                if (verdict == Verdict.CHOSEN) chosen = Optional.of(route);
                tried.add(new Tried(route, verdict, verdict == Verdict.CONDITION_FAILS ? fails : Optional.empty()));
            }
            steps.add(new Step(at, List.copyOf(tried)));
        }
        return new Found(chosen, List.copyOf(steps));
    }

    /** What the record gives for the fields of the series that numbers it, the unit's code among them. */
    public static Map<String, String> given(Series series, Unit unit, Map<String, String> values) {
        var given = new TreeMap<String, String>();
        for (FieldRule rule : series.fields()) {
            if (rule.name().equals(Particulars.UNIT)) given.put(rule.name(), unit.code());
            else if (values.containsKey(rule.name())) given.put(rule.name(), values.get(rule.name()));
        }
        return given;
    }
}
